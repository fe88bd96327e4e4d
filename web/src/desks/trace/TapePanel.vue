<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { api, type Source, type Trace } from '@/shared/api/client'
import { refDebounced } from '@vueuse/core'
import { useQuestion } from '@/shared/api/useQuestion'
import { SPEEDS, type useTape } from '@/desks/trace/useTape'
import type { Problem } from '@/shared/model/outcome'
import { saveFile } from '@/shared/model/saveFile'
import { clock, differences, levelAt, shown, type Script } from '@/desks/trace/tape'
import FindingList from '@/shared/ui/FindingList.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TapeEvents from '@/desks/trace/TapeEvents.vue'
import TapeLanes from '@/desks/trace/TapeLanes.vue'
import TapeScript from '@/desks/trace/TapeScript.vue'
import TapeWhy from '@/desks/trace/TapeWhy.vue'
import ValvePicture from '@/desks/trace/ValvePicture.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'

const props = defineProps<{
  source: Source
  trace: Trace
  tape: ReturnType<typeof useTape>
  script: Script
  span: number
  /** In sight at the foot of the screen, whatever is scrolled above. */
  fixed: boolean
}>()
const emit = defineEmits<{ span: [script: Script, span: number]; away: [] }>()

const {
  outcome,
  timeline,
  shown: drawn,
  cursor,
  playing,
  speed,
  pins,
  window: stretch,
  canUndo,
  canRedo,
} = props.tape
const lanes = ref<InstanceType<typeof TapeLanes> | null>(null)
/** Lanes and curves that somebody chose; until then those that the run has for a first look. */
const chosen = ref<{ lanes?: string[]; curves?: string[] }>({})
const signals = computed(() => chosen.value.lanes ?? timeline.value?.first_lanes ?? [])
const curves = computed(() => chosen.value.curves ?? timeline.value?.first_curves ?? [])
const asked = ref<string | null>(null)
const problem = shallowRef<Problem | null>(null)

const here = computed(() => {
  const all = timeline.value?.refrigerant ?? []
  return [...all].reverse().find((one) => one.seconds <= cursor.value) ?? all[0] ?? null
})
const level = (id: string) =>
  levelAt(
    timeline.value?.curves.find((one) => one.id === id),
    cursor.value,
  )
const order = computed(() =>
  (timeline.value?.signals ?? []).map((one) => one.id).filter((id) => signals.value.includes(id)),
)
const apart = computed(() =>
  timeline.value && pins.value.length === 2
    ? differences(timeline.value, pins.value[0]!, pins.value[1]!)
    : null,
)
const body = computed(() => ({ script: props.script, duration_seconds: props.span }))

/** Where the cursor has come to rest. */
const restsAt = refDebounced(cursor, 150)
const { value: answered, problem: noWhy } = useQuestion(
  `why.${props.source.kind}.${props.source.id}`,
  () =>
    asked.value && !playing.value ? { ...body.value, signal: asked.value, at_seconds: restsAt.value } : null,
  (one) => api.why(props.source, one),
)
const why = computed(() => (asked.value ? answered.value : null))
const ask = (signal: string | null) => (asked.value = signal)

const toggle = (list: string[], id: string) =>
  list.includes(id) ? list.filter((one) => one !== id) : [...list, id]

async function save(kind: 'vcd' | 'csv') {
  const answer =
    kind === 'vcd' ? await api.vcd(props.source, body.value) : await api.eventsCsv(props.source, body.value)
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state === 'ready')
    saveFile(`gorvant-run.${kind}`, answer.value, kind === 'csv' ? 'text/csv' : 'text/plain')
}
</script>

<template>
  <section class="tape" :aria-label="$t('TapePanel.tape')" data-testid="tape">
    <div :class="['bar', { fixed }]">
      <div class="controls">
        <el-button
          class="key solid"
          :aria-pressed="playing"
          :title="$t('TapePanel.space')"
          data-testid="play"
          @click="tape.play()"
        >
          {{ playing ? $t('TapePanel.stop') : $t('TapePanel.play') }}
        </el-button>
        <PickOne
          v-model="speed"
          class="speed"
          :options="SPEEDS.map((id) => ({ id, title: `×${id}` }))"
          :label="$t('TapePanel.speed')"
          data-testid="speed"
        />
        <span class="at mono" data-testid="at">{{ clock(cursor) }}</span>
        <el-button class="key" title="[" :aria-label="$t('TapePanel.eventBefore')" @click="tape.event(-1)"
          >[ ‹</el-button
        >
        <el-button
          class="key"
          title="]"
          :aria-label="$t('TapePanel.nextEvent')"
          data-testid="next-event"
          @click="tape.event(1)"
        >
          › ]
        </el-button>
        <el-button class="key" :title="$t('TapePanel.p')" data-testid="pin" @click="tape.pin()">
          {{ $t('TapePanel.pin', { pins: pins.length === 1 ? 'B' : 'A' }) }}
        </el-button>
        <span class="spring"></span>
        <el-button class="key" :aria-label="$t('TapePanel.closer')" @click="lanes?.zoom(0.5)">+</el-button>
        <el-button class="key" :aria-label="$t('TapePanel.further')" @click="lanes?.zoom(2)">−</el-button>
        <el-button class="key" @click="lanes?.all()">{{ $t('TapePanel.all') }}</el-button>
        <el-button class="key" :disabled="!canUndo" @click="tape.walk(true)">{{
          $t('TapePanel.undo')
        }}</el-button>
        <el-button class="key" :disabled="!canRedo" @click="tape.walk(false)">{{
          $t('TapePanel.redo')
        }}</el-button>
        <el-button class="key" data-testid="vcd" @click="save('vcd')">{{ $t('TapePanel.vcd') }}</el-button>
        <el-button class="key" data-testid="csv" @click="save('csv')">{{ $t('TapePanel.csv') }}</el-button>
        <el-button class="key" :title="$t('TapePanel.t')" data-testid="tape-away" @click="emit('away')">{{
          $t('TapePanel.away')
        }}</el-button>
      </div>
      <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
      <ProblemNote v-if="problem ?? noWhy" :problem="(problem ?? noWhy)!" />
      <p v-if="outcome.state === 'loading'" class="quiet">{{ $t('TapePanel.running') }}</p>
      <TapeLanes
        v-if="drawn"
        ref="lanes"
        :timeline="drawn"
        :signals="order"
        :curves="curves"
        :cursor="cursor"
        :pins="pins"
        :asked="asked"
        @go="(at) => tape.go(at)"
        @window="(from, to) => (stretch = from <= 0 && to >= span ? null : { from, to })"
        @ask="(id) => ask(asked === id ? null : id)"
      />
    </div>
    <div v-if="timeline" class="under">
      <div>
        <TapeWhy v-if="why && asked" :why="why" :title="asked" :at="cursor" @go="(at) => tape.go(at)" />
        <p v-else class="quiet">{{ $t('TapePanel.touchTheNameOfA') }}</p>
        <section v-if="apart" class="apart" data-testid="apart">
          <h3>{{ $t('TapePanel.fromAAtToB', { clock: clock(pins[0]!), clock2: clock(pins[1]!) }) }}</h3>
          <p v-if="!apart.length">{{ $t('TapePanel.nothingDiffers') }}</p>
          <ul>
            <li v-for="one in apart" :key="one.id">
              {{ one.title }}: {{ shown(one.before) }} → {{ shown(one.after) }}
            </li>
          </ul>
        </section>
        <FindingList :findings="timeline.findings" />
        <ul v-if="timeline.findings.length" class="when">
          <li v-for="(finding, i) in timeline.findings" :key="i">
            <el-button class="key quiet" @click="tape.go(finding.seconds)">
              {{ clock(finding.seconds) }} {{ finding.title }}
            </el-button>
          </li>
        </ul>
        <TapeEvents :events="timeline.events" :cursor="cursor" @go="(at) => tape.go(at)" />
      </div>
      <div>
        <ValvePicture v-if="here" :state="here" :pressure="level('pressure')" :coil="level('coil')" />
        <details>
          <summary>{{ $t('TapePanel.lanes') }}</summary>
          <div class="choose">
            <el-checkbox
              v-for="one in timeline.signals"
              :key="one.id"
              :model-value="signals.includes(one.id)"
              @change="chosen = { ...chosen, lanes: toggle(signals, one.id) }"
              >{{ one.title }}</el-checkbox
            >
            <el-checkbox
              v-for="one in timeline.curves"
              :key="one.id"
              :model-value="curves.includes(one.id)"
              @change="chosen = { ...chosen, curves: toggle(curves, one.id) }"
              >{{ one.title }}</el-checkbox
            >
          </div>
        </details>
      </div>
      <TapeScript
        :source="source"
        :script="script"
        :span="span"
        :trace="trace"
        :cursor="cursor"
        @set="(next, length) => emit('span', next, length)"
        @put="(move, at) => tape.put(move, at)"
        @take="(i) => tape.take(i)"
        @go="(at) => tape.go(at)"
      />
    </div>
    <TapeScript
      v-else-if="outcome.state === 'failed'"
      :source="source"
      :script="script"
      :span="span"
      :trace="trace"
      :cursor="cursor"
      @set="(next, length) => emit('span', next, length)"
      @put="(move, at) => tape.put(move, at)"
      @take="(i) => tape.take(i)"
      @go="(at) => tape.go(at)"
    />
  </section>
</template>

<style scoped>
.tape {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  margin-top: 10px;
}

/* Stays in sight under the drawing that it replays. */
.bar {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
  max-height: 46vh;
  padding: 8px 0;
  overflow-y: auto;
  border-top: 3px solid var(--ink);
  background: var(--paper);
}

@media (min-width: 1041px) {
  .bar.fixed {
    position: fixed;
    z-index: 12;
    right: 0;
    bottom: 0;
    left: 0;
    padding: 8px 16px;
    box-shadow: 0 -6px 18px var(--shade);
  }
}

.controls {
  position: sticky;
  z-index: 2;
  top: -8px;
  background: var(--paper);
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}

.controls select {
  min-height: var(--target);
  border: 2px solid var(--ink);
  border-radius: 3px;
  background: var(--panel);
  font-weight: 650;
}

.at {
  min-width: 96px;
  font-size: 22px;
  font-weight: 700;
  text-align: center;
}

.spring {
  flex: 1;
}

.under {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 3fr) minmax(0, 4fr);
  gap: 16px;
  align-items: start;
}

.under > div {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}

.quiet {
  color: var(--ink-soft);
}

.when,
.apart ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

.apart {
  padding: 8px 12px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
}

.apart h3 {
  font-size: 16px;
}

summary {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  cursor: pointer;
  font-weight: 650;
}

.choose {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
}

.choose label {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
}

.choose input {
  width: 20px;
  height: 20px;
}

@media (max-width: 1040px) {
  .under {
    grid-template-columns: minmax(0, 1fr);
  }
}

.speed {
  width: 96px;
}
</style>
