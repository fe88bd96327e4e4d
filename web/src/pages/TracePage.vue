<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, type Condition, type Reading, type Rig, type Source, type Visit } from '@/api/client'
import CallBar from '@/components/CallBar.vue'
import FindingList from '@/components/FindingList.vue'
import KeyHelp from '@/components/KeyHelp.vue'
import LoadList from '@/components/LoadList.vue'
import MeterPanel from '@/components/MeterPanel.vue'
import ProblemNote from '@/components/ProblemNote.vue'
import ReadingLog from '@/components/ReadingLog.vue'
import WhatIf from '@/components/WhatIf.vue'
import { useCatalogue } from '@/composables/useCatalogue'
import { useExpected } from '@/composables/useExpected'
import { useReadings } from '@/composables/useReadings'
import { useScreen } from '@/composables/useScreen'
import { useTrace } from '@/composables/useTrace'
import { actionFor, isTyping } from '@/model/keys'
import { commonFor, loopThrough, stopsOf, type Station } from '@/model/readingTable'
import { readState, writeState, type TraceState } from '@/model/traceState'
import { saveFile } from '@/model/saveFile'
import { degrees } from '@/model/units'
import LoopScene from '@/scene/LoopScene.vue'
import LoopStrings from '@/scene/LoopStrings.vue'

const props = defineProps<{ kind: 'visit' | 'rig'; id: string }>()
const route = useRoute()
const router = useRouter()
const catalogue = useCatalogue()

const state = computed(() => readState(route.query))
const condition = computed<Condition>(() => ({
  call: state.value.call,
  switches: state.value.supposed,
  ...(state.value.faults.length ? { faults: state.value.faults } : {}),
  ...(state.value.off.length
    ? { supplies: Object.fromEntries(state.value.off.map((id) => [id, false])) }
    : {}),
}))
const source: Source = { kind: props.kind, id: props.id }
const { outcome } = useTrace(
  source,
  condition,
  () => state.value.instrument,
  () => calls.value.map((call) => ({ ...condition.value, call: call.id })),
)
const trace = computed(() => (outcome.value.state === 'ready' ? outcome.value.value : null))
/** The calls that make sense for this rig. */
const calls = computed(() =>
  (catalogue.value?.calls ?? []).filter((call) => !trace.value || trace.value.calls.includes(call.id)),
)
const { expected, ohms } = useExpected(source, trace, condition, state)
const { readings, problem, busy, keep, takeBack } = useReadings(props.kind === 'visit' ? props.id : null)

const visit = shallowRef<Visit | null>(null)
const rig = shallowRef<Rig | null>(null)
const missing = ref<string | null>(null)
const askedLoad = ref<string | null>(null)
const touched = shallowRef<Station | null>(null)
const inHand = ref<string[]>([])
const last = shallowRef<Reading | null>(null)
const correcting = shallowRef<Reading | null>(null)
const meter = ref<InstanceType<typeof MeterPanel> | null>(null)
const keysShown = ref(false)
const narrow = useScreen('(max-width: 640px)')
const docked = useScreen('(max-width: 1040px)')

const callReadings = computed(() =>
  readings.value.filter((reading) => reading.condition.call === state.value.call),
)
const canSuppose = computed(() => {
  const station = touched.value
  return station && trace.value?.movable.includes(station.id) ? station : null
})

function change(part: Partial<TraceState>) {
  void router.replace({ query: writeState({ ...state.value, ...part }) })
}

function choose(call: string) {
  missing.value = null
  askedLoad.value = null
  change({ call })
}

function place(probe: 'black' | 'red', node: string) {
  change(probe === 'black' ? { black: node } : { red: node })
}

/** A terminal takes one probe; a switch or a load takes both, or in hopping its far side. */
function tap(station: { id: string; kind: string; nodes: string[] }, load: string | null = null) {
  touched.value = trace.value?.scene.stations.find((one) => one.id === station.id) ?? null
  inHand.value = [station.id, ...station.nodes]
  const [near, far] = station.nodes
  if (!near || !trace.value) return
  if (!far) return touchPoint(near, load)
  const isLoad = ['coil', 'load', 'source'].includes(station.kind)
  if (state.value.hop && !isLoad) touchPoint(state.value.red === far ? near : far, load)
  else change({ black: far, red: near, loop: load ?? loopThrough(trace.value, near, state.value.loop) })
}

function touchPoint(node: string, load: string | null) {
  const loop = load ?? (trace.value ? loopThrough(trace.value, node, state.value.loop) : null)
  if (!state.value.hop) return change({ black: state.value.red ?? commonFor(node), red: node, loop })
  if (node.endsWith('.C')) return change({ black: node, loop })
  change({
    black:
      state.value.black?.endsWith('.C') && sameIsland(state.value.black, node)
        ? state.value.black
        : commonFor(node),
    red: node,
    loop,
  })
}

const sameIsland = (first: string, second: string) => first.split('.')[0] === second.split('.')[0]

/** Moves the red probe along the loop in hand. */
function step(by: number) {
  if (!trace.value) return
  const loop = state.value.loop ?? trace.value.strings[0]?.load ?? null
  if (!loop) return
  const stops = stopsOf(trace.value, loop).filter((node) => node !== state.value.black)
  const at = stops.indexOf(state.value.red ?? '')
  const node = stops[Math.min(Math.max(at + by, 0), stops.length - 1)]
  if (node) change({ red: node, black: state.value.black ?? commonFor(node), loop })
}

async function keepReading(value: number) {
  if (!state.value.black || !state.value.red) return
  const kept = await keep({
    from_node: state.value.black,
    to_node: state.value.red,
    value_volts_ac: value,
    instrument: state.value.instrument,
    condition: condition.value,
    ...(correcting.value ? { supersedes_id: correcting.value.id } : {}),
  })
  if (!kept) return
  last.value = kept
  correcting.value = null
  if (state.value.hop) step(1)
}

function show(reading: Reading) {
  change({
    call: reading.condition.call ?? 'off',
    supposed: reading.condition.switches ?? {},
    faults: reading.condition.faults ?? [],
    off: Object.entries(reading.condition.supplies ?? {}).flatMap(([id, on]) => (on ? [] : [id])),
    ohms: false,
    black: reading.from_node,
    red: reading.to_node,
    instrument: reading.instrument,
  })
}

function correct(reading: Reading) {
  show(reading)
  correcting.value = reading
}

function suppose(station: Station, position: 'open' | 'closed' | null) {
  const supposed = { ...state.value.supposed }
  if (position) supposed[station.id] = position
  else delete supposed[station.id]
  change({ supposed })
}

/** The circuit as it stands, for ngspice. */
async function saveDeck() {
  const answer = await api.spice(source, condition.value)
  if (answer.state === 'failed') problem.value = answer.problem
  else if (answer.state === 'ready') saveFile(`gorvant-${state.value.call}.cir`, answer.value)
}

function ask(load: { code: string; missing: string | null; on: boolean } | null) {
  askedLoad.value = load?.code ?? null
  missing.value = load && !load.on ? load.missing : null
}

function onKey(event: KeyboardEvent) {
  const call =
    isTyping(event) || event.ctrlKey || event.metaKey || event.altKey
      ? null
      : calls.value.find((one) => one.key === event.key)
  if (call) return choose(call.id)
  const action = actionFor(event)
  if (!action) return
  event.preventDefault()
  const instruments = catalogue.value?.instruments ?? []
  const acts: Record<typeof action, () => void> = {
    measure: () => meter.value?.focus(),
    next: () => step(1),
    previous: () => step(-1),
    swap: () => change({ black: state.value.red, red: state.value.black }),
    hop: () => change({ hop: !state.value.hop }),
    instrument: () => {
      const at = instruments.findIndex((one) => one.id === state.value.instrument)
      change({ instrument: instruments[(at + 1) % instruments.length]?.id ?? state.value.instrument })
    },
    ohms: () => change({ ohms: !state.value.ohms }),
    keys: () => (keysShown.value = !keysShown.value),
  }
  acts[action]()
}

onMounted(() => addEventListener('keydown', onKey))
onBeforeUnmount(() => removeEventListener('keydown', onKey))

const failure = shallowRef<import('@/model/outcome').Problem | null>(null)
void (async () => {
  const answer = props.kind === 'visit' ? await api.visit(props.id) : await api.rig(props.id)
  if (answer.state === 'failed') failure.value = answer.problem
  else if (answer.state === 'ready') {
    if (props.kind === 'visit') visit.value = answer.value as Visit
    else rig.value = answer.value as Rig
  }
})()

watch(trace, (now) => {
  if (now && askedLoad.value) ask(now.loads.find((load) => load.code === askedLoad.value) ?? null)
})
</script>

<template>
  <main :class="['trace', { docked }]">
    <div class="head">
      <h1 v-if="visit">
        {{ visit.site }} <span>{{ visit.unit }}</span>
      </h1>
      <h1 v-else-if="rig">{{ rig.name }} <span>rig of the library</span></h1>
      <h1 v-else>Trace</h1>
      <p v-if="visit" class="complaint">“{{ visit.complaint }}”</p>
      <p v-if="visit?.outdoor_degrees_f !== null && visit" class="weather">
        {{ degrees(visit.outdoor_degrees_f) }} outside
      </p>
      <RouterLink v-if="visit" class="fitted" :to="`/rigs/${visit.rig_id}/trace`"
        >rig: {{ visit.rig_name }}, revision {{ visit.rig_revision }}</RouterLink
      >
    </div>

    <ProblemNote v-if="failure" :problem="failure" />
    <CallBar v-if="catalogue && !failure" :calls="calls" :call="state.call" @choose="choose" />
    <p v-if="Object.keys(state.supposed).length" class="supposed">
      <span v-for="(position, code) in state.supposed" :key="code">
        supposed: <b>{{ code }} {{ position }}</b>
      </span>
      <button class="key quiet" @click="change({ supposed: {} })">as at rest</button>
    </p>
    <ProblemNote v-if="outcome.state === 'failed' && !failure" :problem="outcome.problem" />
    <RouterLink v-if="failure" class="key" to="/">Back to the day sheet</RouterLink>
    <p v-if="outcome.state === 'loading'" class="waiting">Solving the circuit …</p>

    <div v-if="trace && catalogue" class="bench">
      <div class="drawing">
        <LoopStrings
          v-if="narrow"
          :strings="trace.strings"
          :loop="state.loop ?? trace.strings[0]?.load ?? null"
          :black="state.black"
          :red="state.red"
          @tap="(bead, load) => tap(bead, load)"
          @loop="(loop) => change({ loop })"
        />
        <div v-else class="loom">
          <LoopScene
            :scene="trace.scene"
            :black="state.black"
            :red="state.red"
            :missing="missing"
            :readings="callReadings"
            :changed="trace.changes?.nodes.map((node) => node.id)"
            @tap="tap"
            @wire="(link) => (inHand = [...link.branches, ...link.nodes])"
          />
          <ul class="legend" aria-label="Line styles">
            <li><i class="sample live"></i> live</li>
            <li><i class="sample home"></i> common</li>
            <li><i class="sample dead"></i> dead</li>
            <li><i class="sample floating"></i> floats</li>
            <li><i class="sample between"></i> between</li>
            <li><b>≠</b> broken</li>
          </ul>
        </div>
      </div>

      <div class="side">
        <MeterPanel
          ref="meter"
          :trace="trace"
          :expected="expected"
          :in-ohms="state.ohms"
          :ohms="ohms"
          :black="state.black"
          :red="state.red"
          :instrument="state.instrument"
          :instruments="catalogue.instruments"
          :hop="state.hop"
          :can-keep="kind === 'visit'"
          :busy="busy"
          :last="last"
          :correcting="correcting"
          :problem="problem"
          :docked="docked"
          @place="place"
          @swap="change({ black: state.red, red: state.black })"
          @hop="(hop) => change({ hop })"
          @ohms="(on) => change({ ohms: on })"
          @instrument="(instrument) => change({ instrument })"
          @keep="keepReading"
          @give-up="correcting = null"
        >
          <div v-if="canSuppose" class="suppose">
            <button v-if="state.supposed[canSuppose.id]" class="key" @click="suppose(canSuppose, null)">
              {{ canSuppose.label }} as at rest
            </button>
            <button
              v-else
              class="key"
              data-testid="suppose"
              @click="suppose(canSuppose, canSuppose.closed ? 'open' : 'closed')"
            >
              Suppose {{ canSuppose.label }} {{ canSuppose.closed ? 'open' : 'closed' }}
            </button>
          </div>
        </MeterPanel>
        <WhatIf
          :source="source"
          :trace="trace"
          :faults="state.faults"
          :off="state.off"
          :touched="inHand"
          @faults="(faults) => change({ faults })"
          @off="(off) => change({ off })"
        />
        <FindingList :findings="trace.findings" />
        <LoadList :loads="trace.loads" :asked="askedLoad" @ask="ask" />
        <p class="assumed">
          Transformer: {{ trace.supply.drawn_va.toFixed(0) }} of {{ trace.supply.rated_va.toFixed(0) }} VA in
          this call, at {{ trace.supply.volts_ac.toFixed(1) }} V.
          <button class="key quiet" @click="saveDeck">SPICE deck</button>
        </p>
        <p v-if="trace.assumed.length" class="assumed">
          Assumed, not read: {{ trace.assumed.join(', ').toLowerCase() }}.
        </p>
      </div>
    </div>

    <ReadingLog
      v-if="kind === 'visit' && !failure"
      :readings="readings"
      @take-back="takeBack"
      @correct="correct"
      @show="show"
    />
    <KeyHelp v-model="keysShown" :calls="calls" />
    <p class="small">
      The maker’s diagram and instructions come first. Fan and compressor may start by themselves.
    </p>
  </main>
</template>

<style scoped>
.trace {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 8px 16px 24px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 18px;
}

h1 {
  font-size: 22px;
  line-height: 1.2;
}

h1 span {
  font-weight: 450;
}

.complaint {
  flex: 1 1 260px;
  color: var(--ink-soft);
  overflow: hidden;
  text-overflow: ellipsis;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}

.fitted {
  color: var(--ink-soft);
  font-size: 14px;
}

.bench {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 312px;
  gap: 12px;
  align-items: start;
}

.drawing {
  min-width: 0;
}

.loom {
  overflow-x: auto;
}

.loom .scene {
  min-width: 780px;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
  color: var(--ink-soft);
  font-size: 14px;
}

.legend li {
  display: inline-flex;
  align-items: center;
  gap: 7px;
}

.legend b {
  color: var(--alarm);
}

.sample {
  display: inline-block;
  width: 30px;
  border-top: 2px solid var(--dead);
}

.sample.live {
  border-top: 6px solid var(--live);
}

.sample.home {
  border-top: 6px double var(--home);
}

.sample.floating {
  border-top: 3px dotted var(--dead);
}

.sample.between {
  border-top: 4px dashed var(--between);
}

.side {
  display: grid;
  gap: 12px;
}

.supposed {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 0 10px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
}

.suppose .key {
  width: 100%;
}

.waiting,
.assumed,
.small {
  color: var(--ink-soft);
}

.assumed,
.small {
  font-size: 14px;
}

@media (max-width: 1040px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
    padding-bottom: 12px;
  }

  .side {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    align-items: start;
  }
}

.trace.docked {
  padding-bottom: 210px;
}

@media (max-width: 640px) {
  .trace {
    padding: 8px 10px 24px;
  }

  .side {
    grid-template-columns: minmax(0, 1fr);
  }

  .complaint {
    flex-basis: 100%;
  }
}
</style>
