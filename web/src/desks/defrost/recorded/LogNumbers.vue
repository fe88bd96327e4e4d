<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Judgement, LogPicture } from '@/desks/defrost/recorded/api'
import { columnTitle } from '@/desks/defrost/recorded/columns'
import { rowsOf } from '@/desks/defrost/recorded/numbers'
import { degreeSign } from '@/shared/model/units'

/** What the picture shows, as numbers: for who does not see it, and for who wants the very value. */
const props = defineProps<{
  picture: LogPicture
  lines: string[]
  lanes: string[]
  rules: Judgement['on_off']
  zone: string
}>()
const { t } = useI18n()
const TIME = 170
const DEGREES = 130
const SWITCHED = 96
const HEIGHT = 320
const ROW = 40
const rows = computed(() =>
  rowsOf(props.picture, props.lines, props.lanes, props.rules, {
    zone: props.zone,
    on: t('LogNumbers.on'),
    off: t('LogNumbers.off'),
  }),
)
const columns = computed(() => [
  { key: 'time', dataKey: 'time', title: t('LogNumbers.time'), width: TIME },
  ...[...props.lines, ...props.lanes].map((id) => ({
    key: id,
    dataKey: id,
    title: props.lines.includes(id) ? `${columnTitle(id)} ${degreeSign()}` : columnTitle(id),
    width: props.lines.includes(id) ? DEGREES : SWITCHED,
    flexGrow: 1,
  })),
])
const least = computed(() => columns.value.reduce((sum, one) => sum + one.width, 0))
</script>

<template>
  <div :style="{ height: `${HEIGHT}px` }" data-testid="log-numbers">
    <el-auto-resizer v-slot="{ width }">
      <el-table-v2
        :columns="columns"
        :data="rows"
        :width="width"
        :height="HEIGHT"
        :row-height="ROW"
        :header-height="ROW"
        :fixed="width < least"
        row-key="id"
      />
    </el-auto-resizer>
  </div>
</template>
