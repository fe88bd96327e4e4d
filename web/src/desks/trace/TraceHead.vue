<script setup lang="ts">
import { ref } from 'vue'
import { RouterLink } from 'vue-router'
import type { Rig, Visit } from '@/shared/api/client'
import { degrees } from '@/shared/model/units'

defineProps<{ visit: Visit | null; rig: Rig | null }>()
const whole = ref(false)
</script>

<template>
  <div class="head">
    <h1 v-if="visit">
      <RouterLink :to="`/units/${visit.unit_id}`"
        >{{ visit.site }} <span>{{ visit.unit }}</span></RouterLink
      >
    </h1>
    <h1 v-else-if="rig">
      {{ rig.name }} <span>{{ $t('TraceHead.rigOfTheLibrary') }}</span>
    </h1>
    <h1 v-else>{{ $t('TraceHead.trace') }}</h1>
    <p v-if="visit" :class="['complaint', { whole }]">
      <button :aria-expanded="whole" :title="$t('TraceHead.theWholeComplaint')" @click="whole = !whole">
        “{{ visit.complaint }}”
      </button>
    </p>
    <p v-if="visit?.closed_number" class="weather" data-testid="read-only">
      {{ $t('TraceHead.closedNoWhatIsRead', { closed_number: visit.closed_number }) }}
    </p>
    <p v-if="visit && visit.outdoor_degrees_f !== null" class="weather">
      {{ $t('TraceHead.outside', { degrees: degrees(visit.outdoor_degrees_f) }) }}
    </p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  min-height: var(--target);
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 18px;
}

h1 a {
  color: var(--ink);
}

h1 {
  font-size: 20px;
  line-height: 1.2;
}

h1 span {
  font-weight: 450;
}

.complaint {
  flex: 1 1 260px;
  color: var(--ink-soft);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.complaint button {
  overflow: hidden;
  max-width: 100%;
  min-height: var(--target);
  padding: 0;
  border: 0;
  background: transparent;
  color: inherit;
  font: inherit;
  text-align: left;
  text-overflow: ellipsis;
  white-space: inherit;
  cursor: pointer;
}

.complaint.whole {
  white-space: normal;
}

@media (max-width: 640px) {
  .complaint {
    flex-basis: 100%;
  }
}
</style>
