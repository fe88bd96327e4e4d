<script setup lang="ts">
import { clockOff } from '@/shared/model/when'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Reading } from '@/shared/api/client'
import ReadingTable from '@/desks/trace/ReadingTable.vue'
import { stands } from '@/shared/model/readingTable'
import { clock } from '@/shared/model/units'

const { t } = useI18n()
const props = defineProps<{ visit: string; readings: Reading[] }>()
const emit = defineEmits<{ takeBack: [id: string]; correct: [reading: Reading]; show: [reading: Reading] }>()

const newestFirst = computed(() => [...props.readings].reverse())

function fate(reading: Reading): string {
  if (reading.retracted_at) return t('ReadingLog.takenBack')
  if (reading.superseded_by_id) return t('ReadingLog.corrected')
  return ''
}
</script>

<template>
  <section class="log" :aria-label="$t('ReadingLog.readings')">
    <h2>
      {{ $t('ReadingLog.readings') }} <span class="count mono">{{ readings.filter(stands).length }}</span>
    </h2>
    <p v-if="!readings.length" class="empty">
      {{ $t('ReadingLog.noneYetPutTheProbes') }}
    </p>
    <ol>
      <li
        v-for="reading in newestFirst"
        :key="reading.id"
        :class="['row', reading.verdict, { past: !stands(reading) }]"
        data-testid="reading"
      >
        <span class="mark" aria-hidden="true">{{
          reading.verdict === 'agrees' ? '=' : reading.verdict === 'disagrees' ? '≠' : '·'
        }}</span>
        <span class="value mono">{{ reading.reads }}</span>
        <button class="where" :title="$t('ReadingLog.putTheProbesThere')" @click="emit('show', reading)">
          {{ reading.where }}
          <span class="in">{{ $t('ReadingLog.in', { call_title: reading.call_title }) }}</span>
        </button>
        <span class="says"
          >{{ reading.says }}<template v-if="reading.note"> {{ reading.note }}</template></span
        >
        <span class="when mono"
          >{{ clock(reading.taken_at) }} {{ reading.taken_by }}
          <small v-if="clockOff(reading.moment.device_ahead_seconds)">{{
            clockOff(reading.moment.device_ahead_seconds)
          }}</small></span
        >
        <span v-if="fate(reading)" class="fate">{{ fate(reading) }}</span>
        <span v-else class="acts">
          <el-button class="key quiet" @click="emit('correct', reading)">{{
            $t('ReadingLog.correct')
          }}</el-button>
          <el-button class="key quiet" @click="emit('takeBack', reading.id)">{{
            $t('ReadingLog.takeBack')
          }}</el-button>
        </span>
      </li>
    </ol>
    <ReadingTable :visit="visit" />
  </section>
</template>

<style scoped>
h2 {
  font-size: 16px;
}

.count {
  color: var(--ink-soft);
}

.empty {
  color: var(--ink-soft);
  padding: 6px 0;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

.row {
  display: grid;
  grid-template-columns: 26px 128px minmax(200px, 1fr) minmax(200px, 1.6fr) auto auto;
  align-items: center;
  gap: 10px;
  border-bottom: 1px solid var(--rule);
}

.mark {
  font-size: 22px;
  font-weight: 800;
  text-align: center;
}

.agrees .mark {
  color: var(--agrees);
}

.disagrees .mark {
  color: var(--alarm);
}

.value {
  font-size: 20px;
  font-weight: 700;
  text-align: right;
}

.where {
  min-height: var(--target);
  border: 0;
  background: transparent;
  text-align: left;
  text-decoration: underline;
  text-underline-offset: 3px;
  text-decoration-color: var(--rule-strong);
  cursor: pointer;
}

.in,
.when,
.fate {
  color: var(--ink-soft);
}

.when {
  font-size: 14px;
}

.past .value,
.past .says {
  text-decoration: line-through;
  color: var(--ink-soft);
}

.acts {
  white-space: nowrap;
}

.acts .key {
  padding: 0 6px;
}

@media (max-width: 1180px) {
  .row {
    grid-template-columns: 26px 128px 1fr auto;
    padding: 4px 0;
    row-gap: 0;
  }

  .says {
    grid-column: 2 / -1;
    grid-row: 2;
  }

  .when {
    display: none;
  }
}

@media (max-width: 640px) {
  .row {
    grid-template-columns: 26px 96px 1fr;
  }

  .acts,
  .fate {
    grid-column: 2 / -1;
    grid-row: 3;
  }
}
</style>
