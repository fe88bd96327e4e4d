<script setup lang="ts">
import { until } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { api, type Revision, type Rig, type RigFile, type Visit } from '@/shared/api/client'
import CallBar from '@/shared/ui/CallBar.vue'
import FactQuestion from '@/desks/fitted/FactQuestion.vue'
import FindingList from '@/shared/ui/FindingList.vue'
import PhotoStrip from '@/shared/ui/PhotoStrip.vue'
import RigHead from '@/shared/ui/RigHead.vue'
import RevisionList from '@/desks/fitted/RevisionList.vue'
import RigMeanwhile from '@/desks/fitted/RigMeanwhile.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { useDraft, useLeaving } from '@/shared/ui/useDraft'
import { useHistory } from '@/shared/ui/useHistory'
import { useQuestion } from '@/shared/api/useQuestion'
import { useRigKeeping } from '@/shared/ui/useRigKeeping'
import { useVisit } from '@/shared/ui/useVisit'
import { keepFitted } from '@/shared/model/fitted'
import {
  answered,
  groups,
  onTop,
  unanswered,
  type Answer,
  type Draft,
  type Fact,
} from '@/desks/fitted/answers'
import { isTyping } from '@/shared/model/keys'
import type { Problem } from '@/shared/model/outcome'
import { saveFile } from '@/shared/model/saveFile'
import ScenePane from '@/shared/scene/ScenePane.vue'
import SceneView from '@/shared/scene/SceneView.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import PickTab from '@/shared/ui/kit/PickTab.vue'

const { t } = useI18n()
/** visit: the rig of a visit, whose changes the visit goes on with. */
const props = defineProps<{ id: string | null; visit?: Visit }>()
const catalogue = useCatalogue()
const route = useRoute()
const router = useRouter()

const history = useHistory<Draft>({ name: '', facts: {} })
const draft = history.current
const base = shallowRef<RigFile | null>(null)
const rig = shallowRef<Rig | null>(null)
const revisions = shallowRef<Revision[]>([])
const problem = shallowRef<Problem | null>(null)
const group = ref('wall')
const SOURCES: Record<string, string> = {
  diagram: t('ComposerPage.readOnTheDiagram'),
  measured: t('ComposerPage.measured'),
  told: t('ComposerPage.toldBySomebody'),
  assumed: t('ComposerPage.assumed'),
}
const source = ref('diagram')
const call = ref('heat')
const ready = ref(props.id === null)
const { busy, saved, keep } = useRigKeeping(
  rig,
  problem,
  (id) => `/rigs/${id}`,
  () => route.query.for !== 'visit',
)

/** sent: the draft that was just kept; what was answered while it was on its way stays on top. */
async function load(sent?: Draft) {
  if (!props.id) return
  const [answer, list] = await Promise.all([api.rig(props.id), api.revisions(props.id)])
  if (answer.state === 'failed') problem.value = answer.problem
  if (answer.state !== 'ready') return
  const own = props.visit ? await api.rigOfVisit(props.visit.id) : null
  const content = (own?.state === 'ready' ? own.value.content : answer.value.content) as RigFile
  rig.value = answer.value
  if (own?.state === 'ready') revision.value = own.value.revision
  base.value = content
  const now = draft.value
  const back = { name: String(content.name), facts: (base.value.facts ?? {}) as Record<string, Fact> }
  history.restart(back)
  if (sent && now !== sent) history.set(onTop(now, sent, back))
  if (list.state === 'ready') revisions.value = list.value.revisions
  ready.value = true
  if (!sent) begins()
}
onMounted(() => void load())

/** What is answered and not kept: on this device, by rig and revision. */
const store = useDraft<Draft>(`rig.${props.visit?.id ?? props.id ?? 'new'}`)
const unkept = ref(false)
const found = ref(false)
function begins() {
  const kept = store.read()
  if (!kept || JSON.stringify(kept) === JSON.stringify(draft.value)) return
  history.set(kept)
  unkept.value = found.value = true
}
if (ready.value) begins()
watch(draft, (now) => {
  unkept.value = history.canUndo.value
  if (unkept.value) store.write(now)
  else store.forget()
})
function giveUp() {
  store.forget()
  history.restart({
    name: String(base.value?.name ?? ''),
    facts: (base.value?.facts ?? {}) as Record<string, Fact>,
  })
  unkept.value = found.value = false
}
useLeaving(() => unkept.value, t('ComposerPage.notKeptYet2'))

const {
  value: newest,
  problem: refusal,
  waiting: composing,
} = useQuestion(
  'compose',
  () =>
    ready.value
      ? {
          name: draft.value.name.trim() || t('ComposerPage.unnamedRig'),
          facts: draft.value.facts,
          base: base.value,
          call: call.value,
        }
      : null,
  (asked) => api.compose(asked.name, asked.facts, asked.base, asked.call),
)
watch(refusal, (now) => (problem.value = now))
/** As composed last: while the newest answers are refused, the questions stay, to be put right. */
const composed = shallowRef<typeof newest.value>(null)
watch(newest, (now) => now && (composed.value = now), { immediate: true })

/** What nobody has read, measured or been told: the profile's word only. */
const isAssumed = (key: string) => (draft.value.facts[key]?.provenance.source ?? 'assumed') === 'assumed'
const questions = computed(() =>
  (catalogue.value?.facts ?? []).filter(
    (question) =>
      composed.value?.asked.includes(question.key) &&
      (group.value === 'assumed' ? isAssumed(question.key) : question.group === group.value),
  ),
)
const assumed = computed(
  () =>
    (catalogue.value?.facts ?? []).filter(
      (one) => composed.value?.asked.includes(one.key) && isAssumed(one.key),
    ).length,
)
const left = (id: string) =>
  (catalogue.value?.facts ?? []).filter(
    (one) => one.group === id && composed.value?.asked.includes(one.key) && isAssumed(one.key),
  ).length
const calls = computed(() =>
  (catalogue.value?.calls ?? []).filter((one) => composed.value?.preview.calls.includes(one.id)),
)
const running = computed(
  () => composed.value?.preview.loads.filter((load) => load.on).map((load) => load.title) ?? [],
)

/** As answered here, else as the composed rig has it. */
const valueOf = (key: string) =>
  draft.value.facts[key]?.value ?? (composed.value?.values as Record<string, Answer> | undefined)?.[key] ?? ''
/** What was refused of one answer, to be said where it stands. */
const wrongWith = (key: string) =>
  problem.value?.errors?.find((error) => error.field.startsWith(`/facts/${key}/`))?.problem ?? ''
const tabs = computed(() => [
  ...groups().map((one) => ({ ...one, count: left(one.id) })),
  { id: 'assumed', title: t('ComposerPage.onlyAssumed'), count: assumed.value },
])
const answer = (key: string, value: Answer) => history.set(answered(draft.value, key, value, source.value))
const clear = (key: string) => history.set(unanswered(draft.value, key))

const { take } = useVisit()
/** The rig's revision that the answers began from. */
const revision = ref(1)
/** What somebody else changed in the same things, until it is decided whose word stands. */
const meanwhile = shallowRef<Problem | null>(null)
async function saveForVisit(visit: Visit, file: RigFile, from = revision.value) {
  busy.value = true
  const sent = draft.value
  const kept = await keepFitted(visit, from, file)
  busy.value = false
  meanwhile.value = kept.state === 'failed' && kept.problem.both?.length ? kept.problem : null
  problem.value = kept.state === 'failed' && !meanwhile.value ? kept.problem : null
  if (kept.state !== 'ready') return
  saved.value = t('ComposerPage.keptAsRevision', { revision: kept.value.rig_revision })
  settled()
  take(kept.value)
  await load(sent)
}

async function save() {
  // The file is that of the newest answers: whoever saves at once keeps the last one too.
  await nextTick()
  await until(composing).toBe(false)
  if (!composed.value || refusal.value) return
  if (props.visit) return saveForVisit(props.visit, composed.value.rig as RigFile)
  // A new rig moves to its own address as it is kept: then nothing is open any more.
  const open = unkept.value
  unkept.value = false
  const sent = draft.value
  const kept = await keep(sent.name, composed.value.rig as RigFile)
  if (!kept) return (unkept.value = open)
  settled()
  if (route.query.for === 'visit' && rig.value) return router.push(`/visits/new?rig=${rig.value.id}`)
  await load(sent)
}
/** Kept: nothing is left to be lost. */
function settled() {
  store.forget()
  unkept.value = found.value = false
}

function exportFile() {
  if (composed.value)
    saveFile('rig.gorvant-rig.json', JSON.stringify(composed.value.rig, null, 2), 'application/json')
}

function onKey(event: KeyboardEvent) {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return
  const chosen = calls.value.find((one) => one.key === event.key)
  if (chosen) call.value = chosen.id
}
onMounted(() => addEventListener('keydown', onKey))
onBeforeUnmount(() => removeEventListener('keydown', onKey))
</script>

<template>
  <main class="composer">
    <div v-if="!composed && !problem" class="until-there" />
    <template v-else>
      <RigHead
        :title="
          visit
            ? $t('ComposerPage.fitted')
            : id
              ? $t('ComposerPage.whatIsFitted')
              : $t('ComposerPage.composeARig')
        "
        :name="draft.name"
        :can-undo="history.canUndo.value"
        :can-redo="history.canRedo.value"
        :can-keep="!!composed && !refusal"
        :busy="busy"
        :problem="problem"
        :saved="saved"
        @rename="(name) => history.set({ ...draft, name })"
        @undo="history.undo()"
        @redo="history.redo()"
        @keep="save"
      >
        <el-button class="key" :disabled="!composed || !!refusal" @click="exportFile">{{
          $t('ComposerPage.export')
        }}</el-button>
        <RouterLink v-if="rig" class="key" :to="`/rigs/${rig.id}/rungs`">{{
          $t('ComposerPage.rungs')
        }}</RouterLink>
        <RouterLink v-if="rig && !visit" class="key" :to="`/rigs/${rig.id}/trace`">{{
          $t('ComposerPage.trace')
        }}</RouterLink>
      </RigHead>

      <RigMeanwhile
        v-if="visit && meanwhile"
        :problem="meanwhile"
        @stands="(file) => saveForVisit(visit!, file, meanwhile!.current_version)"
        @later="meanwhile = null"
      />
      <p v-if="found" class="draft" data-testid="draft">
        {{ $t('ComposerPage.yourAnswersFromBeforeNot') }}
        <el-button class="key" data-testid="give-up" @click="giveUp">{{
          $t('ComposerPage.giveThemUp')
        }}</el-button>
      </p>
      <div class="ask">
        <PickTab
          :tabs="tabs"
          :tab="group"
          :label="$t('ComposerPage.place')"
          testid="group"
          @choose="(one) => (group = one)"
        />
        <div v-if="catalogue" class="source">
          {{ $t('ComposerPage.whatIAnswerNowIs') }}
          <PickOne
            v-model="source"
            :options="catalogue.sources.map((id) => ({ id, title: SOURCES[id] ?? id }))"
            :label="$t('ComposerPage.whatIAnswerNowIs')"
            data-testid="source"
          />
        </div>
      </div>
      <div class="work">
        <section class="questions" :aria-label="$t('ComposerPage.questions')">
          <FactQuestion
            v-for="question in questions"
            :key="question.key"
            :question="question"
            :wrong="wrongWith(question.key)"
            :fact="draft.facts[question.key]"
            :value="valueOf(question.key)"
            @answer="(value) => answer(question.key, value)"
            @clear="clear(question.key)"
          />
        </section>
        <section v-if="composed" class="picture" :aria-label="$t('ComposerPage.drawing')">
          <CallBar :calls="calls" :call="composed.call" @choose="(one) => (call = one)" />
          <ScenePane
            :width="composed.preview.scene.width"
            :height="composed.preview.scene.height"
            name="loops"
          >
            <SceneView :scene="composed.preview.scene" />
          </ScenePane>
          <p class="runs">
            {{
              $t('ComposerPage.runsOfVa', {
                running: running.join(', ') || $t('ComposerPage.nothing'),
                drawn_va: composed.preview.supply.drawn_va.toFixed(0),
                rated_va: composed.preview.supply.rated_va.toFixed(0),
              })
            }}
          </p>
          <FindingList :findings="composed.preview.findings" />
          <PhotoStrip v-if="visit" :visit="visit.id" />
          <RevisionList v-if="revisions.length" :revisions="revisions" />
        </section>
      </div>
    </template>
  </main>
</template>

<style scoped>
.composer {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 8px 16px 32px;
}

.work {
  display: grid;
  grid-template-columns: minmax(260px, 1fr) minmax(0, 924px);
  gap: 12px;
  align-items: start;
}

.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px 20px;
  min-width: 0;
}

.source {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--ink-soft);
}

.source > :last-child {
  width: 220px;
}

.picture {
  position: sticky;
  top: 8px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.draft {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 6px 12px;
  border-left: 6px dashed var(--between);
  background: var(--note-soft);
}

.runs {
  color: var(--ink-soft);
}

.runs::first-letter {
  text-transform: uppercase;
}

@media (max-width: 1040px) {
  .work {
    grid-template-columns: minmax(0, 1fr);
  }

  .picture {
    position: static;
  }
}
</style>
