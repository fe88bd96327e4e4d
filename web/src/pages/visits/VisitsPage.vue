<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { refDebounced as useDebounced, useLocalStorage } from '@vueuse/core'
import { useRoute } from 'vue-router'
import { api, type Searched, type Visit } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useSession } from '@/shared/ui/useSession'
import FindAgain from '@/pages/visits/FindAgain.vue'
import VisitMarks from '@/pages/visits/VisitMarks.vue'
import { useQuestion } from '@/shared/api/useQuestion'
import type { Problem } from '@/shared/model/outcome'
import { day, degrees, weekday } from '@/shared/model/units'
import { MEANS, PAGES, SIGNS } from '@/shared/model/visitPages'

const { mayChange } = useSession()
const { value: first, outcome } = useQuestion('visits', true, () => api.visits(), { follows: false })
/** What was fetched after the first page, and where the next begins. */
const earlier = shallowRef<Visit[]>([])
const further = ref<string | null>(null)
const busy = ref(false)
const problem = shallowRef<Problem | null>(null)
watch(first, (page) => page && (further.value = page.next), { immediate: true })

async function fetchEarlier() {
  if (!further.value || busy.value) return
  busy.value = true
  const answer = await api.visits(further.value)
  busy.value = false
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state !== 'ready') return
  earlier.value = [...earlier.value, ...answer.value.visits]
  further.value = answer.value.next
}

/** Who is new here is led to a live visit, until it is waved off on this device. */
const looked = useLocalStorage('gorvant.looked', false)
const sample = computed(() => first.value?.visits.find((one) => one.demo && one.marks.trace !== 'untouched'))

/** What the address asks for; null for the whole sheet. */
const route = useRoute()
const asked = (key: string) => (typeof route.query[key] === 'string' ? (route.query[key] as string) : '')
const search = computed(() => {
  const [text, symptom, cause, by, since, until] = ['q', 'symptom', 'cause', 'by', 'since', 'until'].map(
    asked,
  )
  const closed = { yes: true, no: false }[asked('closed')]
  const given = {
    ...(text?.trim() ? { text: text.trim() } : {}),
    ...(symptom ? { symptom } : {}),
    ...(cause ? { cause } : {}),
    ...(by ? { by } : {}),
    ...(since ? { since } : {}),
    ...(until ? { until } : {}),
    ...(closed === undefined ? {} : { closed }),
  }
  return Object.keys(given).length ? given : null
})
const { value: found, problem: refusal } = useQuestion<Parameters<typeof api.search>[0], Searched>(
  'search',
  useDebounced(search, 200),
  api.search,
  { follows: false },
)
const shown = computed<(Visit & { hit?: string })[]>(() =>
  search.value ? (found.value?.visits ?? []) : [...(first.value?.visits ?? []), ...earlier.value],
)

/** The sheet: one leaf a day, newest first. */
const days = computed(() => {
  const leaves = new Map<string, (Visit & { hit?: string })[]>()
  for (const visit of shown.value) leaves.set(visit.visit_on, [...(leaves.get(visit.visit_on) ?? []), visit])
  return [...leaves]
})
</script>

<template>
  <main class="sheet">
    <div class="top">
      <h1>{{ $t('VisitsPage.daySheet') }}</h1>
      <RouterLink v-if="mayChange" class="key solid" to="/visits/new">{{
        $t('VisitsPage.beginAVisit')
      }}</RouterLink>
    </div>
    <FindAgain :found="search ? found : null" />
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <ProblemNote v-if="search && refusal" :problem="refusal" />
    <p v-if="outcome.state === 'loading'" class="quiet">{{ $t('VisitsPage.fetchingTheSheet') }}</p>
    <p v-if="search && found && !days.length && !found.unknown.length" class="empty" data-testid="none-found">
      {{ $t('VisitsPage.noVisitOfThisCrew') }}
    </p>
    <p v-if="!search && outcome.state === 'ready' && !days.length" class="empty">
      {{ $t('VisitsPage.noVisitYetBeginOne') }}
      <RouterLink to="/settings">{{ $t('VisitsPage.settings') }}</RouterLink>.
    </p>
    <p v-if="sample && !looked && !search" class="new-here" data-testid="new-here">
      {{ $t('VisitsPage.newHere') }}
      <RouterLink
        class="key"
        :to="`/visits/${sample.id}/trace?call=heat&look=first`"
        @click="looked = true"
        >{{ $t('VisitsPage.firstLookSixMarksOn') }}</RouterLink
      >
      <el-button class="key quiet" @click="looked = true">{{ $t('VisitsPage.notNow') }}</el-button>
    </p>
    <div v-if="days.length" class="heads">
      <p class="signs">
        <span v-for="(sign, mark) in SIGNS" :key="mark"
          ><b>{{ sign }}</b> {{ MEANS[mark] }}</span
        >
      </p>
      <p class="names" data-testid="mark-names">
        <span v-for="page in PAGES" :key="page.id">{{ page.title }}</span>
      </p>
    </div>
    <section v-for="[date, visits] in days" :key="date" class="leaf" :aria-label="day(date, true)">
      <p class="date">
        <b class="mono">{{ Number(date.slice(8, 10)) }}</b>
        <span>{{ weekday(date) }}</span>
      </p>
      <ol>
        <li v-for="visit in visits" :key="visit.id">
          <RouterLink class="visit" :to="`/visits/${visit.id}/trace`" data-testid="visit">
            <span class="place"
              >{{ visit.site }}<small>{{ visit.unit }}</small></span
            >
            <span class="complaint">
              <q v-if="visit.complaint">{{ visit.complaint }}</q>
              <small v-if="visit.hit" class="hit">… {{ visit.hit }} …</small>
              <small v-else-if="visit.symptom_titles.length">{{ visit.symptom_titles.join(' · ') }}</small>
            </span>
            <span class="weather mono">{{ degrees(visit.outdoor_degrees_f) }}</span>
            <VisitMarks :marks="visit.marks" :readings="visit.readings" />
          </RouterLink>
        </li>
      </ol>
    </section>
    <ProblemNote v-if="problem" :problem="problem" />
    <el-button
      v-if="further && !search"
      class="key further"
      :loading="busy"
      data-testid="earlier-visits"
      @click="fetchEarlier"
      >{{ $t('VisitsPage.earlierVisits') }}</el-button
    >
  </main>
</template>

<style scoped>
.sheet {
  max-width: 1180px;
  margin: 0 auto;
  padding: 16px 16px 40px;
}

.new-here {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 4px 12px;
  border-left: 6px solid var(--focus);
  background: var(--panel);
}

.further {
  width: 100%;
  margin-top: 16px;
}

.top {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding-bottom: 14px;
}

h1 {
  font-size: 26px;
}

.quiet,
.empty {
  color: var(--ink-soft);
  padding: 24px 0;
}

.heads {
  display: flex;
  align-items: flex-end;
  justify-content: space-between;
  gap: 16px;
  padding: 8px 10px 6px 0;
  color: var(--ink-soft);
}

.signs {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
}

.names {
  display: flex;
  gap: 3px;
}

.names span {
  width: 24px;
  font-size: 14px;
  line-height: 24px;
  writing-mode: vertical-rl;
  transform: rotate(180deg);
}

.leaf {
  display: grid;
  grid-template-columns: 132px 1fr;
  border-top: 3px solid var(--ink);
}

.date {
  padding: 10px 12px 10px 0;
}

.date b {
  display: block;
  font-size: 44px;
  line-height: 1;
}

.date span {
  color: var(--ink-soft);
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

li + li {
  border-top: 1px solid var(--rule);
}

.visit {
  display: grid;
  grid-template-columns: minmax(150px, 1fr) minmax(220px, 2fr) 62px auto;
  gap: 18px;
  align-items: center;
  min-height: 88px;
  padding: 12px 10px;
  text-decoration: none;
}

.visit:hover {
  background: var(--note-soft);
}

.place {
  font-size: 19px;
  font-weight: 700;
  overflow-wrap: anywhere;
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
  font-weight: 450;
}

.complaint {
  overflow-wrap: anywhere;
}

q {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
}

.weather {
  text-align: right;
}

@media (max-width: 900px) {
  .heads {
    flex-direction: column;
    align-items: flex-start;
  }

  .names {
    flex-wrap: wrap;
    gap: 2px 12px;
  }

  .names span {
    width: auto;
    writing-mode: horizontal-tb;
    transform: none;
  }

  .names span:not(:last-child)::after {
    content: ' ·';
  }

  .visit {
    grid-template-columns: 1fr auto;
    gap: 6px 14px;
  }

  .complaint {
    grid-column: 1 / -1;
    grid-row: 2;
  }

  .visit > :last-child {
    grid-column: 1 / -1;
  }
}

@media (max-width: 640px) {
  .leaf {
    grid-template-columns: 1fr;
  }

  .date {
    display: flex;
    align-items: baseline;
    gap: 10px;
    padding-bottom: 0;
  }

  .date b {
    font-size: 30px;
  }

  .visit {
    padding: 12px 0;
  }
}
</style>
