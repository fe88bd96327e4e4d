<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import KeptInput from '@/shared/ui/KeptInput.vue'
import { readIn, shownIn, unitShown } from '@/shared/model/units'
import { toggled, type Answer, type Fact, type Question } from '@/desks/fitted/answers'

const { t } = useI18n()
const props = defineProps<{ question: Question; fact: Fact | undefined; value: Answer }>()
const emit = defineEmits<{ answer: [value: Answer]; clear: [] }>()

const list = computed(() => (Array.isArray(props.value) ? props.value : []))
const flags = [
  { value: true, says: t('FactQuestion.yes') },
  { value: false, says: t('FactQuestion.no') },
]
const choices = computed<{ value: Answer; says: string }[]>(() =>
  props.question.kind === 'flag' ? flags : props.question.choices,
)

const wrong = ref('')
const unit = computed(() => unitShown(props.question.unit))
const out = (value: number) => shownIn(props.question.unit, value, props.question.delta)

function number(text: string) {
  const value = readIn(props.question.unit, text, props.question.delta)
  const { low, high } = props.question
  const good = typeof value === 'number' && value >= (low ?? 0) && value <= (high ?? Infinity)
  wrong.value = good
    ? ''
    : t('FactQuestion.aNumberFrom', {
        typed: text.trim(),
        low: out(low ?? 0),
        high: out(high ?? 0),
        unit: unit.value,
      })
  if (good) emit('answer', value)
}

/** A table as lines of two numbers. */
const rows = computed(() =>
  Array.isArray(props.value)
    ? (props.value as unknown as number[][]).map((pair) => pair.join(' ')).join('\n')
    : '',
)
function table(text: string) {
  const pairs = text
    .trim()
    .split('\n')
    .map((line) =>
      line
        .trim()
        .split(/[\s;]+/)
        .map((one) => Number(one.replace(',', '.'))),
    )
  const bad = pairs.findIndex((pair) => pair.length !== 2 || pair.some((one) => !Number.isFinite(one)))
  const fall = pairs.findIndex((pair, i) => i > 0 && (pair[0] ?? 0) <= (pairs[i - 1]?.[0] ?? 0))
  wrong.value =
    bad >= 0
      ? t('FactQuestion.twoNumbers', {
          line: bad + 1,
          columns: props.question.columns.join(t('FactQuestion.and')),
        })
      : fall >= 0
        ? t('FactQuestion.aboveTheOneBefore', { line: fall + 1 })
        : pairs.length < 2
          ? t('FactQuestion.atLeastTwoLines')
          : ''
  if (!wrong.value) emit('answer', pairs as unknown as Answer)
}
</script>

<template>
  <div class="question" :data-fact="question.key">
    <p class="what">
      {{ question.title }} <small>{{ question.asks }}</small>
      <span :class="['source', fact?.provenance.source ?? 'assumed']">{{
        fact?.provenance.source ?? $t('FactQuestion.assumed')
      }}</span>
      <el-button
        v-if="fact"
        class="key quiet"
        :aria-label="$t('FactQuestion.leaveOpen2', { title: question.title })"
        @click="emit('clear')"
      >
        {{ $t('FactQuestion.leaveOpen') }}
      </el-button>
    </p>
    <div v-if="question.kind === 'number'" class="number">
      <KeptInput
        class="mono"
        inputmode="decimal"
        maxlength="6"
        :value="typeof value === 'number' ? String(out(value)) : ''"
        :aria-label="question.title"
        @keep="number"
      />
      {{ unit }}
    </div>
    <div v-else-if="question.kind === 'table'" class="table">
      <p>{{ $t('FactQuestion.aLineEach', { columns: question.columns.join(' · ') }) }}</p>
      <el-input
        :model-value="rows"
        type="textarea"
        :autosize="{ minRows: 3, maxRows: 12 }"
        maxlength="600"
        class="mono"
        :aria-label="question.title"
        :data-testid="`table-${question.key}`"
        @change="table"
      />
    </div>
    <div v-else-if="question.kind === 'list'" class="choices" role="group" :aria-label="question.title">
      <el-button
        v-for="choice in question.choices"
        :key="String(choice.value)"
        class="key"
        :aria-pressed="list.includes(String(choice.value))"
        @click="emit('answer', toggled(list, String(choice.value)))"
      >
        <b v-if="list.includes(String(choice.value))" class="mono">{{
          list.indexOf(String(choice.value)) + 1
        }}</b>
        {{ choice.says }}
      </el-button>
    </div>
    <div v-else class="choices" role="group" :aria-label="question.title">
      <el-button
        v-for="choice in choices"
        :key="String(choice.value)"
        class="key"
        :aria-pressed="choice.value === value"
        :data-value="String(choice.value)"
        @click="emit('answer', choice.value)"
      >
        {{ choice.says }}
      </el-button>
    </div>
    <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
  </div>
</template>

<style scoped>
.wrong {
  color: var(--alarm);
  font-weight: 650;
}

.question {
  padding: 8px 0 10px;
  border-bottom: 1px solid var(--rule);
}

.what {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
  padding-bottom: 4px;
  font-weight: 700;
}

.what small {
  color: var(--ink-soft);
  font-size: 15px;
  font-weight: 450;
}

.source {
  margin-left: auto;
  padding: 0 6px;
  border: 1px solid var(--agrees);
  color: var(--agrees);
  font-size: 13px;
  font-weight: 450;
}

.source.assumed {
  border-style: dashed;
  border-color: var(--between);
  color: var(--between);
}

.what .key {
  min-width: 24px;
  margin-block: -8px -4px; /* a thumb's height in a line of text */
  padding: 0 4px;
  font-size: 13px;
  font-weight: 450;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.choices .key {
  border-width: 1px;
  padding: 4px 12px;
  font-weight: 450;
}

.number .el-input {
  width: 120px;
}
</style>
