<script setup lang="ts">
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type FieldProblem, type NotationAnswer, type Rig } from '@/shared/api/client'
import CallBar from '@/shared/ui/CallBar.vue'
import FindingList from '@/shared/ui/FindingList.vue'
import RigHead from '@/shared/ui/RigHead.vue'
import RungCompare from '@/pages/rigs/RungCompare.vue'
import RungEditor from '@/pages/rigs/RungEditor.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { useHistory } from '@/shared/ui/useHistory'
import { useQuestion } from '@/shared/api/useQuestion'
import { useRigKeeping } from '@/shared/ui/useRigKeeping'
import type { Problem } from '@/shared/model/outcome'
import { withFact } from '@/pages/rigs/rungs'
import ScenePane from '@/shared/scene/ScenePane.vue'
import SceneView from '@/shared/scene/SceneView.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import PickTab from '@/shared/ui/kit/PickTab.vue'

const { t } = useI18n()
/** Notation, not words. */
const EXAMPLE = `R > wall.Y > air_handler.Y > outdoor.Y > LPS > DTS > HPS > M > (CC) > C
R > wall.W2 > air_handler.W > (SEQ) > C
  | R > DFR/no > outdoor.W2_out > air_handler.W`
const NOTATION = {
  load: '(CC)',
  feed: '|',
  open: 'DFR/no',
  closed: 'DFR/nc',
  wire: '[yellow]',
  splice: '[yellow /attic/ white]',
}

const props = defineProps<{ id: string | null }>()
const catalogue = useCatalogue()

const START = 'R > '
const PAUSE_MS = 250
const VIEWS = [
  { id: 'ladder', title: t('RungsPage.ladder') },
  { id: 'loops', title: t('RungsPage.loom') },
  { id: 'connections', title: t('RungsPage.connections') },
] as const

const history = useHistory(START)
const text = ref(START)
const name = ref('')
const call = ref('heat')
const view = ref<(typeof VIEWS)[number]['id']>('ladder')
const against = ref('')
const part = ref<string | null>(null)
const problem = shallowRef<Problem | null>(null)
const rig = shallowRef<Rig | null>(null)
const others = shallowRef<Rig[]>([])
const ready = ref(props.id === null)
const { busy, saved, keep } = useRigKeeping(rig, problem, (id) => `/rigs/${id}/rungs`)

async function load() {
  const rigs = await api.rigs()
  if (rigs.state === 'ready') others.value = rigs.value.rigs.filter((one) => one.id !== props.id)
  if (!props.id) return
  const [row, printed] = await Promise.all([api.rig(props.id), api.notation(props.id)])
  if (row.state === 'failed') problem.value = row.problem
  if (printed.state === 'failed') problem.value = printed.problem
  if (row.state !== 'ready' || printed.state !== 'ready') return
  rig.value = row.value
  name.value = row.value.name
  text.value = printed.value.text
  history.restart(text.value)
  ready.value = true
}
onMounted(load)

type Asked = Parameters<typeof api.readNotation>[0]
/** What is read: the text as it stood when typing paused. */
const paused = ref({ text: text.value, name: name.value })
const { value: answer, problem: refusal } = useQuestion<Asked, NotationAnswer>(
  'notation',
  () =>
    ready.value && paused.value.text.trim()
      ? {
          text: paused.value.text,
          name: paused.value.name.trim() || t('RungsPage.unnamedRig'),
          call: call.value,
          view: view.value,
          panel: view.value === 'ladder',
          against: against.value || null,
        }
      : null,
  api.readNotation,
)
/** Words that are refused stand at their lines; what else is wrong, above. */
const wrong = computed<FieldProblem[]>(
  () => refusal.value?.errors?.filter((one) => one.line !== undefined) ?? [],
)
watch(refusal, (now) => (problem.value = wrong.value.length ? null : now))
const read = () => (paused.value = { text: text.value, name: name.value })
watch(ready, read)
let waiting = 0
watch([text, name], () => {
  clearTimeout(waiting)
  waiting = window.setTimeout(() => {
    history.set(text.value)
    read()
  }, PAUSE_MS)
})

const calls = computed(() =>
  (catalogue.value?.calls ?? []).filter((one) => answer.value?.calls.includes(one.id)),
)
const lit = computed(() => [
  ...(part.value ? [part.value] : []),
  ...(answer.value?.comparison?.rungs.flatMap((rung) => (rung.same ? [] : rung.marked)) ?? []),
])
const current = computed(() => !wrong.value.length && !problem.value)

async function walk(undo: boolean) {
  if (undo) history.undo()
  else history.redo()
  text.value = history.current.value
  await nextTick()
}

const fit = (key: string, fitted: boolean) => (text.value = withFact(text.value, key, fitted ? 'yes' : 'no'))

async function save() {
  if (answer.value && current.value) await keep(name.value, answer.value.rig as Record<string, unknown>)
}
</script>

<template>
  <main class="rungs">
    <RigHead
      :title="$t('RungsPage.rungs')"
      :name="name"
      :can-undo="history.canUndo.value"
      :can-redo="history.canRedo.value"
      :can-keep="!!answer && current"
      :busy="busy"
      :problem="problem"
      :saved="current ? saved : ''"
      @rename="(text) => (name = text)"
      @undo="walk(true)"
      @redo="walk(false)"
      @keep="save"
    >
      <RouterLink v-if="rig" class="key" :to="`/rigs/${rig.id}/trace`">{{
        $t('RungsPage.trace')
      }}</RouterLink>
    </RigHead>

    <div v-if="!ready && !problem" class="until-there" />
    <div v-else class="work">
      <section class="typed" :aria-label="$t('RungsPage.rungsAsReadFromThe')">
        <RungEditor v-model="text" :words="catalogue?.words ?? []" :wrong="wrong" />
        <div class="against">
          {{ $t('RungsPage.compareWith') }}
          <PickOne
            v-model="against"
            :none="$t('RungsPage.nothing')"
            :options="[
              { id: 'archetype', title: $t('RungsPage.theArchetype') },
              ...others.map((one) => ({ id: one.id, title: one.name })),
            ]"
            :label="$t('RungsPage.compareWith')"
            data-testid="against"
          />
        </div>
        <div v-if="answer" class="panel-options">
          <p>{{ $t('RungsPage.onThePanelFittedHere') }}</p>
          <el-button
            v-for="one in answer.panel"
            :key="one.fact"
            class="key"
            :aria-pressed="one.fitted"
            :data-testid="`fit-${one.fact}`"
            @click="fit(one.fact, !one.fitted)"
          >
            <s v-if="!one.fitted">{{ one.title }}</s>
            <template v-else>{{ one.title }}</template>
          </el-button>
        </div>
        <p v-if="answer?.assumed.length" class="assumed">
          {{ $t('RungsPage.notSaidSoAssumed', { assumed: answer.assumed.join(', ').toLowerCase() }) }}
        </p>
      </section>

      <section v-if="answer" :class="['picture', { stale: !current }]" :aria-label="$t('RungsPage.drawing')">
        <div class="bar">
          <CallBar :calls="calls" :call="answer.call" @choose="(one) => (call = one)" />
          <PickTab
            :tabs="VIEWS"
            :tab="view"
            :label="$t('RungsPage.view')"
            testid="view"
            @choose="(one) => (view = one)"
          />
        </div>
        <p v-if="!current" class="was">{{ $t('RungsPage.asItWasBeforeThe') }}</p>
        <RungCompare
          v-if="answer.comparison"
          :comparison="answer.comparison"
          :lit="lit"
          @light="(code) => (part = code)"
        />
        <FindingList :findings="answer.findings" />
        <ScenePane :width="answer.scene.width" :height="answer.scene.height" :name="view">
          <SceneView :scene="answer.scene" :lit="lit" @tap="(station) => (part = station.part)" />
        </ScenePane>
      </section>
      <section v-else-if="!text.trim() || wrong.length || problem" class="picture empty">
        <p>{{ $t('RungsPage.typeARungAsIt') }}</p>
        <pre class="mono" tabindex="0" :aria-label="$t('RungsPage.exampleOfRungs')">{{ EXAMPLE }}</pre>
        <i18n-t keypath="RungsPage.signs" tag="p" scope="global">
          <template v-for="(sign, says) in NOTATION" #[says] :key="says"
            ><code>{{ sign }}</code></template
          >
        </i18n-t>
      </section>
    </div>
  </main>
</template>

<style scoped>
.rungs {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 8px 16px 32px;
}

.work {
  display: grid;
  grid-template-columns: minmax(380px, 2fr) 3fr;
  gap: 20px;
  align-items: start;
}

.typed,
.picture {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  min-width: 0;
}

.panel-options {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.panel-options p {
  flex-basis: 100%;
  font-weight: 650;
}

.against {
  display: flex;
  align-items: center;
  gap: 8px;
}

.against .el-select {
  flex: 1;
  min-width: 0;
}

.assumed,
.empty {
  color: var(--ink-soft);
}

.bar {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
}

.stale > :last-child {
  opacity: 0.6;
}

.was {
  color: var(--between);
  font-weight: 650;
}

pre {
  overflow-x: auto;
  padding: 12px;
  background: var(--panel);
  border: 1px solid var(--rule);
}

@media (max-width: 1040px) {
  .work {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
