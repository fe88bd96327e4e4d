<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import KeptInput from '@/shared/ui/KeptInput.vue'
import PhotoStrip from '@/shared/ui/PhotoStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SinceGood from '@/shared/ui/SinceGood.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import SymptomLeads from '@/shared/ui/SymptomLeads.vue'
import VisitHead from '@/shared/ui/VisitHead.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { useSession } from '@/shared/ui/useSession'
import { useVisit } from '@/shared/ui/useVisit'
import { SIGNS } from '@/shared/model/visitPages'
import { day, degreeSign, degrees, inUnit, readDegrees, shownDegrees } from '@/shared/model/units'

const { t } = useI18n()
const props = defineProps<{ id: string }>()
const catalogue = useCatalogue()
const { visit, problem, saved, load, change } = useVisit()
const complaint = ref('')
const { value: history } = useQuestion('history', () => props.id, api.history, { follows: false })
const earlier = computed(() => (history.value?.visits ?? []).filter((one) => one.id !== props.id))
const { value: rig } = useQuestion('visit_rig', () => props.id, api.rigOfVisit, { follows: false })
const backup = computed(
  () =>
    (rig.value?.content as { facts?: Record<string, { value: string }> })?.facts?.backup?.value ?? 'strips',
)
const wrong = ref('')
const { mayChange } = useSession()
const router = useRouter()

async function throwAway() {
  const answer = await api.throwAway('visits', props.id)
  if (answer.state === 'ready') void router.push('/')
  else if (answer.state === 'failed') problem.value = answer.problem
}

const PLACES = [
  { id: 'wall', title: t('IntakePage.atTheWall') },
  { id: 'air_handler', title: t('IntakePage.atTheAirHandler') },
  { id: 'outdoor', title: t('IntakePage.outdoors') },
]
const NUMBERS = [
  { key: 'outdoor_degrees_f', title: t('IntakePage.outside'), low: -80, high: 150 },
  { key: 'set_point_degrees_f', title: t('IntakePage.setPoint'), low: 35, high: 99 },
  { key: 'room_degrees_f', title: t('IntakePage.room'), low: -20, high: 130 },
] as const

watch(
  () => props.id,
  async (id) => {
    if (visit.value?.id !== id) await load(id)
    if (!visit.value) return
    complaint.value = visit.value.complaint
  },
  { immediate: true },
)

const safety = computed(() =>
  (catalogue.value?.safety ?? []).filter((one) => {
    const needs = (one.needs as { backup?: string }).backup
    return !needs || needs === backup.value
  }),
)
const done = (item: string) => visit.value?.safety.includes(item) ?? false
const left = computed(() => safety.value.filter((one) => !done(one.id)).length)
const leads = computed(() =>
  (catalogue.value?.symptoms ?? []).filter((one) => visit.value?.symptoms.includes(one.id)),
)
const symptomsAt = (place: string) => (catalogue.value?.symptoms ?? []).filter((one) => one.at === place)

function toggle(list: string[], entry: string) {
  return list.includes(entry) ? list.filter((one) => one !== entry) : [...list, entry]
}
const tick = (item: string) => visit.value && change({ safety: toggle(visit.value.safety, item) })
const pick = (symptom: string) => visit.value && change({ symptoms: toggle(visit.value.symptoms, symptom) })

function number(about: (typeof NUMBERS)[number], text: string) {
  const value = readDegrees(text)
  const good = value === null || (value !== undefined && value >= about.low && value <= about.high)
  wrong.value = good
    ? ''
    : t('IntakePage.aNumberFrom', {
        what: about.title,
        low: inUnit(about.low),
        high: inUnit(about.high),
        unit: degreeSign(),
      })
  if (good) void change({ [about.key]: value })
}
</script>

<template>
  <main class="intake">
    <VisitHead page="intake" :visit="visit" :kept="saved && !problem" />
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="visit" :class="['standing', visit.marks.intake]" data-testid="intake-standing">
      {{ SIGNS[visit.marks.intake] }} {{ visit.standing?.intake }}
    </p>
    <template v-if="visit && catalogue">
      <section class="safety" :aria-label="$t('IntakePage.safetyFirst')">
        <h2>
          {{ $t('IntakePage.safetyFirst') }}
          <small v-if="left">{{ $t('IntakePage.toSeeTo', { left }) }}</small>
        </h2>
        <el-checkbox
          v-for="item in safety"
          :key="item.id"
          :model-value="done(item.id)"
          :data-testid="`safety-${item.id}`"
          @change="tick(item.id)"
          >{{ item.says }}</el-checkbox
        >
      </section>

      <section :aria-label="$t('IntakePage.complaint')">
        <h2>{{ $t('IntakePage.whatTheCustomerSays') }}</h2>
        <el-input
          v-model="complaint"
          type="textarea"
          :autosize="{ minRows: 2, maxRows: 8 }"
          maxlength="4000"
          :aria-label="$t('IntakePage.complaintInTheCustomersWords')"
          :placeholder="$t('IntakePage.inTheirWords')"
          data-testid="complaint"
          @change="change({ complaint })"
        />
        <div class="asks numbers">
          <label v-for="about in NUMBERS" :key="about.key"
            >{{ about.title }}
            <KeptInput
              class="mono"
              inputmode="decimal"
              maxlength="6"
              :value="shownDegrees(visit[about.key])"
              :data-testid="about.key"
              @keep="(text) => number(about, text)"
            />
            {{ degreeSign() }}</label
          >
        </div>
        <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
      </section>

      <section class="house" :aria-label="$t('IntakePage.whatItDoesByWhere')">
        <div v-for="place in PLACES" :key="place.id" :class="['place', place.id]">
          <h2>{{ place.title }}</h2>
          <button
            v-for="symptom in symptomsAt(place.id)"
            :key="symptom.id"
            class="symptom"
            :aria-pressed="visit.symptoms.includes(symptom.id)"
            :data-testid="`symptom-${symptom.id}`"
            @click="pick(symptom.id)"
          >
            {{ symptom.title }}
          </button>
        </div>
      </section>

      <section v-if="leads.length" :aria-label="$t('IntakePage.whereToLookFirst')">
        <h2>{{ $t('IntakePage.whereToLookFirst') }}</h2>
        <SymptomLeads :visit="visit" :symptoms="leads" />
      </section>

      <section :aria-label="$t('IntakePage.photosOfTheVisit')">
        <h2>{{ $t('IntakePage.photos') }}</h2>
        <PhotoStrip :visit="id" />
      </section>

      <SinceGood :visit="id" />

      <section :aria-label="$t('IntakePage.earlierVisits')">
        <h2>{{ $t('IntakePage.earlierVisitsToThisUnit') }}</h2>
        <p v-if="!earlier.length" class="quiet">{{ $t('IntakePage.noneOnRecord') }}</p>
        <RouterLink v-for="one in earlier" :key="one.id" class="earlier" :to="`/visits/${one.id}/intake`">
          <b>{{ day(one.visit_on, true) }}</b>
          <span>{{ one.complaint || $t('IntakePage.noComplaintTakenDown') }}</span>
          <span class="mono">{{ degrees(one.outdoor_degrees_f) }}</span>
        </RouterLink>
      </section>
      <p v-if="mayChange" class="away">
        <SureButton
          :asks="$t('IntakePage.putThisVisitInThe')"
          :yes="$t('IntakePage.intoTheBin')"
          testid="throw-away"
          @sure="throwAway"
          >{{ $t('IntakePage.throwThisVisitAway') }}</SureButton
        >
      </p>
    </template>
    <p v-else-if="!problem" class="quiet">{{ $t('IntakePage.fetchingTheVisit') }}</p>
  </main>
</template>

<style scoped>
.intake {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  max-width: 1180px;
  margin: 0 auto;
  padding: 8px 16px 40px;
}

.standing {
  padding: 6px 12px;
  border-left: 6px solid var(--rule-strong);
}

.standing.so_far {
  border-left: 6px dashed var(--between);
}

.standing.agrees {
  border-left-color: var(--agrees);
}

h2 {
  padding-bottom: 6px;
  font-size: 16px;
}

h2 small {
  color: var(--between);
}

.safety {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(340px, 1fr));
  gap: 0 18px;
  padding: 10px 14px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
}

.safety h2 {
  grid-column: 1 / -1;
}

.numbers {
  padding-top: 8px;
}

.wrong {
  color: var(--alarm);
  font-weight: 650;
}

/* A house in section: the wall and the air handler under one roof, the outdoor unit beside it. */
.house {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
}

.place {
  display: flex;
  flex-wrap: wrap;
  align-content: flex-start;
  gap: 6px;
  padding: 10px 12px 14px;
  border: 2px solid var(--ink);
}

.place h2 {
  flex-basis: 100%;
}

.wall {
  border-top-width: 8px;
  background: var(--band-wall);
}

.air_handler {
  border-left: 0;
  border-top-width: 8px;
  background: var(--band-air-handler);
}

.outdoor {
  margin: 34px 0 0 18px;
  border-style: dashed;
  border-bottom: 6px solid var(--ink);
  background: var(--band-outdoor);
}

.symptom {
  min-height: var(--target);
  padding: 4px 12px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
  cursor: pointer;
}

.symptom[aria-pressed='true'] {
  background: var(--ink);
  color: var(--panel);
  font-weight: 700;
}

.earlier {
  display: grid;
  grid-template-columns: 170px 1fr auto;
  gap: 12px;
  align-items: center;
  min-height: var(--target);
  border-top: 1px solid var(--rule);
  text-decoration: none;
}

.quiet {
  color: var(--ink-soft);
}

@media (max-width: 760px) {
  .house {
    grid-template-columns: 1fr;
  }

  .air_handler {
    border-left: 2px solid var(--ink);
    border-top: 0;
  }

  .outdoor {
    margin: 10px 0 0;
  }

  .safety {
    grid-template-columns: 1fr;
  }

  .earlier {
    grid-template-columns: 1fr auto;
  }
}
</style>
