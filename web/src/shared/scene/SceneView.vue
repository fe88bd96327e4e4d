<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Reading } from '@/shared/model/readingTable'
import { useWaking } from '@/shared/scene/waking'
import {
  isLit,
  marksOf,
  spotsOf,
  type Label,
  type Scene,
  type SceneLink,
  type Station,
} from '@/shared/scene/geometry'

const { t } = useI18n()
const props = defineProps<{
  scene: Scene
  black?: string | null
  red?: string | null
  /** Branch that the reader asked about: the first missing link. */
  missing?: string | null
  readings?: Reading[]
  /** Points whose state a supposition changes. */
  changed?: string[]
  /** Codes, branches and nodes that are lit in every view. */
  lit?: string[]
  /** Points on which others have their probes. */
  others?: string[]
}>()
const emit = defineEmits<{ tap: [station: Station]; wire: [link: SceneLink] }>()

const spots = computed(() => spotsOf(props.scene))
const stations = computed(() => new Map(props.scene.stations.map((station) => [station.id, station])))
const marks = computed(() => marksOf(spots.value, props.readings ?? []))
const waking = useWaking(() => props.scene)
const lit = computed(() => new Set(props.lit ?? []))

const probes = computed(() =>
  [
    { id: 'black', node: props.black, dx: -17 },
    { id: 'red', node: props.red, dx: 17 },
  ].flatMap(({ id, node, dx }) => {
    const spot = node ? spots.value.get(node) : undefined
    return spot ? [{ id, dx, ...spot }] : []
  }),
)
const theirs = computed(() =>
  [...new Set(props.others ?? [])].flatMap((node) => {
    const spot = spots.value.get(node)
    return spot ? [{ node, ...spot }] : []
  }),
)
const deltas = computed(() =>
  (props.changed ?? []).flatMap((node) => {
    const spot = spots.value.get(node)
    return spot ? [{ node, ...spot }] : []
  }),
)

function classesOf(station: Station) {
  return [
    'station',
    station.kind,
    station.state,
    {
      off: station.working === false,
      on: station.working,
      open: station.closed === false,
      broken: station.broken || (!!props.missing && station.id.split('/').pop() === props.missing),
      struck: station.struck,
      lit: isLit(lit.value, station),
    },
  ]
}

/** Words that stand inside a body that is filled. */
function onBody(label: Label): boolean {
  const station = label.station ? stations.value.get(label.station) : undefined
  return (
    !!station?.working &&
    station.strokes[0]?.role === 'body' &&
    Math.abs(label.y - station.y) <= station.height / 2
  )
}

const isBroken = (label: Label) => !!(label.station && stations.value.get(label.station)?.broken)
const linkLit = (link: SceneLink) => link.branches.some((id) => lit.value.has(id))
const slug = (color: string) => color.toLowerCase().replace(/[^a-z]+/g, '_')
const strike = (station: Station) =>
  `M${-station.width / 2 - 6} ${station.height / 2 + 3}L${station.width / 2 + 6} ${-station.height / 2 - 3}`

/** The conductor of a field link, for who taps it. */
const conductorOf = (link: SceneLink) =>
  link.branches.find((id) => !id.includes('@') && !id.includes('/')) ?? link.id
/** "dark blue conductor, cable A" of cable_a.dark_blue. */
function conductorName(id: string) {
  const [cable = '', color = ''] = id.split('.')
  const letter = cable.replace('cable_', '').toUpperCase()
  return t('SceneView.conductor', { color: color.replaceAll('_', ' '), letter })
}
</script>

<template>
  <svg
    :class="['scene', scene.view]"
    :viewBox="`0 0 ${scene.width} ${scene.height}`"
    role="group"
    :aria-label="scene.title"
  >
    <rect
      v-for="band in scene.bands"
      :key="band.id"
      :class="['band', band.id]"
      :x="band.x"
      :y="band.y"
      :width="band.width"
      :height="band.height"
      rx="4"
    />

    <g
      v-for="link in scene.links"
      :key="link.id"
      :class="[
        'link',
        link.way,
        `line-${link.line}`,
        { struck: link.struck, lit: linkLit(link), waking: waking.has(link.id) },
      ]"
      :style="waking.has(link.id) ? { '--far': waking.get(link.id) } : undefined"
    >
      <template v-for="(part, i) in link.parts" :key="i">
        <template v-if="link.sheath">
          <path :class="['jacket', part.state]" :d="part.d" />
          <path :class="['sheath', part.state, `sheath-${slug(link.sheath)}`]" :d="part.d" />
        </template>
        <template v-else>
          <path :class="['wire', part.state]" :d="part.d" />
          <path v-if="part.state === 'home'" class="wire-core" :d="part.d" />
        </template>
      </template>
      <path
        v-for="(mark, i) in link.chevrons"
        :key="`c${i}`"
        :class="['chevron', { inked: link.sheath }]"
        d="M-2.5 -3.5 L2 0 L-2.5 3.5"
        :transform="`translate(${mark.x} ${mark.y}) rotate(${mark.angle})`"
      />
      <path
        v-for="(mark, i) in link.marks"
        :key="`m${i}`"
        class="splice"
        d="M-5 0L0 -5L5 0L0 5z"
        :transform="`translate(${mark.x} ${mark.y})`"
      />
      <template v-if="link.color">
        <path
          v-for="(part, i) in link.parts"
          :key="`hit${i}`"
          class="wire-hit"
          role="button"
          tabindex="-1"
          :aria-label="conductorName(conductorOf(link))"
          :data-wire="conductorOf(link)"
          :d="part.d"
          @click="emit('wire', link)"
        />
      </template>
    </g>

    <g v-for="station in scene.stations" :key="station.id" :class="classesOf(station)">
      <g :transform="`translate(${station.x} ${station.y})`">
        <path v-for="(stroke, i) in station.strokes" :key="i" :class="stroke.role" :d="stroke.d" />
        <path v-if="station.struck" class="strike" :d="strike(station)" />
      </g>
    </g>

    <text
      v-for="(label, i) in scene.labels"
      :key="`l${i}`"
      aria-hidden="true"
      :class="[`role-${label.role}`, { 'on-body': onBody(label), broken: isBroken(label) }]"
      :text-anchor="label.anchor"
      :font-size="label.size"
      :font-weight="label.weight"
      :x="label.upright ? label.x : undefined"
      :y="label.upright ? label.y : undefined"
      :transform="label.upright ? undefined : `translate(${label.x} ${label.y}) rotate(-90)`"
    >
      {{ label.text }}
    </text>

    <g v-for="link in scene.links.filter((one) => one.gap)" :key="`gap${link.id}`" class="gap">
      <rect :x="link.gap!.x - 9" :y="link.gap!.y - 9" width="18" height="18" rx="3" />
      <text text-anchor="middle" :x="link.gap!.x" :y="link.gap!.y + 5">≠</text>
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
    <path
      v-for="spot in theirs"
      :key="`other${spot.node}`"
      class="other"
      aria-hidden="true"
      :d="`M${spot.x} ${spot.y - spot.ringY - 7} l${spot.ringX + 7} ${spot.ringY + 7} l${-spot.ringX - 7} ${spot.ringY + 7} l${-spot.ringX - 7} ${-spot.ringY - 7} z`"
    />
    <g v-for="probe in probes" :key="probe.id" :class="['probe', probe.id]" aria-hidden="true">
      <rect
        class="ring"
        :x="probe.x - probe.ringX"
        :y="probe.y - probe.ringY"
        :width="probe.ringX * 2"
        :height="probe.ringY * 2"
        :rx="Math.min(probe.ringX, probe.ringY)"
      />
      <path
        class="lead"
        :d="`M${probe.x + probe.dx * 0.6} ${probe.y + probe.ringY - 4} L${probe.x + probe.dx} ${probe.y + probe.ringY + 1}`"
      />
      <rect
        v-if="probe.id === 'black'"
        class="tag"
        :x="probe.x + probe.dx - 6"
        :y="probe.y + probe.ringY - 1"
        width="12"
        height="12"
      />
      <circle v-else class="tag" :cx="probe.x + probe.dx" :cy="probe.y + probe.ringY + 5" r="7" />
    </g>

    <rect
      v-for="station in scene.stations"
      :key="`hit${station.id}`"
      class="hit"
      role="button"
      tabindex="0"
      :aria-label="station.spoken"
      :aria-pressed="isLit(lit, station)"
      :data-station="station.id"
      :data-part="station.part"
      :x="station.x - (station.hit[0] ?? 44) / 2"
      :y="station.y - (station.hit[1] ?? 44) / 2"
      :width="station.hit[0]"
      :height="station.hit[1]"
      rx="4"
      @click="emit('tap', station)"
      @keydown.enter.prevent="emit('tap', station)"
      @keydown.space.prevent="emit('tap', station)"
    />
  </svg>
</template>

<style scoped src="./scene.css"></style>
<style scoped src="@/shared/scene/sheaths.css"></style>
