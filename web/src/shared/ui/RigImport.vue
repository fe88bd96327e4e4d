<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { api, type Rig, type RigFile } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const emit = defineEmits<{ imported: [rig: Rig] }>()

const MOST_BYTES = 2 * 1024 * 1024
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)
const over = ref(false)

function refuse(detail: string) {
  problem.value = { type: 'about:blank', title: 'Not a rig file', status: 422, detail }
}

async function read(file: File | undefined) {
  if (!file) return
  problem.value = null
  if (file.size > MOST_BYTES)
    return refuse(`“${file.name}” is larger than 2 MB; a rig file is a few kilobytes of JSON.`)
  let rig: unknown
  try {
    rig = JSON.parse(await file.text())
  } catch (error) {
    return refuse(`“${file.name}” is not JSON: ${(error as Error).message}`)
  }
  if (typeof rig !== 'object' || rig === null || Array.isArray(rig))
    return refuse(`“${file.name}” has to hold one JSON object.`)
  busy.value = true
  const answer = await api.importRig(crypto.randomUUID(), rig as RigFile)
  busy.value = false
  if (answer.state === 'ready') emit('imported', answer.value)
  else if (answer.state === 'failed') problem.value = answer.problem
}

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  void read(input.files?.[0])
  input.value = ''
}
</script>

<template>
  <div>
    <label
      :class="['drop', { over }]"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="((over = false), read($event.dataTransfer?.files[0]))"
    >
      <input type="file" accept=".json,application/json" data-testid="rig-file" @change="picked" />
      <b>{{ busy ? 'Reading …' : 'Import a rig file' }}</b>
      <span>gorvant-rig JSON; drop it here or tap</span>
    </label>
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
.drop {
  position: relative;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  min-height: 60px;
  padding: 8px 16px;
  border: 2px dashed var(--rule-strong);
  border-radius: 3px;
  cursor: pointer;
}

.drop:focus-within,
.drop.over,
.drop:hover {
  background: var(--note-soft);
}

.drop:focus-within {
  outline: 3px solid var(--focus);
  outline-offset: 2px;
}

.drop span {
  color: var(--ink-soft);
}

input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
</style>
