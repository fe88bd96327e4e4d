<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { api, type UnitPage } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import NotesField from '@/pages/units/NotesField.vue'
import TrendChart from '@/pages/units/TrendChart.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import { useSession } from '@/shared/ui/useSession'
import type { Problem } from '@/shared/model/outcome'
import { saveFile } from '@/shared/model/saveFile'
import { day, degrees } from '@/shared/model/units'
import { MEANS, SIGNS } from '@/shared/model/visitPages'

const props = defineProps<{ id: string }>()
const { mayChange } = useSession()
const {
  value: unit,
  problem: unread,
  again,
} = useQuestion<string, UnitPage>('unit', () => props.id, api.unit, {
  follows: false,
})
const problem = shallowRef<Problem | null>(null)
const size = ref<string | null>(null)
const busy = ref(false)

/** Notes and year stand on one version: the one that was answered last. */
let version = 0
watch(unit, (row) => (version = row?.version ?? 0))
async function change(seen: number, fields: { notes?: string; installed_year?: number | null }) {
  const answer = await api.changeUnit(props.id, seen, fields)
  if (answer.state === 'ready') version = answer.value.version
  return answer
}
const keepNotes = (seen: number, notes: string) => change(seen, { notes })
async function keepYear(picked: string | null) {
  const answer = await change(version, { installed_year: picked ? Number(picked) : null })
  problem.value = answer.state === 'failed' ? answer.problem : null
  await again()
}
const yearsToCome = (one: Date) => one.getFullYear() > new Date().getFullYear()

const begin = computed(() => ({
  path: '/visits/new',
  query: { site: unit.value?.site, unit: unit.value?.name },
}))

async function label() {
  if (!unit.value) return
  busy.value = true
  const answer = await api.unitLabel(props.id, size.value ?? unit.value.label_sizes[0]?.id ?? '')
  busy.value = false
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state === 'ready')
    saveFile(`label, ${unit.value.site}, ${unit.value.name}.pdf`, answer.value, 'application/pdf')
}
</script>

<template>
  <main class="unit">
    <ProblemNote v-if="problem ?? unread" :problem="(problem ?? unread)!" />
    <p v-if="!unit && !unread" class="quiet">{{ $t('UnitPage.fetchingTheUnit') }}</p>
    <template v-if="unit">
      <div class="head">
        <h1>
          {{ unit.name }} <RouterLink class="site" :to="`/sites/${unit.site_id}`">{{ unit.site }}</RouterLink>
        </h1>
        <RouterLink v-if="mayChange" class="key solid" :to="begin" data-testid="begin-here">{{
          $t('UnitPage.beginAVisitHere')
        }}</RouterLink>
      </div>
      <NotesField
        :notes="unit.notes"
        :version="unit.version"
        :title="$t('UnitPage.forTheNextOne')"
        :placeholder="$t('UnitPage.breakerIsBehindTheShelf')"
        :keep="keepNotes"
      />
      <div class="work">
        <section :aria-label="$t('UnitPage.visits')">
          <h2>{{ $t('UnitPage.visits') }}</h2>
          <p v-if="!unit.visits.length" class="quiet">{{ $t('UnitPage.noneYet') }}</p>
          <ol class="rail">
            <li v-for="visit in unit.visits" :key="visit.id" :class="visit.marks.close_out">
              <RouterLink
                class="visit"
                :to="`/visits/${visit.id}/${visit.closed_number ? 'close-out' : 'trace'}`"
                data-testid="unit-visit"
              >
                <b class="mono">{{ day(visit.visit_on) }} {{ visit.visit_on.slice(0, 4) }}</b>
                <span class="says">{{ visit.complaint || $t('UnitPage.noComplaintTakenDown') }}</span>
                <span class="mono">{{ degrees(visit.outdoor_degrees_f) }}</span>
                <span class="state">{{
                  visit.closed_number
                    ? $t('UnitPage.closedNo', {
                        close_out: SIGNS[visit.marks.close_out],
                        closed_number: visit.closed_number,
                      })
                    : $t('UnitPage.open')
                }}</span>
              </RouterLink>
            </li>
          </ol>
          <h2>{{ $t('UnitPage.foundHere') }}</h2>
          <p v-if="!unit.findings.length" class="quiet">{{ $t('UnitPage.nothingClosedYet') }}</p>
          <ul class="plain">
            <li v-for="one in unit.findings" :key="one.visit_id + one.number">
              <RouterLink :to="`/visits/${one.visit_id}/report/${one.number}`" :title="MEANS[one.mark]"
                ><b class="mono">{{ SIGNS[one.mark] }} {{ day(one.on) }}</b></RouterLink
              >
              {{ one.says }} <span v-if="one.did" class="quiet">{{ one.did }}</span>
            </li>
          </ul>
          <h2>{{ $t('UnitPage.settingsAsTheyChanged') }}</h2>
          <p v-if="!unit.settings.length" class="quiet">{{ $t('UnitPage.noneWasRead') }}</p>
          <ul class="plain">
            <li v-for="(one, i) in unit.settings" :key="i">
              <b class="mono">{{ day(one.on) }}</b> {{ one.title }}:
              <template v-if="one.was">{{ one.was }} → </template><b>{{ one.is }}</b>
            </li>
          </ul>
        </section>
        <section :aria-label="$t('UnitPage.theUnit')">
          <h2>{{ $t('UnitPage.whatIsFitted') }}</h2>
          <p v-if="unit.rig_id">
            <RouterLink :to="`/rigs/${unit.rig_id}`">{{ unit.rig_title }}</RouterLink>{{
              $t('UnitPage.revision', { rig_revision: unit.rig_revision })
            }}
          </p>
          <dl>
            <template v-for="(line, i) in unit.fitted" :key="i">
              <dt>{{ line[0] }}</dt>
              <dd>{{ line[1] }}</dd>
            </template>
          </dl>
          <label class="year"
            >{{ $t('UnitPage.installedIn') }}
            <el-date-picker
              :model-value="unit.installed_year ? String(unit.installed_year) : null"
              type="year"
              value-format="YYYY"
              format="YYYY"
              :disabled="!mayChange"
              :disabled-date="yearsToCome"
              :placeholder="$t('UnitPage.yearNotRead')"
              :aria-label="$t('UnitPage.installedIn')"
              @update:model-value="keepYear"
          /></label>
          <p v-if="unit.visits.length" class="label">
            <PickOne
              v-model="size"
              :options="unit.label_sizes"
              :placeholder="unit.label_sizes[0]?.title"
              :label="$t('UnitPage.sizeOfTheLabel')"
            />
            <el-button class="key" :loading="busy" data-testid="label" @click="label">{{
              $t('UnitPage.labelForThePanel')
            }}</el-button>
          </p>
          <p v-if="unit.visits.length">
            <a class="key" :href="`/api/units/${id}/archive`" download data-testid="archive">{{
              $t('UnitPage.archiveAllOfItAs')
            }}</a>
          </p>
          <h2>{{ $t('UnitPage.howItMoves') }}</h2>
          <p v-if="!unit.trends.length" class="quiet">
            {{ $t('UnitPage.nothingWasReadThatCan') }}
          </p>
          <div class="trends">
            <TrendChart v-for="trend in unit.trends" :key="trend.id" :trend="trend" />
          </div>
          <template v-if="unit.photos.length">
            <h2>{{ $t('UnitPage.photos') }}</h2>
            <div class="photos">
              <a
                v-for="photo in unit.photos"
                :key="photo.id"
                :href="`/api/photos/${photo.id}`"
                target="_blank"
                ><img :src="`/api/photos/${photo.id}/small`" :alt="photo.note || photo.of.replace(/_/g, ' ')"
              /></a>
            </div>
          </template>
        </section>
      </div>
    </template>
  </main>
</template>

<style scoped>
.unit {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  max-width: 1240px;
  padding: 12px 16px 40px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 8px 16px;
}

h1 {
  font-size: 26px;
}

.site {
  font-size: 18px;
  font-weight: 450;
}

h2 {
  margin-top: 12px;
  border-bottom: 2px solid var(--ink);
  font-size: 19px;
}

.work {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  gap: 8px 36px;
  align-items: start;
}

section {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
}

.rail,
.plain {
  margin: 0;
  padding: 0;
  list-style: none;
}

.rail li {
  margin-left: 8px;
  border-left: 4px dashed var(--between);
}

.rail li.agrees {
  border-left: 4px solid var(--agrees);
}

.rail li.disagrees {
  border-left: 4px solid var(--alarm);
}

.visit {
  display: grid;
  grid-template-columns: 124px minmax(0, 1fr) 62px;
  gap: 0 10px;
  min-height: var(--target);
  padding: 6px 8px 6px 14px;
  color: var(--ink);
  text-decoration: none;
}

.visit:hover {
  background: var(--panel);
}

.state {
  grid-column: 2;
  color: var(--ink-soft);
  font-size: 15px;
}

.says {
  overflow-wrap: anywhere;
}

.plain li {
  padding: 4px 0;
}

dl {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 2px 12px;
  margin: 0;
}

dt {
  color: var(--ink-soft);
}

dd {
  margin: 0;
}

@media (max-width: 620px) {
  .visit {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .says,
  .state {
    grid-column: 1 / -1;
    grid-row: auto;
  }
}

.label,
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.year {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 2px 12px;
  align-items: center;
  color: var(--ink-soft);
}

.label .el-select {
  width: 150px;
}

.trends {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 14px 24px;
}

img {
  height: 84px;
}

.quiet {
  color: var(--ink-soft);
}

@media (max-width: 900px) {
  .work {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
