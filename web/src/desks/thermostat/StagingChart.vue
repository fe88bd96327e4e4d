<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Staging } from '@/shared/api/client'
import { minutes } from '@/shared/model/staging'
import { degreeSign, inUnit, shownDegrees } from '@/shared/model/units'
import { useDrawnWidth } from '@/shared/ui/useDrawnWidth'

const { t } = useI18n()
const props = defineProps<{ staging: Staging; at: number }>()
const emit = defineEmits<{ at: [seconds: number] }>()

const USUAL = 640
const LEFT = 52
const LABEL = 66
const drawing = ref<SVGElement | null>(null)
const width = useDrawnWidth(drawing, USUAL)
const ROOM = 150
const LANE = 30
const span = computed(() => props.staging.duration_seconds)
const x = (seconds: number) => LEFT + (seconds / span.value) * (width.value - LEFT - 10)

const room = computed(() => props.staging.curves.find((one) => one.id === 'room')?.points ?? [])
const outdoor = computed(() => props.staging.curves.find((one) => one.id === 'outdoor')?.points ?? [])
/** The set point as a course with a step at each move. */
const set = computed(() => {
  const steps = props.staging.set_points
  return steps.flatMap(([at, value], i) => [
    [at ?? 0, value ?? 0],
    [steps[i + 1]?.[0] ?? span.value, value ?? 0],
  ])
})
const scale = computed(() => {
  const values = [...room.value, ...set.value].map(([, value]) => value ?? 0)
  const low = Math.floor(Math.min(...values)) - 1
  return { low, high: Math.max(Math.ceil(Math.max(...values)) + 1, low + 4) }
})
const y = (value: number) =>
  14 + ((scale.value.high - value) / (scale.value.high - scale.value.low)) * (ROOM - 24)
const line = (points: number[][]) =>
  points
    .map(([at, value], i) => `${i ? 'L' : 'M'}${x(at ?? 0).toFixed(1)} ${y(value ?? 0).toFixed(1)}`)
    .join('')
/** "41 °F outside", or from where to where. */
const weather = computed(() => {
  const [first, last] = [outdoor.value[0], outdoor.value.at(-1)].map((point) =>
    Math.round(inUnit(point?.[1] ?? 0)),
  )
  const unit = degreeSign()
  return first === last
    ? t('StagingChart.outside', { first, unit })
    : t('StagingChart.outsideFromTo', { first, last, unit })
})
const lanes = computed(() => {
  const ids = [...new Set(props.staging.stages.map((one) => one.output))]
  return ids.map((id, i) => ({
    id,
    title: props.staging.stages.find((one) => one.output === id)?.title ?? id,
    y: ROOM + i * LANE,
    bars: props.staging.stages.filter((one) => one.output === id),
  }))
})
const height = computed(() => ROOM + Math.max(lanes.value.length, 1) * LANE + 26)
const ticks = computed(() => {
  const most = (width.value - LEFT) / LABEL
  const step = [60, 300, 600, 900, 1800, 3600, 7200].find((one) => span.value / one <= most) ?? 14400
  return Array.from({ length: Math.floor(span.value / step) + 1 }, (_, i) => i * step)
})

function tap(event: MouseEvent) {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  const at = ((event.clientX - box.left) / box.width) * width.value
  emit('at', Math.round(Math.min(Math.max((at - LEFT) / (width.value - LEFT - 10), 0), 1) * span.value))
}
function key(event: KeyboardEvent) {
  const by = { ArrowRight: 60, ArrowLeft: -60, PageDown: 600, PageUp: -600 }[event.key]
  if (!by) return
  event.preventDefault()
  emit('at', Math.min(Math.max(props.at + by, 0), span.value))
}
</script>

<template>
  <svg
    ref="drawing"
    class="chart"
    :viewBox="`0 0 ${width} ${height}`"
    :style="{ height: `${height}px` }"
    role="slider"
    tabindex="0"
    :aria-label="$t('StagingChart.timeOfTheStagingRun')"
    :aria-valuemin="0"
    :aria-valuemax="span"
    :aria-valuenow="at"
    :aria-valuetext="minutes(at)"
    data-testid="staging-chart"
    @click="tap"
    @keydown="key"
  >
    <g v-for="tick in ticks" :key="tick">
      <line :x1="x(tick)" y1="10" :x2="x(tick)" :y2="height - 20" class="grid" />
      <text :x="x(tick)" :y="height - 5" :text-anchor="tick === span ? 'end' : 'middle'">
        {{ minutes(tick) }}
      </text>
    </g>
    <text :x="LEFT - 8" :y="y(scale.high) + 5" text-anchor="end">{{ shownDegrees(scale.high) }}°</text>
    <text :x="LEFT - 8" :y="y(scale.low) + 2" text-anchor="end">{{ shownDegrees(scale.low) }}°</text>
    <path :d="line(set)" class="set" />
    <path :d="line(room)" class="room" />
    <text
      v-if="room.length"
      :x="width - 12"
      :y="y(room[room.length - 1]?.[1] ?? 0) - 6"
      text-anchor="end"
      class="name"
    >
      {{ $t('StagingChart.room') }}
    </text>
    <text v-if="set.length" :x="LEFT + 6" :y="y(set[0]?.[1] ?? 0) - 6" class="name">
      {{ $t('StagingChart.setPoint') }}
    </text>
    <text v-if="outdoor.length" :x="width - 12" :y="ROOM - 10" text-anchor="end">
      {{ weather }}
    </text>
    <g v-for="lane in lanes" :key="lane.id">
      <text :x="LEFT - 8" :y="lane.y + 19" text-anchor="end" class="letter">{{ lane.title }}</text>
      <line :x1="LEFT" :y1="lane.y + 15" :x2="width - 10" :y2="lane.y + 15" class="grid" />
      <rect
        v-for="bar in lane.bars"
        :key="bar.on_at"
        :x="x(bar.on_at)"
        :y="lane.y + 5"
        :width="Math.max(x(bar.off_at ?? span) - x(bar.on_at), 2)"
        height="20"
        class="bar"
      />
    </g>
    <line :x1="x(at)" y1="6" :x2="x(at)" :y2="height - 20" class="cursor" />
  </svg>
</template>

<style scoped>
.chart {
  display: block;
  width: 100%;
  border: 1px solid var(--rule-strong);
  background: var(--panel);
  cursor: col-resize;
}

text {
  fill: var(--ink-soft);
  font-family: var(--font-sans);
  font-size: 13px;
}

.name,
.letter {
  fill: var(--ink);
  font-weight: 650;
}

.letter {
  font-family: var(--font-mono);
  font-size: 15px;
}

.grid {
  stroke: var(--rule);
}

.set {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 7 4;
}

.room {
  fill: none;
  stroke: var(--home);
  stroke-width: 3;
}

.bar {
  fill: var(--live);
}

.cursor {
  stroke: var(--focus);
  stroke-width: 2;
}
</style>
