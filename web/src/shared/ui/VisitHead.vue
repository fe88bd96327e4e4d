<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import type { DeskId, Visit } from '@/shared/api/client'
import { PAGES } from '@/shared/model/visitPages'
import { day } from '@/shared/model/units'
import { ago } from '@/shared/model/when'
import { useVisit } from '@/shared/ui/useVisit'

/** What stands over every page of a visit: which page, which unit, and whether all is kept. */
const props = defineProps<{ page: keyof Visit['marks']; visit: Visit | null; kept: boolean }>()
const { refused, keepMine, takeTheirs } = useVisit()
/** Who kept this page's desk last, where it keeps something. */
const last = computed(() => {
  const desk = props.visit?.desks?.[props.page as DeskId]
  return desk?.by && desk.at ? { by: desk.by, at: desk.at } : null
})
const told = computed(() =>
  ['wiring', 'thermostat'].includes(props.page) ? (props.visit?.carried_on ?? null) : null,
)
</script>

<template>
  <div :class="['whole', { pending: !visit }]">
    <div class="head">
      <h1>
        {{ PAGES.find((one) => one.id === page)?.title }}
        <RouterLink v-if="visit" class="unit" :to="`/units/${visit.unit_id}`" data-testid="to-unit"
          >{{ visit.site }}, {{ visit.unit }}</RouterLink
        >
      </h1>
      <p v-if="kept" class="kept" role="status">{{ $t('VisitHead.kept') }}</p>
      <p v-else-if="last" class="last" data-testid="last-by">{{ last.by }}, {{ ago(last.at) }}</p>
      <slot />
    </div>
    <p v-if="visit?.closed_number && page !== 'close_out'" class="told" data-testid="read-only">
      {{ $t('VisitHead.closedNoItCanBe', { closed_number: visit.closed_number }) }}
      <RouterLink :to="`/visits/${visit.id}/close-out`">{{ $t('VisitHead.closeOut') }}</RouterLink>.
    </p>
    <p v-if="told" class="told" data-testid="told">
      {{ $t('VisitHead.beginsWithWhatTheVisit', { day: day(told) }) }}
    </p>
    <p v-if="refused" class="conflict" role="alert">
      {{ $t('VisitHead.somebodyElseChangedThisVisit') }}
      <el-button class="key" data-testid="keep-mine" @click="keepMine">{{
        $t('VisitHead.keepMine')
      }}</el-button>
      <el-button class="key" data-testid="take-theirs" @click="takeTheirs">{{
        $t('VisitHead.showTheirs')
      }}</el-button>
    </p>
  </div>
</template>

<style scoped>
/* Which unit it is comes a moment later, and may take a second line: until then nothing is shown that would move. */
.pending {
  animation: pending 2s;
}

@keyframes pending {
  from,
  to {
    visibility: hidden;
  }
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
}

h1 {
  flex: 1 1 260px;
  font-size: 20px;
}

h1 .unit {
  color: var(--ink);
  font-weight: 450;
}

@media (max-width: 640px) {
  .head {
    gap: 6px 8px;
  }

  h1 {
    flex-basis: 100%;
  }
}

.kept {
  color: var(--agrees);
}

.last {
  color: var(--ink-soft);
  font-size: 15px;
}

.told {
  color: var(--between);
}

.conflict {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 8px 12px;
  border-left: 6px solid var(--alarm);
  background: var(--alarm-soft);
}
</style>
