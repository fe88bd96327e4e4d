<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { ConductorEnd, Wiring } from '@/shared/api/client'
import { cableLetter, nameOf } from '@/desks/wiring/landings'

const { t } = useI18n()
const props = defineProps<{ wiring: Wiring; current: ConductorEnd | null; place: string; marked: string[] }>()
const emit = defineEmits<{ pick: [end: ConductorEnd]; land: [place: string, terminal: string] }>()

const ROW = 44
const TOP = 34
const SCREW = 74
const TAG = 84
const WIDTH = 812
const X: Record<string, number> = { wall: 44, air_handler: 406, outdoor: 768 }

interface Slot {
  end: ConductorEnd
  side: 'left' | 'right'
  x: number
  y: number
}

/** Which side of its strip a cable comes to: the hub has one on either. */
function sideOf(end: ConductorEnd): 'left' | 'right' {
  if (end.place === 'wall') return 'right'
  if (end.place === 'outdoor') return 'left'
  return props.wiring.strips.find((one) => one.place === 'wall')?.cables.some((one) => one.id === end.cable)
    ? 'left'
    : 'right'
}

/** Rows of a strip, tall enough for all that stands on one screw; loose ends below. */
const layout = computed(() => {
  const slots: Slot[] = []
  const strips = props.wiring.strips.map((strip) => {
    const own = props.wiring.ends.filter((end) => end.place === strip.place)
    let y = TOP
    const terminals = strip.terminals.map((terminal) => {
      const ends = own.filter((end) => end.lands_on === terminal.id)
      const tall = stack(ends, strip.place, y, slots)
      const row = { ...terminal, y, height: tall, crowd: ends.length }
      y += tall
      return row
    })
    const loose = own.filter((end) => !end.lands_on)
    const foot = y
    if (loose.length) y += 18 + stack(loose, strip.place, y + 18, slots)
    return { ...strip, x: X[strip.place] ?? 0, terminals, foot, height: y, loose: loose.length }
  })
  return { strips, slots, height: Math.max(...strips.map((one) => one.height)) + 8 }
})

function stack(ends: ConductorEnd[], at: string, y: number, slots: Slot[]): number {
  const x = X[at] ?? 0
  const rows = { left: 0, right: 0 }
  for (const end of ends) {
    const side = sideOf(end)
    slots.push({
      end,
      side,
      x: x + (side === 'left' ? -1 : 1) * (SCREW / 2),
      y: y + ROW / 2 + ROW * rows[side],
    })
    rows[side] += 1
  }
  return ROW * Math.max(1, rows.left, rows.right)
}

const key = (end: ConductorEnd) => `${end.cable}.${end.conductor}@${end.place}`
const isCurrent = (end: ConductorEnd) => !!props.current && key(props.current) === key(end)
const differs = (end: ConductorEnd) =>
  (end.known ? end.lands_on !== end.drawn : !!end.lands_on) || end.lies === 'bare'
const out = (slot: Slot) => slot.x + (slot.side === 'left' ? -TAG : TAG)

/** Each conductor from tag to tag, and dashed to where it is drawn when it stands elsewhere. */
const runs = computed(() => {
  const all = layout.value.slots
  return all.flatMap((slot) => {
    if (slot.side !== 'right') return []
    const other = all.find(
      (one) => one !== slot && one.end.cable === slot.end.cable && one.end.conductor === slot.end.conductor,
    )
    if (!other) return []
    const [a, b] = [out(slot), out(other)]
    const middle = (a + b) / 2
    const d = `M${a} ${slot.y}C${middle} ${slot.y} ${middle} ${other.y} ${b} ${other.y}`
    const loose = !slot.end.lands_on || !other.end.lands_on
    return [{ id: `${slot.end.cable}.${slot.end.conductor}`, d, sheath: slot.end.sheath, loose }]
  })
})
const ghosts = computed(() =>
  layout.value.slots.flatMap((slot) => {
    if (!slot.end.known || slot.end.lands_on === slot.end.drawn || !slot.end.drawn) return []
    const strip = layout.value.strips.find((one) => one.place === slot.end.place)
    const goal = strip?.terminals.find((one) => one.id === slot.end.drawn)
    if (!goal) return []
    const x = slot.x
    return [`M${out(slot)} ${slot.y}L${x} ${goal.y + goal.height / 2}`]
  }),
)
const says = (end: ConductorEnd) => {
  const stands = end.lands_on ? t('WiringBoard.on', { terminal: end.lands_on }) : end.lies
  const moved = end.known && end.lands_on !== end.drawn
  const place = layout.value.strips.find((one) => one.place === end.place)?.title ?? end.place
  const parts = [
    t('WiringBoard.ofCable', { name: nameOf(end), letter: cableLetter(end.cable), place }),
    stands,
    ...(moved ? [t('WiringBoard.drawnOn', { terminal: end.drawn ?? t('WiringBoard.nothing') })] : []),
    ...(end.seen ? [] : [t('WiringBoard.notLookedAt')]),
  ]
  return parts.join(', ')
}
</script>

<template>
  <svg
    class="board"
    :viewBox="`0 0 ${WIDTH} ${layout.height}`"
    :style="{ minWidth: `${WIDTH}px` }"
    role="group"
    :aria-label="$t('WiringBoard.terminalStripsWithWhatLands')"
    data-testid="board"
  >
    <g v-for="strip in layout.strips" :key="strip.place">
      <rect
        :class="['strip', strip.place, { here: strip.place === place }]"
        :x="strip.x - SCREW / 2 - 4"
        y="22"
        :width="SCREW + 8"
        :height="strip.foot - 16"
      />
      <text :x="strip.x" y="15" class="title" text-anchor="middle">{{ strip.title }}</text>
      <text v-if="strip.loose" :x="strip.x" :y="strip.foot + 15" class="small" text-anchor="middle">
        {{ $t('WiringBoard.loose') }}
      </text>
    </g>
    <path v-for="(d, i) in ghosts" :key="`ghost${i}`" :d="d" class="ghost" />
    <g v-for="run in runs" :key="run.id" :class="['run', { loose: run.loose }]">
      <path :d="run.d" class="outline" />
      <path :d="run.d" :class="['core', `sheath-${run.sheath}`]" />
    </g>
    <g v-for="strip in layout.strips" :key="`t${strip.place}`">
      <g
        v-for="terminal in strip.terminals"
        :key="terminal.id"
        class="terminal"
        role="button"
        :tabindex="current ? 0 : -1"
        :aria-label="
          terminal.crowd > 1
            ? $t('WiringBoard.crowded', { place: strip.title, letter: terminal.letter })
            : `${strip.title} ${terminal.letter}`
        "
        :data-testid="`screw-${strip.place}.${terminal.id}`"
        @click="emit('land', strip.place, terminal.id)"
        @keydown.enter="emit('land', strip.place, terminal.id)"
      >
        <rect
          :class="['screw', { tap: terminal.tap }]"
          :x="strip.x - SCREW / 2"
          :y="terminal.y + 2"
          :width="SCREW"
          :height="terminal.height - 4"
        />
        <text
          :x="strip.x"
          :y="terminal.y + terminal.height / 2 + 6"
          class="letter"
          text-anchor="middle"
          :textLength="terminal.letter.length > 5 ? SCREW - 14 : undefined"
          lengthAdjust="spacingAndGlyphs"
        >
          {{ terminal.letter }}
        </text>
      </g>
    </g>
    <g
      v-for="slot in layout.slots"
      :key="key(slot.end)"
      :class="[
        'end',
        {
          current: isCurrent(slot.end),
          differs: differs(slot.end),
          unseen: !slot.end.seen,
          marked: marked.includes(key(slot.end)),
        },
      ]"
      role="button"
      tabindex="0"
      :aria-label="says(slot.end)"
      :data-testid="`end-${key(slot.end)}`"
      @click="emit('pick', slot.end)"
      @keydown.enter="emit('pick', slot.end)"
      @keydown.space.prevent="emit('pick', slot.end)"
    >
      <rect :x="Math.min(slot.x, out(slot))" :y="slot.y - 21" :width="TAG" height="42" class="tag" />
      <text :x="(slot.x + out(slot)) / 2" :y="slot.y + 5" text-anchor="middle" class="name">
        {{ differs(slot.end) ? '≠ ' : '' }}{{ slot.end.color
        }}{{ slot.end.lies === 'bare' ? ' ✕' : slot.end.lies === 'capped' ? ' ⊐' : '' }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.board {
  display: block;
  width: 100%;
}

.strip {
  fill: var(--band-wall);
  stroke: var(--rule-strong);
}

.strip.air_handler {
  fill: var(--band-air-handler);
}

.strip.outdoor {
  fill: var(--band-outdoor);
}

.strip.here {
  stroke: var(--ink);
  stroke-width: 3;
}

text {
  fill: var(--ink);
  font-family: var(--font-sans);
}

.title {
  font-size: 15px;
  font-weight: 700;
}

.small {
  fill: var(--ink-soft);
  font-size: 13px;
}

.letter {
  font-family: var(--font-mono);
  font-size: 17px;
  font-weight: 700;
  pointer-events: none;
}

.screw {
  fill: var(--panel);
  stroke: var(--ink);
  stroke-width: 1.5;
}

.screw.tap {
  stroke-dasharray: 4 3;
}

.terminal,
.end {
  cursor: pointer;
}

.terminal:hover .screw {
  fill: var(--note-soft);
}

.outline {
  fill: none;
  stroke: var(--wire-outline);
  stroke-width: 7;
}

.core {
  fill: none;
  stroke: var(--wire-grey);
  stroke-width: 5;
}

.run.loose .outline,
.run.loose .core {
  stroke-dasharray: 9 7;
}

.ghost {
  fill: none;
  stroke: var(--alarm);
  stroke-width: 2;
  stroke-dasharray: 3 5;
}

.tag {
  fill: var(--paper);
  stroke: var(--rule-strong);
}

.end.unseen .tag {
  stroke-dasharray: 3 4;
}

.end.unseen .name {
  fill: var(--ink-soft);
}

.name {
  font-size: 14px;
  font-weight: 550;
  pointer-events: none;
}

.end.differs .tag {
  fill: var(--alarm-soft);
  stroke: var(--alarm);
  stroke-width: 2;
}

.end.differs .name {
  fill: var(--alarm);
  font-weight: 700;
}

.end.marked .tag {
  stroke-width: 4;
}

.end.current .tag {
  fill: var(--ink);
}

.end.current .name {
  fill: var(--panel);
}

g:focus-visible {
  outline: none;
}

g:focus-visible > rect {
  stroke: var(--focus);
  stroke-width: 4;
}
</style>
<style scoped src="@/shared/scene/sheaths.css"></style>
