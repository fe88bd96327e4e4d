<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { api, type Causes, type Searched } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'

/** What narrows a search, as it stands in the address. */
defineProps<{ found: Searched | null }>()
const emit = defineEmits<{ narrow: [part: Record<string, string>] }>()
const route = useRoute()
const catalogue = useCatalogue()

const asked = (key: string) => (typeof route.query[key] === 'string' ? (route.query[key] as string) : '')
/** What the crew's closings name as the cause. */
const { value: known } = useQuestion<boolean, Causes>('causes', () => true, api.causes, { follows: false })
const causes = computed(() =>
  (known.value?.causes ?? []).map((one) => ({ id: one.title, title: `${one.title} · ${one.count}` })),
)
const days = computed(() => (asked('since') || asked('until') ? [asked('since'), asked('until')] : []))
</script>

<template>
  <div class="by">
    <PickOne
      :model-value="asked('symptom')"
      :options="(catalogue?.symptoms ?? []).map((one) => ({ id: one.id, title: one.title }))"
      :none="$t('NarrowBy.anyComplaint')"
      :label="$t('NarrowBy.complaint')"
      data-testid="by-symptom"
      @update:model-value="(symptom) => emit('narrow', { symptom })"
    />
    <PickOne
      v-if="causes.length || asked('cause')"
      :model-value="asked('cause')"
      :options="causes"
      :none="$t('NarrowBy.anyCause')"
      :label="$t('NarrowBy.cause')"
      data-testid="by-cause"
      @update:model-value="(cause) => emit('narrow', { cause })"
    />
    <PickOne
      :model-value="asked('closed')"
      :options="[
        { id: 'no', title: $t('NarrowBy.open') },
        { id: 'yes', title: $t('NarrowBy.closed') },
      ]"
      :none="$t('NarrowBy.openOrClosed')"
      :label="$t('NarrowBy.openOrClosed2')"
      data-testid="by-closed"
      @update:model-value="(closed) => emit('narrow', { closed })"
    />
    <PickOne
      :model-value="asked('by')"
      :options="(found?.people ?? []).map((one) => ({ id: one.id, title: one.name }))"
      :none="$t('NarrowBy.byAnybody')"
      :label="$t('NarrowBy.begunBy')"
      @update:model-value="(by) => emit('narrow', { by })"
    />
    <el-date-picker
      :model-value="days"
      type="daterange"
      value-format="YYYY-MM-DD"
      format="MMM D, YYYY"
      start-placeholder="from"
      end-placeholder="to"
      :aria-label="$t('NarrowBy.days')"
      @update:model-value="
        (range: [string, string] | null) =>
          emit('narrow', { since: range?.[0] ?? '', until: range?.[1] ?? '' })
      "
    />
  </div>
</template>

<style scoped>
.by {
  display: flex;
  flex: 1 1 100%;
  flex-wrap: wrap;
  gap: 8px;
}

.by .el-select {
  width: 190px;
}
</style>
