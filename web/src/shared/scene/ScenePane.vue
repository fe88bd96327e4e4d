<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'

const props = defineProps<{ width: number; height: number; name: string }>()

const LEAST = 1
const MOST = 3
const STEP = 1.25
/** Wider than its room a drawing scrolls; narrower it grows a little, never so far that it leaves the screen. */
const GROWS_TO = 1.35

const room = ref<HTMLElement | null>(null)
const zoom = ref<number | null>(null)
const roomWidth = ref(props.width)
const full = ref(false)

const fitting = computed(() => Math.min(Math.max(roomWidth.value / props.width, LEAST), GROWS_TO))
const scale = computed(() => zoom.value ?? fitting.value)
const style = computed(() => ({
  width: `${Math.round(props.width * scale.value)}px`,
  height: `${Math.round(props.height * scale.value)}px`,
}))

/** Zooms about a point of the room, which stays where it is. */
async function zoomTo(wanted: number, at?: { x: number; y: number }) {
  const element = room.value
  if (!element) return
  const before = scale.value
  const next = Math.min(Math.max(wanted, LEAST * 0.6), MOST)
  const point = at ?? { x: element.clientWidth / 2, y: element.clientHeight / 2 }
  zoom.value = next
  await nextTick()
  element.scrollLeft = ((element.scrollLeft + point.x) * next) / before - point.x
  element.scrollTop = ((element.scrollTop + point.y) * next) / before - point.y
}

const inside = (x: number, y: number) => {
  const box = room.value?.getBoundingClientRect()
  return { x: x - (box?.left ?? 0), y: y - (box?.top ?? 0) }
}

function wheel(event: WheelEvent) {
  if (!event.ctrlKey && !event.metaKey) return
  event.preventDefault()
  void zoomTo(scale.value * (event.deltaY < 0 ? STEP : 1 / STEP), inside(event.clientX, event.clientY))
}

// Two fingers pinch; a mouse drags what is empty; one finger scrolls by itself.
const touches = new Map<number, { x: number; y: number }>()
let spread = 0
let dragging: { x: number; y: number } | null = null

function down(event: PointerEvent) {
  if (event.pointerType === 'touch') {
    touches.set(event.pointerId, { x: event.clientX, y: event.clientY })
    spread = distance()
  } else if (!(event.target as Element).closest('.hit, .wire-hit')) {
    dragging = { x: event.clientX, y: event.clientY }
    room.value?.setPointerCapture(event.pointerId)
  }
}

function move(event: PointerEvent) {
  if (dragging && room.value) {
    room.value.scrollLeft -= event.clientX - dragging.x
    room.value.scrollTop -= event.clientY - dragging.y
    dragging = { x: event.clientX, y: event.clientY }
  }
  if (!touches.has(event.pointerId)) return
  touches.set(event.pointerId, { x: event.clientX, y: event.clientY })
  const now = distance()
  if (!spread || !now) return
  const [a, b] = [...touches.values()]
  if (a && b) void zoomTo((scale.value * now) / spread, inside((a.x + b.x) / 2, (a.y + b.y) / 2))
  spread = now
}

function up(event: PointerEvent) {
  touches.delete(event.pointerId)
  spread = 0
  dragging = null
}

function distance(): number {
  const [a, b] = [...touches.values()]
  return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0
}

function key(event: KeyboardEvent) {
  const acts: Record<string, () => void> = {
    '+': () => void zoomTo(scale.value * STEP),
    '=': () => void zoomTo(scale.value * STEP),
    '-': () => void zoomTo(scale.value / STEP),
    '0': () => (zoom.value = null),
    f: () => void toggleFull(),
  }
  const act = event.ctrlKey || event.metaKey || event.altKey ? undefined : acts[event.key]
  if (!act) return
  event.preventDefault()
  event.stopPropagation()
  act()
}

async function toggleFull() {
  full.value = !full.value
  zoom.value = null
  await nextTick()
  measure()
  room.value?.focus()
}

function escape(event: KeyboardEvent) {
  if (event.key === 'Escape' && full.value) void toggleFull()
}

function measure() {
  if (room.value) roomWidth.value = room.value.clientWidth
}

let watching: ResizeObserver | null = null
onMounted(() => {
  measure()
  watching = new ResizeObserver(measure)
  if (room.value) watching.observe(room.value)
  addEventListener('keydown', escape)
})
onBeforeUnmount(() => {
  watching?.disconnect()
  removeEventListener('keydown', escape)
})
watch(
  () => props.name,
  () => (zoom.value = null),
)
</script>

<template>
  <div :class="['pane', { full }]">
    <div
      ref="room"
      class="room"
      tabindex="0"
      role="region"
      :aria-label="$t('ScenePane.drawingPlusMinusAnd0', { name })"
      @wheel="wheel"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @keydown="key"
    >
      <div class="sheet" :style="style"><slot /></div>
    </div>
    <div class="tools" role="group" :aria-label="$t('ScenePane.zoom')">
      <slot name="foot" :full="full" />
      <el-button class="key" title="−" :aria-label="$t('ScenePane.smaller')" @click="zoomTo(scale / STEP)"
        >−</el-button
      >
      <el-button
        class="key"
        :title="$t('ScenePane.n0Fit')"
        :aria-label="$t('ScenePane.fit', { what: Math.round(scale * 100) })"
        @click="zoom = null"
      >
        {{ Math.round(scale * 100) }} %
      </el-button>
      <el-button class="key" title="+" :aria-label="$t('ScenePane.larger')" @click="zoomTo(scale * STEP)"
        >+</el-button
      >
      <el-button
        class="key"
        :title="$t('ScenePane.f')"
        :aria-pressed="full"
        data-testid="full"
        @click="toggleFull"
      >
        {{ full ? $t('ScenePane.back') : $t('ScenePane.full')
        }}<span v-if="!full" class="hidden-label">{{ $t('ScenePane.screen') }}</span>
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.pane {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  min-width: 0;
}

.room {
  overflow: auto;
  overscroll-behavior: contain;
  touch-action: pan-x pan-y;
}

.room:focus-visible {
  outline-offset: -3px;
}

.sheet {
  margin: 0 auto;
}

.sheet :deep(svg) {
  width: 100%;
  height: 100%;
}

.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: flex-end;
  gap: 6px;
  padding-top: 6px;
}

.tools .key {
  border-color: var(--rule-strong);
}

.full {
  position: fixed;
  inset: 0;
  z-index: 40;
  grid-template-rows: minmax(0, 1fr) auto;
  padding: 8px;
  background: var(--paper);
}

/* The whole of it, as wide as the sheet. */
@media print {
  .room {
    overflow: visible;
  }

  .sheet {
    width: 100% !important;
    height: auto !important;
  }

  .sheet :deep(svg) {
    height: auto;
    max-height: 92vh;
  }

  .tools {
    display: none;
  }
}
</style>
