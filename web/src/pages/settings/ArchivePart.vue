<script setup lang="ts">
import { ref, shallowRef, triggerRef } from 'vue'
import { RouterLink } from 'vue-router'
import { api, type TakenIn } from '@/shared/api/client'
import { archivesOf, type ArchiveFile } from '@/pages/settings/archiveFiles'
import ExportSection from '@/pages/settings/ExportSection.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import PickFile from '@/shared/ui/kit/PickFile.vue'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import { useSession } from '@/shared/ui/useSession'
import type { Problem } from '@/shared/model/outcome'

/** Archives taken in, part by part and one after the other: each all of it or nothing. And all that the crew keeps,
 *  written out. */
const PART_BYTES = 4 * 1024 * 1024
const { mayChange, viewer } = useSession()
interface Came {
  name: string
  problem: Problem | null
  visits: TakenIn[]
  records: TakenIn[]
  shelf: TakenIn[]
}
const came = shallowRef<Came[]>([])
const waiting: ArchiveFile[] = []
const sent = ref<number | null>(null)
const left = ref(0)

async function take(file: File) {
  const found = await archivesOf(file)
  waiting.push(...found)
  left.value += found.length
  if (sent.value !== null) return
  came.value = []
  for (let next = waiting.shift(); next; next = waiting.shift()) {
    came.value.push(await send(next))
    triggerRef(came)
    left.value -= 1
  }
  sent.value = null
}

async function send({ name, blob }: ArchiveFile): Promise<Came> {
  const nothing = { name, problem: null, visits: [], records: [], shelf: [] }
  const id = crypto.randomUUID()
  const parts = Math.max(1, Math.ceil(blob.size / PART_BYTES))
  for (let number = 1; number <= parts; number++) {
    sent.value = Math.round(((number - 1) / parts) * 100)
    const part = blob.slice((number - 1) * PART_BYTES, number * PART_BYTES)
    const answer = await api.sendArchivePart(id, number, part)
    if (answer.state === 'failed') return { ...nothing, problem: answer.problem }
  }
  sent.value = 100
  const answer = await api.importArchive(id, parts)
  if (answer.state === 'failed') return { ...nothing, problem: answer.problem }
  return answer.state === 'ready' ? { ...nothing, ...answer.value } : nothing
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
        multiple
        :label="$t('ArchivePart.chooseTheFile')"
        :busy="sent !== null"
        data-testid="archive-file"
        @picked="take"
      />
      <TaskProgress v-if="sent !== null" :label="$t('ArchivePart.fileSent')" :done="sent" :total="100" />
      <p v-if="left > 1" class="settings-note">{{ $t('ArchivePart.filesSent', { left }) }}</p>
      <ul v-if="came.length" class="came" data-testid="taken-in">
        <li v-for="file in came" :key="file.name">
          <template v-if="file.problem">
            <b>≠ {{ file.name }}</b>
            <ProblemNote :problem="file.problem" />
          </template>
          <template v-else>
            <b>= {{ file.name }}</b>
            <ul>
              <li v-for="one in file.visits" :key="one.id">
                <RouterLink :to="`/visits/${one.id}/intake`">{{ one.title }}</RouterLink>
                {{
                  one.came === 'there' ? $t('ArchivePart.wasHereAlreadyJustThe') : $t('ArchivePart.takenIn')
                }}
              </li>
              <li v-for="one in [...file.records, ...file.shelf]" :key="one.id">
                {{ one.title }}
                {{
                  one.came === 'there' ? $t('ArchivePart.wasHereAlreadyJustThe') : $t('ArchivePart.takenIn')
                }}
              </li>
            </ul>
          </template>
        </li>
      </ul>
    </section>
    <ExportSection v-if="viewer?.owner" />
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

.came {
  padding-left: 0;
  list-style: none;
}

.came > li {
  padding: 6px 0;
  overflow-wrap: anywhere;
}
</style>
