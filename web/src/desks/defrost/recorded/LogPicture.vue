<script setup lang="ts">
import UPlot from 'uplot'
import { computed, onBeforeUnmount, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useElementSize } from '@vueuse/core'
import { recordedApi, type Judgement, type Log } from '@/desks/defrost/recorded/api'
import { columnTitle } from '@/desks/defrost/recorded/columns'
import LogNumbers from '@/desks/defrost/recorded/LogNumbers.vue'
import { isOn } from '@/desks/defrost/recorded/numbers'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { lookOf, onTheme } from '@/shared/ui/kit/useChart'
import { degreeSign, inUnit } from '@/shared/model/units'
import type { Problem } from '@/shared/model/outcome'

/** A record over weeks: degrees as bands of least and most, defrosts as marks, what switches as lanes. Dragging over it
 *  goes in; the server thins it to what the width can show. */
const props = defineProps<{ log: Log; judgement: Judgement; chosen: number | null }>()
const emit = defineEmits<{ choose: [number: number] }>()
const LINES: Record<string, string> = {
  coil: '--live',
  outdoor: '--home',
  supply: '--between',
  vapor: '--dead',
}
const LANES = ['amps', 'y', 'fan', 'ob', 'w2']
const HEIGHT = 260
const LEAST_SPAN = 600
/** Left of the plot and of the lanes alike. */
const NAME_PIXELS = 104

const box = useTemplateRef<HTMLElement>('box')
const { width } = useElementSize(box)
const from = ref(props.judgement.from)
const to = ref(props.judgement.to)
const problem = shallowRef<Problem | null>(null)
const picture = shallowRef<Awaited<ReturnType<typeof ask>> | null>(null)
let chart: UPlot | null = null
let newest = 0

const there = computed(() => Object.keys(LINES).filter((id) => props.judgement.columns.includes(id)))
/** Numbers are made once somebody asks for them. */
const opened = ref<string[]>([])
const wanted = ref(there.value.slice(0, 2))
const lines = computed(() => there.value.filter((id) => wanted.value.includes(id)))
const lanes = computed(() => LANES.filter((id) => props.judgement.columns.includes(id)))
const whole = computed(() => from.value <= props.judgement.from && to.value >= props.judgement.to)
const zone = computed(() => String((props.log.mapping as { zone?: string } | null)?.zone ?? 'UTC'))
const shown = computed(() =>
  props.judgement.defrosts.filter((one) => one.start < to.value && (one.end ?? one.start) > from.value),
)
const percent = (at: number) => ((at - from.value) / (to.value - from.value)) * 100

async function ask(pixels: number) {
  const given = await recordedApi.picture(props.log.id, from.value, to.value, pixels, [
    ...lines.value,
    ...lanes.value,
  ])
  if (given.state === 'failed') problem.value = given.problem
  return given.state === 'ready' ? given.value : null
}

async function draw() {
  const pixels = Math.round(Math.min(2000, width.value))
  if (pixels < 40) return
  const mine = ++newest
  // No finer than there are rows: what lies between two of them is no gap.
  const rows = Math.floor((to.value - from.value) / ((props.log.interval_seconds ?? 1) * 1.1))
  const given = await ask(Math.max(10, Math.min(pixels, rows)))
  if (mine !== newest || !given) return
  problem.value = null
  picture.value = given
  const step = (given.to - given.from) / given.width
  const times = Array.from({ length: given.width }, (_, i) => given.from + (i + 0.5) * step)
  const degrees = (list: (number | null)[]) => list.map((one) => (one === null ? null : inUnit(one)))
  const data = [
    times,
    ...lines.value.flatMap((id) => [degrees(given.columns[id]!.most), degrees(given.columns[id]!.least)]),
  ]
  if (chart) {
    chart.setData(data as UPlot.AlignedData)
    return
  }
  chart = new UPlot(options(pixels), data as UPlot.AlignedData, box.value!)
}

function options(pixels: number): UPlot.Options {
  const { tone, axis } = lookOf(box.value!)
  return {
    width: pixels,
    height: HEIGHT,
    legend: { show: false },
    tzDate: (ts) => UPlot.tzDate(new Date(ts * 1000), zone.value),
    cursor: { drag: { x: true, y: false, setScale: false } },
    scales: { x: { time: true, range: () => [from.value, to.value] } },
    axes: [axis, { ...axis, size: NAME_PIXELS, values: (_u, all) => all.map((one) => `${one}°`) }],
    series: [
      {},
      ...lines.value.flatMap((id) => {
        const stroke = tone(LINES[id]!)
        return [
          { label: columnTitle(id), stroke, width: 1.5, spanGaps: false, points: { show: false } },
          { stroke, width: 1.5, spanGaps: false, points: { show: false } },
        ]
      }),
    ],
    bands: lines.value.map((id, i) => ({
      series: [1 + i * 2, 2 + i * 2] as [number, number],
      fill: `color-mix(in srgb, ${tone(LINES[id]!)} 45%, transparent)`,
    })),
    hooks: {
      setSelect: [
        (u) => {
          if (u.select.width < 4) return
          const at = (x: number) => u.posToVal(x, 'x')
          go(at(u.select.left), at(u.select.left + u.select.width))
          u.setSelect({ left: 0, top: 0, width: 0, height: 0 }, false)
        },
      ],
    },
  }
}

function go(start: number, end: number) {
  const middle = (start + end) / 2
  const half = Math.max(LEAST_SPAN, end - start) / 2
  from.value = Math.max(props.judgement.from, middle - half)
  to.value = Math.min(props.judgement.to, middle + half)
}
const span = () => to.value - from.value
const nearer = () => go(from.value + span() / 4, to.value - span() / 4)
const farther = () => go(from.value - span() / 2, to.value + span() / 2)
const move = (share: number) => {
  const by = Math.max(
    props.judgement.from - from.value,
    Math.min(props.judgement.to - to.value, span() * share),
  )
  from.value += by
  to.value += by
}
const all = () => go(props.judgement.from, props.judgement.to)
const KEYS: Record<string, () => void> = {
  '+': nearer,
  '-': farther,
  ArrowLeft: () => move(-0.5),
  ArrowRight: () => move(0.5),
  '0': all,
}
function key(event: KeyboardEvent) {
  const what = KEYS[event.key]
  if (!what || event.ctrlKey || event.metaKey) return
  event.preventDefault()
  what()
}

/** Stretches in which a lane is on, in percent of the width. */
function stretches(id: string) {
  const given = picture.value
  const list = given?.columns[id]?.most
  if (!given || !list) return []
  const on = (one: number | null) => isOn(props.judgement.on_off[id], one)
  const found: { left: number; width: number }[] = []
  let begun = -1
  list.forEach((one, i) => {
    if (on(one) && begun < 0) begun = i
    if ((!on(one) || i === list.length - 1) && begun >= 0) {
      found.push({
        left: (begun / given.width) * 100,
        width: ((i - begun + (on(one) ? 1 : 0)) / given.width) * 100,
      })
      begun = -1
    }
  })
  return found
}
const laneData = computed(() => lanes.value.map((id) => ({ id, spans: stretches(id) })))

function anew() {
  chart?.destroy()
  chart = null
  void draw()
}
onTheme(anew)
onBeforeUnmount(() => chart?.destroy())
watch([width, lines], anew)
watch([from, to], draw)
watch(
  () => props.chosen,
  (number) => {
    const one = props.judgement.defrosts.find((defrost) => defrost.number === number)
    if (one) go(one.start - 1800, (one.end ?? one.start + 600) + 1800)
  },
)
watch(
  () => props.log.id,
  () => {
    all()
    anew()
  },
)
</script>

<template>
  <figure
    class="record"
    data-testid="log-picture"
    tabindex="0"
    :aria-label="$t('LogPicture.theRecordOverTime')"
    @keydown="key"
  >
    <div class="tools">
      <el-checkbox-group v-model="wanted" :aria-label="$t('LogPicture.lines')">
        <el-checkbox v-for="id in there" :key="id" :value="id">
          <span class="sign" :style="{ '--line': `var(${LINES[id]})` }">{{ columnTitle(id) }}</span>
        </el-checkbox>
      </el-checkbox-group>
      <span class="grow"></span>
      <el-button-group>
        <el-button class="key" :aria-label="$t('LogPicture.earlier')" @click="move(-0.5)">←</el-button>
        <el-button class="key" :aria-label="$t('LogPicture.nearer')" data-testid="nearer" @click="nearer"
          >+</el-button
        >
        <el-button class="key" :aria-label="$t('LogPicture.farther')" @click="farther">−</el-button>
        <el-button class="key" :aria-label="$t('LogPicture.later')" @click="move(0.5)">→</el-button>
        <el-button class="key" :disabled="whole" data-testid="all-of-it" @click="all">{{
          $t('LogPicture.allOfIt')
        }}</el-button>
      </el-button-group>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <div ref="box" class="plot" :style="{ minHeight: `${HEIGHT}px` }"></div>
    <div class="lanes">
      <div class="lane marks">
        <span class="name">{{ $t('LogPicture.defrost') }}</span>
        <div class="track">
          <button
            v-for="one in shown"
            :key="one.number"
            type="button"
            tabindex="-1"
            :class="['mark', one.ended_by ?? 'unknown', { chosen: one.number === chosen }]"
            :style="{
              left: `${percent(one.start)}%`,
              width: `max(3px, ${percent(one.end ?? one.start) - percent(one.start)}%)`,
            }"
            :title="
              $t('LogPicture.defrostEndedBy', { number: one.number, ended_by_title: one.ended_by_title })
            "
            @click="emit('choose', one.number)"
          ></button>
        </div>
      </div>
      <div v-for="lane in laneData" :key="lane.id" class="lane">
        <span class="name">{{ columnTitle(lane.id) }}</span>
        <div class="track">
          <i
            v-for="(one, i) in lane.spans"
            :key="i"
            :style="{ left: `${one.left}%`, width: `${one.width}%` }"
          ></i>
        </div>
      </div>
    </div>
    <figcaption>
      {{ $t('LogPicture.inLeastToMostOf', { degreeSign: degreeSign(), zone }) }}
    </figcaption>
    <el-collapse v-if="picture" v-model="opened" @keydown.stop>
      <el-collapse-item :title="$t('LogPicture.asNumbers')" name="numbers" data-testid="as-numbers">
        <LogNumbers
          v-if="opened.includes('numbers')"
          :picture="picture"
          :lines="lines.filter((id) => picture?.columns[id])"
          :lanes="lanes"
          :rules="judgement.on_off"
          :zone="zone"
        />
      </el-collapse-item>
    </el-collapse>
  </figure>
</template>

<style scoped>
.record {
  margin: 0;
}

.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
}

.tools :deep(.el-checkbox-group) {
  display: flex;
  flex-wrap: wrap;
  gap: 0 20px;
}

.grow {
  flex: 1;
}

.sign {
  padding-left: 22px;
  background: linear-gradient(var(--line), var(--line)) left center / 16px 4px no-repeat;
}

.plot {
  margin-top: 6px;
}

.lane {
  display: grid;
  grid-template-columns: 104px 1fr;
  align-items: center;
  min-height: 18px;
}

.lane .name {
  font-size: 14px;
  white-space: nowrap;
  overflow: hidden;
}

.track {
  position: relative;
  height: 12px;
  margin-right: 24px;
  border-bottom: 1px solid var(--rule);
}

.track i {
  position: absolute;
  bottom: 0;
  height: 8px;
  background: var(--ink-soft);
}

.marks .track {
  height: 24px;
}

.mark {
  position: absolute;
  bottom: 0;
  height: 22px;
  padding: 0;
  border: 0;
  background: var(--agrees);
  cursor: pointer;
}

.mark.time {
  background: var(--alarm);
}

.mark.unknown,
.mark.call {
  background: var(--between);
}

.mark.chosen {
  outline: 3px solid var(--ink);
}

figcaption {
  color: var(--ink-soft);
  font-size: 14px;
}
</style>
