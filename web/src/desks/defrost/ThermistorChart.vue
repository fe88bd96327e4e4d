<script setup lang="ts">
import UPlot from 'uplot'
import { computed, useTemplateRef } from 'vue'
import type { ThermistorAnswer } from '@/shared/api/client'
import { degreeSign, inUnit, shownDegrees } from '@/shared/model/units'
import { useChart, type Look } from '@/shared/ui/kit/useChart'

/** A thermistor's table as a curve in the band of its tolerance, and what was measured of the sensor in it. */
const props = defineProps<{ answer: ThermistorAnswer }>()
const HEIGHT = 260
const box = useTemplateRef<HTMLElement>('box')

const table = computed(() => props.answer.table.points.map(([degrees, ohms]) => [degrees ?? 0, ohms ?? 1]))
const shown = computed(() => {
  const [low, high] = [table.value[0]?.[0] ?? 0, table.value.at(-1)?.[0] ?? 100]
  return props.answer.points.filter(
    (one) => one.ohms !== null && one.ohms > 0 && one.degrees_f >= low && one.degrees_f <= high,
  )
})
/** The table moved by so many °F, as a table of its own. */
const moved = (by: number) => [
  table.value.map(([degrees]) => inUnit(degrees! + by)),
  table.value.map(([, ohms]) => ohms!),
]
const kilohms = (ohms: number) => (ohms >= 1000 ? `${ohms / 1000}k` : `${ohms}`)

useChart(box, HEIGHT, ({ tone, font, axis }) => {
  const by = props.answer.table.tolerance_degrees_f
  const [low, high] = [table.value[0]!, table.value.at(-1)!]
  const line = { spanGaps: true, points: { show: false } }
  return {
    data: UPlot.join([by, -by, 0].map((one) => moved(one) as UPlot.AlignedData)),
    options: {
      legend: { show: false },
      cursor: { show: false },
      scales: {
        x: { time: false, range: [inUnit(low[0]!), inUnit(high[0]!)] },
        y: { distr: 3, log: 10, range: [high[1]! * 0.9, low[1]! * 1.1] },
      },
      axes: [
        { ...axis, size: 30, space: 44, values: (_, all) => all.map((one) => `${one}°`) },
        {
          ...axis,
          size: 58,
          splits: () => OHMS.filter((one) => one >= high[1]! && one <= low[1]!),
          values: (_, all) => all.map(kilohms),
        },
      ],
      series: [
        {},
        { ...line, stroke: 'transparent' },
        { ...line, stroke: 'transparent' },
        { ...line, stroke: tone('--ink'), width: 2 },
      ],
      bands: [{ series: [1, 2], fill: `color-mix(in srgb, ${tone('--agrees')} 40%, transparent)` }],
      hooks: { draw: [({ ctx, valToPos }) => measured(ctx, valToPos, { tone, font })] },
    },
  }
})
const OHMS = [1e3, 2e3, 5e3, 1e4, 2e4, 5e4, 1e5, 2e5]

/** Each measured pair: where it lies, and how far that is from what the sensor says. */
function measured(
  ctx: CanvasRenderingContext2D,
  at: UPlot['valToPos'],
  { tone, font }: Pick<Look, 'tone' | 'font'>,
) {
  const ratio = devicePixelRatio
  for (const point of shown.value) {
    const [x, y] = [at(inUnit(point.degrees_f), 'x', true), at(point.ohms!, 'y', true)]
    if (point.reads_degrees_f !== null) {
      ctx.fillStyle = tone('--alarm')
      ctx.fillRect(x, y - 1.5 * ratio, at(inUnit(point.reads_degrees_f), 'x', true) - x, 3 * ratio)
    }
    ctx.beginPath()
    ctx.arc(x, y, 6 * ratio, 0, 2 * Math.PI)
    ctx.fillStyle = tone('--alarm')
    ctx.fill()
    if (point.error_degrees_f === null) continue
    // Where the curve, which falls to the right, does not pass.
    const below = point.error_degrees_f > 0
    ctx.fillStyle = tone('--ink')
    ctx.font = font(700, ratio)
    ctx.textAlign = below ? 'right' : 'left'
    ctx.fillText(off(point.error_degrees_f), x + (below ? -10 : 10) * ratio, y + (below ? 20 : -12) * ratio)
  }
}
const off = (degrees: number) =>
  `${degrees > 0 ? '+' : ''}${inUnit(degrees, true).toFixed(1)} ${degreeSign()}`
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
    <div
      ref="box"
      class="chart"
      role="img"
      :style="{ minHeight: `${HEIGHT}px` }"
      :aria-label="$t('ThermistorChart.ohmsOverTemperature', { title: answer.table.title })"
    ></div>
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
  contain: inline-size;
  border: 1px solid var(--rule-strong);
  background: var(--panel);
}
</style>
