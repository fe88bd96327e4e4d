<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { fieldWords } from '@/shared/model/fieldWords'
import type { Problem } from '@/shared/model/outcome'

defineProps<{ problem: Problem }>()
const catalogue = useCatalogue()
const titles = computed(() =>
  Object.fromEntries((catalogue.value?.facts ?? []).map((fact) => [fact.key, fact.title])),
)
</script>

<template>
  <div class="problem" role="alert">
    <strong>≠ {{ problem.title }}</strong>
    <p v-if="!problem.errors?.length">{{ problem.detail }}</p>
    <ul v-else>
      <li v-for="error in problem.errors" :key="error.field + error.problem">
        <b>{{ fieldWords(error.field, titles) }}</b> {{ error.problem }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.problem {
  padding: 10px 14px;
  border-left: 6px solid var(--alarm);
  background: var(--alarm-soft);
  overflow-wrap: anywhere;
}

.problem strong {
  color: var(--alarm);
}

ul {
  margin: 6px 0 0;
  padding-left: 18px;
}
</style>
