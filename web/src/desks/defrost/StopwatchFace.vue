<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { steadyNow } from '@/desks/defrost/useStopwatch'
import { minutes } from '@/shared/model/staging'

/** Ticks by itself, so that nothing else is drawn anew with it: somebody may be typing. */
/** stands: seconds to show while it does not run. */
const props = defineProps<{ started: number | null; stands: number }>()
const TICK = 100
const elapsed = ref(0)
let timer = 0

const tick = () =>
  (elapsed.value = props.started === null ? props.stands : Math.max(steadyNow() - props.started, 0))
onMounted(() => {
  tick()
  timer = window.setInterval(tick, TICK)
  document.addEventListener('visibilitychange', tick)
})
onBeforeUnmount(() => {
  window.clearInterval(timer)
  document.removeEventListener('visibilitychange', tick)
})
</script>

<template>
  <p class="mono time" data-testid="clock" role="timer">
    {{ minutes(elapsed) }}<small>.{{ Math.floor((elapsed * 10) % 10) }}</small>
  </p>
</template>

<style scoped>
.time {
  font-size: 52px;
  font-weight: 700;
  line-height: 1.15;
}

.time small {
  font-size: 30px;
}
</style>
