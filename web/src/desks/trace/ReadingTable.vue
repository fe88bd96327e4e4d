<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { api } from '@/shared/api/client'
import { answers } from '@/shared/api/useQuestion'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import PickFile from '@/shared/ui/kit/PickFile.vue'
import { useSession } from '@/shared/ui/useSession'
import type { Problem } from '@/shared/model/outcome'
import { saveFile } from '@/shared/model/saveFile'

const { t } = useI18n()
/** The readings of a visit as a table: written to a file, or taken from one, whole or not at all. */
const props = defineProps<{ visit: string }>()
const { mayChange } = useSession()
const problem = shallowRef<Problem | null>(null)
const refused = shallowRef<{ line: number; problem: string }[]>([])
const says = ref('')
const busy = ref(false)

async function write() {
  const answer = await api.readingsCsv(props.visit)
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state === 'ready') saveFile('readings.csv', answer.value, 'text/csv')
}
async function take(file: File) {
  busy.value = true
  const answer = await api.readReadings(props.visit, await file.text())
  busy.value = false
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state !== 'ready') return
  refused.value = answer.value.refused
  says.value = refused.value.length
    ? t('ReadingTable.nothingKept')
    : t('ReadingTable.kept', {
        kept: answer.value.kept,
        rows: answer.value.rows,
        others: answer.value.kept < answer.value.rows ? t('ReadingTable.othersHere') : '',
      })
  await answers.invalidateQueries({ queryKey: ['readings'] })
}
</script>

<template>
  <div class="table">
    <el-button class="key quiet" data-testid="readings-csv" @click="write">{{
      $t('ReadingTable.writeAsCsv')
    }}</el-button>
    <PickFile
      v-if="mayChange"
      accept=".csv,text/csv"
      :label="$t('ReadingTable.takeFromCsv')"
      :busy="busy"
      data-testid="readings-file"
      @picked="take"
    />
    <p v-if="says" role="status">{{ says }}</p>
    <ul v-if="refused.length">
      <li v-for="one in refused.slice(0, 20)" :key="one.line">
        {{ $t('ReadingTable.line', { line: one.line, problem: one.problem }) }}
      </li>
    </ul>
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
.table {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding-top: 8px;
}

p,
ul {
  flex: 1 1 100%;
  margin: 0;
}
</style>
