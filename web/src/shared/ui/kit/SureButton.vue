<script setup lang="ts">
/** A quiet key that asks once before it does what cannot be undone at once. */
defineProps<{
  /** What it asks, and the two answers. */
  asks: string
  yes: string
  no?: string
  label?: string
  testid?: string
  solid?: boolean
}>()
defineEmits<{ sure: [] }>()
</script>

<template>
  <el-popconfirm
    :title="asks"
    :confirm-button-text="yes"
    :cancel-button-text="no ?? $t('SureButton.leaveIt')"
    :icon="null"
    width="280"
    @confirm="$emit('sure')"
  >
    <template #reference
      ><el-button :class="['key', { quiet: !solid }]" :aria-label="label" :data-testid="testid"
        ><slot /></el-button
    ></template>
  </el-popconfirm>
</template>
