<script setup lang="ts">
import type { Trace, Visit } from '@/shared/api/client'
import { volts } from '@/shared/model/units'

/** What the drawing stands on: the transformer's load, the rig and its revision, and what nobody has read of it. */
defineProps<{ trace: Trace; visit: Visit | null }>()
const emit = defineEmits<{ deck: [] }>()
</script>

<template>
  <p class="assumed">
    Transformer: {{ trace.supply.drawn_va.toFixed(0) }} of {{ trace.supply.rated_va.toFixed(0) }} VA in this
    call, at {{ volts(trace.supply.volts_ac) }} V.
    <el-button class="key quiet" @click="emit('deck')">SPICE deck</el-button>
  </p>
  <RouterLink v-if="visit" class="key quiet" :to="`/rigs/${visit.rig_id}`"
    >Rig: {{ visit.rig_name }}, revision {{ visit.rig_revision }}</RouterLink
  >
  <details v-if="trace.assumed.length" class="assumed" data-testid="assumed">
    <summary>{{ trace.assumed.length }} facts of this rig are assumed, not read</summary>
    {{ trace.assumed.join(', ').toLowerCase() }}.
    <RouterLink v-if="visit" :to="`/visits/${visit.id}/fitted`">Read them under Fitted</RouterLink>
  </details>
</template>

<style scoped>
.assumed {
  color: var(--ink-soft);
  font-size: 14px;
}
</style>
