<script setup lang="ts">
import { VIEWS, type View } from '@/desks/trace/traceState'

defineProps<{ view: View }>()
const emit = defineEmits<{ choose: [view: View] }>()

const TITLES: Record<View, string> = {
  loops: 'Loom',
  ladder: 'Ladder',
  connections: 'Connections',
  focus: 'One loop',
  legend: 'Legend',
}
</script>

<template>
  <div class="views">
    <div class="tabs" role="tablist" aria-label="View">
      <button
        v-for="one in VIEWS"
        :key="one"
        class="view"
        role="tab"
        :aria-selected="one === view"
        :data-testid="`view-${one}`"
        @click="emit('choose', one)"
      >
        {{ TITLES[one] }}
      </button>
    </div>
    <slot />
  </div>
</template>

<style scoped>
.views {
  display: flex;
  max-width: 100%;
}

.tabs {
  display: flex;
  overflow-x: auto;
}

.view {
  flex: none;
  min-height: var(--target);
  padding: 0 12px;
  border: 0;
  border-bottom: 4px solid transparent;
  background: transparent;
  color: var(--ink-soft);
  font-weight: 650;
  cursor: pointer;
}

.view:hover {
  background: var(--note-soft);
}

.view:focus-visible {
  outline-offset: -3px;
}

.view[aria-selected='true'] {
  border-bottom-color: var(--ink);
  color: var(--ink);
}
</style>
