<script setup lang="ts">
import type { Catalogue, Visit } from '@/shared/api/client'

/** Where each symptom of a visit leads: the page, the call and the two points to look at first. */
type Symptom = Catalogue['symptoms'][number]
const props = defineProps<{
  visit: Visit
  symptoms: Symptom[]
  /** Where Find itself is what one looks at, it is not led to. */
  here?: boolean
}>()

function to(symptom: Symptom) {
  const { page, tab, call, from, to } = symptom.opens
  const named = (node: string) => node.replace('CHANGEOVER', props.visit.changeover)
  const query = new URLSearchParams({
    ...(tab ? { tab } : {}),
    ...(call && call !== 'off' ? { call } : {}),
    ...(from && to ? { black: named(from), red: named(to) } : {}),
  })
  return `/visits/${props.visit.id}/${page}${query.size ? `?${query}` : ''}`
}
</script>

<template>
  <p class="leads" data-testid="leads">
    <span class="quiet">{{ $t('SymptomLeads.lookFirst') }}</span>
    <RouterLink v-for="symptom in symptoms" :key="symptom.id" class="key" :to="to(symptom)">{{
      symptom.title
    }}</RouterLink>
    <RouterLink
      v-if="symptoms.length && !here"
      class="key"
      :to="`/visits/${visit.id}/find`"
      data-testid="to-find"
      >{{ $t('SymptomLeads.findWhyTheNextTest') }}</RouterLink
    >
  </p>
</template>

<style scoped>
.leads {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
}

.quiet {
  color: var(--ink-soft);
}

/* In one row on a phone: what is measured comes first there. That it goes on is shown by its fading out. */
@media (max-width: 640px) {
  .leads {
    flex-wrap: nowrap;
    overflow-x: auto;
    padding-right: 24px;
    white-space: nowrap;
    mask-image: linear-gradient(to right, var(--ink) calc(100% - 32px), transparent);
  }

  .key {
    flex: none;
  }
}
</style>
