<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { clashes, heldBy } from '@/shared/kept/item'
import {
  away,
  giveUp,
  keepMine,
  KEPT_DAYS,
  keptVisits,
  leaveBehind,
  lookAgain,
  outbox,
  sending,
} from '@/shared/kept/pocket'
import { dropEngine, engineHere, engineState, engineTook, lookForEngine } from '@/shared/kept/engine'
import { takeAlong } from '@/shared/kept/takeAlong'
import type { KeptVisit } from '@/shared/kept/store'
import { buildNow } from '@/shared/api/patient'
import { megabytes, olderSays, storedFor } from '@/shared/kept/room'
import { ago, clockTime } from '@/shared/model/when'
import { useVisit } from '@/shared/ui/useVisit'
import { api, type Visit } from '@/shared/api/client'
import SideSheet from '@/shared/ui/kit/SideSheet.vue'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'

const { t } = useI18n()
/** What is on this device: what waits to be sent, and the visits that were taken along. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ visit: string | null; canKeep: boolean }>()
const { visit: inHand } = useVisit()

const lines = computed(() =>
  outbox.value.map((item) => ({ item, behind: heldBy(outbox.value, item), title: titleOf(item.visit) })),
)
const titleOf = (id: string) =>
  keptVisits.value.find((one) => one.id === id)?.title ?? t('PocketSheet.aVisit')
const mine = computed(() => keptVisits.value.find((one) => one.id === props.visit) ?? null)

const going = shallowRef<{ title: string; done: number; of: number } | null>(null)
const wrong = ref('')
let stop = new AbortController()
const stored = ref<boolean | null>(null)
onMounted(async () => {
  stored.value = await storedFor(false)
  await lookForEngine()
})
/** How the engine stands, in a sentence. */
const engineSays = computed(() => {
  if (engineState.value === 'broke') return t('PocketSheet.engineBroke')
  if (!engineHere.value) return t('PocketSheet.engineNotHere')
  const size = megabytes(engineHere.value.bytes)
  if (engineState.value === 'starting') return t('PocketSheet.engineComing', { size })
  const took = engineTook.value
  if (!took) return t('PocketSheet.engineHere', { size })
  return t('PocketSheet.engineUp', {
    size,
    seconds: (took.startMs / 1000).toFixed(1),
    memory: megabytes(took.memoryBytes),
  })
})
onBeforeUnmount(() => stop.abort())

async function take(rows: Visit[]) {
  stop = new AbortController()
  wrong.value = ''
  stored.value = await storedFor(true)
  try {
    for (const one of rows) {
      const title = `${one.site}, ${one.unit}`
      going.value = { title, done: 0, of: 1 }
      await takeAlong(one, buildNow(), (done, of) => (going.value = { title, done, of }), stop.signal)
      if (stop.signal.aborted) break
    }
  } catch (problem) {
    wrong.value =
      problem instanceof DOMException && problem.name === 'QuotaExceededError'
        ? t('PocketSheet.noRoom')
        : t('PocketSheet.notWhole')
  } finally {
    going.value = null
  }
}

async function takeDay() {
  const answer = await api.visits()
  if (answer.state !== 'ready') return
  const today = answer.value.visits[0]?.visit_on
  await take(answer.value.visits.filter((one) => one.visit_on === today && one.closed_number === null))
}

const older = (one: KeptVisit) => olderSays(one, engineHere.value?.engine ?? '', buildNow())

const percent = computed(() => (going.value ? Math.round((100 * going.value.done) / going.value.of) : 0))
</script>

<template>
  <SideSheet v-model="open" :title="$t('PocketSheet.onThisDevice')" data-testid="pocket-sheet">
    <p v-if="!canKeep" class="why" data-testid="pocket-why-not">
      {{ $t('PocketSheet.nothingCanBeTakenAlong') }}
    </p>
    <template v-else>
      <p v-if="away" class="state" role="status">
        {{ $t('PocketSheet.noSignalWhatWasTaken') }}
        <el-button class="key quiet" @click="lookAgain">{{ $t('PocketSheet.tryNow') }}</el-button>
      </p>

      <section aria-labelledby="pocket-waits">
        <h2 id="pocket-waits">
          {{ $t('PocketSheet.notSentYet') }}<template v-if="lines.length"> · {{ lines.length }}</template>
        </h2>
        <p v-if="!lines.length" class="quiet" data-testid="nothing-waits">
          {{ $t('PocketSheet.nothingWaitsAllThatWas') }}
        </p>
        <p v-else-if="sending" class="quiet" role="status">{{ $t('PocketSheet.sending') }}</p>
        <ol v-if="lines.length" data-testid="outbox">
          <li v-for="{ item, behind, title } in lines" :key="item.seq" :class="item.state">
            <p class="says">
              <span aria-hidden="true">{{ item.state === 'waits' ? '·' : '≠' }}</span> {{ item.says }}
            </p>
            <p class="quiet">{{ title }} · {{ clockTime(new Date(item.at).toISOString()) }}</p>
            <p v-if="behind" class="quiet">{{ $t('PocketSheet.waitsFor', { says: behind.says }) }}</p>
            <template v-if="item.state !== 'waits'">
              <p class="because" role="alert">
                {{
                  item.state === 'asks' ? $t('PocketSheet.somebodyElseChangedTheSame') : item.problem?.detail
                }}
              </p>
              <p
                v-for="one in item.state === 'asks' ? clashes(item) : []"
                :key="one.field"
                data-testid="clash"
              >
                {{ $t('PocketSheet.mineTheirs', { field: one.field, mine: one.mine, theirs: one.theirs }) }}
              </p>
              <p v-for="one in item.problem?.errors ?? []" :key="one.field" class="because">
                {{ one.field }}: {{ one.problem }}
              </p>
              <el-button class="key" data-testid="outbox-mine" @click="keepMine(item)">{{
                item.state === 'asks' ? $t('PocketSheet.mineStands') : $t('PocketSheet.sendItAgain')
              }}</el-button>
              <SureButton
                :asks="
                  item.state === 'asks'
                    ? $t('PocketSheet.giveUpWhatYouDid')
                    : $t('PocketSheet.deleteItItWasNever')
                "
                :yes="$t('PocketSheet.giveItUp')"
                testid="outbox-theirs"
                @sure="giveUp(item)"
                >{{
                  item.state === 'asks' ? $t('PocketSheet.theirsStands') : $t('PocketSheet.giveItUp')
                }}</SureButton
              >
            </template>
          </li>
        </ol>
      </section>

      <section aria-labelledby="pocket-along">
        <h2 id="pocket-along">{{ $t('PocketSheet.takenAlong') }}</h2>
        <div v-if="going" class="going" role="status">
          <p>{{ $t('PocketSheet.of', { title: going.title, done: going.done, of: going.of }) }}</p>
          <TaskProgress
            :label="$t('PocketSheet.takingAlong')"
            :done="percent"
            :total="100"
            :show-text="false"
            :stroke-width="12"
          />
          <el-button class="key quiet" @click="stop.abort()">{{ $t('PocketSheet.stop') }}</el-button>
        </div>
        <p v-else class="acts">
          <el-button
            v-if="inHand && visit"
            class="key"
            :type="mine ? undefined : 'primary'"
            :disabled="away"
            data-testid="take-along"
            @click="take([inHand])"
            >{{
              mine ? $t('PocketSheet.takeThisVisitAlongAnew') : $t('PocketSheet.takeThisVisitAlong')
            }}</el-button
          >
          <el-button class="key quiet" :disabled="away" data-testid="take-day" @click="takeDay">{{
            $t('PocketSheet.theDaysOpenVisits')
          }}</el-button>
        </p>
        <p v-if="wrong" class="because" role="alert">{{ wrong }}</p>
        <ul v-if="keptVisits.length" data-testid="along">
          <li v-for="one in keptVisits" :key="one.id">
            <RouterLink :to="`/visits/${one.id}/trace`" @click="open = false">{{ one.title }}</RouterLink>
            <p class="quiet">
              {{ megabytes(one.bytes) }} · {{ ago(new Date(one.at).toISOString())
              }}<template v-if="one.answered < one.asked">
                {{ $t('PocketSheet.ofItsAnswersAreNot', { answered: one.asked - one.answered }) }}</template
              >
            </p>
            <p v-if="older(one)" class="older" data-testid="older">
              {{ $t('PocketSheet.takeItAlongAnew', { older: older(one) }) }}
            </p>
            <SureButton
              :asks="$t('PocketSheet.takeItOffThisDevice')"
              :yes="$t('PocketSheet.leaveItBehind')"
              @sure="leaveBehind(one.id)"
              >{{ $t('PocketSheet.leaveBehind') }}</SureButton
            >
          </li>
        </ul>
        <p v-else class="quiet">{{ $t('PocketSheet.noVisitYetWithOne') }}</p>
      </section>

      <section aria-labelledby="pocket-engine">
        <h2 id="pocket-engine">{{ $t('PocketSheet.theEngine') }}</h2>
        <p data-testid="engine">{{ engineSays }}</p>
        <p class="quiet">
          {{ $t('PocketSheet.withItTracesTapeWiring') }}
        </p>
        <SureButton
          v-if="engineHere"
          :asks="$t('PocketSheet.takeTheEngineOffThis')"
          :yes="$t('PocketSheet.takeItOff')"
          @sure="dropEngine"
          >{{ $t('PocketSheet.takeItOff') }}</SureButton
        >
      </section>

      <p class="quiet small">
        {{ $t('PocketSheet.keptForYouAloneDays', { KEPT_DAYS }) }}
        <template v-if="stored === false"> {{ $t('PocketSheet.thisBrowserMayClearIt') }}</template>
      </p>
    </template>
  </SideSheet>
</template>

<style scoped>
section {
  padding-bottom: 20px;
}

h2 {
  padding-bottom: 6px;
  font-size: 17px;
}

ol,
ul {
  display: grid;
  gap: 10px;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 6px 0 6px 10px;
  border-left: 6px solid var(--rule-strong);
}

li.waits {
  border-left-style: dotted;
}

li.asks,
li.refused {
  border-left-color: var(--alarm);
}

.says {
  font-weight: 650;
  overflow-wrap: anywhere;
}

.state,
.why {
  margin-bottom: 16px;
  padding: 8px 12px;
  border: 3px dashed var(--between);
  background: var(--note-soft);
}

.because {
  color: var(--alarm);
  overflow-wrap: anywhere;
}

.older {
  color: var(--between);
}

.quiet {
  color: var(--ink-soft);
}

.small {
  font-size: 14px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-bottom: 10px;
}

.going {
  display: grid;
  gap: 6px;
  padding-bottom: 10px;
}
</style>
