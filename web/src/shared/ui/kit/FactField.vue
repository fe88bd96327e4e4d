<script setup lang="ts">
import { computed, ref } from 'vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import QuantityField from '@/shared/ui/kit/QuantityField.vue'
import { factChoices, pairsOf, toggled, type FactAnswer, type FactAsked } from '@/shared/ui/kit/factField'

/** The answer to one fact, by the kind that the core says it is: a choice, yes or no, a list in its order, a number with
 *  its unit, a table. Drawn with a broken edge where it is in doubt: nobody has read it. */
const props = defineProps<{
  fact: FactAsked
  modelValue: FactAnswer | undefined
  /** Taken as so, by nobody's reading. */
  doubt?: boolean
  /** In a row of many: a choice opens, it does not lie spread out. */
  compact?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: FactAnswer] }>()

const list = computed(() => (Array.isArray(props.modelValue) ? (props.modelValue as string[]) : []))
const one = computed(() => props.modelValue as string | number | boolean)
const choices = computed(() => factChoices(props.fact))
const spread = computed(() => !props.compact || props.fact.kind === 'flag')
const options = computed(() =>
  choices.value.map((one) => ({ id: one.value as string | number | boolean, title: one.says })),
)

/** A table as lines of numbers. */
const rows = computed(() =>
  Array.isArray(props.modelValue)
    ? (props.modelValue as unknown as number[][]).map((pair) => pair.join(' ')).join('\n')
    : '',
)
const wrong = ref('')
function table(text: string) {
  const read = pairsOf(text, props.fact.columns ?? [])
  wrong.value = 'wrong' in read ? read.wrong : ''
  if ('pairs' in read) emit('update:modelValue', read.pairs as unknown as FactAnswer)
}
const pressed = (value: FactAnswer) =>
  props.fact.kind === 'list' ? list.value.includes(String(value)) : value === props.modelValue
const choose = (value: FactAnswer) =>
  emit('update:modelValue', props.fact.kind === 'list' ? toggled(list.value, String(value)) : value)
</script>

<template>
  <div :class="['fact', { doubt, compact }]">
    <QuantityField
      v-if="fact.kind === 'number'"
      :model-value="modelValue as number"
      :name="fact.title"
      :unit="fact.unit"
      :difference="fact.delta"
      :low="fact.low"
      :high="fact.high"
      @update:model-value="(value) => emit('update:modelValue', value as number)"
    />
    <template v-else-if="fact.kind === 'table'">
      <p>{{ $t('FactField.aLineEach', { columns: (fact.columns ?? []).join(' · ') }) }}</p>
      <el-input
        :model-value="rows"
        type="textarea"
        :autosize="{ minRows: 3, maxRows: 12 }"
        maxlength="600"
        class="mono"
        :aria-label="fact.title"
        :data-testid="`table-${fact.key}`"
        @change="table"
      />
      <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
    </template>
    <div v-else-if="spread" class="choices" role="group" :aria-label="fact.title">
      <el-button
        v-for="choice in choices"
        :key="String(choice.value)"
        class="key"
        :aria-pressed="pressed(choice.value)"
        :data-value="String(choice.value)"
        @click="choose(choice.value)"
      >
        <b v-if="fact.kind === 'list' && pressed(choice.value)" class="mono">{{
          list.indexOf(String(choice.value)) + 1
        }}</b>
        {{ choice.says }}
      </el-button>
    </div>
    <PickOne v-else :model-value="one" :options="options" :label="fact.title" @update:model-value="choose" />
  </div>
</template>

<style scoped>
.wrong {
  color: var(--alarm);
  font-weight: 650;
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

.compact .choices {
  gap: 0;
}

.compact .choices .key {
  flex: 1;
  border-radius: 0;
  font-weight: 650;
}

.doubt :deep(.el-select__wrapper),
.doubt :deep(.el-input__wrapper) {
  box-shadow: none;
  outline: 1px dashed var(--rule-strong);
  outline-offset: -1px;
}
</style>
