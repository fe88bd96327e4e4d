<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { LogHead, LogMapping } from '@/desks/defrost/recorded/api'
import { COLUMNS, columnTitle, firstOf, mapped } from '@/desks/defrost/recorded/columns'
import PickOne from '@/shared/ui/kit/PickOne.vue'

const { t } = useI18n()
/** Which column of a logger's file is what: guessed, to be put right. */
const props = defineProps<{ head: LogHead; busy: boolean }>()
const emit = defineEmits<{ read: [mapping: LogMapping]; leave: [] }>()
const mapping = ref<LogMapping>(props.head.mapping)

const ORDERS = [
  { id: 'ymd', title: t('LogMapping.yearMonthDay') },
  { id: 'mdy', title: t('LogMapping.monthDayYear') },
  { id: 'dmy', title: t('LogMapping.dayMonthYear') },
  { id: 'seconds', title: t('LogMapping.seconds') },
] as const
const ZONES = ['UTC', ...Intl.supportedValuesOf('timeZone')].map((id) => ({ id, title: id }))
const NOWHERE = -1
const places = computed(() => [
  { id: NOWHERE, title: t('LogMapping.notInTheFile') },
  ...props.head.names.map((name, id) => ({ id, title: name })),
])
const timePlaces = computed(() => places.value.slice(1))
const place = (id: string) => mapping.value.columns[id]?.at ?? NOWHERE
const put = (id: string, at: number, unit: string) =>
  (mapping.value = mapped(mapping.value, id, at === NOWHERE ? null : at, unit))
const set = (part: Partial<LogMapping>) => (mapping.value = { ...mapping.value, ...part })
const ready = computed(() => mapping.value.time.length > 0 && Object.keys(mapping.value.columns).length > 0)
</script>

<template>
  <section class="mapping" data-testid="log-mapping">
    <h3>{{ $t('LogMapping.whichColumnIsWhat') }}</h3>
    <p v-if="head.kept" class="quiet">{{ $t('LogMapping.asTheLastFileWith') }}</p>
    <el-alert
      v-for="doubt in head.doubts"
      :key="doubt"
      :title="doubt"
      type="warning"
      :closable="false"
      show-icon
    />
    <el-form label-position="left" label-width="120px" @submit.prevent>
      <el-form-item :label="$t('LogMapping.time')">
        <div class="row">
          <PickOne
            :model-value="mapping.time[0]"
            :options="timePlaces"
            :label="$t('LogMapping.columnOfTheTime')"
            data-testid="map-time"
            @update:model-value="(at) => set({ time: [at, ...mapping.time.slice(1)] })"
          />
          <PickOne
            :model-value="mapping.order"
            :options="ORDERS"
            :label="$t('LogMapping.howTheDateIsWritten')"
            data-testid="map-order"
            @update:model-value="(order) => set({ order })"
          />
        </div>
        <small v-if="mapping.time[0] !== undefined" class="first mono">{{
          firstOf(head, mapping.time[0])
        }}</small>
      </el-form-item>
      <el-form-item v-if="mapping.order === 'seconds'" :label="$t('LogMapping.zeroWasAt')">
        <el-date-picker
          :model-value="mapping.start === null ? null : mapping.start * 1000"
          type="datetime"
          value-format="x"
          :aria-label="$t('LogMapping.whenTheSecondsBegan')"
          @update:model-value="(at: string | null) => set({ start: at === null ? null : Number(at) / 1000 })"
        />
      </el-form-item>
      <el-form-item v-else :label="$t('LogMapping.itsClock')">
        <div class="row">
          <PickOne
            :model-value="mapping.zone"
            :options="ZONES"
            :label="$t('LogMapping.timeZoneOfTheLoggers')"
            data-testid="map-zone"
            @update:model-value="(zone) => set({ zone })"
          />
          <el-switch
            :model-value="mapping.daylight_saving"
            :active-text="$t('LogMapping.isPutOnAndBack')"
            :inactive-text="$t('LogMapping.keepsItsTimeAllYear')"
            :aria-label="$t('LogMapping.theLoggersClockFollowsDaylight')"
            data-testid="map-daylight"
            @update:model-value="(on: string | number | boolean) => set({ daylight_saving: on === true })"
          />
        </div>
      </el-form-item>
      <el-form-item v-for="column in COLUMNS" :key="column.id" :label="columnTitle(column.id)">
        <div class="row">
          <PickOne
            :model-value="place(column.id)"
            :options="places"
            :label="$t('LogMapping.columnOf', { title: columnTitle(column.id) })"
            :data-testid="`map-${column.id}`"
            @update:model-value="
              (at) => put(column.id, at, mapping.columns[column.id]?.unit ?? column.units[0])
            "
          />
          <PickOne
            v-if="place(column.id) !== NOWHERE"
            :model-value="mapping.columns[column.id]?.unit"
            :options="column.units.map((id) => ({ id, title: id }))"
            :label="$t('LogMapping.unitOf', { title: columnTitle(column.id) })"
            class="unit"
            @update:model-value="(unit) => put(column.id, place(column.id), unit)"
          />
        </div>
        <small v-if="place(column.id) !== NOWHERE" class="first mono">{{
          firstOf(head, place(column.id))
        }}</small>
      </el-form-item>
    </el-form>
    <div class="keys">
      <el-button
        type="primary"
        class="key"
        :disabled="!ready"
        :loading="busy"
        data-testid="read-log"
        @click="emit('read', mapping)"
        >{{ $t('LogMapping.readIt') }}</el-button
      >
      <el-button class="key" @click="emit('leave')">{{ $t('LogMapping.notNow') }}</el-button>
    </div>
  </section>
</template>

<style scoped>
.mapping {
  display: grid;
  gap: 8px;
  max-width: 860px;
}

.row,
.keys {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
}

.row > :first-child {
  width: 260px;
}

.row > :nth-child(2) {
  min-width: 150px;
}

.row .unit {
  width: 110px;
}

.first {
  flex-basis: 100%;
  color: var(--ink-soft);
  overflow-wrap: anywhere;
}

.quiet {
  color: var(--ink-soft);
}
</style>
