<script setup lang="ts">
import { watch } from 'vue'
import { useVisit } from '@/shared/ui/useVisit'
import ComposerPage from '@/desks/fitted/ComposerPage.vue'

const props = defineProps<{ id: string }>()
const { visit, load } = useVisit()
watch(
  () => props.id,
  (id) => {
    if (visit.value?.id !== id) void load(id)
  },
  { immediate: true },
)
</script>

<template>
  <ComposerPage v-if="visit && visit.id === id" :id="visit.rig_id" :visit="visit" />
  <p v-else class="wait">{{ $t('FittedPage.fetchingTheRig') }}</p>
</template>

<style scoped>
.wait {
  padding: 24px 16px;
  color: var(--ink-soft);
}
</style>
