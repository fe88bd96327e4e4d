<script setup lang="ts">
import { computed } from 'vue'
import type { TryEntry } from '@/pages/practice/api'
import { benchClock } from '@/pages/practice/bench'

/** What was done and seen, the newest first. */
const props = defineProps<{ log: TryEntry[] }>()
const newest = computed(() => [...props.log].reverse())

interface Landing {
  joint: string
  on: string | null
}
const rows = (entry: TryEntry) => (entry.data?.rows as Landing[] | undefined) ?? []
const touching = (entry: TryEntry) => (entry.data?.touching as string[][] | undefined) ?? []
const wire = (joint: string) => joint.split('@')[0]?.split('.').slice(1).join(' ') ?? joint
</script>

<template>
  <ol class="log" :aria-label="$t('BenchLog.doneSoFar')" data-testid="bench-log">
    <li v-if="!newest.length" class="soft">{{ $t('BenchLog.nothingDoneYetTheCall') }}</li>
    <li v-for="(entry, i) in newest" :key="newest.length - i" :class="{ stopped: entry.stopped }">
      <span class="mono">{{ benchClock(entry.minutes ?? 0) }}</span>
      <span
        >{{ entry.title }}<b v-if="!entry.stopped && !rows(entry).length" class="says">{{ entry.says }}</b
        ><em v-if="entry.stopped">{{ $t('BenchLog.stopped', { says: entry.says }) }}</em>
        <small v-if="rows(entry).length" class="rows">
          <span v-for="row in rows(entry)" :key="row.joint"
            >{{ wire(row.joint) }} → {{ row.on ?? $t('BenchLog.noScrew') }}</span
          >
          <span v-for="pair in touching(entry)" :key="pair.join()">{{ pair.join(' touches ') }}</span>
        </small></span
      >
    </li>
  </ol>
</template>

<style scoped>
.log {
  max-height: 46vh;
  margin: 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
  border-top: 3px solid var(--ink);
}

li {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
  gap: 8px;
  padding: 8px 2px;
  border-bottom: 1px solid var(--rule);
}

.says {
  display: block;
  font-size: 19px;
}

.stopped {
  padding-left: 8px;
  border-left: 6px solid var(--alarm);
  background: var(--alarm-soft);
}

em {
  display: block;
  font-style: normal;
  font-weight: 700;
}

.rows {
  display: grid;
}

.soft {
  display: block;
  color: var(--ink-soft);
}
</style>
