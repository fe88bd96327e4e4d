<script setup lang="ts">
import { onBeforeUnmount, ref, shallowRef } from 'vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import type { Problem } from '@/shared/model/outcome'
import { answers } from '@/shared/api/useQuestion'
import { practiceApi, type DrillTry } from '@/pages/practice/api'
import BenchDesk from '@/pages/practice/BenchDesk.vue'
import DebriefView from '@/pages/practice/DebriefView.vue'
import QuizDesk from '@/pages/practice/QuizDesk.vue'

/** One drill that somebody is at: its bench or its questions, then what it came to. */
const props = defineProps<{ id: string }>()
const JUDGING_MS = 700

const drillTry = shallowRef<DrillTry | null>(null)
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)
let timer = 0

function take(now: DrillTry) {
  drillTry.value = now
  clearTimeout(timer)
  if (now.state === 'judging') timer = window.setTimeout(load, JUDGING_MS)
  else if (now.state === 'done') void answers.invalidateQueries({ queryKey: ['practice'] })
}

async function load() {
  const answer = await practiceApi.read(props.id)
  if (answer.state === 'ready') take(answer.value)
  else if (answer.state === 'failed') problem.value = answer.problem
}

/** Sends one thing; what was refused is said, and nothing of it is kept. */
async function send(asking: ReturnType<typeof practiceApi.act>): Promise<boolean> {
  if (busy.value) return false
  busy.value = true
  const answer = await asking
  busy.value = false
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state === 'ready') take(answer.value)
  // Another page was first: what it did stands.
  else if (answer.state === 'failed' && answer.problem.status === 409) void load()
  return answer.state === 'ready'
}

const act = (given: Record<string, unknown>) =>
  send(practiceApi.act(props.id, drillTry.value!.version, given))
const decide = (said: Parameters<typeof practiceApi.decide>[2]) =>
  send(practiceApi.decide(props.id, drillTry.value!.version, said))
const reply = (number: number, answer: Record<string, unknown>) =>
  send(practiceApi.answer(props.id, drillTry.value!.version, number, answer))

void load()
onBeforeUnmount(() => clearTimeout(timer))
</script>

<template>
  <main class="try">
    <ProblemNote v-if="problem" :problem="problem" />
    <el-skeleton v-if="!drillTry && !problem" :rows="6" animated />
    <template v-else-if="drillTry">
      <DebriefView v-if="drillTry.state === 'done' && drillTry.result" :drill-try="drillTry" />
      <p v-else-if="drillTry.state === 'judging'" class="judging" role="status" data-testid="judging">
        {{ $t('TryPage.goingOverWhatYouDid') }}
      </p>
      <BenchDesk
        v-else-if="drillTry.drill.form === 'find'"
        :drill-try="drillTry"
        :busy="busy"
        @act="act"
        @decide="decide"
        @heard="load"
      />
      <QuizDesk v-else :drill-try="drillTry" :busy="busy" :reply="reply" />
    </template>
    <RouterLink v-if="problem && !drillTry" class="key" to="/practice">{{
      $t('TryPage.backToPractice')
    }}</RouterLink>
  </main>
</template>

<style scoped>
.try {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 8px 16px 32px;
}

.judging {
  padding: 24px 14px;
  background: var(--note-soft);
  font-size: 20px;
}

@media (max-width: 640px) {
  .try {
    padding: 8px 10px 24px;
  }
}
</style>
