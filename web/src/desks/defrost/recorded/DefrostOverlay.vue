<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Judgement } from '@/desks/defrost/recorded/api'
import { degreeSign, inUnit } from '@/shared/model/units'
import { useDrawnWidth } from '@/shared/ui/useDrawnWidth'

/** All defrosts laid over each other from their start: what is alike lies on itself, what is not stands out. */
const props = defineProps<{ judgement: Judgement; chosen: number | null }>()
const USUAL = 640
const HEIGHT = 240
const LEFT = 48
const FOOT = 26
const MINUTES = 15
const drawing = ref<SVGElement | null>(null)
const width = useDrawnWidth(drawing, USUAL)

const withPath = computed(() => props.judgement.defrosts.filter((one) => one.path.length > 2))
const all = computed(() =>
  withPath.value.flatMap((one) =>
    one.path.filter(([at]) => (at ?? 0) <= MINUTES * 60).map(([, degrees]) => degrees ?? 0),
  ),
)
const low = computed(() => Math.floor(Math.min(...all.value, props.judgement.starts_degrees_f) / 10) * 10)
const high = computed(() => Math.ceil((Math.max(...all.value, props.judgement.ends_degrees_f) + 8) / 10) * 10)
const x = (seconds: number) => LEFT + (seconds / (MINUTES * 60)) * (width.value - LEFT - 8)
const y = (degrees: number) => 8 + ((high.value - degrees) / (high.value - low.value)) * (HEIGHT - FOOT - 12)
const line = (path: number[][]) =>
  path
    .filter(([at]) => (at ?? 0) <= MINUTES * 60)
    .map(([at, degrees], i) => `${i ? 'L' : 'M'}${x(at ?? 0).toFixed(1)} ${y(degrees ?? 0).toFixed(1)}`)
    .join('')
const ticks = computed(() => {
  const step = high.value - low.value > 120 ? 40 : 20
  const first = Math.ceil(low.value / step) * step
  return Array.from({ length: Math.floor((high.value - first) / step) + 1 }, (_, i) => first + i * step)
})
</script>

<template>
  <figure v-if="withPath.length" class="overlay" data-testid="defrost-overlay">
    <svg
      ref="drawing"
      :style="{ height: `${HEIGHT}px` }"
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      role="img"
      :aria-label="$t('DefrostOverlay.coilInDefrostsFromTheir', { withPath: withPath.length })"
    >
      <g v-for="tick in ticks" :key="tick">
        <line :x1="LEFT" :x2="width - 8" :y1="y(tick)" :y2="y(tick)" class="grid" />
        <text :x="LEFT - 6" :y="y(tick) + 5" text-anchor="end">{{ Math.round(inUnit(tick)) }}°</text>
      </g>
      <text
        v-for="minute in [0, 5, 10, 15]"
        :key="minute"
        :x="x(minute * 60)"
        :y="HEIGHT - 6"
        :text-anchor="minute === 15 ? 'end' : 'middle'"
      >
        {{ minute }}{{ minute === 15 ? $t('DefrostOverlay.min') : '' }}
      </text>
      <path
        v-for="one in withPath"
        :key="one.number"
        :d="line(one.path)"
        :class="['course', one.ended_by ?? 'unknown', { chosen: one.number === chosen }]"
      />
      <line
        :x1="LEFT"
        :x2="width - 8"
        :y1="y(judgement.ends_degrees_f)"
        :y2="y(judgement.ends_degrees_f)"
        class="point"
      />
      <text :x="width - 10" :y="y(judgement.ends_degrees_f) - 5" text-anchor="end" class="point-name">
        {{
          $t('DefrostOverlay.shouldEnd', {
            ends_degrees_f: Math.round(inUnit(judgement.ends_degrees_f)),
            degreeSign: degreeSign(),
          })
        }}
      </text>
    </svg>
    <figcaption>{{ $t('DefrostOverlay.theCoilInEveryDefrost') }}</figcaption>
  </figure>
</template>

<style scoped>
.overlay {
  margin: 0;
}

svg {
  width: 100%;
  max-width: 760px;
}

text {
  fill: var(--ink);
  font-size: 14px;
}

.grid {
  stroke: var(--rule);
}

.course {
  fill: none;
  stroke: var(--agrees);
  stroke-width: 1.2;
  opacity: 0.5;
}

.course.time {
  stroke: var(--alarm);
}

.course.unknown,
.course.call {
  stroke: var(--between);
}

.course.chosen {
  stroke: var(--ink);
  stroke-width: 3;
  opacity: 1;
}

.point {
  stroke: var(--ink);
  stroke-dasharray: 6 4;
}

.point-name {
  font-weight: 650;
}

figcaption {
  color: var(--ink-soft);
  font-size: 14px;
}
</style>
