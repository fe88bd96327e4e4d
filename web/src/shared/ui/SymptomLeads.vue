<script setup lang="ts">
import type { Catalogue, Visit } from '@/shared/api/client'

/** Where each symptom of a visit leads: the page, the call and the two points to look at first. */
type Symptom = Catalogue['symptoms'][number]
const props = defineProps<{ visit: Visit; symptoms: Symptom[] }>()

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
    <RouterLink v-for="symptom in symptoms" :key="symptom.id" class="key" :to="to(symptom)">{{
      $t('SymptomLeads.lookHereFirst', { title: symptom.title })
    }}</RouterLink>
    <RouterLink v-if="symptoms.length" class="key" :to="`/visits/${visit.id}/find`" data-testid="to-find">{{
      $t('SymptomLeads.findWhyTheNextTest')
    }}</RouterLink>
  </p>
</template>

<style scoped>
.leads {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
