<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { DefrostRecord, Visit } from '@/shared/api/client'
import { api } from '@/shared/api/client'
import {
  recordedApi,
  type Judgement,
  type Log,
  type LogHead,
  type LogMapping,
} from '@/desks/defrost/recorded/api'
import { columnTitle } from '@/desks/defrost/recorded/columns'
import { sendUp } from '@/desks/defrost/recorded/sendUp'
import DefrostOverlay from '@/desks/defrost/recorded/DefrostOverlay.vue'
import LiveRecord from '@/desks/defrost/recorded/LiveRecord.vue'
import LogMappingForm from '@/desks/defrost/recorded/LogMapping.vue'
import LogPicture from '@/desks/defrost/recorded/LogPicture.vue'
import RecordedDefrosts from '@/desks/defrost/recorded/RecordedDefrosts.vue'
import VerdictList from '@/desks/defrost/VerdictList.vue'
import PickFile from '@/shared/ui/kit/PickFile.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useLongAnswer } from '@/shared/api/useLongAnswer'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import { useSession } from '@/shared/ui/useSession'
import type { Problem } from '@/shared/model/outcome'

const { t } = useI18n()
/** What field loggers wrote down of the unit: put in, read, judged. */
const props = defineProps<{ visit: Visit; record: DefrostRecord }>()
const emit = defineEmits<{ keep: [part: Partial<DefrostRecord>] }>()
const ASK_AGAIN_MS = 1000
const { mayChange } = useSession()
const logs = shallowRef<Log[] | null>(null)
const problem = shallowRef<Problem | null>(null)
const chosenId = ref<string | null>(null)
const chosen = computed(() => logs.value?.find((one) => one.id === chosenId.value) ?? null)
const head = shallowRef<LogHead | null>(null)
const counts = ref<number[]>([])
const sent = ref<number | null>(null)
const reading = ref<{ done: number; total: number | null; task: string } | null>(null)
const number = ref<number | null>(null)
const {
  answer: judgement,
  task,
  problem: judging,
  again,
  cancel,
} = useLongAnswer<Judgement>(() => recordedApi.judge(props.visit.id, chosenId.value!))

const zone = computed(() => String((chosen.value?.mapping as { zone?: string } | null)?.zone ?? 'UTC'))
const doubts = computed(() => judgement.value?.told.filter((one) => one.kind === 'doubt') ?? [])
const notes = computed(() => judgement.value?.told.filter((one) => one.kind === 'note') ?? [])

/** Whether what this record says counts for the visit: for its mark, for Find and on the report. */
const countsHere = computed(() => props.record.recorded?.log_id === chosenId.value)
function count(on: boolean) {
  const log = chosen.value
  if (!log || !judgement.value) return
  const verdicts = judgement.value.verdicts
    .slice(0, 20)
    .map(({ code, title, says }) => ({ code, title, says }))
  emit('keep', { recorded: on ? { log_id: log.id, name: log.name, verdicts } : undefined })
}

/** Left: nothing is asked any more. */
let gone = false
onBeforeUnmount(() => (gone = true))

async function load() {
  const given = await recordedApi.ofVisit(props.visit.id)
  problem.value = given.state === 'failed' ? given.problem : null
  if (given.state !== 'ready') return
  logs.value = given.value.logs
  const by = (state: Log['state']) => logs.value!.find((one) => one.state === state)
  if (!chosen.value) choose((by('live') ?? by('read'))?.id ?? null)
  // A record that another task is at, as the demo's are at first.
  if (!gone && !reading.value && logs.value.some((one) => one.state === 'reading'))
    window.setTimeout(load, ASK_AGAIN_MS)
}

function choose(id: string | null) {
  chosenId.value = id
  number.value = null
  head.value = null
  judgement.value = null
  if (chosen.value?.state === 'read') void again()
}

/** Files of one choice arrive one by one; they belong together. */
let gathered: File[] = []
let gathering = 0
function take(file: File) {
  gathered.push(file)
  clearTimeout(gathering)
  gathering = window.setTimeout(() => {
    const files = gathered
    gathered = []
    void putIn(files)
  }, 60)
}

async function putIn(files: File[]) {
  problem.value = null
  const id = crypto.randomUUID()
  const name =
    files.length > 1
      ? t('RecordedDesk.andMore', { name: files[0]!.name, count: files.length - 1 })
      : files[0]!.name
  const made = await recordedApi.create(props.visit.id, id, name.slice(0, 200))
  if (made.state === 'failed') return (problem.value = made.problem)
  sent.value = 0
  const parts = await sendUp(id, files, (share) => (sent.value = Math.round(share * 100)))
  sent.value = null
  await load()
  chosenId.value = id
  if (!Array.isArray(parts)) return (problem.value = parts)
  counts.value = parts
  await look(id)
}

async function look(id: string) {
  const given = await recordedApi.look(id, Intl.DateTimeFormat().resolvedOptions().timeZone)
  if (given.state === 'failed') problem.value = given.problem
  if (given.state === 'ready') head.value = given.value
}

/** A record whose files are here still can be read otherwise. */
async function readAnew(log: Log) {
  problem.value = null
  const parts = await recordedApi.parts(log.id)
  if (parts.state === 'failed') return (problem.value = parts.problem)
  if (parts.state !== 'ready') return
  counts.value = parts.value.files.map((one) => one.numbers.length)
  await look(log.id)
}

async function read(mapping: LogMapping) {
  const id = chosenId.value!
  problem.value = null
  const given = await recordedApi.read(id, mapping, counts.value)
  if (given.state === 'failed') return (problem.value = given.problem)
  if (given.state !== 'ready') return
  head.value = null
  await watchOn(id, given.value.id)
}

async function watchOn(id: string, taskId: string) {
  for (;;) {
    const given = await api.task(taskId)
    if (given.state !== 'ready') break
    const { done, total, state } = given.value
    reading.value = { done, total, task: taskId }
    if (gone || !['waiting', 'running'].includes(state)) break
    await new Promise((resolve) => window.setTimeout(resolve, 500))
  }
  reading.value = null
  await load()
  if (chosenId.value === id) choose(id)
}
const stop = () => reading.value && api.cancelTask(reading.value.task)

async function remove(log: Log) {
  const given = await recordedApi.remove(log.id)
  if (given.state === 'failed') return (problem.value = given.problem)
  if (chosenId.value === log.id) choose(null)
  await load()
}

/** A record onto which a logger sends while it measures. */
async function listen() {
  problem.value = null
  const id = crypto.randomUUID()
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions()
  const shown = { month: 'short', day: 'numeric', hour: 'numeric', minute: '2-digit' } as const
  const today = new Date().toLocaleString('en-US', shown)
  const made = await recordedApi.listen(
    props.visit.id,
    id,
    t('RecordedDesk.liveSince', { day: today }),
    timeZone,
  )
  if (made.state === 'failed') return (problem.value = made.problem)
  await load()
  choose(id)
}

const STATES: Record<Log['state'], string> = {
  live: t('RecordedDesk.listening'),
  coming: t('RecordedDesk.notReadYet'),
  reading: t('RecordedDesk.beingRead'),
  read: '',
  refused: t('RecordedDesk.refused'),
}
const day = (at: number) =>
  new Date(at * 1000).toLocaleDateString('en-US', { month: 'short', day: 'numeric' })
const about = (log: Log) =>
  log.state === 'read' && log.from != null && log.to != null
    ? `${day(log.from)} – ${day(log.to)}, every ${Math.round(log.interval_seconds ?? 0)} s`
    : STATES[log.state]

watch(
  () => props.visit.unit_id,
  () => {
    logs.value = null
    void load()
  },
  { immediate: true },
)
// Other points of the switch, another board: judged anew.
watch(
  () => props.visit.rig_revision,
  () => chosen.value?.state === 'read' && void again(),
)
</script>

<template>
  <div v-if="!logs && !problem" class="until-there" />
  <div v-else class="recorded">
    <aside>
      <ul class="list" data-testid="logs">
        <li v-for="log in logs ?? []" :key="log.id" :class="{ on: log.id === chosenId }">
          <button type="button" class="pick-log" :aria-pressed="log.id === chosenId" @click="choose(log.id)">
            <b>{{ log.name }}</b>
            <small>{{ about(log) }}</small>
          </button>
        </li>
      </ul>
      <el-empty
        v-if="logs && !logs.length"
        :image-size="48"
        :description="$t('RecordedDesk.noRecordYetAWeek')"
      />
      <PickFile
        v-if="mayChange"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        :label="$t('RecordedDesk.putInALoggersFile')"
        multiple
        :busy="sent !== null"
        data-testid="log-file"
        @picked="take"
      />
      <el-button v-if="mayChange" class="key" data-testid="listen" @click="listen">{{
        $t('RecordedDesk.listenToALogger')
      }}</el-button>
      <TaskProgress v-if="sent !== null" :label="$t('RecordedDesk.fileSent')" :done="sent" :total="100" />
    </aside>
    <section class="body">
      <ProblemNote v-if="problem ?? judging" :problem="(problem ?? judging)!" />
      <LogMappingForm v-if="head" :head="head" :busy="false" @read="read" @leave="head = null" />
      <div v-if="reading" class="working" role="status" data-testid="reading-log">
        <p>{{ $t('RecordedDesk.readingTheRecord') }}</p>
        <TaskProgress :label="$t('RecordedDesk.recordRead')" :done="reading.done" :total="reading.total" />
        <el-button class="key" @click="stop">{{ $t('RecordedDesk.stop') }}</el-button>
      </div>
      <template v-if="chosen && !head && !reading">
        <LiveRecord
          v-if="chosen.state === 'live'"
          :key="chosen.id"
          :log="chosen"
          :may-change="mayChange"
          @closed="(task) => watchOn(chosen!.id, task)"
        />
        <div v-if="chosen.state === 'refused'" class="refused" data-testid="log-refused">
          <h3>{{ $t('RecordedDesk.nothingOfThisFileWas') }}</h3>
          <ul>
            <li v-for="one in chosen.problems" :key="one.field + one.problem">
              <span class="mono">{{ one.field.replace(/^\//, '').replaceAll('/', ' ') }}</span>
              {{ one.problem }}
            </li>
          </ul>
        </div>
        <p v-if="chosen.state === 'coming'" class="quiet">
          {{ $t('RecordedDesk.itsFilesAreHereNobody') }}
        </p>
        <div v-if="task" class="working" role="status">
          <p>{{ $t('RecordedDesk.lookingForRunsAndDefrosts') }}</p>
          <TaskProgress :label="$t('RecordedDesk.recordJudged')" :done="task.done" :total="task.total" />
          <el-button class="key" @click="cancel">{{ $t('RecordedDesk.stop') }}</el-button>
        </div>
        <template v-if="judgement && chosen.state === 'read'">
          <el-alert
            v-for="one in doubts"
            :key="one.says"
            :title="one.says"
            type="warning"
            :closable="false"
            show-icon
            data-testid="log-doubt"
          />
          <VerdictList :verdicts="judgement.verdicts" />
          <el-switch
            v-if="mayChange"
            :model-value="countsHere"
            :active-text="$t('RecordedDesk.countsForThisVisitIts')"
            :aria-label="$t('RecordedDesk.countsForThisVisit')"
            data-testid="count-record"
            @update:model-value="(on: string | number | boolean) => count(on === true)"
          />
          <LogPicture
            :log="chosen"
            :judgement="judgement"
            :chosen="number"
            @choose="(one) => (number = one)"
          />
          <RecordedDefrosts
            v-if="judgement.defrosts.length"
            :judgement="judgement"
            :zone="zone"
            :chosen="number"
            @choose="(one) => (number = one)"
          />
          <DefrostOverlay :judgement="judgement" :chosen="number" />
          <el-collapse>
            <el-collapse-item :title="$t('RecordedDesk.whatTheRecordIsAnd')" name="told">
              <ul class="told">
                <li>
                  {{
                    $t('RecordedDesk.rowsCompressorHInRuns', {
                      rows: chosen.rows,
                      columns: chosen.columns.map(columnTitle).join(', '),
                      run_hours: judgement.run_hours,
                      runs: judgement.runs,
                    })
                  }}
                </li>
                <li v-for="one in notes" :key="one.says">{{ one.says }}</li>
                <li v-for="school in judgement.schools" :key="school.school">
                  {{
                    $t('RecordedDesk.fitsOfSpellsBetweenDefrosts', {
                      title: school.title,
                      fit: school.fit,
                      of: school.of,
                    })
                  }}
                </li>
              </ul>
            </el-collapse-item>
          </el-collapse>
        </template>
        <div v-if="mayChange && (judgement || judging || task || chosen.state !== 'read')" class="keys">
          <el-button
            v-if="!chosen.demo && chosen.of_files"
            class="key"
            data-testid="read-anew"
            @click="readAnew(chosen)"
          >
            {{
              chosen.state === 'read'
                ? $t('RecordedDesk.otherColumns')
                : $t('RecordedDesk.sayWhichColumnIsWhat')
            }}
          </el-button>
          <SureButton
            :asks="$t('RecordedDesk.takeThisRecordAwayFor')"
            :yes="$t('RecordedDesk.takeItAway')"
            testid="remove-log"
            @sure="remove(chosen)"
            >{{ $t('RecordedDesk.takeItAway') }}</SureButton
          >
        </div>
      </template>
    </section>
  </div>
</template>

<style scoped>
.recorded {
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr);
  gap: 16px;
}

aside {
  display: grid;
  align-content: start;
  gap: 10px;
}

.list {
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.pick-log {
  display: grid;
  width: 100%;
  min-height: 48px;
  padding: 4px 10px;
  border: 0;
  border-left: 6px solid var(--rule);
  background: var(--panel);
  color: var(--ink);
  font: inherit;
  text-align: left;
  overflow-wrap: anywhere;
  cursor: pointer;
}

.on .pick-log {
  border-color: var(--ink);
}

.pick-log small,
.quiet {
  color: var(--ink-soft);
}

.body {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 14px;
}

.working {
  max-width: 520px;
}

.refused {
  padding: 6px 12px;
  border-left: 6px solid var(--alarm);
  background: var(--alarm-soft);
}

.told {
  margin: 0;
  padding-left: 20px;
}

.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

@media (width <= 900px) {
  .recorded {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
