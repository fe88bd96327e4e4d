<script setup lang="ts" generic="T extends string">
/** What a page has to look at, one at a time. */
const { testid = 'tab' } = defineProps<{
  tabs: readonly { id: T; title: string; count?: number | string; hint?: string }[]
  tab: T
  label: string
  testid?: string
}>()
defineEmits<{ choose: [tab: T] }>()
</script>

<template>
  <el-tabs
    class="pick-tab"
    :model-value="tab"
    :aria-label="label"
    @update:model-value="(name: string | number) => $emit('choose', name as T)"
  >
    <el-tab-pane v-for="one in tabs" :key="one.id" :name="one.id">
      <template #label>
        <span :data-testid="`${testid}-${one.id}`" :data-chosen="one.id === tab" :title="one.hint"
          >{{ one.title }}<b v-if="one.count" class="count mono">{{ one.count }}</b></span
        >
      </template>
      <slot v-if="one.id === tab" />
    </el-tab-pane>
  </el-tabs>
</template>
