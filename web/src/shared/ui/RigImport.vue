<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type Rig, type RigFile } from '@/shared/api/client'
import type { UploadFile } from 'element-plus'
import type { Problem } from '@/shared/model/outcome'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const { t } = useI18n()
const emit = defineEmits<{ imported: [rig: Rig] }>()

const MOST_BYTES = 2 * 1024 * 1024
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)

function refuse(detail: string) {
  problem.value = { type: 'about:blank', title: t('RigImport.notARigFile'), status: 422, detail }
}

async function read(file: File | undefined) {
  if (!file) return
  problem.value = null
  if (file.size > MOST_BYTES) return refuse(t('RigImport.tooLarge', { name: file.name }))
  let rig: unknown
  try {
    rig = JSON.parse(await file.text())
  } catch (error) {
    return refuse(t('RigImport.notJson', { name: file.name, why: (error as Error).message }))
  }
  if (typeof rig !== 'object' || rig === null || Array.isArray(rig))
    return refuse(t('RigImport.oneObject', { name: file.name }))
  busy.value = true
  const answer = await api.importRig(crypto.randomUUID(), rig as RigFile)
  busy.value = false
  if (answer.state === 'ready') emit('imported', answer.value)
  else if (answer.state === 'failed') problem.value = answer.problem
}
</script>

<template>
  <div>
    <el-upload
      class="drop"
      drag
      action="#"
      accept=".json,application/json"
      :auto-upload="false"
      :show-file-list="false"
      data-testid="rig-file"
      @change="(file: UploadFile) => read(file.raw)"
    >
      <b>{{ busy ? $t('RigImport.reading') : $t('RigImport.importARigFile') }}</b>
      <span>{{ $t('RigImport.gorvantRigJsonDropIt') }}</span>
    </el-upload>
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
.drop :deep(.el-upload-dragger) {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  min-height: 60px;
  padding: 8px 16px;
  border: 2px dashed var(--rule-strong);
  border-radius: 3px;
  background: transparent;
  color: var(--ink);
  font-size: 16px;
}

.drop :deep(.el-upload-dragger.is-dragover),
.drop :deep(.el-upload-dragger:hover) {
  background: var(--note-soft);
}

.drop :deep(.el-upload:focus-visible) {
  outline: 3px solid var(--focus);
  outline-offset: 2px;
}

.drop span {
  color: var(--ink-soft);
}
</style>
