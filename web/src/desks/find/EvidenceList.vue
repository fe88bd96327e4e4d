<script setup lang="ts">
import type { Find, Reading, Visit } from '@/shared/api/client'
import { PAGES } from '@/shared/model/visitPages'

/** All that the beliefs follow from: the complaint, and what was read or told; each reading can be taken back. */
defineProps<{ visit: Visit | null; evidence: (Find['evidence'][number] & { reading: Reading | null })[] }>()
const pageOf = (source: string) => PAGES.find((page) => page.id === source)?.title ?? source
const emit = defineEmits<{ takeBack: [id: string] }>()
</script>

<template>
  <section class="told" :aria-label="$t('EvidenceList.whatItWeighs')">
    <h2>{{ $t('EvidenceList.whatItWeighs') }}</h2>
    <p v-if="visit?.symptom_titles.length">
      {{ $t('EvidenceList.complaint', { symptom_titles: visit.symptom_titles.join(', ') }) }}
    </p>
    <p v-else class="quiet">
      {{ $t('EvidenceList.noSymptomIsPicked') }}
      <RouterLink :to="`/visits/${visit?.id}/intake`">{{ $t('EvidenceList.intake') }}</RouterLink>
      {{ $t('EvidenceList.tellsFindWhereToBegin') }}
    </p>
    <ol data-testid="evidence">
      <li v-for="(one, i) in evidence" :key="i">
        <span>{{ one.says }}</span>
        <el-button
          v-if="one.reading"
          class="key quiet"
          :aria-label="$t('EvidenceList.takeBack2', { says: one.says })"
          @click="emit('takeBack', one.reading.id)"
          >{{ $t('EvidenceList.takeBack') }}</el-button
        >
        <span v-else class="quiet">{{ $t('EvidenceList.from', { pageOf: pageOf(one.source) }) }}</span>
      </li>
    </ol>
    <p v-if="!evidence.length" class="quiet">{{ $t('EvidenceList.nothingIsReadYet') }}</p>
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
  gap: 10px;
  align-items: center;
  min-height: var(--target);
  border-bottom: 1px solid var(--rule);
  overflow-wrap: anywhere;
}

li > span:first-child {
  flex: 1;
}

.quiet {
  color: var(--ink-soft);
}
</style>
