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
const COMMANDS = { backup: 'bin/backup FILE', restore: 'bin/restore FILE' }
</script>

<template>
  <div class="archive">
    <section>
      <h2>{{ $t('ArchivePart.takeInAnArchive') }}</h2>
      <p class="settings-note">
        {{ $t('ArchivePart.aVisitOrAUnit') }}
      </p>
      <PickFile
        v-if="mayChange"
        accept=".zip,application/zip"
        :label="$t('ArchivePart.chooseTheFile')"
        :busy="sent !== null"
        data-testid="archive-file"
        @picked="take"
      />
      <TaskProgress v-if="sent !== null" :label="$t('ArchivePart.fileSent')" :done="sent" :total="100" />
      <ProblemNote v-if="problem" :problem="problem" />
      <ul v-if="taken" data-testid="taken-in">
        <li v-for="one in taken" :key="one.id">
          <RouterLink :to="`/visits/${one.id}/intake`">{{ one.title }}</RouterLink>
          {{ one.came === 'there' ? $t('ArchivePart.wasHereAlreadyJustThe') : $t('ArchivePart.takenIn') }}
        </li>
      </ul>
    </section>
    <section>
      <h2>{{ $t('ArchivePart.allThatThisServerKeeps') }}</h2>
      <i18n-t keypath="ArchivePart.wholeServer" tag="p" class="settings-note" scope="global">
        <template v-for="(command, name) in COMMANDS" #[name] :key="name"
          ><code>{{ command }}</code></template
        >
      </i18n-t>
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
