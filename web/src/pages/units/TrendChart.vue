<script setup lang="ts">
import { computed } from 'vue'
import type { UnitPage } from '@/shared/api/client'
import { day, shownIn, unitShown } from '@/shared/model/units'

/** One quantity over a unit's visits: what was read, and what the meter or the look leaves open. */
const props = defineProps<{ trend: UnitPage['trends'][number] }>()
const WIDTH = 300
const HEIGHT = 86
const EDGE = 12

const unit = computed(() => unitShown(props.trend.unit))
const shown = (value: number) => shownIn(props.trend.unit, value, props.trend.difference)

const span = computed(() => {
  const low = Math.min(...props.trend.points.map((one) => one.low))
  const high = Math.max(...props.trend.points.map((one) => one.high))
  const air = Math.max((high - low) * 0.15, 0.5)
  return { low: low - air, high: high + air }
})
const days = computed(() => props.trend.points.map((one) => Date.parse(one.on)))
const x = (i: number) => {
  const [first, last] = [days.value[0] ?? 0, days.value.at(-1) ?? 0]
  const part = last > first ? ((days.value[i] ?? 0) - first) / (last - first) : 0.5
  return EDGE + part * (WIDTH - EDGE * 2)
}
const y = (value: number) => HEIGHT - ((value - span.value.low) / (span.value.high - span.value.low)) * HEIGHT
const words = (point: UnitPage['trends'][number]['points'][number]) =>
  point.value === null
    ? `${shown(point.low)} to ${shown(point.high)} ${unit.value}`
    : `${shown(point.value)} ${unit.value} (${shown(point.low)} to ${shown(point.high)})`
</script>

<template>
  <figure :data-testid="`trend-${trend.id}`">
    <figcaption>{{ trend.title }}</figcaption>
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" aria-hidden="true">
      <line x1="0" :x2="WIDTH" :y1="HEIGHT - 1" :y2="HEIGHT - 1" class="floor" />
      <g v-for="(point, i) in trend.points" :key="point.on + i">
        <rect
          :x="x(i) - 5"
          :y="y(point.high)"
          width="10"
          :height="y(point.low) - y(point.high)"
          class="open"
        />
        <line
          v-if="point.value !== null"
          :x1="x(i) - 8"
          :x2="x(i) + 8"
          :y1="y(point.value)"
          :y2="y(point.value)"
          class="value"
        />
      </g>
    </svg>
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

svg {
  display: block;
  width: 100%;
  max-width: 380px;
}

.floor {
  stroke: var(--rule);
}

.open {
  fill: var(--note-soft);
  stroke: var(--rule-strong);
}

.value {
  stroke: var(--ink);
  stroke-width: 3;
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
