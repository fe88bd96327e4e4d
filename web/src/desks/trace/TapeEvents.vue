<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { TimelineEvent } from '@/shared/api/client'
import { clock } from '@/desks/trace/tape'

const props = defineProps<{ events: TimelineEvent[]; cursor: number }>()
const emit = defineEmits<{ go: [seconds: number] }>()

const AROUND = 60
const list = ref<HTMLElement | null>(null)
const at = computed(() => {
  let found = -1
  for (const event of props.events) {
    if (event.seconds > props.cursor + 1e-6) break
    found = event.id
  }
  return found
})
const near = computed(() => props.events.slice(Math.max(at.value - AROUND, 0), at.value + AROUND))

function cause(event: TimelineEvent): string {
  const led = event.because === null ? null : props.events[event.because]
  const rule = event.rule && event.rule !== 'script' ? event.rule_says : null
  return [rule, led && `because: ${led.says}`].filter(Boolean).join('; ')
}

watch(at, async () => {
  await nextTick()
  // The list alone scrolls, not the page.
  const line = list.value?.querySelector<HTMLElement>('[aria-current=true]')?.parentElement
  if (list.value && line) list.value.scrollTop = line.offsetTop - 60
})
</script>

<template>
  <ol ref="list" class="events" :aria-label="$t('TapeEvents.events')" data-testid="events" tabindex="0">
    <li v-if="!events.length" class="quiet">{{ $t('TapeEvents.nothingHappensInThisRun') }}</li>
    <li v-for="event in near" :key="event.id">
      <button :aria-current="event.id === at" @click="emit('go', event.seconds)">
        <span class="mono">{{ clock(event.seconds) }}</span>
        <span
          ><b>{{ event.says }}</b
          ><small v-if="cause(event)">{{ cause(event) }}</small></span
        >
      </button>
    </li>
  </ol>
</template>

<style scoped>
.events {
  position: relative;
  margin: 0;
  padding: 0;
  max-height: 340px;
  overflow: auto;
  border: 1px solid var(--rule);
  list-style: none;
}

button {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr);
  gap: 6px;
  width: 100%;
  min-height: var(--target);
  padding: 4px 8px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: transparent;
  text-align: left;
  cursor: pointer;
}

button:hover,
button[aria-current='true'] {
  background: var(--note-soft);
}

button[aria-current='true'] {
  box-shadow: inset 6px 0 var(--ink);
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 14px;
}

.quiet {
  padding: 12px;
  color: var(--ink-soft);
}
</style>
