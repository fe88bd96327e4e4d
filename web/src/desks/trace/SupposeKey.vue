<script setup lang="ts">
import { computed } from 'vue'
import type { Trace } from '@/shared/api/client'
import type { TraceState } from '@/desks/trace/traceState'

/** The switch in hand, supposed the other way or as at rest again. */
const props = defineProps<{ trace: Trace; state: TraceState }>()
const emit = defineEmits<{ suppose: [code: string, position: 'open' | 'closed' | null] }>()

const movable = computed(() => {
  const code = props.state.part
  if (!code || !props.trace.movable.includes(code)) return null
  const bead = props.trace.strings.flatMap((one) => one.beads).find((one) => one.id === code)
  return { code, closed: bead?.closed ?? true }
})
</script>

<template>
  <div v-if="movable" class="suppose">
    <el-button v-if="state.supposed[movable.code]" class="key" @click="emit('suppose', movable.code, null)">
      {{ $t('SupposeKey.asAtRest', { code: movable.code }) }}
    </el-button>
    <el-button
      v-else
      class="key"
      data-testid="suppose"
      @click="emit('suppose', movable.code, movable.closed ? 'open' : 'closed')"
    >
      {{
        $t('SupposeKey.suppose', {
          code: movable.code,
          closed: movable.closed ? $t('SupposeKey.open') : $t('SupposeKey.closed'),
        })
      }}
    </el-button>
  </div>
</template>

<style scoped>
.suppose .key {
  width: 100%;
}
</style>
