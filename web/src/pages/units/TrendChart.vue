<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { UnitPage } from '@/shared/api/client'
import { day, shownIn, unitShown } from '@/shared/model/units'
import { useChart } from '@/shared/ui/kit/useChart'

/** One quantity over a unit's visits: what was read, and what the meter or the look leaves open. */
const props = defineProps<{ trend: UnitPage['trends'][number] }>()
const HEIGHT = 110
const SECONDS_OF_A_DAY = 86_400
const box = useTemplateRef<HTMLElement>('box')

const unit = computed(() => unitShown(props.trend.unit))
const shown = (value: number) => shownIn(props.trend.unit, value, props.trend.difference)
const words = (point: UnitPage['trends'][number]['points'][number]) =>
  point.value === null
    ? `${shown(point.low)} to ${shown(point.high)} ${unit.value}`
    : `${shown(point.value)} ${unit.value} (${shown(point.low)} to ${shown(point.high)})`

useChart(box, HEIGHT, ({ tone, axis }) => {
  const { points } = props.trend
  const days = points.map((one) => Date.parse(one.on) / 1000)
  const least = Math.min(...points.map((one) => one.low))
  const most = Math.max(...points.map((one) => one.high))
  const air = Math.max((most - least) * 0.15, 0.5)
  const edge = Math.max(((days.at(-1) ?? 0) - (days[0] ?? 0)) * 0.12, SECONDS_OF_A_DAY)
  return {
    data: [days, points.map((one) => one.value)],
    options: {
      legend: { show: false },
      cursor: { show: false },
      padding: [8, 24, 0, 0],
      tzDate: (ts) => new Date(ts * 1000),
      scales: {
        x: { time: true, range: [(days[0] ?? 0) - edge, (days.at(-1) ?? 0) + edge] },
        y: { range: [least - air, most + air] },
      },
      axes: [
        {
          ...axis,
          size: 26,
          grid: { show: false },
          splits: () => [...new Set([days[0] ?? 0, days.at(-1) ?? 0])],
          values: (_, all) => all.map((one) => day(isoDay(one))),
        },
        { ...axis, size: 54, space: 24, values: (_, all) => all.map((one) => shown(one)) },
      ],
      series: [{}, { paths: () => null, points: { show: false } }],
      hooks: {
        draw: [
          ({ ctx, valToPos }) => {
            const ratio = devicePixelRatio
            points.forEach((point, i) => {
              const x = valToPos(days[i]!, 'x', true)
              const [top, bottom] = [point.high, point.low].map((one) => valToPos(one, 'y', true))
              ctx.fillStyle = tone('--note-soft')
              ctx.strokeStyle = tone('--rule-strong')
              ctx.fillRect(x - 5 * ratio, top!, 10 * ratio, bottom! - top!)
              ctx.strokeRect(x - 5 * ratio, top!, 10 * ratio, bottom! - top!)
              if (point.value === null) return
              ctx.fillStyle = tone('--ink')
              ctx.fillRect(
                x - 8 * ratio,
                valToPos(point.value, 'y', true) - 1.5 * ratio,
                16 * ratio,
                3 * ratio,
              )
            })
          },
        ],
      },
    },
  }
})
const isoDay = (seconds: number) => new Date(seconds * 1000).toISOString().slice(0, 10)
</script>

<template>
  <figure :data-testid="`trend-${trend.id}`">
    <figcaption>{{ trend.title }}</figcaption>
    <div ref="box" class="plot" :style="{ height: `${HEIGHT}px` }" aria-hidden="true"></div>
    <ol>
      <li v-for="(point, i) in trend.points" :key="point.on + i">
        {{ day(point.on) }} <b class="mono">{{ words(point) }}</b>
      </li>
    </ol>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}

.plot {
  contain: inline-size;
  max-width: 380px;
  overflow: hidden;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
  color: var(--ink-soft);
  font-size: 15px;
}

b {
  color: var(--ink);
}
</style>
