<script setup lang="ts">
import type { Find, Reading, Visit } from '@/shared/api/client'
import { PAGES } from '@/shared/model/visitPages'

/** All that the beliefs follow from: the complaint, and what was read or told; each reading can be taken back. */
defineProps<{ visit: Visit | null; evidence: (Find['evidence'][number] & { reading: Reading | null })[] }>()
const pageOf = (source: string) => PAGES.find((page) => page.id === source)?.title ?? source
const emit = defineEmits<{ takeBack: [id: string] }>()
</script>

<template>
  <section class="told" aria-label="What it weighs">
    <h2>What it weighs</h2>
    <p v-if="visit?.symptom_titles.length">Complaint: {{ visit.symptom_titles.join(', ') }}</p>
    <p v-else class="quiet">
      No symptom is picked. <RouterLink :to="`/visits/${visit?.id}/intake`">Intake</RouterLink> tells Find
      where to begin.
    </p>
    <ol data-testid="evidence">
      <li v-for="(one, i) in evidence" :key="i">
        <span>{{ one.says }}</span>
        <el-button
          v-if="one.reading"
          class="key quiet"
          :aria-label="`Take back: ${one.says}`"
          @click="emit('takeBack', one.reading.id)"
          >Take back</el-button
        >
        <span v-else class="quiet">from {{ pageOf(one.source) }}</span>
      </li>
    </ol>
    <p v-if="!evidence.length" class="quiet">Nothing is read yet.</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 18px;
}

ol {
  display: grid;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  justify-content: space-between;
  min-height: var(--target);
  border-bottom: 1px solid var(--rule);
  overflow-wrap: anywhere;
}

.quiet {
  color: var(--ink-soft);
}
</style>
