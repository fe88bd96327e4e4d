<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { api, type AuditEntry } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { moment } from '@/shared/model/when'

const { value: first, outcome } = useQuestion('audit', true, () => api.audit(), { follows: false })
const earlier = shallowRef<AuditEntry[]>([])
const further = ref<number | null | undefined>(undefined)
const next = computed(() => (further.value === undefined ? first.value?.next : further.value))
const entries = computed(() => [...(first.value?.entries ?? []), ...earlier.value])

async function fetchEarlier() {
  const answer = await api.audit(next.value ?? undefined)
  if (answer.state !== 'ready') return
  earlier.value = [...earlier.value, ...answer.value.entries]
  further.value = answer.value.next
}
</script>

<template>
  <section>
    <h2>{{ $t('TrailPart.accountsTokensAndWholeRecords') }}</h2>
    <p class="settings-note">{{ $t('TrailPart.linesAreAddedHereAnd') }}</p>
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <el-table :data="entries" empty-text="Nothing yet" data-testid="trail">
      <el-table-column :label="$t('TrailPart.when')" width="180">
        <template #default="{ row }">{{ moment((row as AuditEntry).at) }}</template>
      </el-table-column>
      <el-table-column :label="$t('TrailPart.who')" prop="by" min-width="140" />
      <el-table-column :label="$t('TrailPart.what')" min-width="260">
        <template #default="{ row }"
          >{{ (row as AuditEntry).says
          }}<template v-if="(row as AuditEntry).about">: {{ (row as AuditEntry).about }}</template></template
        >
      </el-table-column>
    </el-table>
    <el-button v-if="next" class="key wide" @click="fetchEarlier">{{ $t('TrailPart.earlier') }}</el-button>
  </section>
</template>
