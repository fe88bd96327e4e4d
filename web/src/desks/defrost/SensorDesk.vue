<script setup lang="ts">
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type DefrostRecord, type SensorTableRead, type Visit } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import type { Problem } from '@/shared/model/outcome'
import { degreeSign, degrees, readNumber, shownDegrees } from '@/shared/model/units'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ThermistorChart from '@/desks/defrost/ThermistorChart.vue'
import VerdictList from '@/desks/defrost/VerdictList.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import QuantityField from '@/shared/ui/kit/QuantityField.vue'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import PickFile from '@/shared/ui/kit/PickFile.vue'

const { t } = useI18n()
interface SwitchPoint {
  degrees_f: number
  state: 'open' | 'closed'
}
interface Measured {
  degrees_f: number
  ohms: number | string
}
const props = defineProps<{ visit: Visit; record: DefrostRecord }>()
const emit = defineEmits<{ keep: [part: Partial<DefrostRecord>] }>()

const coil = computed(
  () =>
    (props.record.coil_switch ?? {}) as {
      closes_degrees_f?: number
      opens_degrees_f?: number
      points?: SwitchPoint[]
    },
)
const thermistor = computed(
  () =>
    (props.record.thermistor ?? {}) as {
      table_id?: string
      points?: Measured[]
      pair?: { coil_degrees_f: number; air_degrees_f: number } | null
    },
)
const catalogue = useCatalogue()
/** Between what temperatures may lie, by what they are of. */
const ranges = computed(() => catalogue.value?.degrees)
const points = reactive<{ closes: number | null; opens: number | null }>({ closes: null, opens: null })
const { value: listed, again: listTables } = useQuestion('sensor_tables', true, api.sensorTables, {
  follows: false,
})
const tables = computed(() => listed.value?.tables ?? [])
const problem = shallowRef<Problem | null>(null)
const form = reactive({
  degrees: null as number | null,
  state: 'closed' as 'open' | 'closed',
  at: null as number | null,
  ohms: '',
  coil: null as number | null,
  air: null as number | null,
})
/** Fields that hold what is no temperature: they say so themselves. */
const unread = reactive(new Set<string>())
const mark = (field: string) => (is: boolean) => (is ? unread.add(field) : unread.delete(field))
const wrong = ref('')
const preview = shallowRef<SensorTableRead | null>(null)
const importing = ref('')
const csv = ref('')
const name = ref('')

const table = computed(() => thermistor.value.table_id ?? tables.value[0]?.id ?? 'reed_ten')

const { value: coilSwitch, problem: badCoil } = useQuestion(
  `coil_switch.${props.visit.id}`,
  () => ({ coil: coil.value, rig: props.visit.rig_revision_id }),
  ({ coil: { closes_degrees_f, opens_degrees_f, points: read } }) =>
    api.checkCoilSwitch(props.visit.id, {
      points: read ?? [],
      ...(closes_degrees_f !== undefined && opens_degrees_f !== undefined
        ? { closes_degrees_f, opens_degrees_f }
        : {}),
    }),
)
const verdicts = computed(() => coilSwitch.value?.verdicts ?? [])
watch(
  coilSwitch,
  (now) => {
    if (!now) return
    points.closes = now.closes_degrees_f
    points.opens = now.opens_degrees_f
  },
  { immediate: true },
)
const { value: answer, problem: badThermistor } = useQuestion(
  `thermistor.${props.visit.id}`,
  () => ({
    table_id: table.value,
    points: thermistor.value.points ?? [],
    pair: thermistor.value.pair ?? null,
  }),
  (asked) => api.checkThermistor(props.visit.id, asked),
)
const trouble = computed(() => problem.value ?? badCoil.value ?? badThermistor.value)

const number = (text: string) => readNumber(text) ?? NaN

function addPoint() {
  if (unread.has('degrees')) return
  const coilDegrees = form.degrees
  wrong.value =
    coilDegrees === null
      ? t('SensorDesk.coilTemperature', { unit: degreeSign(), example: shownDegrees(24) })
      : ''
  if (coilDegrees === null) return
  emit('keep', {
    coil_switch: {
      ...coil.value,
      points: [...(coil.value.points ?? []), { degrees_f: coilDegrees, state: form.state }],
    },
  })
  form.degrees = null
}
function setPoint(which: 'closes' | 'opens', value: number | null) {
  points[which] = value
  const { closes, opens } = points
  const right = closes !== null && opens !== null && opens > closes
  wrong.value = right ? '' : t('SensorDesk.itsMarking')
  if (right)
    emit('keep', {
      coil_switch: { ...coil.value, closes_degrees_f: closes, opens_degrees_f: opens },
    })
}
function dropPoint(index: number) {
  emit('keep', {
    coil_switch: { ...coil.value, points: (coil.value.points ?? []).filter((_, i) => i !== index) },
  })
}
function addMeasured() {
  const at = form.at
  const open = /^ol$/i.test(form.ohms.trim())
  const ohms = number(form.ohms)
  const right = at !== null && !unread.has('at') && (open || (Number.isFinite(ohms) && ohms >= 0))
  wrong.value = right ? '' : t('SensorDesk.temperatureAndOhms', { unit: degreeSign() })
  if (!right) return
  keepThermistor({
    points: [...(thermistor.value.points ?? []), { degrees_f: at, ohms: open ? 'OL' : ohms }],
  })
  form.at = null
  form.ohms = ''
}
function keepThermistor(part: Partial<typeof thermistor.value>) {
  emit('keep', {
    thermistor: { table_id: table.value, ...thermistor.value, ...part },
  })
}
function setPair() {
  if (unread.has('coil') || unread.has('air')) return
  const { coil: a, air: b } = form
  const both = a !== null && b !== null
  wrong.value = both ? '' : t('SensorDesk.bothTemperatures', { unit: degreeSign() })
  if (both) keepThermistor({ pair: { coil_degrees_f: a, air_degrees_f: b } })
}

async function readFile(chosen: File) {
  importing.value = `Reading ${chosen.name} …`
  csv.value = await chosen.text()
  name.value = chosen.name.replace(/\.csv$/i, '')
  importing.value = t('SensorDesk.checkingRowByRow')
  const result = await api.readSensorTable({ name: name.value || 'table', text: csv.value || ' ' })
  importing.value = ''
  problem.value = result.state === 'failed' ? result.problem : null
  preview.value = result.state === 'ready' ? result.value : null
}
async function keepTable() {
  importing.value = t('SensorDesk.keeping')
  const id = crypto.randomUUID()
  const result = await api.readSensorTable({ id, name: name.value.trim(), text: csv.value, keep: true })
  importing.value = ''
  problem.value = result.state === 'failed' ? result.problem : null
  if (result.state !== 'ready' || !result.value.kept) return
  preview.value = null
  await listTables()
  keepThermistor({ table_id: id })
}
async function dropTable() {
  const result = await api.deleteSensorTable(table.value)
  problem.value = result.state === 'failed' ? result.problem : null
  await listTables()
  keepThermistor({ table_id: tables.value[0]?.id ?? 'reed_ten' })
}
const chosen = computed(() => tables.value.find((one) => one.id === table.value))
</script>

<template>
  <section class="sensors" :aria-label="$t('SensorDesk.sensors')">
    <ProblemNote v-if="trouble" :problem="trouble" />
    <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
    <div v-if="!coilSwitch && !trouble" class="until-there" />
    <div v-else class="two">
      <div>
        <h2>{{ $t('SensorDesk.coilSwitch') }}</h2>
        <div class="asks">
          {{ $t('SensorDesk.closesAt') }}
          <QuantityField
            :model-value="points.closes"
            :name="$t('SensorDesk.closesAt2')"
            unit="°F"
            v-bind="ranges?.switch_closes_degrees_f"
            @update:model-value="setPoint('closes', $event)"
          />
          {{ $t('SensorDesk.opensAt') }}
          <QuantityField
            :model-value="points.opens"
            :name="$t('SensorDesk.opensAt2')"
            unit="°F"
            v-bind="ranges?.switch_opens_degrees_f"
            @update:model-value="setPoint('opens', $event)"
          />
        </div>
        <form class="asks" @submit.prevent="addPoint">
          {{ $t('SensorDesk.at') }}
          <QuantityField
            v-model="form.degrees"
            :name="$t('SensorDesk.coil')"
            unit="°F"
            v-bind="ranges?.sensor_degrees_f"
            optional
            live
            data-testid="switch-degrees"
            @wrong="mark('degrees')($event)"
          />
          {{ $t('SensorDesk.itWas') }}
          <PickButtons
            v-model="form.state"
            :options="[
              { id: 'closed', title: $t('SensorDesk.closed') },
              { id: 'open', title: $t('SensorDesk.open') },
            ]"
            :label="$t('SensorDesk.itWas2')"
            testid="switch-state"
          />
          <el-button native-type="submit" class="key" data-testid="switch-add">{{
            $t('SensorDesk.noteIt')
          }}</el-button>
        </form>
        <p class="points">
          <el-button
            v-for="(point, i) in coil.points ?? []"
            :key="i"
            class="key point mono"
            :title="$t('SensorDesk.takeItOut')"
            @click="dropPoint(i)"
          >
            {{ shownDegrees(point.degrees_f) }}° {{ point.state }} ×
          </el-button>
        </p>
        <VerdictList :verdicts="verdicts" />
      </div>
      <div>
        <h2>{{ $t('SensorDesk.thermistor') }}</h2>
        <div class="asks">
          {{ $t('SensorDesk.table') }}
          <PickOne
            :model-value="table"
            class="table"
            :options="tables"
            :label="$t('SensorDesk.table2')"
            data-testid="table"
            @update:model-value="(id) => keepThermistor({ table_id: id })"
          />
          <PickFile
            accept=".csv,text/csv"
            :label="$t('SensorDesk.importCsv')"
            data-testid="table-csv"
            @picked="readFile"
          />
          <el-button v-if="chosen?.own" class="key quiet" @click="dropTable">{{
            $t('SensorDesk.deleteIt')
          }}</el-button>
        </div>
        <p v-if="importing" role="status">{{ importing }}</p>
        <div v-if="preview" class="preview" data-testid="preview">
          <template v-if="preview.table">
            <p>
              {{
                $t('SensorDesk.rowsToBetaFitWithin', {
                  rows: preview.rows,
                  shownDegrees: shownDegrees(preview.table.points[0]?.[0]),
                  degrees: degrees(preview.table.points[preview.table.points.length - 1]?.[0]),
                  shownDegrees2: shownDegrees(preview.table.fits[0]?.worst_degrees_f, true),
                  degreeSign: degreeSign(),
                })
              }}
            </p>
            <label
              >{{ $t('SensorDesk.keepAs') }} <el-input v-model="name" maxlength="80" data-testid="table-name"
            /></label>
            <el-button class="key solid" data-testid="keep-table" @click="keepTable">{{
              $t('SensorDesk.keep')
            }}</el-button>
          </template>
          <template v-else>
            <p>
              <strong>{{
                $t('SensorDesk.nothingKeptOfRowsAre', { refused: preview.refused.length, rows: preview.rows })
              }}</strong>
            </p>
            <ul>
              <li v-for="one in preview.refused.slice(0, 12)" :key="one.line + one.problem">
                {{ $t('SensorDesk.line', { line: one.line, problem: one.problem }) }}
              </li>
            </ul>
          </template>
          <el-button class="key" @click="preview = null">{{ $t('SensorDesk.awayWithThis') }}</el-button>
        </div>
        <form class="asks" @submit.prevent="addMeasured">
          {{ $t('SensorDesk.at') }}
          <QuantityField
            v-model="form.at"
            :name="$t('SensorDesk.measured')"
            unit="°F"
            v-bind="ranges?.sensor_degrees_f"
            optional
            live
            data-testid="ohms-degrees"
            @wrong="mark('at')($event)"
          />
          {{ $t('SensorDesk.itReads') }}
          <el-input
            v-model="form.ohms"
            class="mono wide"
            inputmode="decimal"
            :aria-label="$t('SensorDesk.ohms')"
            :placeholder="$t('SensorDesk.OrOl')"
            data-testid="ohms"
          />
          {{ $t('SensorDesk.text') }}
          <el-button native-type="submit" class="key" data-testid="ohms-add">{{
            $t('SensorDesk.noteIt')
          }}</el-button>
        </form>
        <p class="points">
          <el-button
            v-for="(point, i) in thermistor.points ?? []"
            :key="i"
            class="key point mono"
            :title="$t('SensorDesk.takeItOut')"
            @click="keepThermistor({ points: (thermistor.points ?? []).filter((_, n) => n !== i) })"
          >
            {{ $t('SensorDesk.text2', { shownDegrees: shownDegrees(point.degrees_f), ohms: point.ohms }) }}
          </el-button>
        </p>
        <ThermistorChart v-if="answer" :answer="answer" />
        <form class="asks" @submit.prevent="setPair">
          {{ $t('SensorDesk.longOffCoil') }}
          <QuantityField
            v-model="form.coil"
            :name="$t('SensorDesk.coilSensor')"
            unit="°F"
            v-bind="ranges?.sensor_degrees_f"
            optional
            live
            @wrong="mark('coil')($event)"
          />
          {{ $t('SensorDesk.air') }}
          <QuantityField
            v-model="form.air"
            :name="$t('SensorDesk.airSensor')"
            unit="°F"
            v-bind="ranges?.sensor_degrees_f"
            optional
            live
            @wrong="mark('air')($event)"
          />
          <el-button native-type="submit" class="key">{{ $t('SensorDesk.compare') }}</el-button>
        </form>
        <VerdictList v-if="answer" :verdicts="answer.verdicts" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px;
}

.two > div {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  align-content: start;
}

h2 {
  border-bottom: 3px solid var(--ink);
  font-size: 18px;
}

.asks .table {
  width: 220px;
}

.asks .el-input.wide {
  width: 120px;
}

.points {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.point {
  border-width: 1px;
  font-weight: 450;
}

.preview {
  padding: 8px 12px;
  border: 2px solid var(--ink);
}

.wrong {
  color: var(--alarm);
  font-weight: 650;
}

@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
