<script setup lang="ts">
import { computed } from 'vue'
import type { components } from '@/api/schema'
import type { Reading, Station } from '@/model/readingTable'
import { stands } from '@/model/readingTable'

type Scene = components['schemas']['Scene']
type Link = components['schemas']['Link']

const props = defineProps<{
  scene: Scene
  black: string | null
  red: string | null
  /** Branch that the reader asked about: the first missing link. */
  missing: string | null
  readings: Reading[]
  /** Points whose state a supposition changes. */
  changed?: string[]
}>()
const emit = defineEmits<{ tap: [station: Station]; wire: [link: Link] }>()

const HIT = 44
/** How far outside a device a probe stands, so that it covers no name. */
const BESIDE = 9

/** Where a probe touches a point: a terminal if one is drawn, else the end of a device. */
const spots = computed(() => {
  const found = new Map<string, { x: number; y: number; ring: number }>()
  for (const station of props.scene.stations) {
    const [first, second] = station.nodes
    const vertical = station.id.startsWith('THERMOSTAT.')
    if (station.kind === 'terminal' && first) found.set(first, { x: station.x, y: station.y, ring: 14 })
    else {
      const reach = (vertical ? station.height / 2 : station.width / 2) + BESIDE
      const end = (sign: number) =>
        vertical
          ? { x: station.x, y: station.y + sign * reach, ring: 9 }
          : { x: station.x + sign * reach, y: station.y, ring: 9 }
      if (first && !found.has(first)) found.set(first, end(-1))
      if (second && !found.has(second)) found.set(second, end(1))
    }
  }
  return found
})

const probes = computed(() =>
  [
    { id: 'black', node: props.black, dx: -17 },
    { id: 'red', node: props.red, dx: 17 },
  ].flatMap(({ id, node, dx }) => {
    const spot = node ? spots.value.get(node) : undefined
    return spot ? [{ id, dx, ...spot }] : []
  }),
)

/** Readings that stand, by the point they were taken at. */
const marks = computed(() => {
  const found = new Map<string, string>()
  for (const reading of props.readings.filter(stands)) found.set(reading.to_node, reading.verdict)
  return [...found].flatMap(([node, verdict]) => {
    const spot = spots.value.get(node)
    return spot && verdict !== 'undetermined' ? [{ node, ...spot, verdict }] : []
  })
})

/** Points that a supposition changes, where they are drawn. */
const deltas = computed(() =>
  (props.changed ?? []).flatMap((node) => {
    const spot = spots.value.get(node)
    return spot ? [{ node, ...spot }] : []
  }),
)

const isMissing = (station: Station) => props.missing !== null && station.id === props.missing
const labelY = (station: Station) => station.y + (station.sub && station.kind === 'source' ? -2 : 5)
</script>

<template>
  <svg class="scene" :viewBox="`0 0 ${scene.width} ${scene.height}`" role="group" :aria-label="scene.title">
    <g v-for="band in scene.bands" :key="band.id">
      <rect
        :class="['band', band.id]"
        :x="band.x"
        :y="band.y"
        :width="band.width"
        :height="band.height"
        rx="4"
      />
      <text class="band-name" :transform="`translate(20 ${band.y + band.height / 2}) rotate(-90)`">
        {{ band.label }}
      </text>
    </g>
    <text
      v-for="note in scene.notes"
      :key="note.text"
      class="note"
      :x="note.x"
      :y="note.y"
      :text-anchor="note.anchor"
    >
      {{ note.text }}
    </text>

    <g v-for="link in scene.links" :key="link.id" :class="['link', link.way]">
      <template v-for="(part, i) in link.parts" :key="i">
        <path :class="['wire', part.state]" :d="part.d" />
        <path v-if="part.state === 'home'" class="wire-core" :d="part.d" />
      </template>
      <path
        v-for="(mark, i) in link.chevrons"
        :key="`c${i}`"
        class="chevron"
        d="M-2.5 -3.5 L2 0 L-2.5 3.5"
        :transform="`translate(${mark.x} ${mark.y}) rotate(${mark.angle})`"
      />
      <template v-if="link.branches.length && link.color">
        <path
          v-for="(part, i) in link.parts"
          :key="`hit${i}`"
          class="wire-hit"
          role="button"
          tabindex="-1"
          :aria-label="`conductor ${link.branches[1] ?? link.id}`"
          :data-wire="link.branches[1]"
          :d="part.d"
          @click="emit('wire', link)"
        />
      </template>
    </g>

    <g
      v-for="station in scene.stations"
      :key="station.id"
      :class="[
        'station',
        station.kind,
        station.state,
        {
          off: station.working === false,
          on: station.working,
          open: station.closed === false,
          broken: station.broken || isMissing(station),
        },
      ]"
    >
      <template v-if="station.kind === 'terminal'">
        <circle class="shape" :cx="station.x" :cy="station.y" r="9" />
        <circle v-if="station.state === 'live'" class="pip" :cx="station.x" :cy="station.y" r="4" />
        <text class="terminal-name" :x="station.x + 14" :y="station.y - 10">
          {{ station.label }}
        </text>
      </template>
      <template v-else>
        <rect
          class="shape"
          :x="station.x - station.width / 2"
          :y="station.y - station.height / 2"
          :width="station.width"
          :height="station.height"
          :rx="station.kind === 'coil' ? station.height / 2 : station.kind === 'load' ? 10 : 2"
        />
        <text
          aria-hidden="true"
          class="device-name"
          :x="station.x"
          :y="station.closed === false ? station.y - 1 : labelY(station)"
        >
          {{ station.label }}
        </text>
        <text
          v-if="station.kind === 'source'"
          aria-hidden="true"
          class="device-sub"
          :x="station.x"
          :y="station.y + 11"
        >
          {{ station.sub }}
        </text>
        <text
          v-else-if="station.closed === false"
          aria-hidden="true"
          class="device-sub"
          :x="station.x"
          :y="station.y + 11.5"
        >
          open
        </text>
      </template>
      <rect
        class="hit"
        role="button"
        tabindex="0"
        :aria-label="station.spoken"
        :data-station="station.id"
        :x="station.x - Math.max(station.width, HIT) / 2"
        :y="station.y - Math.max(station.height, HIT) / 2"
        :width="Math.max(station.width, HIT)"
        :height="Math.max(station.height, HIT)"
        rx="4"
        @click="emit('tap', station)"
        @keydown.enter.prevent="emit('tap', station)"
        @keydown.space.prevent="emit('tap', station)"
      />
    </g>

    <g v-for="link in scene.links.filter((one) => one.gap)" :key="`gap${link.id}`" class="gap">
      <rect :x="link.gap!.x - 9" :y="link.gap!.y - 9" width="18" height="18" rx="3" />
      <text text-anchor="middle" :x="link.gap!.x" :y="link.gap!.y + 5">≠</text>
      <text
        class="gap-name"
        :text-anchor="link.gap!.x > scene.width * 0.7 ? 'end' : 'start'"
        :x="link.gap!.x + (link.gap!.x > scene.width * 0.7 ? -14 : 14)"
        :y="link.gap!.y + 4"
      >
        {{ link.gap!.label }}
      </text>
    </g>

    <g v-for="mark in marks" :key="`mark${mark.node}`" :class="['taken', mark.verdict]" aria-hidden="true">
      <circle :cx="mark.x - 17" :cy="mark.y + 13" r="8" />
      <text :x="mark.x - 17" :y="mark.y + 17.5">{{ mark.verdict === 'agrees' ? '=' : '≠' }}</text>
    </g>

    <path
      v-for="delta in deltas"
      :key="`delta${delta.node}`"
      class="delta"
      aria-hidden="true"
      :d="`M${delta.x + 11} ${delta.y + 15} l6 -11 l6 11 z`"
    />

    <g v-for="probe in probes" :key="probe.id" :class="['probe', probe.id]" aria-hidden="true">
      <circle class="ring" :cx="probe.x" :cy="probe.y" :r="probe.ring" />
      <path
        class="lead"
        :d="`M${probe.x + probe.dx * 0.6} ${probe.y + 10} L${probe.x + probe.dx} ${probe.y + 19}`"
      />
      <rect
        v-if="probe.id === 'black'"
        class="tag"
        :x="probe.x + probe.dx - 7"
        :y="probe.y + 16"
        width="14"
        height="14"
      />
      <circle v-else class="tag" :cx="probe.x + probe.dx" :cy="probe.y + 23" r="8" />
    </g>
  </svg>
</template>

<style scoped>
.scene {
  display: block;
  width: 100%;
  height: auto;
  font-family: var(--font-sans);
  font-size: 14px;
  user-select: none;
}

.band.wall {
  fill: var(--band-wall);
}

.band.air_handler {
  fill: var(--band-air-handler);
}

.band.outdoor {
  fill: var(--band-outdoor);
}

.band-name {
  fill: var(--ink-soft);
  text-anchor: middle;
  font-weight: 650;
  font-size: 13px;
  letter-spacing: 0.06em;
}

.note {
  fill: var(--ink-soft);
  font-size: 12.5px;
}

.wire {
  fill: none;
  stroke: var(--dead);
  stroke-width: 2;
  stroke-linejoin: round;
}

.wire.live {
  stroke: var(--live);
  stroke-width: 6.5;
}

.wire.home {
  stroke: var(--home);
  stroke-width: 5.5;
}

.wire-core {
  fill: none;
  stroke: var(--paper);
  stroke-width: 2;
}

.wire.floating {
  stroke-dasharray: 1.5 6;
  stroke-linecap: round;
  stroke-width: 3;
}

.wire.between {
  stroke: var(--between);
  stroke-width: 4;
  stroke-dasharray: 12 4;
}

.chevron {
  fill: none;
  stroke: var(--on-live);
  stroke-width: 1.8;
}

.wire-hit {
  fill: none;
  stroke: transparent;
  stroke-width: 22;
  cursor: pointer;
}

.wire-hit:hover {
  stroke: var(--shade);
}

.delta {
  fill: var(--between);
  stroke: var(--panel);
  stroke-width: 1.5;
}

.hit {
  fill: transparent;
  cursor: pointer;
  outline: none;
}

.hit:focus-visible {
  stroke: var(--focus);
  stroke-width: 3;
}

.shape {
  fill: var(--panel);
  stroke: var(--dead);
  stroke-width: 2;
}

.station.live .shape {
  stroke: var(--live);
  stroke-width: 3;
}

.station.home .shape {
  stroke: var(--home);
  stroke-width: 2.5;
}

.station.floating .shape {
  stroke-dasharray: 2 4;
}

.station.on .shape {
  fill: var(--live);
  stroke: var(--live);
}

.station.on text {
  fill: var(--on-live);
}

.station.open .shape {
  stroke-dasharray: 5 3;
}

.station.broken .shape {
  stroke: var(--alarm);
  stroke-width: 3.5;
  stroke-dasharray: 7 4;
}

.pip {
  fill: var(--live);
}

text {
  fill: var(--ink);
}

.terminal-name {
  font-weight: 700;
}

.device-name,
.device-sub {
  text-anchor: middle;
  font-weight: 700;
}

.device-sub {
  font-size: 12px;
  font-weight: 450;
}

.station.broken .device-sub {
  fill: var(--alarm);
  font-weight: 700;
}

.gap rect {
  fill: var(--panel);
  stroke: var(--alarm);
  stroke-width: 2;
  stroke-dasharray: 4 2;
}

.gap text {
  fill: var(--alarm);
  font-weight: 800;
}

.gap .gap-name {
  font-size: 12.5px;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}

.taken circle {
  fill: var(--agrees);
  stroke: var(--panel);
  stroke-width: 1.5;
}

.taken.disagrees circle {
  fill: var(--alarm);
}

.taken text {
  fill: var(--panel);
  text-anchor: middle;
  font-weight: 800;
}

.ring {
  fill: none;
  stroke-width: 3;
}

.lead {
  fill: none;
  stroke-width: 3;
}

.probe.black .ring,
.probe.black .lead {
  stroke: var(--ink);
}

.probe.red .ring,
.probe.red .lead {
  stroke: var(--probe-red);
}

.probe.red .ring {
  stroke-dasharray: 5 3;
}

.tag {
  stroke: var(--panel);
  stroke-width: 2;
}

.probe.black .tag {
  fill: var(--ink);
}

.probe.red .tag {
  fill: var(--probe-red);
}
</style>
