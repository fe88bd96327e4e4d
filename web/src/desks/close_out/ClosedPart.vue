<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import { api, type CloseOut, type KnownGood } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { SIGNS } from '@/shared/model/visitPages'
import { moment } from '@/shared/model/when'

const { t } = useI18n()
/** A visit's closings: the one that holds, those before it, and what came in afterwards. */
const props = defineProps<{
  visit: string
  answer: CloseOut
  mayOpen: boolean
  busy: boolean
  naturalNotSeen: boolean
}>()
const emit = defineEmits<{ reopen: [number: number, why: string] }>()

const holds = computed(() => props.answer.closings.find((one) => !one.reopened_at) ?? null)
const before = computed(() => props.answer.closings.filter((one) => one.reopened_at))
const AS: Record<string, string> = {
  untouched: t('ClosedPart.waitsToBeSent'),
  agrees: t('ClosedPart.allPutBackEvery'),
  so_far: t('ClosedPart.withSomethingLeftNot'),
  disagrees: t('ClosedPart.withTheFaultStill'),
}
/** What it leaves open, of the visit as it was closed. */
const open = computed(() => [
  ...props.answer.calls
    .filter((one) => one.said?.how === 'not_run')
    .map((one) => t('ClosedPart.notRun', { call: one.title, why: one.said?.note ?? '' })),
  ...props.answer.put_back
    .filter((one) => one.state === 'left')
    .map((one) => t('ClosedPart.stays', { what: one.says, why: one.left })),
  ...(props.naturalNotSeen ? [t('ClosedPart.stillToBeSeen')] : []),
])
/** Whether this visit's readings are those that later ones are held against. */
const { value: known, again: askKnown } = useQuestion<string, KnownGood>(
  'known_good',
  () => props.visit,
  api.knownGood,
  { follows: false },
)
const good = computed(() => known.value?.visit_id === props.visit)
const refused = ref('')
async function keepGood() {
  const answer = await api.keepKnownGood(props.visit)
  refused.value = answer.state === 'failed' ? answer.problem.detail : ''
  await askKnown()
}
const why = ref('')
const asking = ref(false)
</script>

<template>
  <section class="closed" :aria-label="$t('ClosedPart.closings')">
    <div v-if="holds" :class="['holds', holds.mark]" data-testid="closed">
      <p class="big">{{ $t('ClosedPart.closedNo', { mark: SIGNS[holds.mark], number: holds.number }) }}</p>
      <p>{{ holds.by }}, {{ moment(holds.at) }} · {{ AS[holds.mark] }}</p>
      <ul v-if="open.length" class="open" data-testid="left-open">
        <li v-for="line in open" :key="line">{{ line }}</li>
      </ul>
      <p class="keys">
        <RouterLink
          class="key solid"
          :to="`/visits/${visit}/report/${holds.number}`"
          data-testid="to-report"
          >{{ $t('ClosedPart.report') }}</RouterLink
        >
        <a class="key" :href="`/api/visits/${visit}/archive`" download>{{ $t('ClosedPart.archive') }}</a>
        <el-button
          v-if="mayOpen && holds.mark !== 'disagrees'"
          class="key"
          :disabled="good"
          data-testid="known-good"
          @click="keepGood"
          >{{ good ? $t('ClosedPart.knownGood') : $t('ClosedPart.holdUpAsKnownGood') }}</el-button
        >
        <el-button v-if="mayOpen" class="key" data-testid="open-again" @click="asking = true">{{
          $t('ClosedPart.openAgain')
        }}</el-button>
      </p>
      <p v-if="refused" class="refused" role="alert">≠ {{ refused }}</p>
      <p class="quiet mono digest">{{ $t('ClosedPart.sha256', { digest: holds.digest }) }}</p>
    </div>
    <ul v-if="answer.addenda.length" class="addenda" data-testid="addenda">
      <li class="head">{{ $t('ClosedPart.arrivedAfterTheClosingNo') }}</li>
      <li v-for="one in answer.addenda" :key="one.id">
        <b class="mono">{{ one.reads }}</b> {{ one.where }}, {{ one.call_title }} · {{ one.by }},
        {{ moment(one.received_at) }}
      </li>
    </ul>
    <ul v-if="before.length" class="before">
      <li v-for="one in before" :key="one.id" :data-testid="`closing-${one.number}`">
        {{
          $t('ClosedPart.noOpenedAgainBy', {
            number: one.number,
            by: one.by,
            moment: moment(one.at),
            reopened_by: one.reopened_by,
          })
        }}
        <template v-if="one.reopened_why">: {{ one.reopened_why }}</template>
        <RouterLink class="key quiet" :to="`/visits/${visit}/report/${one.number}`">{{
          $t('ClosedPart.report')
        }}</RouterLink>
      </li>
    </ul>
    <el-dialog v-model="asking" :title="$t('ClosedPart.openThisVisitAgain')" width="min(440px, 94vw)">
      <label class="why"
        >{{ $t('ClosedPart.why') }} <el-input v-model="why" maxlength="400" data-testid="open-why"
      /></label>
      <p class="quiet">{{ $t('ClosedPart.theClosingStaysAsIt') }}</p>
      <template #footer>
        <el-button class="key" @click="asking = false">{{ $t('ClosedPart.leaveItClosed') }}</el-button>
        <el-button
          v-if="holds"
          class="key solid"
          :loading="busy"
          data-testid="open-sure"
          @click="((asking = false), emit('reopen', holds.number, why.trim()))"
          >{{ $t('ClosedPart.openAgain') }}</el-button
        >
      </template>
    </el-dialog>
  </section>
</template>

<style scoped>
.closed {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}

.holds {
  display: grid;
  gap: 4px;
  padding: 12px 16px;
  border-left: 8px solid var(--agrees);
  background: var(--panel);
}

.holds.so_far {
  border-left: 8px dashed var(--between);
}

.holds.disagrees {
  border-left: 8px solid var(--alarm);
}

.big {
  font-size: 24px;
  font-weight: 700;
}

.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.refused {
  color: var(--alarm);
}

.quiet {
  color: var(--ink-soft);
}

.open {
  padding: 4px 0 4px 18px;
  list-style: disc;
}

.digest {
  font-size: 14px;
  overflow-wrap: anywhere;
}

ul {
  margin: 0;
  padding: 0 0 0 14px;
  list-style: none;
}

.addenda {
  border-left: 6px dashed var(--between);
}

.head {
  font-weight: 700;
}

.why {
  display: grid;
  gap: 2px;
}
</style>
