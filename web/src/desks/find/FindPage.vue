<script setup lang="ts">
import { useEventListener, useMediaQuery } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type Condition, type Find, type Scene } from '@/shared/api/client'
import EvidenceList from '@/desks/find/EvidenceList.vue'
import NextTest from '@/desks/find/NextTest.vue'
import SuspectList from '@/desks/find/SuspectList.vue'
import { useFind, type Place, type Way } from '@/desks/find/useFind'
import { useQuestion } from '@/shared/api/useQuestion'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import { useReadings, type Read } from '@/shared/ui/useReadings'
import SymptomLeads from '@/shared/ui/SymptomLeads.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { useVisit } from '@/shared/ui/useVisit'
import VisitHead from '@/shared/ui/VisitHead.vue'
import ScenePane from '@/shared/scene/ScenePane.vue'
import SceneView from '@/shared/scene/SceneView.vue'
import { isTyping } from '@/shared/model/keys'

const { t } = useI18n()
const props = defineProps<{ id: string }>()
const { visit, load, renew } = useVisit()
watch(
  () => props.id,
  (id) => visit.value?.id !== id && load(id),
  { immediate: true },
)
const { readings, problem: refused, busy, keep, takeBack } = useReadings(props.id)
const fork = ref<InstanceType<typeof NextTest> | null>(null)
const { answer, task, problem, asking, settling, again, cancel, stands, mode, skipped, suspect, skip } =
  useFind(props.id, () => fork.value?.typing() ?? false)

// What it comes to now stands at its tab.
watch(
  () => answer.value?.mark,
  (mark) => mark && visit.value?.id === props.id && visit.value.marks.find !== mark && renew(props.id),
)

// What is kept from elsewhere, by a spoken line or another hand, is weighed as it comes.
const standing = computed(() => readings.value.map((one) => `${one.id}${one.retracted_at ?? ''}`).join())
watch(standing, (_now, before) => before && again())

const PLACES: { id: Place; title: string }[] = [
  { id: 'wall', title: t('FindPage.wall') },
  { id: 'air_handler', title: t('FindPage.airHandler') },
  { id: 'outdoor', title: t('FindPage.outdoors') },
]
const WAYS: { id: Way; title: string }[] = [
  { id: 'cheapest', title: t('FindPage.leastTime') },
  { id: 'fewest', title: t('FindPage.fewestTests') },
  { id: 'here', title: t('FindPage.stayHere') },
]
/** Whether a first look stood here: what takes the place of its two lines leaves room for as much. */
const early = ref(false)
watch(answer, (now) => (early.value ||= !!now?.first_look))
const narrow = useMediaQuery('(max-width: 640px)')
const next = computed(() => answer.value?.next ?? null)
/** What the complaint says to look at first: there is no need to wait for it. */
const catalogue = useCatalogue()
const leads = computed(() =>
  (catalogue.value?.symptoms ?? []).filter((one) => visit.value?.symptoms?.includes(one.id)),
)
const SIGN: Record<Find['outcome']['key'], string> = {
  open: '~',
  unproved: '~',
  proved: '=',
  fuse_open: '≠',
  landings: '≠',
  found: '≠',
  as_designed: '=',
  not_now: '?',
  nothing_left: '?',
  none: '?',
}

/** Outcomes that another page goes on from, with that page. */
const GO_ON: Partial<Record<Find['outcome']['key'], string>> = { landings: 'wiring', fuse_open: 'intake' }
const goOn = computed(() => (answer.value ? GO_ON[answer.value.outcome.key] : undefined))

/** What was read is kept with the visit, under the call of the test, so that it is there on every page. */
async function keepRead(read: Read) {
  const test = next.value
  if (!test) return
  const kept = await keep({
    ...read,
    condition: test.condition,
    ...(held.value ? { moment: held.value } : {}),
  } as Parameters<typeof keep>[0])
  if (!kept) return
  fork.value?.clear() // the same test may be asked for once more: nothing stands there that a second Enter would keep
  if (test.at) stands.value = test.at as Place
  await again()
}
/** During a hold every reading says how long ago the compressor stopped. */
const held = computed(() => {
  const since = [...readings.value].reverse().find((one) => one.function === 'minutes' && !one.retracted_at)
  if (!since || answer.value?.hold?.state !== 'in_force' || since.value === null) return null
  const gone = (Date.now() - Date.parse(since.taken_at)) / 60_000
  return { compressor_stopped_minutes: Math.round((since.value + gone) * 10) / 10 }
})
/** Nobody could tell: of what is seen or looked up that is kept, and not asked for again; a meter is tried another time. */
const UNTOLD = 'could_not_tell'
function untold() {
  const test = next.value
  if (!test) return
  if (test.function === 'seen' || test.function === 'looked_up')
    void keepRead({ function: test.function, place: test.place, choice: UNTOLD })
  else skip(test)
}

const own = computed(() =>
  (answer.value?.evidence ?? []).map((one) => ({
    ...one,
    reading: readings.value.find((read) => read.id === one.source) ?? null,
  })),
)
async function undo(id: string) {
  await takeBack(id)
  await again()
}

// The points of the next test on the loom, in its call.
const points = computed(() => (next.value?.from_node ? next.value : null))
const { value: scene } = useQuestion<Condition, Scene>(
  `find.loom.${props.id}`,
  () => points.value?.condition ?? null,
  (condition) => api.drawing({ kind: 'visit', id: props.id }, { condition, view: 'loops' }),
)

useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return
  if (/^[1-9]$/.test(event.key)) fork.value?.choose(Number(event.key) - 1)
})
</script>

<template>
  <main class="find">
    <VisitHead page="find" :visit="visit" :kept="false">
      <span class="ask"
        ><span v-if="!narrow">{{ $t('FindPage.iStandAt') }}</span>
        <PickButtons
          :model-value="answer?.stands ?? stands"
          :options="PLACES"
          :folded="narrow"
          :label="$t('FindPage.iStandAt')"
          testid="stands"
          @update:model-value="(place: Place) => (stands = place)"
      /></span>
      <span class="ask"
        ><span v-if="!narrow">{{ $t('FindPage.chooseBy') }}</span>
        <PickButtons
          v-model="mode"
          :options="WAYS"
          :folded="narrow"
          :label="$t('FindPage.chooseTheNextTestBy')"
          testid="way"
      /></span>
      <RouterLink class="key" :to="`/visits/${id}/road-map`" data-testid="to-road-map">{{
        $t('FindPage.roadMap')
      }}</RouterLink>
    </VisitHead>
    <ProblemNote v-if="problem ?? refused" :problem="(problem ?? refused)!" />
    <section v-if="task && !answer?.first_look" class="working" role="status" data-testid="working-out">
      <p>
        {{ answer ? $t('FindPage.workedOutAnew') : $t('FindPage.workedOut') }}
      </p>
      <TaskProgress :label="$t('FindPage.faultsWorkedOut')" :done="task.done" :total="task.total" counted />
      <el-button class="key" @click="cancel">{{ $t('FindPage.stop') }}</el-button>
      <SymptomLeads v-if="visit && leads.length && !answer" :visit="visit" :symptoms="leads" here />
    </section>
    <el-skeleton v-if="!answer && asking && !task" :rows="6" :aria-label="$t('FindPage.weighing')" />
    <div v-else-if="!answer && !task && !problem" class="working">
      <el-button class="key" @click="again">{{ $t('FindPage.workItOut') }}</el-button>
    </div>
    <div v-if="answer" class="work">
      <div class="left">
        <section
          :class="['stand', answer.outcome.key]"
          :aria-label="$t('FindPage.howItStands')"
          data-testid="outcome"
          :data-outcome="answer.outcome.key"
        >
          <p>
            <b aria-hidden="true">{{ SIGN[answer.outcome.key] }}</b> {{ answer.outcome.says }}
          </p>
          <p v-if="answer.first_look" class="quiet" role="status" data-testid="first-look">
            {{ answer.first_look }}
            <TaskProgress
              v-if="task"
              :label="$t('FindPage.faultsWorkedOut')"
              :done="task.done"
              :total="task.total"
              thin
            />
          </p>
          <p v-else :class="['quiet', { proof: early }]">{{ answer.outcome.not_proved }}</p>
          <p v-for="one in answer.changed" :key="one.says" class="changed">≠ {{ one.says }}</p>
        </section>
        <section
          v-if="answer.beside"
          class="beside"
          :aria-label="$t('FindPage.noneAlone')"
          data-testid="beside"
        >
          <p v-if="answer.beside.repeat">↻ {{ answer.beside.repeat }}</p>
          <template v-if="answer.beside.pairs.length">
            <h3>{{ $t('FindPage.twoAtOnce') }}</h3>
            <p v-for="one in answer.beside.pairs" :key="one.says">
              {{ one.says }}
              <RouterLink
                :to="{
                  path: `/visits/${id}/trace`,
                  query: { call: answer.call, faults: JSON.stringify(one.faults) },
                }"
                >{{ $t('FindPage.trace') }}</RouterLink
              >
            </p>
          </template>
        </section>
        <section v-if="!next && goOn" class="now" :aria-label="$t('FindPage.doNow')">
          <h2>
            <RouterLink :to="`/visits/${id}/${goOn}`">{{
              goOn === 'wiring' ? $t('FindPage.writeLandingsDown') : $t('FindPage.tickFuseBlows')
            }}</RouterLink>
          </h2>
        </section>
        <section
          v-else-if="!next && answer.suspects[0]?.proof"
          class="now"
          :aria-label="$t('FindPage.doNow')"
        >
          <h2>{{ answer.suspects[0].proof }}</h2>
        </section>
        <NextTest
          v-if="next"
          :key="next.id"
          ref="fork"
          :answer="answer"
          :busy="busy"
          :resting="settling"
          @keep="keepRead"
          @skip="skip(next)"
          @untold="untold"
        />
        <section v-if="answer.care" class="care" :aria-label="$t('FindPage.fuse')" data-testid="fuse-care">
          <h2>{{ answer.care.title }}</h2>
          <p v-for="caution in answer.care.cautions" :key="caution" class="caution">⚠ {{ caution }}</p>
          <el-collapse>
            <el-collapse-item :title="$t('FindPage.byHandInSteps', { steps: answer.care.steps.length })">
              <ol>
                <li v-for="step in answer.care.steps" :key="step">{{ step }}</li>
              </ol>
            </el-collapse-item>
          </el-collapse>
        </section>
        <section
          v-if="next?.others.length"
          :key="`or-${next.id}`"
          class="others"
          :aria-label="$t('FindPage.otherTests')"
        >
          <h3>{{ $t('FindPage.or') }}</h3>
          <p v-for="one in next.others" :key="one.id">
            {{ one.says }} <span class="mono">{{ $t('FindPage.min', { minutes: one.minutes }) }}</span>
          </p>
        </section>
        <EvidenceList v-if="!next" :visit="visit" :evidence="own" @take-back="undo" />
        <p v-if="skipped.length" class="quiet">
          {{ $t('FindPage.notPossibleHere', { skipped: skipped.length }) }}
          <el-button class="key quiet" @click="skipped = []">{{ $t('FindPage.askThemAgain') }}</el-button>
        </p>
        <ScenePane v-if="scene && points" :width="scene.width" :height="scene.height" name="Loom">
          <SceneView :scene="scene" :black="points.from_node" :red="points.to_node" />
        </ScenePane>
      </div>
      <div class="right">
        <SuspectList :answer="answer" :visit="id" :open="suspect" @open="(one) => (suspect = one)" />
        <EvidenceList v-if="next" :visit="visit" :evidence="own" @take-back="undo" />
      </div>
    </div>
  </main>
</template>

<style scoped>
.find {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 8px 16px 40px;
}

.ask {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  color: var(--ink-soft);
}

.work {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}

.left,
.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.stand {
  position: relative;
  padding: 8px 12px;
  border-left: 6px dashed var(--between);
  background: var(--panel);
}

.stand .el-progress {
  position: absolute;
  right: 0;
  bottom: 0;
  left: 0;
}

.stand .proof {
  min-height: 2lh;
}

.stand.proved,
.stand.as_designed {
  border-left: 6px solid var(--agrees);
}

.now {
  padding: 12px 16px;
  border: 2px solid var(--ink);
  background: var(--panel);
}

.now h2 {
  font-size: 22px;
  overflow-wrap: anywhere;
}

.now h2::first-letter {
  text-transform: uppercase;
}

.beside {
  display: grid;
  gap: 6px;
  padding: 8px 12px;
  border-left: 6px dashed var(--alarm);
  background: var(--panel);
}

.care {
  display: grid;
  gap: 6px;
  padding: 10px 14px;
  border: 2px solid var(--alarm);
  background: var(--alarm-soft);
}

.care h2 {
  font-size: 18px;
}

.care ol {
  display: grid;
  gap: 4px;
  padding-left: 24px;
}

.caution {
  font-weight: 600;
}

.changed {
  color: var(--alarm);
}

.others p {
  padding: 3px 0;
  color: var(--ink-soft);
}

h3 {
  font-size: 15px;
}

.working {
  display: grid;
  gap: 8px;
  max-width: 560px;
  padding: 10px 12px;
  background: var(--panel);
}

.working > .key {
  justify-self: start;
}

.quiet {
  color: var(--ink-soft);
}

@media (max-width: 640px) {
  .ask .el-select {
    width: 112px;
  }
}

@media (max-width: 1040px) {
  .work {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
