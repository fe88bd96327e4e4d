<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, defineAsyncComponent, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import {
  api,
  type Condition,
  type NewReading,
  type Reading,
  type Rig,
  type Source,
  type Visit,
} from '@/shared/api/client'
import CallBar from '@/shared/ui/CallBar.vue'
import FindingList from '@/shared/ui/FindingList.vue'
import FollowPanel from '@/desks/trace/FollowPanel.vue'
import LiveMeter from '@/desks/trace/LiveMeter.vue'
import type { Sample } from '@/desks/trace/liveMeter'
import KeyHelp from '@/desks/trace/KeyHelp.vue'
import LoadList from '@/desks/trace/LoadList.vue'
import MeterPanel from '@/desks/trace/MeterPanel.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ReadingLog from '@/desks/trace/ReadingLog.vue'
import SymptomLeads from '@/shared/ui/SymptomLeads.vue'
import RigFoot from '@/desks/trace/RigFoot.vue'
import SpokenLoops from '@/desks/trace/SpokenLoops.vue'
import StandsBar from '@/desks/trace/StandsBar.vue'
import SupposeKey from '@/desks/trace/SupposeKey.vue'
import TapePanel from '@/desks/trace/TapePanel.vue'
import TraceHead from '@/desks/trace/TraceHead.vue'
import TraceViews from '@/desks/trace/TraceViews.vue'
import ViewTabs from '@/desks/trace/ViewTabs.vue'
import WhatIf from '@/desks/trace/WhatIf.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { useExpected } from '@/desks/trace/useExpected'
import { useProbes, type Touched } from '@/desks/trace/useProbes'
import { useReadings, type Read } from '@/shared/ui/useReadings'
import { useSupposing } from '@/desks/trace/useSupposing'
import { useTape } from '@/desks/trace/useTape'
import { useTrace } from '@/desks/trace/useTrace'
import { useTraceFiles } from '@/desks/trace/useTraceFiles'
import { useTraceKeys } from '@/desks/trace/useTraceKeys'
import type { Problem } from '@/shared/model/outcome'
import { readState, writeState, type TraceState } from '@/desks/trace/traceState'
import { volts } from '@/shared/model/units'
import LoopStrings from '@/shared/scene/LoopStrings.vue'

const { t } = useI18n()
const props = defineProps<{ kind: 'visit' | 'rig'; id: string }>()
const route = useRoute()
const router = useRouter()
const catalogue = useCatalogue()

const state = computed(() => readState(route.query))
const source: Source = { kind: props.kind, id: props.id }
const tape = useTape(source, state, change)
/** By hand, or as it stands at the tape's instant. */
const condition = computed<Condition>(() => tape.condition.value ?? byHand.value)
const byHand = computed<Condition>(() => ({
  call: state.value.call,
  switches: state.value.supposed,
  ...(state.value.faults.length ? { faults: state.value.faults } : {}),
  ...(state.value.off.length
    ? { supplies: Object.fromEntries(state.value.off.map((id) => [id, false])) }
    : {}),
}))
const ahead = () =>
  tape.timeline.value?.conditions ?? calls.value.map((call) => ({ ...byHand.value, call: call.id }))
const call = computed(() => condition.value.call ?? 'off')
const { outcome, trace, expectedTable, useDrawing } = useTrace(source, condition, state, ahead)
/** The calls that make sense for this rig. */
const calls = computed(() =>
  (catalogue.value?.calls ?? []).filter((call) => !trace.value || trace.value.calls.includes(call.id)),
)
const { loop, tap, step } = useProbes(trace, state, change)
const { outcome: drawing, again: drawAgain } = useDrawing(loop)
/** Whether what stands below the bench has its place: the bench is there, or will not come. */
const settled = computed(
  () =>
    !!failure.value ||
    outcome.value.state === 'failed' ||
    (known.value && !!trace.value && (drawn.value || narrow.value)),
)
/** Whether a drawing has come once: what stands under it waits for that, and is not pushed down by it. */
const drawn = ref(false)
watch(drawing, (now) => now.state !== 'loading' && (drawn.value = true), { immediate: true })
const { expected, ohms } = useExpected(source, expectedTable, condition, state)
const { readings, problem, busy, keep, takeBack } = useReadings(props.kind === 'visit' ? props.id : null)

const visit = shallowRef<Visit | null>(null)
const rig = shallowRef<Rig | null>(null)
/** What this page is of, and in which words: nothing that the head would push down stands before it. */
const known = computed(() => (visit.value ?? rig.value) !== null && !!catalogue.value)
const missing = ref<string | null>(null)
const askedLoad = ref<string | null>(null)
const inHand = ref<string[]>([])
const onWay = ref<string[]>([])
const last = shallowRef<Reading | null>(null)
const correcting = shallowRef<Reading | null>(null)
const meter = ref<InstanceType<typeof MeterPanel> | null>(null)
const keysShown = ref(false)
/** The first look comes by a link of the day sheet, or back by the keys' list. */
const FirstLook = defineAsyncComponent(() => import('@/desks/trace/FirstLook.vue'))
const looking = ref(route.query.look === 'first')
const narrow = useMediaQuery('(max-width: 640px)')
const small = useMediaQuery('(max-width: 1040px)')
/** The connection view takes the whole width; the meter then stands at the foot, as on a small screen. */
const wide = computed(() => state.value.view === 'connections' && !narrow.value)
const docked = computed(() => small.value || wide.value)

const callReadings = computed(() => readings.value.filter((reading) => reading.condition.call === call.value))
/** What the visit's symptoms say to look at first. */
const leads = computed(() =>
  (catalogue.value?.symptoms ?? []).filter((one) => visit.value?.symptoms.includes(one.id)),
)

const off = computed(() =>
  Object.entries(condition.value.supplies ?? {}).flatMap(([id, on]) => (on ? [] : [id])),
)
const lit = computed(() => [...(state.value.part ? [state.value.part] : []), ...onWay.value])
const says = computed(() =>
  expected.value ? t('TracePage.shouldBeRead', { volts: volts(expected.value.volts_ac) }) : '',
)

function change(part: Partial<TraceState>) {
  void router.replace({ query: writeState({ ...state.value, ...part }) })
}

function choose(call: string) {
  missing.value = null
  askedLoad.value = null
  if (state.value.tape) tape.put({ what: 'call', value: call })
  else change({ call })
}

const { setFaults, setSupplies, suppose, toggleTape } = useSupposing(state, condition, tape, change)
const tapeOut = () => toggleTape(visit.value?.outdoor_degrees_f ?? 35)

function touch(station: Touched, load: string | null = null) {
  inHand.value = [station.id.split('/').pop() ?? station.id, ...station.nodes]
  tap(station, load)
}

async function keepReading(read: Read) {
  const kept = await keep({
    ...read,
    function: state.value.function as NewReading['function'],
    condition: condition.value,
    ...(correcting.value ? { supersedes_id: correcting.value.id } : {}),
  })
  if (!kept) return
  last.value = kept
  correcting.value = null
  void drawAgain()
  if (state.value.hop && kept.to_node) step(1, true)
}

const live = ref<InstanceType<typeof LiveMeter> | null>(null)
/** The two points of the meter, in words: what a kept live value is confirmed to be of. */
const between = computed(() =>
  [state.value.black, state.value.red]
    .map((node) => trace.value?.points.find((point) => point.id === node)?.label ?? '…')
    .join(' – '),
)
const keepLive = (sample: Sample, instrument: string) =>
  keepReading({
    from_node: state.value.black ?? undefined,
    to_node: state.value.red ?? undefined,
    value: sample.value,
    instrument: (sample.function === 'ohms' ? 'ohmmeter' : instrument) as NewReading['instrument'],
  })

function show(reading: Reading) {
  change({
    call: reading.condition.call ?? 'off',
    supposed: reading.condition.switches ?? {},
    faults: reading.condition.faults ?? [],
    off: Object.entries(reading.condition.supplies ?? {}).flatMap(([id, on]) => (on ? [] : [id])),
    function: reading.function,
    ...(reading.to_node ? { black: reading.from_node, red: reading.to_node } : {}),
    ...(reading.function === 'volts_ac' ? { instrument: reading.instrument } : {}),
  })
}

function correct(reading: Reading) {
  show(reading)
  correcting.value = reading
}

const { saveDeck, saveSvg } = useTraceFiles(source, condition, state, loop, (one) => (problem.value = one))

function ask(load: { code: string; missing: string | null; on: boolean } | null) {
  askedLoad.value = load?.code ?? null
  missing.value = load && !load.on ? load.missing : null
}

useTraceKeys(state, change, {
  trace,
  loop,
  tape,
  calls,
  instruments: () => (catalogue.value?.instruments ?? []).map((one) => one.id),
  choose,
  step,
  measure: () => meter.value?.focus(),
  keepLive: () => live.value?.keep(),
  tapeOut,
  keys: () => (keysShown.value = !keysShown.value),
})

const failure = shallowRef<Problem | null>(null)
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
  <main :class="['trace', { docked, wide, taped: !!state.tape && !docked }]">
    <div class="top">
      <TraceHead :visit="visit" :rig="rig" />
      <ViewTabs v-if="known && !narrow && !failure" :view="state.view" @choose="(view) => change({ view })">
        <el-button
          class="key tape-key"
          :aria-pressed="!!state.tape"
          :title="$t('TracePage.t')"
          data-testid="tape-out"
          @click="tapeOut"
        >
          {{ $t('TracePage.tape') }}
        </el-button>
      </ViewTabs>
    </div>

    <ProblemNote v-if="failure" :problem="failure" />
    <SymptomLeads
      v-if="visit && leads.length && call === 'off' && !state.red"
      :visit="visit"
      :symptoms="leads"
    />
    <CallBar v-if="known && !failure" :calls="calls" :call="call" @choose="choose" />
    <el-button
      v-if="known && narrow && !failure"
      class="key"
      :aria-pressed="!!state.tape"
      data-testid="tape-out"
      @click="tapeOut"
    >
      {{ $t('TracePage.tape') }}
    </el-button>
    <StandsBar
      v-if="trace && !state.tape"
      :trace="trace"
      :state="state"
      @suppose="suppose"
      @change="change"
    />
    <ProblemNote v-if="outcome.state === 'failed' && !failure" :problem="outcome.problem" />
    <RouterLink v-if="failure" class="key" to="/">{{ $t('TracePage.backToTheDaySheet') }}</RouterLink>
    <div v-if="!known && !failure" class="until-there" />
    <p v-else-if="outcome.state === 'loading'" :class="['waiting', { 'until-there': !trace }]">
      {{ $t('TracePage.solvingTheCircuit') }}
    </p>
    <div v-else-if="(!trace || !catalogue) && !failure && outcome.state !== 'failed'" class="until-there" />

    <LoadList v-if="trace && known" :loads="trace.loads" :asked="askedLoad" @ask="ask" />
    <div v-if="trace && catalogue && known" class="bench">
      <LoopStrings
        v-if="narrow"
        class="drawing"
        :strings="trace.strings"
        :loop="loop"
        :black="state.black"
        :red="state.red"
        @tap="touch"
        @loop="(load) => change({ loop: load })"
      />
      <TraceViews
        v-else
        class="drawing"
        :source="source"
        :condition="condition"
        :state="state"
        :drawing="drawing"
        :missing="missing"
        :readings="callReadings"
        :changed="trace.changes?.nodes.map((node) => node.id) ?? []"
        :lit="lit"
        :says="says"
        @change="change"
        @tap="touch"
        @wire="(link) => (inHand = [...link.branches, ...link.nodes])"
        @svg="saveSvg"
      />

      <div v-if="!docked || narrow || drawn" class="side">
        <FindingList :findings="trace.findings" folded />
        <MeterPanel
          ref="meter"
          :trace="trace"
          :expected="expected"
          :of="state.function"
          :functions="catalogue.functions"
          :facts="catalogue.facts"
          :loop="loop"
          :ohms="ohms"
          :black="state.black"
          :red="state.red"
          :instrument="state.instrument"
          :hop="state.hop"
          :can-keep="kind === 'visit'"
          :busy="busy"
          :last="last"
          :correcting="correcting"
          :problem="problem"
          :docked="docked"
          @place="(probe, node) => change(probe === 'black' ? { black: node } : { red: node })"
          @swap="change({ black: state.red, red: state.black })"
          @hop="(hop) => change({ hop })"
          @function="(id) => change({ function: id })"
          @instrument="(instrument) => change({ instrument })"
          @keep="keepReading"
          @give-up="correcting = null"
        >
          <LiveMeter
            v-if="kind === 'visit'"
            ref="live"
            :visit="id"
            :black="state.black"
            :red="state.red"
            :where="between"
            :busy="busy"
            @function="(of) => of !== state.function && change({ function: of })"
            @keep="keepLive"
          />
          <SupposeKey :trace="trace" :state="state" @suppose="suppose" />
        </MeterPanel>
        <FollowPanel
          v-if="!narrow"
          :source="source"
          :trace="trace"
          :condition="condition"
          :components="catalogue.components"
          :loop="loop"
          :part="state.part"
          :black="state.black"
          :red="state.red"
          :expected="expected"
          @step="step"
          @loop="(load) => change({ loop: load, red: null, part: null })"
          @light="(ids) => (onWay = ids)"
        />
        <WhatIf
          :source="source"
          :trace="trace"
          :faults="condition.faults ?? []"
          :off="off"
          :touched="inHand"
          @faults="setFaults"
          @off="setSupplies"
        />
        <RigFoot :trace="trace" :visit="visit" @deck="saveDeck" />
      </div>
    </div>

    <TapePanel
      v-if="state.tape && trace"
      :source="source"
      :trace="trace"
      :tape="tape"
      :script="state.tape"
      :span="state.span"
      :fixed="!docked"
      @span="(script, span) => tape.set(script, { span })"
      @away="tapeOut"
    />
    <SpokenLoops v-if="trace && !narrow" :strings="trace.strings" />
    <template v-if="settled">
      <ReadingLog
        v-if="kind === 'visit' && !failure"
        :visit="id"
        :readings="readings"
        @take-back="takeBack"
        @correct="correct"
        @show="show"
      />
      <KeyHelp v-model="keysShown" :calls="calls" @look="looking = true" />
      <FirstLook v-if="looking && trace" v-model="looking" :narrow="narrow" />
      <p class="small">
        {{ $t('TracePage.theMakersDiagramAndInstructions') }}
      </p>
    </template>
  </main>
</template>

<style scoped>
.trace {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
  padding: 2px 16px 24px;
}

.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0 16px;
}

.top > :first-child {
  flex: 1 1 400px;
  min-width: 0;
}

.bench {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 296px;
  gap: 12px;
  align-items: start;
}

.drawing {
  min-width: 0;
}

.side {
  display: grid;
  gap: 12px;
}

.waiting,
.small {
  color: var(--ink-soft);
}

.small {
  font-size: 14px;
}

.wide .bench {
  grid-template-columns: minmax(0, 1fr);
}

.wide .side {
  grid-template-columns: repeat(3, minmax(0, 1fr));
  align-items: start;
}

@media (max-width: 1040px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
    padding-bottom: 12px;
  }

  .side,
  .wide .side {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    align-items: start;
  }
}

.trace.docked {
  padding-bottom: 210px;
}

.trace.taped {
  padding-bottom: 46vh;
}

@media (min-width: 1041px) {
  .trace.docked {
    padding-bottom: 110px;
  }
}

@media (max-width: 640px) {
  .trace {
    padding: 8px 10px 24px;
  }

  .side {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
