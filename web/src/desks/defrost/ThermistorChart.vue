<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ThermistorAnswer } from '@/shared/api/client'
import { degreeSign, inUnit, shownDegrees } from '@/shared/model/units'
import { useDrawnWidth } from '@/shared/ui/useDrawnWidth'

const props = defineProps<{ answer: ThermistorAnswer }>()
const USUAL = 560
const HEIGHT = 260
const LEFT = 58
const FOOT = 26
const LABEL = 44
const drawing = ref<SVGElement | null>(null)
const width = useDrawnWidth(drawing, USUAL)

const table = computed(() => props.answer.table.points)
const low = computed(() => table.value[0]?.[0] ?? 0)
const high = computed(() => table.value[table.value.length - 1]?.[0] ?? 100)
const top = computed(() => Math.log(table.value[0]?.[1] ?? 1e5))
const bottom = computed(() => Math.log(table.value[table.value.length - 1]?.[1] ?? 1e3))
const x = (degrees: number) =>
  LEFT + ((degrees - low.value) / (high.value - low.value)) * (width.value - LEFT - 14)
const y = (ohms: number) =>
  10 + ((top.value - Math.log(ohms)) / (top.value - bottom.value)) * (HEIGHT - FOOT - 20)
const line = (shift: number) =>
  table.value
    .map(
      ([degrees, ohms], i) =>
        `${i ? 'L' : 'M'}${x((degrees ?? 0) + shift).toFixed(1)} ${y(ohms ?? 1).toFixed(1)}`,
    )
    .join('')
/** The band in which the table's tolerance lies, out and back. */
const band = computed(() => {
  const by = props.answer.table.tolerance_degrees_f
  const back = [...table.value]
    .reverse()
    .map(([degrees, ohms]) => `L${x((degrees ?? 0) - by).toFixed(1)} ${y(ohms ?? 1).toFixed(1)}`)
  return `${line(by)}${back.join('')}Z`
})
const shown = computed(() =>
  props.answer.points.filter(
    (one) => one.ohms !== null && one.ohms > 0 && one.degrees_f >= low.value && one.degrees_f <= high.value,
  ),
)
const ohmTicks = computed(() =>
  [1e3, 2e3, 5e3, 1e4, 2e4, 5e4, 1e5, 2e5].filter(
    (one) => Math.log(one) <= top.value && Math.log(one) >= bottom.value,
  ),
)
const degreeTicks = computed(() => {
  const step = ((high.value - low.value) / 20) * LABEL <= width.value - LEFT ? 20 : 40
  const first = Math.ceil(low.value / step) * step
  return Array.from({ length: Math.floor((high.value - first) / step) + 1 }, (_, i) => first + i * step)
})
/** The same as numbers, for who does not see the curve or wants one of them: of the table, with what was read there. */
const numbers = computed(() =>
  table.value.map(([degrees, ohms]) => ({
    degrees: `${shownDegrees(degrees ?? 0)} ${degreeSign()}`,
    ohms: `${(ohms ?? 0).toLocaleString('en-US')} Ω`,
  })),
)
</script>

<template>
  <figure class="thermistor">
    <svg
      ref="drawing"
      class="chart"
      :style="{ height: `${HEIGHT}px` }"
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      role="img"
      :aria-label="$t('ThermistorChart.ohmsOverTemperature', { title: answer.table.title })"
    >
      <g v-for="tick in ohmTicks" :key="tick">
        <line :x1="LEFT" :y1="y(tick)" :x2="width - 14" :y2="y(tick)" class="grid" />
        <text :x="LEFT - 6" :y="y(tick) + 5" text-anchor="end">
          {{ tick >= 1000 ? `${tick / 1000}k` : tick }}
        </text>
      </g>
      <g v-for="tick in degreeTicks" :key="`d${tick}`">
        <line :x1="x(tick)" y1="10" :x2="x(tick)" :y2="HEIGHT - FOOT" class="grid" />
        <text :x="x(tick)" :y="HEIGHT - 8" text-anchor="middle">{{ shownDegrees(tick) }}°</text>
      </g>
      <path :d="band" class="band" />
      <path :d="line(0)" class="curve" />
      <g v-for="(point, i) in shown" :key="i">
        <line
          v-if="point.reads_degrees_f !== null"
          :x1="x(point.degrees_f)"
          :y1="y(point.ohms!)"
          :x2="x(point.reads_degrees_f)"
          :y2="y(point.ohms!)"
          class="error"
        />
        <circle :cx="x(point.degrees_f)" :cy="y(point.ohms!)" r="6" class="point" />
        <text
          v-if="point.error_degrees_f !== null"
          :x="x(point.degrees_f) + 10"
          :y="y(point.ohms!) - 8"
          class="mono name"
        >
          {{ point.error_degrees_f > 0 ? '+' : '' }}{{ inUnit(point.error_degrees_f, true).toFixed(1) }}
          {{ degreeSign() }}
        </text>
      </g>
    </svg>
    <el-collapse>
      <el-collapse-item :title="$t('ThermistorChart.asNumbers')" data-testid="as-numbers">
        <el-table :data="numbers" max-height="320" size="small">
          <el-table-column prop="degrees" :label="$t('ThermistorChart.temperature')" align="right" />
          <el-table-column prop="ohms" :label="$t('ThermistorChart.resistance')" align="right" />
        </el-table>
      </el-collapse-item>
    </el-collapse>
  </figure>
</template>

<style scoped>
.thermistor {
  margin: 0;
}

.chart {
  display: block;
  width: 100%;
  border: 1px solid var(--rule-strong);
  background: var(--panel);
}

text {
  fill: var(--ink-soft);
  font-family: var(--font-sans);
  font-size: 13px;
}

.name {
  fill: var(--ink);
  font-weight: 700;
}

.grid {
  stroke: var(--rule);
}

.band {
  fill: var(--agrees-soft);
}

.curve {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.error {
  stroke: var(--alarm);
  stroke-width: 3;
}

.point {
  fill: var(--alarm);
  stroke: var(--panel);
  stroke-width: 2;
}
</style>
