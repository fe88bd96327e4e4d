<script setup lang="ts">
import { computed, defineAsyncComponent, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import {
  api,
  type DefrostOutlook,
  type DefrostRecord,
  type ForcedTestRecord,
  type RigFile,
} from '@/shared/api/client'
import DefrostChecklist from '@/desks/defrost/DefrostChecklist.vue'
import DefrostNow, { type Moment } from '@/desks/defrost/DefrostNow.vue'
import DefrostSchools from '@/desks/defrost/DefrostSchools.vue'
import PlannerDesk from '@/desks/defrost/PlannerDesk.vue'
import PickTab from '@/shared/ui/kit/PickTab.vue'
import ForcedTestDesk from '@/desks/defrost/ForcedTestDesk.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SensorDesk from '@/desks/defrost/SensorDesk.vue'
import VisitHead from '@/shared/ui/VisitHead.vue'
import { useVisit } from '@/shared/ui/useVisit'
import { keepFitted } from '@/shared/model/fitted'
import type { Problem } from '@/shared/model/outcome'

const { t } = useI18n()
/** With the charts that only it needs. */
const RecordedDesk = defineAsyncComponent(() => import('@/desks/defrost/recorded/RecordedDesk.vue'))
const props = defineProps<{ id: string }>()
const route = useRoute()
const router = useRouter()
const { visit, problem: keeping, saved, load, held, keepDesk, take, newer } = useVisit()
const problem = shallowRef<Problem | null>(null)
const outlook = shallowRef<DefrostOutlook | null>(null)
const busy = ref(false)

const TABS = [
  { id: 'now', title: t('DefrostPage.stateNow') },
  { id: 'sensors', title: t('DefrostPage.sensors') },
  { id: 'schools', title: t('DefrostPage.schools') },
  { id: 'test', title: t('DefrostPage.forcedTest') },
  { id: 'recorded', title: t('DefrostPage.recorded') },
  { id: 'planner', title: t('DefrostPage.planner') },
  { id: 'list', title: t('DefrostPage.checklist') },
] as const
type Tab = (typeof TABS)[number]['id']
const tab = computed<Tab>(() => TABS.find((one) => one.id === route.query.tab)?.id ?? 'now')
const go = (to: Tab) => router.replace({ query: to === 'now' ? {} : { tab: to } })

watch(
  () => props.id,
  (id) => {
    if (visit.value?.id !== id) void load(id)
  },
  { immediate: true },
)
/** What this page has noted; ahead of the visit while a change is on its way. */
const record = shallowRef<DefrostRecord>({})
watch(
  () => [visit.value?.id, newer.value.defrost],
  () => (record.value = held('defrost')),
  { immediate: true },
)

const moment = computed(() => (record.value.moment ?? {}) as Moment)
const history = computed(() => (record.value.history ?? {}) as Record<string, string | number>)

async function keep(part: Partial<DefrostRecord>) {
  const before = record.value
  record.value = { ...record.value, ...part }
  const kept = await keepDesk('defrost', record.value)
  if (!kept && part.test?.closed)
    record.value = { ...record.value, test: { ...part.test, closed: before.test?.closed ?? false } }
}

/** before: a test that another takes the place of; it stays with the visit. */
function keepTest(test: ForcedTestRecord, before?: ForcedTestRecord) {
  if (!before) return keep({ test })
  const others = (record.value.earlier ?? []).filter((one) => JSON.stringify(one) !== JSON.stringify(test))
  return keep({ test, earlier: [...others, before].slice(-12) })
}

/** What was found at the desk becomes measured facts of the rig. */
async function note(found: Record<string, string | number>) {
  if (!visit.value) return
  busy.value = true
  const own = await api.rigOfVisit(props.id)
  if (own.state === 'failed') problem.value = own.problem
  if (own.state === 'ready') {
    const file = own.value.content as RigFile & { facts?: Record<string, unknown> }
    const provenance = { source: 'measured', note: 'by what was seen at the defrost desk' }
    const facts = Object.fromEntries(
      Object.entries(found).map(([key, value]) => [key, { value, provenance }]),
    )
    const mine = { ...file, facts: { ...file.facts, ...facts } }
    const kept = await keepFitted(visit.value, own.value.revision, mine)
    problem.value = kept.state === 'failed' ? kept.problem : null
    if (kept.state === 'ready') take(kept.value)
  }
  busy.value = false
}
</script>

<template>
  <main class="defrost">
    <VisitHead class="over" page="defrost" :visit="visit" :kept="saved && !keeping">
      <PickTab :tabs="TABS" :tab="tab" :label="$t('DefrostPage.desk')" @choose="go" />
    </VisitHead>
    <ProblemNote v-if="problem ?? keeping" :problem="(problem ?? keeping)!" />
    <template v-if="visit && visit.id === id">
      <DefrostNow
        v-show="tab === 'now'"
        :visit="visit"
        :moment="moment"
        @keep="(now) => keep({ moment: { ...now } })"
        @outlook="(now) => (outlook = now)"
      />
      <SensorDesk v-if="tab === 'sensors'" :visit="visit" :record="record" @keep="keep" />
      <DefrostSchools
        v-if="tab === 'schools'"
        :visit="visit"
        :history="history"
        :seen="record.seen ?? []"
        :busy="busy"
        @keep="(spans, seen) => keep({ history: spans, seen })"
        @use="note"
      />
      <ForcedTestDesk
        v-if="tab === 'test'"
        :visit="visit"
        :record="record.test ?? {}"
        :earlier="record.earlier ?? []"
        :busy="busy"
        @keep="keepTest"
        @interval="(minutes) => note({ defrost_interval_minutes: minutes })"
      />
      <RecordedDesk v-if="tab === 'recorded'" :visit="visit" :record="record" @keep="keep" />
      <PlannerDesk v-if="tab === 'planner'" :visit="visit" />
      <DefrostChecklist v-if="tab === 'list' && outlook" :visit="visit" :outlook="outlook" />
    </template>
    <p v-else-if="!keeping" class="quiet">{{ $t('DefrostPage.fetchingTheVisit') }}</p>
  </main>
</template>

<style scoped>
.defrost {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  padding: 8px 16px 40px;
}

.over {
  border-bottom: 3px solid var(--ink);
}

.quiet {
  color: var(--ink-soft);
}
</style>
