<script setup lang="ts">
import { computed, ref } from 'vue'
import type { DefrostSchools } from '@/shared/api/client'
import { covers, painted, readSpans, writeSpans } from '@/desks/defrost/spans'
import { useDrawnWidth } from '@/shared/ui/useDrawnWidth'

/** A run history as bars on a time ruler, to be painted on, and what each school makes of it below. */
type Lane = 'fed' | 'cold'
const props = defineProps<{
  minutes: number
  lanes: readonly { id: Lane; title: string; text: string }[]
  courses: DefrostSchools['courses']
  /** Minutes at which defrosts were seen. */
  starts: number[]
}>()
const emit = defineEmits<{ paint: [lane: Lane, text: string] }>()

const USUAL = 900
const LEFT = 170
const LANE = 44
const drawing = ref<SVGElement | null>(null)
const width = useDrawnWidth(drawing, USUAL)
const x = (minute: number) =>
  LEFT + (Math.min(minute, props.minutes) / props.minutes) * (width.value - LEFT - 12)
const rows = computed(() => props.lanes.map((lane) => ({ ...lane, spans: readSpans(lane.text) })))
const height = computed(() => 26 + (props.lanes.length + props.courses.length) * LANE + 8)
const ticks = computed(() => {
  const step = [5, 10, 15, 30, 60, 120, 240].find((one) => props.minutes / one <= 12) ?? 480
  return Array.from({ length: Math.floor(props.minutes / step) + 1 }, (_, i) => i * step)
})
const drag = ref<{ lane: Lane; from: number; to: number; on: boolean } | null>(null)
const spansOf = (lane: Lane) => rows.value.find((one) => one.id === lane)?.spans ?? []

function minuteAt(event: PointerEvent) {
  const box = (event.currentTarget as Element).closest('svg')!.getBoundingClientRect()
  const at = ((event.clientX - box.left) / box.width) * width.value
  return Math.round(Math.min(Math.max((at - LEFT) / (width.value - LEFT - 12), 0), 1) * props.minutes)
}
function down(lane: Lane, event: PointerEvent) {
  const at = minuteAt(event)
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  drag.value = { lane, from: at, to: at, on: !covers(spansOf(lane), at) }
}
function move(event: PointerEvent) {
  if (drag.value) drag.value = { ...drag.value, to: minuteAt(event) }
}
function up() {
  const now = drag.value
  drag.value = null
  if (!now) return
  const [from, to] = [Math.min(now.from, now.to), Math.max(now.from, now.to)]
  emit('paint', now.lane, writeSpans(painted(spansOf(now.lane), from, to, now.on, props.minutes)))
}

/** Each defrost of a school, from its start to its end or to the end of the ruler. */
const bars = (course: DefrostSchools['courses'][number]) =>
  course.starts.map((start, i) => ({ start, end: course.ends[i] ?? props.minutes }))
</script>

<template>
  <div class="scroll" tabindex="0" role="region" :aria-label="$t('SchoolsRuler.rulerScrollsSideways')">
    <svg
      ref="drawing"
      :viewBox="`0 0 ${width} ${height}`"
      :style="{ height: `${height}px` }"
      class="ruler"
      data-testid="ruler"
    >
      <g v-for="tick in ticks" :key="tick">
        <line :x1="x(tick)" y1="22" :x2="x(tick)" :y2="height - 4" class="grid" />
        <text :x="x(tick)" y="15" text-anchor="middle" class="small">{{ tick }}</text>
      </g>
      <g v-for="(lane, i) in rows" :key="lane.id">
        <text :x="LEFT - 10" :y="26 + i * LANE + 27" text-anchor="end">{{ lane.title }}</text>
        <rect
          :x="LEFT"
          :y="26 + i * LANE + 3"
          :width="width - LEFT - 12"
          :height="LANE - 6"
          class="lane"
          :data-testid="`paint-${lane.id}`"
          @pointerdown="down(lane.id, $event)"
          @pointermove="move"
          @pointerup="up"
          @pointercancel="drag = null"
        />
        <rect
          v-for="(span, n) in lane.spans"
          :key="n"
          :x="x(span[0])"
          :y="26 + i * LANE + 8"
          :width="Math.max(x(span[1]) - x(span[0]), 0)"
          :height="LANE - 16"
          :class="['span', lane.id]"
        />
        <rect
          v-if="drag?.lane === lane.id"
          :x="x(Math.min(drag.from, drag.to))"
          :y="26 + i * LANE + 8"
          :width="Math.abs(x(drag.to) - x(drag.from))"
          :height="LANE - 16"
          class="dragged"
        />
      </g>
      <g v-for="(course, i) in courses" :key="course.school" :data-testid="`course-${course.school}`">
        <text
          :x="LEFT - 10"
          :y="26 + (lanes.length + i) * LANE + 27"
          text-anchor="end"
          :class="{ own: course.own }"
        >
          {{ course.fits === true ? '= ' : course.fits === false ? '≠ ' : '' }}{{ course.title }}
        </text>
        <line
          :x1="LEFT"
          :y1="26 + (lanes.length + i) * LANE + 22"
          :x2="width - 12"
          :y2="26 + (lanes.length + i) * LANE + 22"
          class="grid"
        />
        <rect
          v-for="bar in bars(course)"
          :key="bar.start"
          :x="x(bar.start)"
          :y="26 + (lanes.length + i) * LANE + 10"
          :width="Math.max(x(bar.end) - x(bar.start), 3)"
          :height="LANE - 20"
          class="defrost"
        />
        <text
          v-if="course.starts[0] !== undefined"
          :x="x(course.starts[0]) - 5"
          :y="26 + (lanes.length + i) * LANE + 28"
          text-anchor="end"
          class="first mono"
        >
          {{ Math.round(course.starts[0] * 10) / 10 }}
        </text>
        <text v-else :x="LEFT + 8" :y="26 + (lanes.length + i) * LANE + 28" class="small">
          {{ $t('SchoolsRuler.neverHere') }}
        </text>
      </g>
      <line
        v-for="at in starts"
        :key="`seen${at}`"
        :x1="x(at)"
        y1="22"
        :x2="x(at)"
        :y2="height - 4"
        class="seen"
      />
    </svg>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

.ruler {
  display: block;
  width: 100%;
  min-width: 760px;
  border: 1px solid var(--rule-strong);
  background: var(--panel);
  touch-action: pan-x;
}

text {
  fill: var(--ink);
  font-family: var(--font-sans);
  font-size: 14px;
}

text.own {
  font-weight: 700;
}

.small {
  fill: var(--ink-soft);
  font-size: 13px;
}

.grid {
  stroke: var(--rule);
}

.lane {
  fill: var(--paper);
  stroke: var(--rule);
  cursor: crosshair;
}

.span {
  pointer-events: none;
  fill: var(--live);
}

.span.cold {
  fill: var(--home);
}

.dragged {
  pointer-events: none;
  fill: none;
  stroke: var(--focus);
  stroke-width: 3;
}

.defrost {
  fill: var(--between);
}

.first {
  font-size: 15px;
  font-weight: 700;
}

.seen {
  stroke: var(--alarm);
  stroke-width: 2;
  stroke-dasharray: 5 4;
}
</style>
