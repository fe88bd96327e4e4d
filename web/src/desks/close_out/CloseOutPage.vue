<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import { api, type CloseOut, type CloseOutRecord } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { stepOf, type Steps } from '@/desks/close_out/closing'
import CallsPart from '@/desks/close_out/CallsPart.vue'
import ClosedPart from '@/desks/close_out/ClosedPart.vue'
import CustomerPart from '@/desks/close_out/CustomerPart.vue'
import DonePart from '@/desks/close_out/DonePart.vue'
import FoundPart from '@/desks/close_out/FoundPart.vue'
import PutBackPart from '@/desks/close_out/PutBackPart.vue'
import KeptInput from '@/shared/ui/KeptInput.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import VisitHead from '@/shared/ui/VisitHead.vue'
import { useSession } from '@/shared/ui/useSession'
import { useVisit } from '@/shared/ui/useVisit'
import type { Problem } from '@/shared/model/outcome'

const { t } = useI18n()
const props = defineProps<{ id: string }>()
const { visit, problem: keeping, saved, load, held, keepDesk, renew, settled } = useVisit()
const { mayChange } = useSession()
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)

watch(
  () => props.id,
  (id) => visit.value?.id !== id && load(id),
  { immediate: true },
)
const {
  value: answer,
  problem: unread,
  again,
} = useQuestion<unknown, CloseOut>(
  'close_out',
  () =>
    visit.value?.id === props.id
      ? [props.id, visit.value.version, visit.value.closed_number, visit.value.desks]
      : null,
  () => api.closeOut(props.id),
  { follows: false },
)
const kept = computed<CloseOutRecord>(() => held('close_out'))
const keep = (part: CloseOutRecord) => void keepDesk('close_out', part)
const closed = computed(() => visit.value?.closed_number ?? null)
const leftOff = computed(() => !!kept.value.left_off?.trim())

const STEPS: { id: Steps; title: string }[] = [
  { id: 'found', title: t('CloseOutPage.whatWasFound') },
  { id: 'done', title: t('CloseOutPage.whatWasDone') },
  { id: 'calls', title: t('CloseOutPage.everyCallOnce') },
  { id: 'put_back', title: t('CloseOutPage.putBack') },
  { id: 'customer', title: t('CloseOutPage.forTheCustomer') },
]
const missing = computed(() => answer.value?.missing ?? [])
const missingAt = (step: Steps) => missing.value.filter((one) => stepOf(one.field) === step)
const goTo = (step: Steps) => document.getElementById(`step-${step}`)?.scrollIntoView({ block: 'start' })

const toClosing = () => document.getElementById('closing')?.scrollIntoView({ block: 'center' })

/** One attempt has one id, so that an answer that got lost closes nothing twice. */
let attempt: string | null = null
async function close() {
  busy.value = true
  await settled()
  attempt ??= crypto.randomUUID()
  const after = answer.value?.closings.at(-1)?.number ?? 0
  const given = await api.closeVisit(props.id, { id: attempt, after })
  problem.value = given.state === 'failed' ? given.problem : null
  if (given.state === 'ready' || (given.state === 'failed' && given.problem.status < 500)) attempt = null
  await renew(props.id)
  await again()
  busy.value = false
}
async function reopen(number: number, why: string) {
  busy.value = true
  const given = await api.reopenVisit(props.id, number, why)
  problem.value = given.state === 'failed' ? given.problem : null
  await renew(props.id)
  await again()
  busy.value = false
}
/** Who closed it meanwhile, where two closed it at once. */
const other = computed(() => {
  const current =
    problem.value?.status === 409 ? (problem.value.current as { by?: string; number?: number }) : null
  return current?.by ? current : null
})
</script>

<template>
  <main class="close-out">
    <VisitHead page="close_out" :visit="visit" :kept="saved && !keeping && !closed" />
    <p v-if="other" class="other" role="alert" data-testid="closed-by-other">
      {{ $t('CloseOutPage.closedThisVisitMeanwhileAs', { by: other.by, number: other.number }) }}
    </p>
    <ProblemNote v-else-if="problem ?? keeping ?? unread" :problem="(problem ?? keeping ?? unread)!" />
    <p v-if="!answer && !unread && !keeping" class="quiet">
      {{ $t('CloseOutPage.lookingThroughTheVisitsRecords') }}
    </p>
    <ClosedPart
      v-if="answer && answer.closings.length"
      :visit="id"
      :answer="answer"
      :may-open="mayChange"
      :busy="busy"
      :natural-not-seen="answer.defrost && kept.natural_defrost === 'not_seen'"
      @reopen="reopen"
    />
    <div v-if="answer && visit && !closed" class="work">
      <div class="flow">
        <section v-for="(step, i) in STEPS" :id="`step-${step.id}`" :key="step.id" :aria-label="step.title">
          <h2>
            <span class="number" aria-hidden="true">{{ i + 1 }}</span> {{ step.title }}
            <small v-if="missingAt(step.id).length" :data-testid="`missing-${step.id}`">{{
              $t('CloseOutPage.missing', { missingAt: missingAt(step.id).length })
            }}</small>
            <small v-else class="fine">=</small>
          </h2>
          <FoundPart v-if="step.id === 'found'" :visit="id" :kept="kept" @keep="keep" />
          <DonePart
            v-else-if="step.id === 'done'"
            :visit="id"
            :kept="kept"
            :repeats="answer.repeats"
            :defrost="answer.defrost"
            @keep="keep"
          />
          <CallsPart
            v-else-if="step.id === 'calls'"
            :lines="answer.calls"
            :kept="kept"
            @keep="(calls) => keep({ calls })"
          />
          <PutBackPart
            v-else-if="step.id === 'put_back'"
            :lines="answer.put_back"
            :kept="kept"
            :left-off="leftOff"
            @keep="(put_back) => keep({ put_back })"
          />
          <CustomerPart v-else :visit="id" :kept="kept" :complaint="visit.complaint" @keep="keep" />
        </section>
      </div>
      <aside id="closing" class="rail" :aria-label="$t('CloseOutPage.closing')">
        <p class="count" data-testid="missing-count">
          {{
            missing.length
              ? $t('CloseOutPage.stillMissing', { missing: missing.length })
              : $t('CloseOutPage.nothingMissing')
          }}
        </p>
        <ul class="steps">
          <li v-for="step in STEPS.filter((one) => missingAt(one.id).length)" :key="step.id">
            <el-button class="key" :data-testid="`go-${step.id}`" @click="goTo(step.id)"
              >{{ step.title }} <b class="mono">{{ missingAt(step.id).length }}</b></el-button
            >
          </li>
        </ul>
        <p class="keys">
          <el-button
            v-if="mayChange"
            class="key solid"
            :loading="busy"
            data-testid="close-visit"
            @click="close"
            >{{ $t('CloseOutPage.closeTheVisit') }}</el-button
          >
          <RouterLink class="key" :to="`/visits/${id}/report`" data-testid="draft">{{
            $t('CloseOutPage.lookAtTheDraft')
          }}</RouterLink>
        </p>
        <label :class="['off', { on: leftOff }]"
          >{{ $t('CloseOutPage.unitLeftOffLockedOut') }}
          <KeptInput
            :value="kept.left_off"
            maxlength="400"
            data-testid="left-off"
            @keep="(left_off) => keep({ left_off })"
        /></label>
      </aside>
      <p class="foot">
        <b>{{
          missing.length
            ? $t('CloseOutPage.stillMissing', { missing: missing.length })
            : $t('CloseOutPage.nothingMissing')
        }}</b>
        <el-button class="key" data-testid="to-closing" @click="toClosing">{{
          $t('CloseOutPage.toTheClosing')
        }}</el-button>
      </p>
    </div>
  </main>
</template>

<style scoped>
.close-out {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  padding: 8px 16px 40px;
}

.work {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 270px;
  gap: 24px;
  align-items: start;
}

.flow,
section {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.flow {
  gap: 22px;
}

section {
  scroll-margin-top: 70px;
}

h2 {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 10px;
  border-bottom: 2px solid var(--ink);
  font-size: 19px;
}

.number {
  color: var(--ink-soft);
  font-family: var(--font-mono);
}

small {
  margin-left: auto;
  color: var(--between);
  font-size: 15px;
}

small.fine {
  color: var(--agrees);
  font-weight: 800;
}

.rail {
  position: sticky;
  top: 66px;
  display: grid;
  gap: 10px;
  padding: 12px 14px;
  border: 2px solid var(--ink);
  background: var(--panel);
}

.count {
  font-size: 20px;
  font-weight: 700;
}

.steps {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.steps .key {
  display: flex;
  justify-content: space-between;
  width: 100%;
}

.steps .key b {
  margin-left: 8px;
}

.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.off {
  display: grid;
  gap: 4px;
  color: var(--ink-soft);
  font-size: 15px;
}

.off.on {
  padding: 8px;
  border: 2px solid var(--alarm);
  color: var(--alarm);
  font-weight: 700;
}

.other {
  padding: 10px 14px;
  border-left: 6px solid var(--alarm);
  background: var(--alarm-soft);
}

.quiet {
  color: var(--ink-soft);
}

.foot {
  display: none;
}

@media (max-width: 1040px) {
  .foot {
    position: sticky;
    bottom: 0;
    z-index: 5;
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
    margin: 0 -16px;
    padding: 6px 16px;
    border-top: 2px solid var(--ink);
    background: var(--paper);
  }

  .work {
    grid-template-columns: minmax(0, 1fr);
  }

  .rail {
    position: static;
  }
}
</style>
