<script setup lang="ts">
import { computed } from 'vue'
import type { Course } from '@/pages/practice/api'
import { standings } from '@/pages/practice/bench'

/** A course as its maker sees it: who is sure of what, and who has not begun. */
const props = defineProps<{ rows: NonNullable<Course['by_learner']> }>()
type Row = (typeof props.rows)[number]
const subjects = computed(() => props.rows[0]?.subjects ?? [])
const WORDS = standings()
const of = (row: Row, id: string) => row.subjects.find((one) => one.id === id)
</script>

<template>
  <el-table :data="rows" :aria-label="$t('LearnerTable.how')" data-testid="learners">
    <el-table-column :label="$t('LearnerTable.learner')" min-width="130" fixed>
      <template #default="{ row }: { row: Row }">{{ row.learner ?? $t('LearnerTable.somebody') }}</template>
    </el-table-column>
    <el-table-column v-for="subject in subjects" :key="subject.id" :label="subject.title" min-width="130">
      <template #default="{ row }: { row: Row }">
        <span :class="['stands', of(row, subject.id)?.standing]">
          {{ WORDS[of(row, subject.id)?.standing ?? 'new'] }}
          <b class="mono">{{ of(row, subject.id)?.last_marks }}</b>
          <small v-if="of(row, subject.id)?.done">{{
            $t('LearnerTable.doneOnce', { count: of(row, subject.id)?.done })
          }}</small>
        </span>
      </template>
    </el-table-column>
  </el-table>
</template>

<style scoped>
.stands {
  display: flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: baseline;
}

.new {
  color: var(--ink-soft);
}

small {
  color: var(--ink-soft);
  font-size: 14px;
}
</style>
