<script setup lang="ts">
import { computed } from 'vue'
import type { Judgement, RecordedDefrost } from '@/desks/defrost/recorded/api'
import { degrees } from '@/shared/model/units'

/** Every defrost of a record, a row each; a row opens as expected beside seen. */
const props = defineProps<{ judgement: Judgement; zone: string; chosen: number | null }>()
const emit = defineEmits<{ choose: [number: number | null] }>()
const PAGE = 50

const when = computed(
  () =>
    new Intl.DateTimeFormat('en-US', {
      timeZone: props.zone,
      month: 'short',
      day: 'numeric',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    }),
)
const start = (one: RecordedDefrost) => when.value.format(new Date(one.start * 1000))
const minutes = (seconds: number | null | undefined) =>
  seconds === null || seconds === undefined
    ? '–'
    : `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`
const rows = computed(() => props.judgement.defrosts.slice(0, Math.max(PAGE, props.chosen ?? 0)))
const opened = computed(() => (props.chosen === null ? [] : [props.chosen]))
const open = (row: RecordedDefrost) => emit('choose', row.number === props.chosen ? null : row.number)
</script>

<template>
  <div class="table">
    <el-table
      :data="rows"
      row-key="number"
      :expand-row-keys="opened.map(String)"
      class="defrosts"
      data-testid="recorded-defrosts"
      max-height="460"
      @expand-change="open"
      @row-click="open"
    >
      <el-table-column type="expand" width="44">
        <template #default="{ row }">
          <table class="beside" data-testid="beside">
            <caption>
              {{
                $t('RecordedDefrosts.expectedBesideSeenMinutesAnd')
              }}
            </caption>
            <thead>
              <tr>
                <th scope="col">{{ $t('RecordedDefrosts.mark') }}</th>
                <td>{{ $t('RecordedDefrosts.expected') }}</td>
                <td>{{ $t('RecordedDefrosts.seen') }}</td>
              </tr>
            </thead>
            <tbody>
              <tr v-for="line in (row as RecordedDefrost).beside" :key="line.mark">
                <th scope="row">{{ line.title }}</th>
                <td class="mono">{{ minutes(line.expected_seconds) }}</td>
                <td class="mono">{{ minutes(line.seen_seconds) }}</td>
              </tr>
            </tbody>
          </table>
        </template>
      </el-table-column>
      <el-table-column prop="number" label="#" width="56" />
      <el-table-column :label="$t('RecordedDefrosts.start')" min-width="120">
        <template #default="{ row }">{{ start(row as RecordedDefrost) }}</template>
      </el-table-column>
      <el-table-column :label="$t('RecordedDefrosts.ranBefore')" width="100">
        <template #default="{ row }">{{
          row.run_minutes === null
            ? '–'
            : $t('RecordedDefrosts.min', { run_minutes: Math.round(row.run_minutes) })
        }}</template>
      </el-table-column>
      <el-table-column :label="$t('RecordedDefrosts.took')" width="84">
        <template #default="{ row }">{{ minutes(row.seconds) }}</template>
      </el-table-column>
      <el-table-column :label="$t('RecordedDefrosts.endedBy')" width="124">
        <template #default="{ row }">
          <el-tag :class="['ended', row.ended_by ?? 'unknown']" disable-transitions>{{
            row.ended_by_title
          }}</el-tag>
        </template>
      </el-table-column>
      <el-table-column :label="$t('RecordedDefrosts.outdoor')" width="90">
        <template #default="{ row }">{{ degrees(row.outdoor_degrees_f) || '–' }}</template>
      </el-table-column>
      <el-table-column :label="$t('RecordedDefrosts.coil')" min-width="120">
        <template #default="{ row }"
          >{{ degrees(row.coil_start_degrees_f) || '–' }} →
          {{ degrees(row.coil_end_degrees_f) || '–' }}</template
        >
      </el-table-column>
      <el-table-column :label="$t('RecordedDefrosts.frostModelled')" width="130">
        <template #default="{ row }">{{
          row.frost_kg === null ? '–' : $t('RecordedDefrosts.kg', { what: row.frost_kg.toFixed(1) })
        }}</template>
      </el-table-column>
    </el-table>
    <p v-if="rows.length < judgement.defrosts.length" class="quiet">
      {{
        $t('RecordedDefrosts.theFirstOfChooseA', { rows: rows.length, defrosts: judgement.defrosts.length })
      }}
    </p>
  </div>
</template>

<style scoped>
.table {
  min-width: 0;
}

.beside {
  margin: 4px 0 8px 44px;
  border-collapse: collapse;
}

.beside caption {
  font-weight: 700;
  text-align: left;
}

.beside th {
  padding-right: 16px;
  font-weight: 450;
  text-align: left;
}

.beside td {
  padding: 2px 12px;
  text-align: right;
}

.beside tr {
  border-bottom: 1px solid var(--rule);
}

.ended {
  color: var(--ink);
}

.ended.temperature {
  background: var(--agrees-soft);
}

.ended.time {
  background: var(--alarm-soft);
}

.ended.unknown,
.ended.call {
  background: var(--note-soft);
}

.quiet {
  color: var(--ink-soft);
}
</style>
