<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { RouterLink } from 'vue-router'
import { api, type TakenIn } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import PickFile from '@/shared/ui/kit/PickFile.vue'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import { useSession } from '@/shared/ui/useSession'
import type { Problem } from '@/shared/model/outcome'

/** An archive taken in, part by part: all of it or nothing. */
const PART_BYTES = 4 * 1024 * 1024
const { mayChange } = useSession()
const problem = shallowRef<Problem | null>(null)
const taken = shallowRef<TakenIn[] | null>(null)
const sent = ref<number | null>(null)

async function take(file: File) {
  problem.value = null
  taken.value = null
  const id = crypto.randomUUID()
  const parts = Math.max(1, Math.ceil(file.size / PART_BYTES))
  for (let number = 1; number <= parts; number++) {
    sent.value = Math.round(((number - 1) / parts) * 100)
    const part = file.slice((number - 1) * PART_BYTES, number * PART_BYTES)
    const answer = await api.sendArchivePart(id, number, part)
    if (answer.state === 'failed') {
      problem.value = answer.problem
      return (sent.value = null)
    }
  }
  sent.value = 100
  const answer = await api.importArchive(id, parts)
  sent.value = null
  if (answer.state === 'failed') problem.value = answer.problem
  if (answer.state === 'ready') taken.value = answer.value.visits
}
</script>

<template>
  <div class="archive">
    <section>
      <h2>Take in an archive</h2>
      <p class="settings-note">
        A visit or a unit that was written to a file here or on another server (its key stands on the unit’s
        page and on a closed visit). What is here already is left as it is.
      </p>
      <PickFile
        v-if="mayChange"
        accept=".zip,application/zip"
        label="Choose the file"
        :busy="sent !== null"
        data-testid="archive-file"
        @picked="take"
      />
      <TaskProgress v-if="sent !== null" label="File sent" :done="sent" :total="100" />
      <ProblemNote v-if="problem" :problem="problem" />
      <ul v-if="taken" data-testid="taken-in">
        <li v-for="one in taken" :key="one.id">
          <RouterLink :to="`/visits/${one.id}/intake`">{{ one.title }}</RouterLink>
          {{ one.came === 'there' ? 'was here already, just the same' : 'taken in' }}
        </li>
      </ul>
    </section>
    <section>
      <h2>All that this server keeps</h2>
      <p class="settings-note">
        On the machine that it runs on: <code>bin/backup FILE</code> writes everything to a file while it
        serves, <code>bin/restore FILE</code> puts it back.
      </p>
    </section>
  </div>
</template>

<style scoped>
.archive,
section {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  justify-items: start;
}

ul {
  margin: 0;
  padding-left: 20px;
}
</style>
