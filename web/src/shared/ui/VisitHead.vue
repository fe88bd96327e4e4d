<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import type { DeskId, Visit } from '@/shared/api/client'
import { day } from '@/shared/model/units'
import { ago } from '@/shared/model/when'
import { useVisit } from '@/shared/ui/useVisit'

/** What stands over every page of a visit: which page, which unit, and whether all is kept. */
const props = defineProps<{ title: string; visit: Visit | null; kept: boolean }>()
const { refused, keepMine } = useVisit()
/** Who kept this page's desk last, where it keeps something. */
const last = computed(() => {
  const desk = props.visit?.desks?.[props.title.toLowerCase().replace(' ', '_') as DeskId]
  return desk?.by && desk.at ? { by: desk.by, at: desk.at } : null
})
const told = computed(() =>
  ['Wiring', 'Thermostat'].includes(props.title) ? (props.visit?.carried_on ?? null) : null,
)
const takeTheirs = () => location.reload()
</script>

<template>
  <div :class="['whole', { pending: !visit }]">
    <div class="head">
      <h1>
        {{ title }}
        <RouterLink v-if="visit" class="unit" :to="`/units/${visit.unit_id}`" data-testid="to-unit"
          >{{ visit.site }}, {{ visit.unit }}</RouterLink
        >
      </h1>
      <p v-if="kept" class="kept" role="status">= kept</p>
      <p v-else-if="last" class="last" data-testid="last-by">{{ last.by }}, {{ ago(last.at) }}</p>
      <slot />
    </div>
    <p v-if="visit?.closed_number && title !== 'Close out'" class="told" data-testid="read-only">
      = Closed, no. {{ visit.closed_number }}: it can be read, and opened again under
      <RouterLink :to="`/visits/${visit.id}/close-out`">Close out</RouterLink>.
    </p>
    <p v-if="told" class="told" data-testid="told">
      · Begins with what the visit of {{ day(told) }} told; none of it counts as looked at until you do.
    </p>
    <p v-if="refused" class="conflict" role="alert">
      ≠ Somebody else changed this visit meanwhile. What you noted is still here.
      <el-button class="key" data-testid="keep-mine" @click="keepMine">Keep mine</el-button>
      <el-button class="key" data-testid="take-theirs" @click="takeTheirs">Show theirs</el-button>
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
