<script setup lang="ts" generic="T extends string | number | boolean">
import { computed } from 'vue'

/** One of several, from a list that opens; long lists can be searched by typing. */
const props = defineProps<{
  modelValue: T | null | undefined
  options: readonly { id: T; title: string; group?: string; disabled?: boolean }[]
  label: string
  placeholder?: string
  disabled?: boolean
  /** Nothing chosen is an answer too, under this title. */
  none?: string
}>()
defineEmits<{ 'update:modelValue': [value: T] }>()

const MANY = 10
const ITEM_PIXELS = 44
const ITEMS_IN_SIGHT = 9
const shown = computed(() => {
  const all = [
    ...(props.none ? [{ value: '' as T, label: props.none, group: undefined, disabled: false }] : []),
    ...props.options.map((one) => ({
      value: one.id,
      label: one.title,
      group: one.group,
      disabled: one.disabled,
    })),
  ]
  const groups = [...new Set(all.map((one) => one.group))]
  if (groups.every((one) => one === undefined)) return all
  // A group has a value too, else the library takes all of them for one.
  return groups.map((label) => ({
    label,
    value: `group ${label}`,
    options: all.filter((one) => one.group === label),
  }))
})
</script>

<template>
  <el-select-v2
    class="pick"
    popper-class="pick-list"
    :model-value="modelValue ?? undefined"
    :options="shown"
    :aria-label="label"
    :placeholder="placeholder ?? $t('PickOne.choose')"
    :filterable="options.length > MANY"
    :disabled="disabled"
    :empty-values="none ? [null, undefined] : undefined"
    :item-height="ITEM_PIXELS"
    :height="ITEM_PIXELS * ITEMS_IN_SIGHT"
    :fit-input-width="false"
    placement="bottom-start"
    :fallback-placements="['bottom-end', 'top-start', 'top-end']"
    @update:model-value="(value: unknown) => $emit('update:modelValue', value as T)"
  />
</template>
