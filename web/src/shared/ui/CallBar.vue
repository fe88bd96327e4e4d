<script setup lang="ts">
import type { Catalogue } from '@/shared/api/client'

defineProps<{ calls: Catalogue['calls']; call: string }>()
const emit = defineEmits<{ choose: [call: string] }>()
</script>

<template>
  <div class="calls" role="group" :aria-label="$t('CallBar.call')">
    <button
      v-for="one in calls"
      :key="one.id"
      class="call"
      :aria-pressed="one.id === call"
      :title="one.says"
      :data-testid="`call-${one.id}`"
      @click="emit('choose', one.id)"
    >
      <span class="number mono" aria-hidden="true">{{ one.key }}</span>{{ one.title }}
    </button>
  </div>
</template>

<style scoped>
.calls {
  display: flex;
  border: 2px solid var(--ink);
  border-radius: 3px;
  overflow: auto hidden;
  background: var(--panel);
}

.call {
  display: inline-flex;
  flex: 1 0 auto;
  align-items: center;
  justify-content: center;
  gap: 7px;
  min-height: var(--target);
  min-width: 64px;
  padding: 0 12px;
  border: 0;
  border-right: 1px solid var(--rule);
  background: transparent;
  font-weight: 650;
  white-space: nowrap;
  cursor: pointer;
}

.call:last-child {
  border-right: 0;
}

.call:hover {
  background: var(--note-soft);
}

.call:focus-visible {
  outline-offset: -3px;
}

.number {
  color: var(--ink-soft);
  font-size: 13px;
}

.call[aria-pressed='true'] {
  background: var(--live);
  color: var(--on-live);
}

.call[aria-pressed='true'] .number {
  color: var(--on-live);
}

@media (max-width: 640px) {
  .number {
    display: none;
  }
}
</style>
