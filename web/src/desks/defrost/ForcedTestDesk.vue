<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type ForcedTest, type ForcedTestRecord, type Visit } from '@/shared/api/client'
import { serverWithin } from '@/shared/api/clock'
import { useStopwatch } from '@/desks/defrost/useStopwatch'
import { useQuestion } from '@/shared/api/useQuestion'
import { degreeSign, readDegrees, readNumber, shownDegrees } from '@/shared/model/units'
import ForcedSeen from '@/desks/defrost/ForcedSeen.vue'
import ForcedSteps from '@/desks/defrost/ForcedSteps.vue'
import ForcedTape from '@/desks/defrost/ForcedTape.vue'
import KeptInput from '@/shared/ui/KeptInput.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import StopwatchFace from '@/desks/defrost/StopwatchFace.vue'
import VerdictList from '@/desks/defrost/VerdictList.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'

const { t } = useI18n()
const props = defineProps<{
  visit: Visit
  record: ForcedTestRecord
  earlier: ForcedTestRecord[]
  busy: boolean
}>()
const emit = defineEmits<{
  keep: [record: ForcedTestRecord, before?: ForcedTestRecord]
  interval: [minutes: number]
}>()
const watchKey = `gorvant.forced.${props.visit.id}`

const marks = computed(() => (props.record.marks ?? {}) as Record<string, number>)
const answers = computed(() => (props.record.answers ?? {}) as Record<string, boolean>)
const readings = computed(() => (props.record.readings ?? {}) as Record<string, number>)
const tally = computed(() => (props.record.tally ?? {}) as Record<string, string>)
const closed = computed(() => props.record.closed === true)
const {
  started,
  own,
  mark: stamp,
  stop,
} = useStopwatch(watchKey, () => (closed.value ? null : props.record.watch_started_at))
const last = computed(() => Math.max(0, ...Object.values(marks.value)))
/** With marks and no watch that runs, seconds can only be typed. */
const typed = computed(() => started.value === null && Object.keys(marks.value).length > 0)

const { value: test, problem } = useQuestion<{ record: ForcedTestRecord; rig: string }, ForcedTest>(
  `forced_test.${props.visit.id}`,
  () => ({ record: { ...props.record, closed: false }, rig: props.visit.rig_revision_id }),
  ({ record }) => api.forcedTest(props.visit.id, record),
)

const keep = (part: Partial<ForcedTestRecord>) => emit('keep', { ...props.record, ...part })

function press(step: ForcedTest['steps'][number]) {
  const changes = step.tally as Record<string, string> | null
  const seconds = step.mark && !typed.value ? { [step.mark]: stamp() } : null
  keep({
    ...(seconds ? { marks: { ...marks.value, ...seconds }, ...watch() } : {}),
    ...(changes ? { tally: { ...tally.value, ...changes } } : {}),
  })
}
/** When the watch began, and how well that is known; a mark of another device than started it may lie as far apart as both. */
function watch(): Partial<ForcedTestRecord> {
  const mine = serverWithin()
  const begun = props.record.watch_started_at
    ? { watch_started_at: started.value }
    : { watch_started_at: started.value, watch_within_seconds: hundredths(mine) }
  if (own.value) return begun
  const apart = hundredths((props.record.watch_within_seconds ?? 0) + mine)
  return { ...begun, clock_apart_seconds: Math.max(props.record.clock_apart_seconds ?? 0, apart) }
}
const hundredths = (seconds: number) => Math.ceil(seconds * 100) / 100

/** A number of what was typed, null for nothing; else NaN, and the words that say so. */
const wrong = ref('')
function read(what: string, text: string, least = -Infinity, reader = readNumber): number | null {
  const value = reader(text)
  const fine = value === null || (value !== undefined && value >= least)
  wrong.value = fine ? '' : t('ForcedTestDesk.noNumber', { what, typed: text.trim() })
  return fine ? (value ?? null) : NaN
}
function correct(mark: string, what: string, text: string) {
  const value = read(what, text, 0)
  if (value === null) forget(mark)
  else if (!Number.isNaN(value)) keep({ marks: { ...marks.value, [mark]: value } })
}
function forget(mark: string) {
  keep({ marks: Object.fromEntries(Object.entries(marks.value).filter(([key]) => key !== mark)) })
}
function number(key: 'counted_minutes' | 'coil_degrees_f', text: string) {
  const value =
    key === 'counted_minutes'
      ? read(t('ForcedTestDesk.countedBefore'), text)
      : read(t('ForcedTestDesk.coilAtEntry'), text, -Infinity, readDegrees)
  if (!Number.isNaN(value)) keep({ [key]: value })
}
/** A new test begins with empty marks; the one before stays with the visit. */
function restart() {
  stop()
  emit('keep', { ...EMPTY }, Object.keys(marks.value).length ? props.record : undefined)
}
const EMPTY: ForcedTestRecord = {
  marks: {},
  answers: {},
  readings: {},
  tally: {},
  closed: false,
  watch_started_at: null,
  watch_within_seconds: 0,
  clock_apart_seconds: 0,
}
const shown = ref<number | null>(null)
const said = (item: string, state: string) => keep({ tally: { ...tally.value, [item]: state } })
const hows = computed(() => (props.record.marked_by ?? {}) as Record<string, string>)
function how(value: string) {
  const rest = Object.fromEntries(Object.entries(hows.value).filter(([mark]) => mark !== 'fan_off'))
  keep({ marked_by: (value ? { ...rest, fan_off: value } : rest) as ForcedTestRecord['marked_by'] })
}
function close() {
  stop()
  keep({ closed: true })
}

const FAN_MARKED_BY = [
  { id: 'click', title: t('ForcedTestDesk.theClickOrIts') },
  { id: 'clamp', title: t('ForcedTestDesk.ampsOnAClamp') },
  { id: 'standing', title: t('ForcedTestDesk.theFanSeenStanding') },
]
const TITLES: Record<string, string> = {
  coil_jumper: t('ForcedTestDesk.jumperOnTheCoil'),
  bridge: t('ForcedTestDesk.bridgeOnThePins'),
  sensor_plug: t('ForcedTestDesk.coilSwitchPlug'),
}
</script>

<template>
  <section class="forced" :aria-label="$t('ForcedTestDesk.forcedTest')">
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
    <template v-if="test">
      <p v-for="warning in test.warnings" :key="warning" class="warning">⚠ {{ warning }}</p>
      <div class="asks">
        <label
          >{{ $t('ForcedTestDesk.countedBefore') }}
          <KeptInput
            class="mono"
            inputmode="decimal"
            :value="record.counted_minutes ?? ''"
            placeholder="?"
            data-testid="test-counted"
            @keep="(text) => number('counted_minutes', text)"
          />
          {{ $t('ForcedTestDesk.min') }}</label
        >
        <el-checkbox :model-value="record.fresh === true" @change="keep({ fresh: !record.fresh })">{{
          $t('ForcedTestDesk.justAfterADefrostOr')
        }}</el-checkbox>
        <label
          >{{ $t('ForcedTestDesk.coilAtEntry') }}
          <KeptInput
            class="mono"
            inputmode="decimal"
            :value="shownDegrees(record.coil_degrees_f)"
            placeholder="?"
            @keep="(text) => number('coil_degrees_f', text)"
          />
          {{ degreeSign() }}</label
        >
        <span class="ask"
          >{{ $t('ForcedTestDesk.fanOffWasMarkedBy') }}
          <PickOne
            :model-value="hows.fan_off ?? ''"
            :none="$t('ForcedTestDesk.nobodySaid')"
            :options="FAN_MARKED_BY"
            :label="$t('ForcedTestDesk.fanOffWasMarkedBy')"
            data-testid="fan-how"
            @update:model-value="how"
        /></span>
        <p class="expect" data-testid="expected">
          <template v-if="test.forced_entry === 'held_pins'">{{
            $t('ForcedTestDesk.inAfterSOfHolding', { expected_seconds: test.expected_seconds })
          }}</template>
          <template v-else-if="test.forced_entry === 'none'">{{
            $t('ForcedTestDesk.thisBoardHasNoPins')
          }}</template>
          <template v-else
            >{{ $t('ForcedTestDesk.expect') }}
            <b class="mono">{{
              $t('ForcedTestDesk.s', { expected_seconds: test.expected_seconds.toFixed(1) })
            }}</b>
            {{ $t('ForcedTestDesk.fromBridgeToFanOff', { factor: test.factor }) }}</template
          >
        </p>
      </div>
      <div class="desk">
        <div class="left">
          <div class="clock">
            <StopwatchFace :started="started" :stands="last" />
            <p class="state" data-testid="watch-state">
              <template v-if="started !== null">{{ $t('ForcedTestDesk.runningAReloadDoesNot') }}</template>
              <template v-else-if="closed">{{ $t('ForcedTestDesk.closed') }}</template>
              <template v-else-if="typed">{{ $t('ForcedTestDesk.standsTypeTheSecondsOr') }}</template>
              <template v-else>{{ $t('ForcedTestDesk.theFirstMarkStartsThe') }}</template>
            </p>
            <el-button class="key" data-testid="new-test" @click="restart">{{
              $t('ForcedTestDesk.newTest')
            }}</el-button>
          </div>
          <ForcedSteps
            :steps="test.steps"
            :marks="marks"
            :tally="tally"
            :closed="closed"
            :typed="typed"
            @press="press"
            @correct="correct"
            @forget="forget"
          />
        </div>
        <div :class="['right', { closed }]">
          <ForcedSeen
            class="seen"
            :answers="answers"
            :readings="readings"
            :closed="closed"
            @answers="(all) => keep({ answers: all })"
            @readings="(all) => keep({ readings: all })"
          />
          <ForcedTape v-if="test.beside.length" :lines="test.beside" />
          <VerdictList :verdicts="test.verdicts" />
          <el-button
            v-if="test.found_interval_minutes && test.found_interval_minutes !== test.interval_minutes"
            class="key"
            :disabled="busy"
            data-testid="note-interval"
            @click="emit('interval', test.found_interval_minutes)"
          >
            {{
              $t('ForcedTestDesk.noteMinInTheRig', { found_interval_minutes: test.found_interval_minutes })
            }}
          </el-button>
          <div
            :class="['tally', { open: test.left_behind.length || Object.keys(test.questions).length }]"
            data-testid="tally"
          >
            <h3>{{ $t('ForcedTestDesk.beforeYouLeave') }}</h3>
            <div v-for="(state, item) in test.tally" :key="item" class="item">
              <span>{{ test.questions[item] ?? TITLES[item] }}</span>
              <template v-if="!closed">
                <el-button
                  v-for="one in item === 'sensor_plug' ? ['on', 'off'] : ['off', 'on']"
                  :key="one"
                  class="key"
                  :aria-pressed="state === one"
                  :data-testid="`tally-${item}-${one}`"
                  @click="said(String(item), one)"
                >
                  {{
                    item === 'sensor_plug'
                      ? { on: $t('ForcedTestDesk.pluggedIn'), off: $t('ForcedTestDesk.unplugged') }[one]
                      : one
                  }}
                </el-button>
              </template>
              <b v-else>{{ state }}</b>
            </div>
            <p v-for="line in test.left_behind" :key="line" class="left-behind">≠ {{ line }}</p>
            <p v-if="closed">{{ $t('ForcedTestDesk.closedEveryJumperAccountedFor') }}</p>
            <el-button
              v-else
              class="key solid"
              :disabled="
                test.left_behind.length > 0 ||
                Object.keys(test.questions).length > 0 ||
                !Object.keys(marks).length
              "
              data-testid="close-test"
              @click="close"
            >
              {{ $t('ForcedTestDesk.closeTheTest') }}
            </el-button>
          </div>
        </div>
      </div>
      <details v-for="(one, i) in earlier" :key="i" class="before" :data-testid="`earlier-${i}`">
        <summary @click="shown = i">
          {{
            $t('ForcedTestDesk.testOfThisVisit', {
              what: i + 1,
              closed: one.closed ? '' : $t('ForcedTestDesk.notClosed'),
            })
          }}
        </summary>
        <p>
          <template v-for="(seconds, mark) in one.marks" :key="mark"
            >{{ String(mark).replace('_', ' ') }}
            <b class="mono">{{ $t('ForcedTestDesk.s2', { seconds }) }}</b>;
          </template>
        </p>
        <el-button class="key" :data-testid="`back-to-${i}`" @click="emit('keep', one, record)">
          {{ $t('ForcedTestDesk.lookAtItAgainWith') }}
        </el-button>
      </details>
    </template>
  </section>
</template>

<style scoped>
.forced {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.wrong {
  color: var(--alarm);
  font-weight: 650;
}

.warning {
  padding: 8px 12px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
  font-weight: 650;
}

.expect {
  margin-left: auto;
  color: var(--ink);
}

.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}

.clock {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 18px;
  padding: 4px 14px;
  background: var(--glass);
  color: var(--on-glass);
}

.state {
  flex: 1;
  color: var(--on-glass-soft);
}

.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.right.closed .seen {
  order: 1;
}

.tally {
  padding: 8px 12px;
  border: 2px solid var(--ink);
}

.tally.open {
  border-color: var(--alarm);
}

.item {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  padding: 4px 0;
}

.item span {
  flex: 1 1 220px;
}

.before {
  border-top: 1px solid var(--rule);
}

.left-behind {
  color: var(--alarm);
  font-weight: 700;
}

@media (max-width: 1040px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
