<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import type { InputInstance } from 'element-plus'
import { api, type Causes, type Searched } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { isTyping } from '@/shared/model/keys'

/** One field over all that was ever written of a visit, and what narrows it. What is asked stands in the address. */
defineProps<{ found: Searched | null }>()
const route = useRoute()
const router = useRouter()
const catalogue = useCatalogue()
const field = ref<InputInstance | null>(null)

const asked = (key: string) => (typeof route.query[key] === 'string' ? (route.query[key] as string) : '')
const narrow = ref(['symptom', 'cause', 'by', 'closed', 'since', 'until'].some((key) => asked(key)))
const set = (part: Record<string, string>) => {
  const query = Object.fromEntries(Object.entries({ ...route.query, ...part }).filter(([, value]) => value))
  void router.replace({ query })
}
/** What the crew's closings name as the cause: asked for once somebody narrows. */
const { value: known } = useQuestion<boolean, Causes>('causes', () => narrow.value || null, api.causes, {
  follows: false,
})
const causes = computed(() =>
  (known.value?.causes ?? []).map((one) => ({ id: one.title, title: `${one.title} · ${one.count}` })),
)
const days = computed(() => (asked('since') || asked('until') ? [asked('since'), asked('until')] : []))

function key(event: KeyboardEvent) {
  if (event.key !== '/' || isTyping(event)) return
  event.preventDefault()
  field.value?.focus()
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
</script>

<template>
  <form class="again" role="search" @submit.prevent>
    <el-input
      ref="field"
      :model-value="asked('q')"
      clearable
      maxlength="200"
      :placeholder="$t('FindAgain.findAVisitKilnIced')"
      :aria-label="$t('FindAgain.findAVisit')"
      data-testid="search"
      @update:model-value="(q: string) => set({ q })"
    />
    <el-button class="key" :aria-pressed="narrow" data-testid="narrow" @click="narrow = !narrow">{{
      $t('FindAgain.narrow')
    }}</el-button>
    <RouterLink class="key" to="/recurring" data-testid="recurs">{{ $t('FindAgain.whatRecurs') }}</RouterLink>
    <div v-if="narrow" class="by">
      <PickOne
        :model-value="asked('symptom')"
        :options="(catalogue?.symptoms ?? []).map((one) => ({ id: one.id, title: one.title }))"
        :none="$t('FindAgain.anyComplaint')"
        :label="$t('FindAgain.complaint')"
        data-testid="by-symptom"
        @update:model-value="(symptom) => set({ symptom })"
      />
      <PickOne
        v-if="causes.length || asked('cause')"
        :model-value="asked('cause')"
        :options="causes"
        :none="$t('FindAgain.anyCause')"
        :label="$t('FindAgain.cause')"
        data-testid="by-cause"
        @update:model-value="(cause) => set({ cause })"
      />
      <PickOne
        :model-value="asked('closed')"
        :options="[
          { id: 'no', title: $t('FindAgain.open') },
          { id: 'yes', title: $t('FindAgain.closed') },
        ]"
        :none="$t('FindAgain.openOrClosed')"
        :label="$t('FindAgain.openOrClosed2')"
        data-testid="by-closed"
        @update:model-value="(closed) => set({ closed })"
      />
      <PickOne
        :model-value="asked('by')"
        :options="(found?.people ?? []).map((one) => ({ id: one.id, title: one.name }))"
        :none="$t('FindAgain.byAnybody')"
        :label="$t('FindAgain.begunBy')"
        @update:model-value="(by) => set({ by })"
      />
      <el-date-picker
        :model-value="days"
        type="daterange"
        value-format="YYYY-MM-DD"
        format="MMM D, YYYY"
        start-placeholder="from"
        end-placeholder="to"
        :aria-label="$t('FindAgain.days')"
        @update:model-value="
          (range: [string, string] | null) => set({ since: range?.[0] ?? '', until: range?.[1] ?? '' })
        "
      />
    </div>
    <p v-for="one in found?.read_as ?? []" :key="one.typed" class="read" data-testid="read-as">
      {{ $t('FindAgain.readAs', { typed: one.typed }) }} <b>{{ one.words.join(' or ') }}</b>
    </p>
    <p v-if="found?.unknown.length" class="read" data-testid="unknown">
      {{ $t('FindAgain.noVisitOfThisCrew', { unknown: found.unknown.join('”, “') }) }}
    </p>
  </form>
</template>

<style scoped>
.again {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-bottom: 10px;
}

.again > .el-input {
  flex: 1 1 260px;
}

.by {
  display: flex;
  flex: 1 1 100%;
  flex-wrap: wrap;
  gap: 8px;
}

.by .el-select {
  width: 190px;
}

.read {
  flex: 1 1 100%;
  color: var(--between);
}
</style>
