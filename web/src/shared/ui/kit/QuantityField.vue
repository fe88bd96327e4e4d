<script setup lang="ts">
import { computed, ref, useId, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { readIn, shownIn, unitShown } from '@/shared/model/units'

/** A number with its unit: typed as it is shown, handed on in the unit of the core. What is no number, or out of its
 *  range, stays in the field and is told there. Nothing typed is null, where that may be. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  modelValue: number | null | undefined
  name: string
  unit?: string | null
  difference?: boolean
  low?: number | null
  high?: number | null
  /** Nothing is an answer, too. */
  optional?: boolean
  /** With each letter, not when the field is left. */
  live?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number | null]; wrong: [wrong: boolean] }>()
const { t } = useI18n()

const unit = computed(() => unitShown(props.unit))
const out = (value: number) => shownIn(props.unit, value, props.difference)
const shown = () => (typeof props.modelValue === 'number' ? String(out(props.modelValue)) : '')
const read = (text: string) => readIn(props.unit, text, props.difference)
const says = useId()
const text = ref(shown())
const typing = ref(false)
const wrong = ref(false)
/** What is being typed is nobody else's to change, but for the unit that it is typed in. */
watch([() => props.modelValue, unit], (_, [, before]) => {
  if (typing.value && before === unit.value) return
  text.value = shown()
  tell(false)
})

function tell(is: boolean) {
  if (is !== wrong.value) emit('wrong', is)
  wrong.value = is
}
function good(value: number | null | undefined): value is number | null {
  if (value === null) return props.optional ?? false
  return value !== undefined && value >= (props.low ?? -Infinity) && value <= (props.high ?? Infinity)
}
function take() {
  const value = read(text.value)
  tell(!good(value))
  if (good(value) && value !== (props.modelValue ?? null)) emit('update:modelValue', value)
}
function typed() {
  typing.value = true
  if (props.live) take()
}
function left() {
  typing.value = false
  take()
}
const range = computed(() => {
  const { low, high } = props
  if (typeof low !== 'number' || typeof high !== 'number')
    return t('QuantityField.aNumber', { name: props.name })
  return t('QuantityField.aNumberFrom', {
    name: props.name,
    low: out(low),
    high: out(high),
    unit: unit.value ?? '',
  })
})
</script>

<template>
  <span class="quantity">
    <el-input
      v-model="text"
      class="mono"
      inputmode="decimal"
      maxlength="8"
      :aria-label="unit ? `${name}, ${unit}` : name"
      :aria-invalid="wrong"
      :aria-describedby="wrong ? says : undefined"
      v-bind="$attrs"
      @input="typed"
      @blur="typing = false"
      @change="left"
    />
    {{ unit }}
    <small v-if="wrong" :id="says" role="alert">≠ {{ range }}</small>
  </span>
</template>

<style scoped>
.quantity {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 2px 6px;
  align-items: center;
}

.el-input {
  width: 88px;
}

small {
  flex-basis: 100%;
  color: var(--alarm);
  font-size: 15px;
  font-weight: 650;
}
</style>
