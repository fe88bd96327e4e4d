<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import UPlot from 'uplot'
import type { Staging } from '@/shared/api/client'
import { minutes } from '@/shared/model/staging'
import { degreeSign, inUnit } from '@/shared/model/units'
import { useChart } from '@/shared/ui/kit/useChart'

/** The room's course and the set point over time, and below them which stage runs when. A tap or the slider moves the
 *  time that is asked about; the list beside it has the same in words. */
const { t } = useI18n()
const props = defineProps<{ staging: Staging; at: number }>()
const emit = defineEmits<{ at: [seconds: number] }>()

const ROOM_HEIGHT = 170
/** Left of the plot, for degrees and letters; and right of it. */
const LEFT = 52
const RIGHT = 30
const TICK_SPACE = 70
const STEP_SECONDS = 30
const box = useTemplateRef<HTMLElement>('box')
const track = useTemplateRef<HTMLElement>('track')

const span = computed(() => props.staging.duration_seconds)
const percent = (seconds: number) => (seconds / span.value) * 100
const curve = (id: string) => props.staging.curves.find((one) => one.id === id)?.points ?? []
const outdoor = computed(() => curve('outdoor'))
/** The set point as a course with a step at each move. */
const set = computed(() => {
  const steps = props.staging.set_points
  return steps.flatMap(([at, value], i) => [
    [at ?? 0, value ?? 0],
    // A moment before the next, so that it is a step.
    [(steps[i + 1]?.[0] ?? span.value + STEP) - STEP, value ?? 0],
  ])
})
const STEP = 0.001
const columns = (points: number[][]) => [
  points.map(([at]) => at ?? 0),
  points.map(([, degrees]) => inUnit(degrees ?? 0)),
]

useChart(box, ROOM_HEIGHT, ({ tone, axis }) => {
  const [room, wanted] = [columns(curve('room')), columns(set.value)]
  const values = [...room[1]!, ...wanted[1]!]
  const low = Math.floor(Math.min(...values)) - 1
  const high = Math.max(Math.ceil(Math.max(...values)) + 1, low + 4)
  const line = { spanGaps: true, points: { show: false } }
  return {
    data: UPlot.join([room, wanted] as UPlot.AlignedData[]),
    options: {
      legend: { show: false },
      cursor: { show: false },
      padding: [10, RIGHT, 0, 0],
      scales: { x: { time: false, range: [0, span.value] }, y: { range: [low, high] } },
      axes: [
        {
          ...axis,
          size: 28,
          space: TICK_SPACE,
          incrs: [60, 300, 600, 900, 1800, 3600, 7200, 14400],
          values: (_, all) => all.map(minutes),
        },
        { ...axis, size: LEFT, values: (_, all) => all.map((one) => `${one}°`) },
      ],
      series: [
        {},
        { ...line, stroke: tone('--home'), width: 3 },
        { ...line, stroke: tone('--ink'), width: 2, dash: [7, 4] },
      ],
    },
  }
})
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
  return ids.map((id) => {
    const bars = props.staging.stages.filter((one) => one.output === id)
    return { id, title: bars[0]?.title ?? id, bars }
  })
})

function tap(event: MouseEvent) {
  const on = track.value?.getBoundingClientRect()
  if (!on) return
  const share = Math.min(Math.max((event.clientX - on.left) / on.width, 0), 1)
  emit('at', Math.round(share * span.value))
}
const slid = (seconds: number | number[]) => emit('at', [seconds].flat()[0] ?? 0)
</script>

<template>
  <div
    class="chart"
    data-testid="staging-chart"
    :style="{ '--left': `${LEFT}px`, '--right': `${RIGHT}px` }"
    @click="tap"
  >
    <p class="legend">
      <span class="line room">{{ $t('StagingChart.room') }}</span>
      <span class="line set">{{ $t('StagingChart.setPoint') }}</span>
      <span v-if="outdoor.length" class="weather">{{ weather }}</span>
    </p>
    <div ref="box" class="plot" :style="{ minHeight: `${ROOM_HEIGHT}px` }" aria-hidden="true"></div>
    <div v-for="lane in lanes" :key="lane.id" class="lane">
      <b class="mono">{{ lane.title }}</b>
      <i
        v-for="bar in lane.bars"
        :key="bar.on_at"
        :style="{
          left: `${percent(bar.on_at)}%`,
          width: `max(2px, ${percent((bar.off_at ?? span) - bar.on_at)}%)`,
        }"
      ></i>
    </div>
    <div ref="track" class="track"><i :style="{ left: `${percent(at)}%` }"></i></div>
    <div class="time" @click.stop>
      <el-slider
        :model-value="at"
        :max="span"
        :step="STEP_SECONDS"
        :format-tooltip="minutes"
        :aria-label="$t('StagingChart.timeOfTheStagingRun')"
        :format-value-text="minutes"
        @input="slid"
      />
    </div>
  </div>
</template>

<style scoped>
.chart {
  position: relative;
  padding-bottom: 8px;
  border: 1px solid var(--rule-strong);
  background: var(--panel);
  cursor: col-resize;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  position: relative;
  z-index: 1;
  margin: 0;
  padding: 6px var(--right) 0 var(--left);
  background: var(--panel);
}

.plot {
  contain: inline-size;
}

.line {
  padding-left: 26px;
  font-weight: 650;
  background: linear-gradient(var(--home), var(--home)) left center / 20px 3px no-repeat;
}

.set {
  background: repeating-linear-gradient(90deg, var(--ink) 0 7px, transparent 7px 11px) left center / 20px 2px
    no-repeat;
}

.weather {
  margin-left: auto;
  color: var(--ink-soft);
}

.lane {
  position: relative;
  height: 30px;
  margin: 0 var(--right) 0 var(--left);
  background: linear-gradient(var(--rule), var(--rule)) left center / 100% 1px no-repeat;
}

.lane b {
  position: absolute;
  right: calc(100% + 8px);
  line-height: 30px;
}

.lane i {
  position: absolute;
  top: 5px;
  height: 20px;
  background: var(--live);
}

.track {
  position: absolute;
  inset: 6px var(--right) 8px var(--left);
  pointer-events: none;
}

.time {
  margin: 0 var(--right) 0 var(--left);
  cursor: default;
}

.track i {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  background: var(--focus);
}
</style>
