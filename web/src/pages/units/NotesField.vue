<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import type { Outcome, Problem } from '@/shared/model/outcome'

/** Notes that stay: kept when the field is left, on the version that was shown; what somebody else wrote meanwhile is shown beside. */
const props = defineProps<{
  notes: string
  version: number
  title: string
  placeholder: string
  keep: (version: number, notes: string) => Promise<Outcome<{ version: number; notes: string }>>
}>()
const text = ref(props.notes)
const version = ref(props.version)
const kept = ref(props.notes)
const problem = shallowRef<Problem | null>(null)
const theirs = ref<string | null>(null)
watch(
  () => [props.version, props.notes] as const,
  ([now, notes]) => {
    if (now <= version.value) return
    version.value = now
    if (text.value === kept.value) text.value = notes
    kept.value = notes
  },
)

async function save() {
  if (text.value === kept.value) return
  const answer = await props.keep(version.value, text.value)
  problem.value = answer.state === 'failed' ? answer.problem : null
  theirs.value = null
  if (answer.state === 'failed' && answer.problem.status === 409) {
    theirs.value = (answer.problem.current as { notes?: string }).notes ?? ''
    version.value = answer.problem.current_version ?? version.value
  }
  if (answer.state !== 'ready') return
  version.value = answer.value.version
  kept.value = answer.value.notes
}
</script>

<template>
  <label class="notes"
    >{{ title }}
    <el-input
      v-model="text"
      type="textarea"
      :autosize="{ minRows: 2, maxRows: 10 }"
      maxlength="4000"
      :placeholder="placeholder"
      data-testid="notes"
      @change="save"
    />
    <span v-if="theirs !== null" class="theirs" role="alert">{{
      $t('NotesField.somebodyWroteMeanwhilePutBoth', { theirs })
    }}</span>
    <ProblemNote v-else-if="problem" :problem="problem" />
    <span v-else-if="text === kept && kept !== props.notes" class="kept" role="status">{{
      $t('NotesField.kept')
    }}</span>
  </label>
</template>

<style scoped>
.notes {
  display: grid;
  gap: 4px;
  font-weight: 700;
}

.theirs {
  padding: 8px 12px;
  border-left: 6px solid var(--alarm);
  background: var(--alarm-soft);
  font-weight: 450;
}

.kept {
  color: var(--agrees);
}
</style>
