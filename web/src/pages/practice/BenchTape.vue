<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { DrillTry, UnitPlaces } from '@/pages/practice/api'
import { benchClock, type Probes } from '@/pages/practice/bench'
import { useBenchKeys } from '@/pages/practice/useBenchKeys'
import { lanesOf, lengthOf, markOf, probesOf, ticks, type TapeLane } from '@/pages/practice/benchTape'

/** The bench's minutes from left to right: what the thermostat was set to, where one stood, what was off, and each act.
 *  It stands at one of them; where its probes were shows on the panel. */
const props = defineProps<{ drillTry: DrillTry; unit: UnitPlaces }>()
const emit = defineEmits<{ at: [probes: Probes | null] }>()
const { t } = useI18n()

const length = computed(() => lengthOf(props.drillTry.standing?.minutes ?? 0))
const lanes = computed(() => lanesOf(props.drillTry, props.unit))
const log = computed(() => props.drillTry.log)
const number = ref(log.value.length)
const entry = computed(() => log.value[number.value - 1])
watch(
  () => log.value.length,
  (now) => (number.value = now),
)
const share = (minutes: number) => `${(100 * minutes) / length.value}%`
function nameOf(lane: TapeLane) {
  if (lane.place) return t('BenchTape.off', { place: lane.place })
  return lane.id === 'call' ? t('BenchTape.call') : t('BenchTape.place')
}
const SIGNS = { stopped: '≠', reading: '●', look: '○', hand: '▲' }

function go(to: number) {
  number.value = Math.min(Math.max(to, 1), log.value.length)
  emit('at', probesOf(entry.value))
}
useBenchKeys({ '[': () => go(number.value - 1), ']': () => go(number.value + 1) })
/** The act that is nearest to where the lanes were tapped. */
function tapped(event: MouseEvent) {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const minutes = (length.value * (event.clientX - box.left)) / box.width
  const far = log.value.map((one) => Math.abs((one.minutes ?? 0) - minutes))
  go(far.lastIndexOf(Math.min(...far)) + 1)
}
</script>

<template>
  <section class="tape" :aria-label="$t('BenchTape.tape')" data-testid="bench-tape">
    <div class="lanes" aria-hidden="true">
      <template v-for="lane in lanes" :key="lane.id">
        <span class="name">{{ nameOf(lane) }}</span>
        <div class="track" @click="tapped">
          <span
            v-for="one in lane.stretches"
            :key="one.from"
            :class="['stretch', lane.place ? 'off' : lane.id]"
            :style="{ left: share(one.from), width: share(one.to - one.from) }"
            >{{ lane.place ? '' : one.value }}</span
          >
        </div>
      </template>
      <span class="name">{{ $t('BenchTape.done') }}</span>
      <div class="track acts" @click="tapped">
        <span
          v-for="(one, i) in log"
          :key="i"
          :class="['mark', markOf(one), { chosen: i === number - 1 }]"
          :style="{ left: share(one.minutes ?? 0) }"
          >{{ SIGNS[markOf(one)] }}</span
        >
        <i class="here" :style="{ left: share(entry?.minutes ?? 0) }"></i>
      </div>
      <span></span>
      <div class="ruler mono">
        <span v-for="minute in ticks(length)" :key="minute" :style="{ left: share(minute) }">{{
          benchClock(minute)
        }}</span>
      </div>
    </div>
    <div v-if="entry" class="at">
      <el-button
        class="key"
        title="["
        :disabled="number === 1"
        :aria-label="$t('BenchTape.before')"
        data-testid="bench-tape-before"
        @click="go(number - 1)"
        >‹</el-button
      >
      <el-button
        class="key"
        title="]"
        :disabled="number === log.length"
        :aria-label="$t('BenchTape.after')"
        data-testid="bench-tape-after"
        @click="go(number + 1)"
        >›</el-button
      >
      <p role="status" data-testid="bench-tape-says">
        <span class="mono">{{ benchClock(entry.minutes ?? 0) }}</span> {{ entry.title }}
        <b>{{ entry.says }}</b>
      </p>
    </div>
  </section>
</template>

<style scoped>
.tape {
  padding: 8px 16px 0 0;
  border-top: 3px solid var(--ink);
}

.lanes {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 4px 8px;
  align-items: center;
}

.name {
  color: var(--ink-soft);
  font-size: 15px;
}

.track {
  position: relative;
  height: 28px;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
}

.stretch {
  position: absolute;
  inset-block: 2px;
  padding: 0 6px;
  overflow: hidden;
  border-right: 2px solid var(--panel);
  background: var(--note-soft);
  font-size: 14px;
  font-weight: 650;
  line-height: 23px;
  white-space: nowrap;
  text-overflow: ellipsis;
}

.off {
  inset-block: 12px;
  background: var(--dead);
}

.mark {
  position: absolute;
  top: 2px;
  color: var(--ink);
  font-size: 15px;
  transform: translateX(-50%);
}

.stopped {
  color: var(--alarm);
  font-weight: 800;
}

.chosen {
  font-size: 22px;
  line-height: 1;
}

.here {
  position: absolute;
  inset-block: 0 -6px;
  border-left: 2px solid var(--focus);
}

.ruler {
  position: relative;
  height: 18px;
  color: var(--ink-soft);
  font-size: 13px;
}

.ruler span {
  position: absolute;
  transform: translateX(-50%);
}

.ruler span:first-child {
  transform: none;
}

.at {
  display: flex;
  gap: 8px;
  align-items: center;
  padding-top: 4px;
}

.at .el-button {
  min-width: var(--target);
  margin: 0;
}

@media (max-width: 640px) {
  .lanes {
    grid-template-columns: 84px minmax(0, 1fr);
  }
}
</style>
