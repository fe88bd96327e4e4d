<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import PhotoStrip from '@/shared/ui/PhotoStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SinceGood from '@/shared/ui/SinceGood.vue'
import QuantityField from '@/shared/ui/kit/QuantityField.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import { toggled } from '@/shared/ui/kit/factField'
import SymptomLeads from '@/shared/ui/SymptomLeads.vue'
import VisitHead from '@/shared/ui/VisitHead.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { useSession } from '@/shared/ui/useSession'
import { useVisit } from '@/shared/ui/useVisit'
import { SIGNS } from '@/shared/model/visitPages'
import { day, degrees } from '@/shared/model/units'

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
const DEGREES = [
  { key: 'outdoor_degrees_f', title: t('IntakePage.outside') },
  { key: 'set_point_degrees_f', title: t('IntakePage.setPoint') },
  { key: 'room_degrees_f', title: t('IntakePage.room') },
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

const tick = (item: string) => visit.value && change({ safety: toggled(visit.value.safety, item) })
const pick = (symptom: string) => visit.value && change({ symptoms: toggled(visit.value.symptoms, symptom) })
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
          <span v-for="about in DEGREES" :key="about.key" class="ask"
            >{{ about.title }}
            <QuantityField
              :model-value="visit[about.key]"
              :name="about.title"
              unit="°F"
              v-bind="catalogue.degrees[about.key]"
              optional
              :data-testid="about.key"
              @update:model-value="(value) => change({ [about.key]: value })"
          /></span>
        </div>
      </section>

      <section class="house" :aria-label="$t('IntakePage.whatItDoesByWhere')">
        <div v-for="place in PLACES" :key="place.id" :class="['place', place.id]">
          <h2>{{ place.title }}</h2>
          <el-button
            v-for="symptom in symptomsAt(place.id)"
            :key="symptom.id"
            class="key symptom"
            :aria-pressed="visit.symptoms.includes(symptom.id)"
            :data-testid="`symptom-${symptom.id}`"
            @click="pick(symptom.id)"
          >
            {{ symptom.title }}
          </el-button>
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
  padding: 4px 12px;
  border-width: 1px;
  font-weight: 450;
}

.symptom[aria-pressed='true'] {
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
