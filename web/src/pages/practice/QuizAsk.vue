<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import type { Ask } from '@/pages/practice/api'
import { toggled } from '@/shared/ui/kit/factField'

const { t } = useI18n()
/** One question, in the way of its form. */
const props = defineProps<{
  ask: Ask
  form: string
  busy: boolean
  touched?: { code: string; at: number } | null
}>()
const emit = defineEmits<{ answer: [given: Record<string, unknown>] }>()

const RUNS = [
  { id: 'yes', title: t('QuizAsk.works') },
  { id: 'no', title: t('QuizAsk.stands') },
] as const
const loads = ref<Record<string, 'yes' | 'no'>>({})
const points = ref<Record<number, string>>({})
const order = ref<string[]>([])
const link = ref('')
const struck = ref<string[]>([])
const names = ref<Record<string, string>>({})
const minutes = ref<number | undefined>(undefined)
const never = ref(false)

const kind = computed(() => props.ask.part ?? props.form)
const named = computed(() => props.ask.codes?.map((one) => one.code) ?? props.ask.terminals ?? [])
const offered = computed(() =>
  (props.ask.titles ?? props.ask.colors ?? []).map((title) => ({ id: title, title })),
)
const labelOf = (id: string) => props.ask.stations?.find((one) => one.id === id)?.label ?? id

watch(
  () => props.touched,
  (now) => {
    if (now && kind.value === 'strike' && props.ask.codes?.some((one) => one.code === now.code))
      struck.value = toggled(struck.value, now.code)
  },
)

const ready = computed(() => {
  switch (kind.value) {
    case 'predict':
      return (
        (props.ask.loads ?? []).every((one) => loads.value[one.code]) &&
        (props.ask.points ?? []).every((_, i) => points.value[i])
      )
    case 'order':
      return order.value.length === props.ask.stations?.length
    case 'missing':
      return !!link.value
    case 'names':
    case 'wires':
      return named.value.every((one) => names.value[one])
    case 'timing':
      return never.value || minutes.value !== undefined
    default:
      return true
  }
})

function send() {
  const given: Record<string, Record<string, unknown>> = {
    predict: {
      loads: Object.fromEntries(Object.entries(loads.value).map(([code, said]) => [code, said === 'yes'])),
      points: (props.ask.points ?? []).map((_, i) => points.value[i]),
    },
    order: { order: order.value },
    missing: { link: link.value },
    strike: { struck: struck.value },
    names: { names: names.value },
    wires: { wires: names.value },
    timing: never.value ? { never: true } : { minutes: minutes.value },
  }
  emit('answer', given[kind.value] ?? {})
}
</script>

<template>
  <form class="ask" @submit.prevent="send">
    <template v-if="kind === 'predict'">
      <p class="question">
        {{ $t('QuizAsk.call') }} <b>{{ ask.title }}</b>
        <span v-if="ask.supposed?.length"
          >{{ $t('QuizAsk.supposed') }} <b>{{ ask.supposed.join(', ') }}</b></span
        >
      </p>
      <h2>{{ $t('QuizAsk.whatWorks') }}</h2>
      <div v-for="one in ask.loads" :key="one.code" class="line">
        <span>{{ one.title }}</span>
        <PickButtons
          v-model="loads[one.code]"
          :options="RUNS"
          :label="one.title"
          :testid="`load-${one.code}`"
        />
      </div>
      <h2>{{ $t('QuizAsk.whatWillBeRead') }}</h2>
      <div v-for="(one, i) in ask.points" :key="one.says" class="line">
        <span>{{ one.says }}</span>
        <PickOne
          v-model="points[i]"
          :options="ask.answers ?? []"
          :label="one.says"
          :data-testid="`points-${i}`"
        />
      </div>
    </template>

    <template v-else-if="kind === 'order'">
      <p class="question">
        {{ $t('QuizAsk.theWayOf24V', { call: ask.call }) }} <b>{{ ask.load }}</b>
        {{ $t('QuizAsk.andHomeTapTheStations') }}
      </p>
      <ol class="string" data-testid="order">
        <li v-for="id in order" :key="id">
          <el-button class="bead" @click="order = toggled(order, id)">{{ labelOf(id) }}</el-button>
        </li>
      </ol>
      <div class="keys">
        <el-button
          v-for="one in ask.stations?.filter((each) => !order.includes(each.id))"
          :key="one.id"
          class="bead"
          data-testid="station"
          @click="order = toggled(order, one.id)"
          >{{ one.label }}</el-button
        >
      </div>
    </template>

    <template v-else-if="kind === 'missing'">
      <p class="question">
        {{ $t('QuizAsk.the', { call: ask.call }) }} <b>{{ ask.load }}</b> {{ $t('QuizAsk.isDeadFromCOn') }}
      </p>
      <el-table :data="ask.readings" size="small">
        <el-table-column prop="label" :label="$t('QuizAsk.point')" />
        <el-table-column :label="$t('QuizAsk.v')" width="90">
          <template #default="{ row }"
            ><b class="mono">{{ row.volts_ac === null ? '–' : row.volts_ac.toFixed(1) }}</b></template
          >
        </el-table-column>
      </el-table>
      <PickOne
        v-model="link"
        :options="(ask.links ?? []).map((one) => ({ id: one.id, title: one.label }))"
        :label="$t('QuizAsk.firstMissingLink')"
        :placeholder="$t('QuizAsk.firstMissingLink2')"
        data-testid="link"
      />
    </template>

    <template v-else-if="kind === 'strike'">
      <p class="question">
        {{ $t('QuizAsk.thePlateOfThisUnit') }}
      </p>
      <ul class="plate">
        <li v-for="one in ask.plate" :key="one.says">
          {{ one.says }}: <b>{{ one.fitted ? $t('QuizAsk.yes') : $t('QuizAsk.no') }}</b>
        </li>
      </ul>
      <el-checkbox-group v-model="struck" class="codes">
        <el-checkbox v-for="one in ask.codes" :key="one.code" :value="one.code" border data-testid="strike">
          <b class="mono" :class="{ struck: struck.includes(one.code) }">{{ one.code }}</b> {{ one.title }}
        </el-checkbox>
      </el-checkbox-group>
    </template>

    <template v-else-if="kind === 'names' || kind === 'wires'">
      <p class="question">
        {{ kind === 'names' ? $t('QuizAsk.whatDoesEachCodeStand') : $t('QuizAsk.whichColorLandsOnWhich') }}
      </p>
      <div v-for="one in named" :key="one" class="line">
        <b class="mono">{{ one }}</b>
        <PickOne v-model="names[one]" :options="offered" :label="one" :data-testid="`name-${one}`" />
      </div>
    </template>

    <template v-else>
      <p class="question">{{ ask.says }}</p>
      <ul class="plate">
        <li v-for="one in ask.facts" :key="one.title">
          {{ one.title }}: <b>{{ one.value }}</b>
        </li>
      </ul>
      <div class="line">
        <el-input-number
          v-model="minutes"
          :min="0"
          :max="600"
          :precision="1"
          :disabled="never"
          :aria-label="$t('QuizAsk.minutes')"
          data-testid="minutes"
        />
        <span>{{ $t('QuizAsk.min') }}</span>
        <el-checkbox v-model="never" data-testid="never">{{ $t('QuizAsk.never') }}</el-checkbox>
      </div>
    </template>

    <el-button class="key solid" native-type="submit" :disabled="busy || !ready" data-testid="answer">{{
      $t('QuizAsk.see')
    }}</el-button>
  </form>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 10px;
  justify-items: start;
}

.ask > * {
  width: 100%;
}

.ask > .key {
  width: auto;
  min-width: 140px;
}

.question {
  font-size: 19px;
}

h2 {
  margin-top: 6px;
  font-size: 17px;
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  justify-content: space-between;
  padding: 2px 0;
  border-bottom: 1px solid var(--rule);
}

.line > :deep(.el-select) {
  flex: 0 1 220px;
}

.string,
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.string {
  min-height: 60px;
  padding: 8px;
  border-left: 6px solid var(--live);
  background: var(--panel);
}

.bead {
  height: auto;
  min-height: var(--target);
  margin: 0;
  white-space: normal;
}

.plate {
  margin: 0;
  padding: 8px 12px 8px 28px;
  background: var(--note-soft);
}

.codes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 6px;
}

.codes :deep(.el-checkbox) {
  height: auto;
  min-height: var(--target);
  margin: 0;
  white-space: normal;
}

.struck {
  text-decoration: line-through;
}
</style>
