<script setup lang="ts" generic="T extends string | number | boolean">
import { computed } from 'vue'

/** One of a few, all in sight, big enough for a glove. */
const props = defineProps<{
  modelValue: T | null | undefined
  options: readonly { id: T; title: string }[]
  label: string
  testid?: string
}>()
defineEmits<{ 'update:modelValue': [value: T] }>()
const shown = computed(() => props.options.map((one) => ({ value: one.id, label: one.title })))
</script>

<template>
  <el-segmented
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
