<script setup lang="ts" generic="T extends string | number | boolean">
import { computed } from 'vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'

/** One of a few, all in sight, big enough for a glove. */
const props = defineProps<{
  modelValue: T | null | undefined
  options: readonly { id: T; title: string }[]
  label: string
  testid?: string
  /** As a list that opens, where there is no room for all of them. */
  folded?: boolean
}>()
defineEmits<{ 'update:modelValue': [value: T] }>()
const shown = computed(() => props.options.map((one) => ({ value: one.id, label: one.title })))
</script>

<template>
  <PickOne
    v-if="folded"
    :model-value="modelValue"
    :options="options"
    :label="label"
    :placeholder="label"
    :data-testid="`${testid ?? 'pick'}-folded`"
    @update:model-value="(value: T) => $emit('update:modelValue', value)"
  />
  <el-segmented
    v-else
    class="pick-buttons"
    :model-value="modelValue ?? undefined"
    :options="shown"
    :aria-label="label"
    @update:model-value="(value: unknown) => $emit('update:modelValue', value as T)"
  >
    <template #default="{ item }">
      <span :data-testid="`${testid ?? 'pick'}-${String((item as { value: T }).value)}`">{{
        (item as { label: string }).label
      }}</span>
    </template>
  </el-segmented>
</template>
