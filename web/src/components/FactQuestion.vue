<script setup lang="ts">
import { computed } from 'vue'
import KeptInput from './KeptInput.vue'
import { toggled, type Answer, type Fact, type Question } from '@/model/answers'

const props = defineProps<{ question: Question; fact: Fact | undefined; value: Answer }>()
const emit = defineEmits<{ answer: [value: Answer]; clear: [] }>()

const list = computed(() => (Array.isArray(props.value) ? props.value : []))
const flags = [
  { value: true, says: 'yes' },
  { value: false, says: 'no' },
]
const choices = computed<{ value: Answer; says: string }[]>(() =>
  props.question.kind === 'flag' ? flags : props.question.choices,
)

function number(text: string, input: HTMLInputElement) {
  const value = Number(text.replace(',', '.'))
  const { low, high } = props.question
  if (text.trim() === '' || !Number.isFinite(value) || value < (low ?? 0) || value > (high ?? Infinity)) {
    input.setCustomValidity(`A number from ${low} to ${high} ${props.question.unit}`)
    input.reportValidity()
    return
  }
  input.setCustomValidity('')
  emit('answer', value)
}
</script>

<template>
  <div class="question" :data-fact="question.key">
    <p class="what">
      {{ question.title }} <small>{{ question.asks }}</small>
      <span :class="['source', fact?.provenance.source ?? 'assumed']">{{
        fact?.provenance.source ?? 'assumed'
      }}</span>
      <button
        v-if="fact"
        class="key quiet"
        :aria-label="`${question.title}: leave open`"
        @click="emit('clear')"
      >
        leave open
      </button>
    </p>
    <div v-if="question.kind === 'number'" class="number">
      <KeptInput
        class="mono"
        inputmode="decimal"
        maxlength="6"
        :value="String(value)"
        :aria-label="question.title"
        @keep="number"
      />
      {{ question.unit }}
    </div>
    <div v-else-if="question.kind === 'list'" class="choices" role="group" :aria-label="question.title">
      <button
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
      </button>
    </div>
    <div v-else class="choices" role="group" :aria-label="question.title">
      <button
        v-for="choice in choices"
        :key="String(choice.value)"
        class="key"
        :aria-pressed="choice.value === value"
        :data-value="String(choice.value)"
        @click="emit('answer', choice.value)"
      >
        {{ choice.says }}
      </button>
    </div>
  </div>
</template>

<style scoped>
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
  min-height: 24px;
  min-width: 24px;
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

.number input {
  width: 110px;
  padding: 0 10px;
}
</style>
