<script setup lang="ts">
import type { Trace, Visit } from '@/shared/api/client'
import { volts } from '@/shared/model/units'

/** What the drawing stands on: the transformer's load, the rig and its revision, and what nobody has read of it. */
defineProps<{ trace: Trace; visit: Visit | null }>()
const emit = defineEmits<{ deck: [] }>()
</script>

<template>
  <p class="assumed">
    {{
      $t('RigFoot.transformerOfVaInThis', {
        drawn_va: trace.supply.drawn_va.toFixed(0),
        rated_va: trace.supply.rated_va.toFixed(0),
        volts: volts(trace.supply.volts_ac),
      })
    }}
    <el-button class="key quiet" @click="emit('deck')">{{ $t('RigFoot.spiceDeck') }}</el-button>
  </p>
  <RouterLink v-if="visit" class="key quiet" :to="`/rigs/${visit.rig_id}`">{{
    $t('RigFoot.rigRevision', { rig_name: visit.rig_name, rig_revision: visit.rig_revision })
  }}</RouterLink>
  <details v-if="trace.assumed.length" class="assumed" data-testid="assumed">
    <summary>{{ $t('RigFoot.factsOfThisRigAre', { assumed: trace.assumed.length }) }}</summary>
    {{ trace.assumed.join(', ').toLowerCase() }}.
    <RouterLink v-if="visit" :to="`/visits/${visit.id}/fitted`">{{
      $t('RigFoot.readThemUnderFitted')
    }}</RouterLink>
  </details>
</template>

<style scoped>
.assumed {
  color: var(--ink-soft);
  font-size: 14px;
}
</style>
