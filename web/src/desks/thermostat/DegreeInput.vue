<script setup lang="ts">
import { ref, watch } from 'vue'
import { degreeSign, readDegrees, shownDegrees } from '@/shared/model/units'

/** A temperature, typed in the chosen unit and handed on in °F; what is no number stays in the field and is told. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  modelValue: number
  name: string
  difference?: boolean
  low: number
  high: number
}>()
const emit = defineEmits<{ 'update:modelValue': [degreesF: number] }>()

const text = ref('')
const wrong = ref(false)
/** What is being typed stays as it is while it says the same. */
watch(
  [() => props.modelValue, degreeSign],
  ([now], before) => {
    if (before[1] === degreeSign() && readDegrees(text.value, props.difference) === now) return
    text.value = shownDegrees(now, props.difference)
  },
  { immediate: true },
)

function read() {
  const value = readDegrees(text.value, props.difference)
  wrong.value = typeof value !== 'number' || value < props.low || value > props.high
  if (!wrong.value) emit('update:modelValue', value as number)
}
const range = () => [props.low, props.high].map((value) => shownDegrees(value, props.difference)).join(' to ')
</script>

<template>
  <span class="degree">
    <el-input
      v-model="text"
      class="mono"
      inputmode="decimal"
      maxlength="6"
      :aria-label="`${name}, ${degreeSign()}`"
      :aria-invalid="wrong"
      v-bind="$attrs"
      @input="read"
    />
    {{ degreeSign() }}
    <small v-if="wrong" role="alert">{{ $t('DegreeInput.aNumberFrom', { range: range() }) }}</small>
  </span>
</template>

<style scoped>
.el-input {
  width: 88px;
}

small {
  color: var(--alarm);
  font-weight: 600;
}
</style>
