<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Visit } from '@/shared/api/client'
import { recordedApi, type ClimateWanted, type Plan, type PlannedSums } from '@/desks/defrost/recorded/api'
import PickFile from '@/shared/ui/kit/PickFile.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useLongAnswer } from '@/shared/api/useLongAnswer'

const { t } = useI18n()
/** A year of the site's weather under every setting of the board. */
const props = defineProps<{ visit: Visit }>()
const CLIMATES = [
  { id: 'lake_village', title: t('PlannerDesk.lakeVillageDampWinters') },
  { id: 'dry_cold', title: t('PlannerDesk.dryAndColdInland') },
  { id: 'wet_mild', title: t('PlannerDesk.wetAndMildNear') },
  { id: 'hills', title: t('PlannerDesk.hillsSnowAndWind') },
  { id: 'own', title: t('PlannerDesk.theSiteSOwn') },
] as const
type ClimateId = (typeof CLIMATES)[number]['id']
const SUMS: { id: keyof PlannedSums; title: string; unit: string }[] = [
  { id: 'defrosts_a_day', title: t('PlannerDesk.defrostsADay'), unit: '' },
  { id: 'defrosts', title: t('PlannerDesk.defrostsAYear'), unit: '' },
  { id: 'dry', title: t('PlannerDesk.ofThemWithNothing'), unit: '' },
  { id: 'worst_frost_kg', title: t('PlannerDesk.worstFrost'), unit: 'kg' },
  { id: 'defrost_kwh', title: t('PlannerDesk.lostToDefrosting'), unit: 'kWh' },
  { id: 'frost_kwh', title: t('PlannerDesk.lostToFrost'), unit: 'kWh' },
  { id: 'backup_kwh', title: t('PlannerDesk.heatOfStripsInDefrosts'), unit: 'kWh' },
  { id: 'cool_air_minutes', title: t('PlannerDesk.coolAir'), unit: 'min' },
  { id: 'valve_shifts', title: t('PlannerDesk.valveShifts'), unit: '' },
]
const BY_MONTH = SUMS.filter((one) =>
  ['defrosts_a_day', 'dry', 'worst_frost_kg', 'defrost_kwh'].includes(one.id),
)
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

const kind = ref<ClimateId>('lake_village')
const wind = ref<number | undefined>(undefined)
const table = shallowRef<{ name: string; text: string } | null>(null)
const asked = shallowRef<ClimateWanted | null>(null)
const month = ref<keyof PlannedSums>('defrosts_a_day')
const {
  answer: plan,
  task,
  problem,
  again,
  cancel,
} = useLongAnswer<Plan>(() => recordedApi.plan(props.visit.id, asked.value!, coil.value || null))

/** Records of the unit that its coil can be fitted to. */
const records = shallowRef<{ id: string; title: string }[]>([])
const coil = ref('')
async function loadRecords() {
  const given = await recordedApi.ofVisit(props.visit.id)
  if (given.state !== 'ready') return
  records.value = given.value.logs
    .filter((one) => one.state === 'read')
    .map((one) => ({ id: one.id, title: one.name }))
}

const ready = computed(() => kind.value !== 'own' || table.value !== null)
function work() {
  plan.value = null
  asked.value = {
    ...(kind.value === 'own' ? { text: table.value!.text } : { kind: kind.value }),
    ...(wind.value === undefined ? {} : { wind_mph: wind.value }),
  }
  void again()
}
async function take(file: File) {
  table.value = { name: file.name, text: await file.text() }
}
// What was answered for another unit or board is not shown for this one.
watch(
  () => [props.visit.id, props.visit.rig_revision],
  () => (plan.value = null),
)
watch(() => props.visit.unit_id, loadRecords, { immediate: true })
const shown = (value: number, unit: string) => `${value.toLocaleString('en-US')}${unit ? ` ${unit}` : ''}`
/** What heats in a defrost is named; where nothing does there is no such row. */
const sums = computed(() => {
  if (plan.value?.backup === 'none') return SUMS.filter((sum) => sum.id !== 'backup_kwh')
  const gas = plan.value?.backup === 'gas' ? t('PlannerDesk.heatOfGasInDefrosts') : null
  return SUMS.map((sum) => (gas && sum.id === 'backup_kwh' ? { ...sum, title: gas } : sum))
})
const rows = computed(() =>
  sums.value.map((sum) => ({ ...sum, of: plan.value?.settings.map((one) => one.year[sum.id]) ?? [] })),
)
const months = computed(() =>
  MONTHS.map((title, i) => ({
    title,
    of: plan.value?.settings.map((one) => one.months[i]?.[month.value] ?? 0) ?? [],
  })),
)
const monthMost = computed(() => Math.max(1e-9, ...months.value.flatMap((one) => one.of)))
</script>

<template>
  <div class="planner" data-testid="planner">
    <el-form class="ask" label-position="top" @submit.prevent="work">
      <el-form-item :label="$t('PlannerDesk.weatherOfTheSite')">
        <PickOne
          v-model="kind"
          :options="CLIMATES"
          :label="$t('PlannerDesk.weatherOfTheSite')"
          data-testid="climate"
        />
      </el-form-item>
      <el-form-item v-if="kind === 'own'" :label="$t('PlannerDesk.hoursTimeTemperatureHumidityOr')">
        <PickFile
          accept=".csv,text/csv"
          :label="$t('PlannerDesk.chooseTheTable')"
          data-testid="climate-file"
          @picked="take"
        >
          {{ table?.name ?? $t('PlannerDesk.chooseTheTable') }}
        </PickFile>
      </el-form-item>
      <el-form-item v-if="records.length" :label="$t('PlannerDesk.coilFittedTo')">
        <PickOne
          v-model="coil"
          :options="records"
          :none="$t('PlannerDesk.theShippedThreeTonCoil')"
          :label="$t('PlannerDesk.coilFittedTo')"
          data-testid="coil"
        />
      </el-form-item>
      <el-form-item :label="$t('PlannerDesk.windOnTheCoilMph')">
        <el-input-number
          v-model="wind"
          :min="0"
          :max="60"
          :step="2"
          :placeholder="$t('PlannerDesk.asUsualThere')"
          :aria-label="$t('PlannerDesk.windOnTheCoilMph')"
          class="wind"
        />
      </el-form-item>
      <el-button
        type="primary"
        class="key"
        :disabled="!ready || task !== null"
        data-testid="plan"
        @click="work"
        >{{ $t('PlannerDesk.workOutTheYear') }}</el-button
      >
    </el-form>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="task" class="working" role="status" data-testid="planning">
      <p>{{ $t('PlannerDesk.aDayOfEveryKind') }}</p>
      <TaskProgress :label="$t('PlannerDesk.daysWorkedOut')" :done="task.done" :total="task.total" />
      <el-button class="key" @click="cancel">{{ $t('PlannerDesk.stop') }}</el-button>
    </div>
    <template v-if="plan">
      <div class="says" data-testid="plan-says">
        <p v-for="(line, i) in plan.says" :key="line" :class="{ first: i === 0 }">{{ line }}</p>
      </div>
      <div class="wide" tabindex="0" role="region" :aria-label="$t('PlannerDesk.settingsSideBySide')">
        <table class="settings" data-testid="plan-settings">
          <caption>
            {{
              $t('PlannerDesk.mphAYearModelled', { climate: plan.climate, wind_mph: plan.wind_mph })
            }}
          </caption>
          <thead>
            <tr>
              <th scope="col">
                <span class="hidden-label">{{ $t('PlannerDesk.sum') }}</span>
              </th>
              <th v-for="one in plan.settings" :key="one.id" scope="col" :class="{ take: one.recommended }">
                {{ one.title }}
                <small v-if="one.recommended">{{ $t('PlannerDesk.takeThis') }}</small>
                <small v-if="one.makers">{{ $t('PlannerDesk.setNow') }}</small>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.id">
              <th scope="row">{{ row.title }}</th>
              <td
                v-for="(value, i) in row.of"
                :key="i"
                :class="['mono', { take: plan.settings[i]?.recommended }]"
              >
                {{ shown(value, row.unit) }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <section class="months">
        <PickOne v-model="month" :options="BY_MONTH" :label="$t('PlannerDesk.byMonth')" class="by" />
        <div class="wide" tabindex="0" role="region" :aria-label="$t('PlannerDesk.byMonth')">
          <table data-testid="plan-months">
            <thead>
              <tr>
                <th scope="col">{{ $t('PlannerDesk.byMonth') }}</th>
                <th v-for="one in plan.settings" :key="one.id" scope="col" :class="{ take: one.recommended }">
                  {{ one.title }}
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in months" :key="row.title">
                <th scope="row">{{ row.title }}</th>
                <td
                  v-for="(value, i) in row.of"
                  :key="i"
                  class="mono bar"
                  :style="{ '--share': value / monthMost }"
                >
                  {{ value.toLocaleString('en-US') }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <ul class="assumed">
        <li v-for="line in plan.assumed" :key="line">{{ line }}</li>
      </ul>
    </template>
    <p v-else-if="!task" class="quiet">
      {{ $t('PlannerDesk.whatEachPositionOfThe') }}
    </p>
  </div>
</template>

<style scoped>
.planner {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  max-width: 1100px;
}

.ask {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 8px 20px;
}

.ask > * {
  margin-bottom: 0;
}

.ask > :deep(.el-form-item:has(.pick)) {
  width: min(380px, 100%);
}

.wind {
  width: 240px;
}

.working {
  max-width: 520px;
}

.says p {
  margin: 4px 0;
}

.says .first {
  font-size: 22px;
  font-weight: 700;
}

.wide {
  min-width: 0;
  max-width: 100%;
  overflow-x: auto;
}

table {
  border-collapse: collapse;
}

caption {
  padding-bottom: 4px;
  font-weight: 700;
  text-align: left;
}

th,
td {
  padding: 6px 14px;
  border-bottom: 1px solid var(--rule);
  text-align: right;
  white-space: nowrap;
}

th[scope='row'] {
  font-weight: 450;
  text-align: left;
}

thead th {
  border-bottom: 2px solid var(--ink);
  vertical-align: bottom;
}

thead th small {
  display: block;
}

.take {
  background: var(--agrees-soft);
}

.bar {
  background: linear-gradient(var(--note-soft), var(--note-soft)) right / calc(var(--share) * 100%) 100%
    no-repeat;
}

.months {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  justify-items: start;
}

.by {
  width: min(320px, 100%);
}

.assumed,
.quiet {
  margin: 0;
  color: var(--ink-soft);
}
</style>
