<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { clock, levelAt, shown, valueAt, type Curve, type Signal, type Timeline } from '@/desks/trace/tape'
import { shownIn, unitShown } from '@/shared/model/units'

const props = defineProps<{
  timeline: Timeline
  signals: string[]
  curves: string[]
  cursor: number
  pins: number[]
  asked: string | null
}>()
const emit = defineEmits<{
  go: [seconds: number]
  window: [from: number, to: number]
  ask: [signal: string]
}>()

const LANE = 30
const CURVE = 66
const NAMES = 150
const RULER = 26
const LEAST_SPAN = 20

const room = ref<HTMLElement | null>(null)
const width = ref(900)
const from = computed(() => props.timeline.from_seconds)
const to = computed(() => props.timeline.to_seconds)
const whole = computed(() => props.timeline.duration_seconds)
const scale = computed(() => Math.max(width.value - NAMES - 8, 100) / (to.value - from.value))
const x = (seconds: number) =>
  NAMES + (Math.min(Math.max(seconds, from.value), to.value) - from.value) * scale.value
const inside = (seconds: number) => seconds >= from.value && seconds <= to.value

const lanes = computed(() =>
  props.signals.flatMap((id) => props.timeline.signals.find((one) => one.id === id) ?? []),
)
const courses = computed(() =>
  props.curves.flatMap((id) => props.timeline.curves.find((one) => one.id === id) ?? []),
)
const top = (i: number) => RULER + i * LANE
const courseTop = (i: number) => RULER + lanes.value.length * LANE + i * CURVE
const height = computed(() => courseTop(courses.value.length) + 6)

/** Stretches between two steps: what a lane is made of. */
function stretches(signal: Signal) {
  return signal.steps.map(([at, value], i) => {
    const end = (signal.steps[i + 1]?.[0] as number | undefined) ?? to.value
    return { x: x(at as number), width: Math.max(x(end) - x(at as number), 0.6), value }
  })
}

/** A temperature is drawn as it is and read in the chosen unit. */
const reads = (curve: Curve, value: number) => shownIn(curve.unit, value).toFixed(0)

function path(curve: Curve): { d: string; low: number; high: number } {
  const values = curve.points.map(([, value]) => value ?? 0)
  const low = Math.min(...values)
  const high = Math.max(...values)
  const y = (value: number) => CURVE - 14 - ((value - low) / (high - low || 1)) * (CURVE - 26)
  const d = curve.points.map(
    ([at, value], i) => `${i ? 'L' : 'M'}${x(at ?? 0).toFixed(1)} ${y(value ?? 0).toFixed(1)}`,
  )
  return { d: d.join(''), low, high }
}

const ticks = computed(() => {
  const steps = [1, 5, 10, 30, 60, 300, 600, 1800, 3600, 7200, 14400]
  const step = steps.find((one) => one * scale.value >= 84) ?? 14400
  const first = Math.ceil(from.value / step) * step
  return Array.from({ length: Math.floor((to.value - first) / step) + 1 }, (_, i) => first + i * step)
})

const timeAt = (clientX: number) => {
  const left = room.value?.getBoundingClientRect().left ?? 0
  return from.value + (clientX - left - NAMES) / scale.value
}

/** Zooms about a time that stays where it is. */
function zoom(factor: number, about = props.cursor) {
  const span = Math.min(Math.max((to.value - from.value) * factor, LEAST_SPAN), whole.value)
  const share = (about - from.value) / (to.value - from.value)
  place(about - span * share, span)
}

function place(start: number, span = to.value - from.value) {
  const begin = Math.min(Math.max(start, 0), whole.value - span)
  emit('window', Math.round(begin), Math.round(Math.min(begin + span, whole.value)))
}

function wheel(event: WheelEvent) {
  if (event.ctrlKey || event.metaKey) zoom(event.deltaY < 0 ? 0.7 : 1.4, timeAt(event.clientX))
  else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY))
    place(from.value + ((event.deltaX || event.deltaY) / 600) * (to.value - from.value))
  else return
  event.preventDefault()
}

const touches = new Map<number, number>()
let spread = 0
function down(event: PointerEvent) {
  touches.set(event.pointerId, event.clientX)
  const [a, b] = [...touches.values()]
  spread = a !== undefined && b !== undefined ? Math.abs(a - b) : 0
  if (touches.size > 1) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  emit('go', timeAt(event.clientX))
}
function move(event: PointerEvent) {
  if (!touches.has(event.pointerId)) return
  touches.set(event.pointerId, event.clientX)
  const [a, b] = [...touches.values()]
  if (a === undefined || b === undefined) return emit('go', timeAt(event.clientX))
  const now = Math.abs(a - b)
  if (spread && now && Math.abs(now - spread) > 12) {
    zoom(spread / now, timeAt((a + b) / 2))
    spread = now
  }
}
function up(event: PointerEvent) {
  touches.delete(event.pointerId)
  spread = 0
}

function key(event: KeyboardEvent) {
  const step = (to.value - from.value) / 200
  const acts: Record<string, () => void> = {
    ArrowRight: () => emit('go', props.cursor + step),
    ArrowLeft: () => emit('go', props.cursor - step),
    PageDown: () => place(from.value + (to.value - from.value) / 2),
    PageUp: () => place(from.value - (to.value - from.value) / 2),
    Home: () => emit('go', 0),
    End: () => emit('go', whole.value),
    '+': () => zoom(0.6),
    '=': () => zoom(0.6),
    '-': () => zoom(1.6),
    '0': () => place(0, whole.value),
  }
  const act = event.ctrlKey || event.metaKey || event.altKey ? undefined : acts[event.key]
  if (!act) return
  event.preventDefault()
  event.stopPropagation()
  act()
}

let watching: ResizeObserver | null = null
onMounted(() => {
  watching = new ResizeObserver(([entry]) => (width.value = entry?.contentRect.width ?? width.value))
  if (room.value) watching.observe(room.value)
})
onBeforeUnmount(() => watching?.disconnect())
defineExpose({ zoom, all: () => place(0, whole.value) })
</script>

<template>
  <div ref="room" class="lanes">
    <svg
      :viewBox="`0 0 ${width} ${height}`"
      :width="width"
      :height="height"
      role="slider"
      tabindex="0"
      :aria-label="$t('TapeLanes.instantOnTheTape')"
      :aria-valuemin="0"
      :aria-valuemax="Math.round(whole)"
      :aria-valuenow="Math.round(cursor)"
      :aria-valuetext="clock(cursor)"
      data-testid="lanes"
      @wheel="wheel"
      @keydown="key"
    >
      <g class="ruler">
        <template v-for="tick in ticks" :key="tick">
          <line :x1="x(tick)" :x2="x(tick)" :y1="RULER - 6" :y2="height" />
          <text
            :x="Math.min(x(tick), width - 4)"
            :y="RULER - 10"
            :text-anchor="x(tick) > width - 40 ? 'end' : 'middle'"
          >
            {{ clock(tick) }}
          </text>
        </template>
      </g>
      <g v-for="(signal, i) in lanes" :key="signal.id" :transform="`translate(0 ${top(i)})`">
        <template v-for="(one, j) in stretches(signal)" :key="j">
          <rect
            v-if="one.value === true"
            class="on"
            :x="one.x"
            y="7"
            :width="one.width"
            :height="LANE - 14"
          />
          <line
            v-else-if="one.value === false"
            class="off"
            :x1="one.x"
            :x2="one.x + one.width"
            :y1="LANE - 7"
            :y2="LANE - 7"
          />
          <template v-else>
            <rect class="word" :x="one.x" y="5" :width="one.width" :height="LANE - 10" />
            <text v-if="one.width > 44" class="worded" :x="one.x + 5" :y="LANE - 10">{{ one.value }}</text>
          </template>
        </template>
      </g>
      <g v-for="(curve, i) in courses" :key="curve.id" :transform="`translate(0 ${courseTop(i)})`">
        <path class="curve" :d="path(curve).d" />
        <text class="scale" :x="NAMES - 6" y="16" text-anchor="end">
          {{ reads(curve, path(curve).high) }} {{ unitShown(curve.unit) }}
        </text>
        <text class="scale" :x="NAMES - 6" :y="CURVE - 12" text-anchor="end">
          {{ reads(curve, path(curve).low) }}
        </text>
      </g>
      <template v-for="(pin, i) in pins" :key="`pin${i}`">
        <line v-if="inside(pin)" class="pin" :x1="x(pin)" :x2="x(pin)" :y1="RULER - 8" :y2="height" />
        <text v-if="inside(pin)" class="pin-name" :x="x(pin) + 3" :y="RULER + 4">{{ 'AB'[i] }}</text>
      </template>
      <g v-if="inside(cursor)" class="cursor">
        <line :x1="x(cursor)" :x2="x(cursor)" y1="14" :y2="height" />
        <path :d="`M${x(cursor) - 8} 4h16l-8 12z`" />
      </g>
      <rect
        class="grab"
        :x="NAMES"
        y="0"
        :width="Math.max(width - NAMES, 0)"
        :height="height"
        @pointerdown="down"
        @pointermove="move"
        @pointerup="up"
        @pointercancel="up"
      />
    </svg>
    <button
      v-for="(signal, i) in lanes"
      :key="signal.id"
      class="name"
      :style="{ top: `${top(i)}px`, height: `${LANE}px`, width: `${NAMES - 8}px` }"
      :aria-pressed="asked === signal.id"
      :title="$t('TapeLanes.whyIsItSo', { title: signal.title })"
      :data-testid="`lane-${signal.id}`"
      @click="emit('ask', signal.id)"
    >
      <span>{{ signal.title }}</span> <b class="mono">{{ shown(valueAt(signal, cursor)) }}</b>
    </button>
    <p
      v-for="(curve, i) in courses"
      :key="curve.id"
      class="name course"
      :style="{ top: `${courseTop(i) + 16}px`, width: `${NAMES - 62}px` }"
    >
      {{ curve.title }} <b class="mono">{{ levelAt(curve, cursor)?.toFixed(0) }}</b>
    </p>
  </div>
</template>

<style scoped>
.lanes {
  position: relative;
  min-width: 0;
  overflow: hidden;
}

svg {
  display: block;
  touch-action: pan-y;
}

svg:focus-visible {
  outline-offset: -3px;
}

.ruler line {
  stroke: var(--rule);
  stroke-width: 1;
}

.ruler text,
.scale {
  fill: var(--ink-soft);
  font-size: 12px;
  font-family: var(--font-mono);
}

.on {
  fill: var(--live);
}

.off {
  stroke: var(--dead);
  stroke-width: 2;
}

.word {
  fill: var(--note-soft);
  stroke: var(--rule-strong);
}

.worded {
  fill: var(--ink);
  font-size: 13px;
  font-weight: 650;
}

.curve {
  fill: none;
  stroke: var(--home);
  stroke-width: 2.2;
}

.cursor line {
  stroke: var(--ink);
  stroke-width: 2;
}

.cursor path {
  fill: var(--ink);
}

.pin {
  stroke: var(--between);
  stroke-width: 2;
  stroke-dasharray: 5 3;
}

.pin-name {
  fill: var(--between);
  font-weight: 800;
  font-size: 13px;
}

.grab {
  fill: transparent;
  cursor: ew-resize;
}

.name {
  position: absolute;
  left: 0;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 6px;
  padding: 0 4px;
  overflow: hidden;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: transparent;
  font-size: 14px;
  text-align: left;
  white-space: nowrap;
}

button.name {
  cursor: pointer;
}

button.name:hover,
button.name[aria-pressed='true'] {
  background: var(--note-soft);
}

.name span {
  overflow: hidden;
  text-overflow: ellipsis;
}

.course {
  border: 0;
  color: var(--ink-soft);
  white-space: normal;
}
</style>
