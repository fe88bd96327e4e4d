<script setup lang="ts">
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { api, type DefrostSchools, type Visit } from '@/api/client'
import type { Problem } from '@/model/outcome'
import { covers, painted, readSpans, writeSpans } from '@/model/spans'
import ProblemNote from './ProblemNote.vue'

type History = Record<string, string | number>
const props = defineProps<{ visit: Visit; history: History; seen: number[]; busy: boolean }>()
const emit = defineEmits<{ keep: [history: History, seen: number[]]; use: [school: string] }>()

const LANES = [
  { id: 'fed', title: 'compressor fed' },
  { id: 'cold', title: 'coil switch closed' },
] as const
const form = reactive({
  minutes: Number(props.history.minutes ?? 180),
  fed: String(props.history.fed ?? '0-25, 40-62, 75-'),
  cold: String(props.history.cold ?? 'always'),
  y: String(props.history.y ?? ''),
  cooling: String(props.history.cooling ?? ''),
  unpowered: String(props.history.unpowered ?? ''),
})
const seen = ref(props.seen.join(', '))
const answer = shallowRef<DefrostSchools | null>(null)
const problem = shallowRef<Problem | null>(null)
const more = ref(false)
const file = ref<HTMLInputElement | null>(null)

const given = computed<History>(() => ({
  minutes: form.minutes,
  fed: form.fed,
  cold: form.cold,
  ...(form.y.trim() ? { y: form.y } : {}),
  ...(form.cooling.trim() ? { cooling: form.cooling } : {}),
  ...(form.unpowered.trim() ? { unpowered: form.unpowered } : {}),
}))
const starts = computed(() =>
  seen.value
    .split(/[,;\s]+/)
    .filter(Boolean)
    .map(Number)
    .filter(Number.isFinite),
)

let asked = 0
watch(
  [given, starts, () => props.visit.rig_revision_id],
  async ([history, times], before) => {
    const mine = ++asked
    const result = await api.defrostSchools(props.visit.id, {
      history,
      seen: times,
    })
    if (mine !== asked) return
    problem.value = result.state === 'failed' ? result.problem : null
    if (result.state !== 'ready') return
    answer.value = result.value
    if (before[0]) emit('keep', history, times)
  },
  { immediate: true },
)

async function readFile(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  if (!chosen) return
  const result = await api.defrostSchools(props.visit.id, { text: await chosen.text(), seen: starts.value })
  input.value = ''
  problem.value = result.state === 'failed' ? result.problem : null
  if (result.state !== 'ready') return
  const read = result.value.history as unknown as History
  Object.assign(form, { ...read, minutes: Math.ceil(Number(read.minutes)) })
}

// --- the ruler

const WIDTH = 900
const LEFT = 170
const LANE = 44
const x = (minute: number) => LEFT + (Math.min(minute, form.minutes) / form.minutes) * (WIDTH - LEFT - 12)
const lanes = computed(() => LANES.map((lane) => ({ ...lane, spans: readSpans(form[lane.id]) })))
const courses = computed(() => answer.value?.courses ?? [])
const height = computed(() => 26 + (LANES.length + courses.value.length) * LANE + 8)
const ticks = computed(() => {
  const step = [5, 10, 15, 30, 60, 120, 240].find((one) => form.minutes / one <= 12) ?? 480
  return Array.from({ length: Math.floor(form.minutes / step) + 1 }, (_, i) => i * step)
})
const drag = ref<{ lane: 'fed' | 'cold'; from: number; to: number; on: boolean } | null>(null)

function minuteAt(event: PointerEvent) {
  const box = (event.currentTarget as Element).closest('svg')!.getBoundingClientRect()
  const at = ((event.clientX - box.left) / box.width) * WIDTH
  return Math.round(Math.min(Math.max((at - LEFT) / (WIDTH - LEFT - 12), 0), 1) * form.minutes)
}
function down(lane: 'fed' | 'cold', event: PointerEvent) {
  const at = minuteAt(event)
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  drag.value = { lane, from: at, to: at, on: !covers(readSpans(form[lane]), at) }
}
function move(event: PointerEvent) {
  if (drag.value) drag.value = { ...drag.value, to: minuteAt(event) }
}
function up() {
  const now = drag.value
  drag.value = null
  if (!now) return
  const [from, to] = [Math.min(now.from, now.to), Math.max(now.from, now.to)]
  form[now.lane] = writeSpans(painted(readSpans(form[now.lane]), from, to, now.on, form.minutes))
}

/** Each defrost of a school, from its start to its end or to the end of the ruler. */
const bars = (course: DefrostSchools['courses'][number]) =>
  course.starts.map((start, i) => ({ start, end: course.ends[i] ?? form.minutes }))
const own = computed(() => answer.value?.own)
const isOwn = (school: string) =>
  school.replace('_restarts', '') === own.value && school !== 'run_time_restarts'
</script>

<template>
  <section class="schools" aria-label="Schools side by side">
    <p class="hint">
      One history, every school. Drag on a lane to paint a stretch or wipe it, or type it. Interval
      <b class="mono">{{ answer?.interval_minutes ?? '…' }} min</b>.
    </p>
    <div class="asks">
      <label v-for="lane in LANES" :key="lane.id"
        >{{ lane.title }}
        <input
          v-model.lazy="form[lane.id]"
          class="mono wide"
          maxlength="2000"
          :data-testid="`lane-${lane.id}`"
      /></label>
      <label
        >ruler
        <select v-model.number="form.minutes">
          <option
            v-for="one in [...new Set([60, 120, 180, 240, 480, 960, 1440, form.minutes])].sort(
              (a, b) => a - b,
            )"
            :key="one"
            :value="one"
          >
            {{ one }} min
          </option>
        </select></label
      >
      <label
        >defrosts seen at
        <input v-model.lazy="seen" class="mono" maxlength="200" placeholder="123" data-testid="seen" />
        min</label
      >
      <button class="key" @click="file?.click()">From CSV</button>
      <input
        ref="file"
        class="hidden-label"
        type="file"
        accept=".csv,text/csv"
        aria-label="Run history as CSV"
        tabindex="-1"
        data-testid="history-csv"
        @change="readFile"
      />
      <button class="key quiet" :aria-expanded="more" @click="more = !more">Y apart, cooling, power</button>
    </div>
    <div v-if="more" class="asks">
      <label
        >Y live <input v-model.lazy="form.y" class="mono wide" placeholder="as fed" maxlength="2000"
      /></label>
      <label
        >in cooling <input v-model.lazy="form.cooling" class="mono wide" placeholder="never" maxlength="2000"
      /></label>
      <label
        >board without power
        <input v-model.lazy="form.unpowered" class="mono wide" placeholder="never" maxlength="2000"
      /></label>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="scroll" tabindex="0" role="region" aria-label="Ruler, scrolls sideways">
      <svg :viewBox="`0 0 ${WIDTH} ${height}`" class="ruler" data-testid="ruler">
        <g v-for="tick in ticks" :key="tick">
          <line :x1="x(tick)" y1="22" :x2="x(tick)" :y2="height - 4" class="grid" />
          <text :x="x(tick)" y="15" text-anchor="middle" class="small">{{ tick }}</text>
        </g>
        <g v-for="(lane, i) in lanes" :key="lane.id">
          <text :x="LEFT - 10" :y="26 + i * LANE + 27" text-anchor="end">{{ lane.title }}</text>
          <rect
            :x="LEFT"
            :y="26 + i * LANE + 3"
            :width="WIDTH - LEFT - 12"
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
            :y="26 + (LANES.length + i) * LANE + 27"
            text-anchor="end"
            :class="{ own: isOwn(course.school) }"
          >
            {{ course.fits === true ? '= ' : course.fits === false ? '≠ ' : '' }}{{ course.title }}
          </text>
          <line
            :x1="LEFT"
            :y1="26 + (LANES.length + i) * LANE + 22"
            :x2="WIDTH - 12"
            :y2="26 + (LANES.length + i) * LANE + 22"
            class="grid"
          />
          <rect
            v-for="bar in bars(course)"
            :key="bar.start"
            :x="x(bar.start)"
            :y="26 + (LANES.length + i) * LANE + 10"
            :width="Math.max(x(bar.end) - x(bar.start), 3)"
            :height="LANE - 20"
            class="defrost"
          />
          <text
            v-if="course.starts[0] !== undefined"
            :x="x(course.starts[0]) - 5"
            :y="26 + (LANES.length + i) * LANE + 28"
            text-anchor="end"
            class="first mono"
          >
            {{ Math.round(course.starts[0] * 10) / 10 }}
          </text>
          <text v-else :x="LEFT + 8" :y="26 + (LANES.length + i) * LANE + 28" class="small">never here</text>
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
    <div v-if="answer" class="told">
      <p v-if="starts.length" class="fit" data-testid="fitting">
        {{
          answer.fitting.length
            ? `Fits what was seen: ${courses
                .filter((one) => answer!.fitting.includes(one.school))
                .map((one) => one.title)
                .join(', ')}.`
            : 'No school fits what was seen: another interval, another history, or a board that is not counting.'
        }}
      </p>
      <details v-for="course in courses" :key="course.school">
        <summary>
          <b>{{ course.title }}</b>
          {{
            course.starts.length
              ? `first at ${Math.round(course.starts[0]! * 10) / 10} min`
              : 'never in this history'
          }}
        </summary>
        <ul>
          <li v-for="step in course.steps" :key="step.minute + step.kind">{{ step.says }}</li>
        </ul>
        <button
          v-if="!isOwn(course.school)"
          class="key"
          :disabled="busy"
          :data-testid="`use-${course.school}`"
          @click="emit('use', course.school)"
        >
          This is the board’s school
        </button>
        <p v-else>= The board’s school, as the rig has it.</p>
      </details>
      <p class="assumed">
        Assumed: {{ answer.assumed.join('; ') || 'nothing' }}; a defrost lasts {{ answer.lasts_minutes }} min
        here.
      </p>
    </div>
  </section>
</template>

<style scoped>
.schools {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.hint,
.assumed {
  color: var(--ink-soft);
}

.asks input.wide:not([type]) {
  width: 210px;
}

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

.told details {
  border-bottom: 1px solid var(--rule);
}

summary {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  min-height: var(--target);
  cursor: pointer;
}

.fit {
  padding: 8px 12px;
  border-left: 6px solid var(--ink);
  background: var(--panel);
  font-weight: 650;
}
</style>
