<script setup lang="ts" generic="T extends string">
/** What a page of a visit has to look at, one at a time. */
defineProps<{ tabs: readonly { id: T; title: string }[]; tab: T; label: string }>()
defineEmits<{ choose: [tab: T] }>()
</script>

<template>
  <div class="tabs" role="tablist" :aria-label="label">
    <button
      v-for="one in tabs"
      :key="one.id"
      class="tab"
      role="tab"
      :aria-selected="tab === one.id"
      :data-testid="`tab-${one.id}`"
      @click="$emit('choose', one.id)"
    >
      {{ one.title }}
    </button>
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  max-width: 100%;
  overflow-x: auto;
  scrollbar-width: none;
}

.tab {
  flex: none;
  min-height: 48px;
  padding: 0 16px;
  border: 0;
  background: transparent;
  font-weight: 650;
  cursor: pointer;
}

.tab[aria-selected='true'] {
  background: var(--ink);
  color: var(--panel);
}

.tab:focus-visible {
  outline-offset: -4px;
}
</style>
