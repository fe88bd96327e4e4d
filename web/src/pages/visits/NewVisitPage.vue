<script setup lang="ts">
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { api, type Rig, type Visit } from '@/shared/api/client'
import KitPicture from '@/pages/visits/KitPicture.vue'
import PickText from '@/shared/ui/kit/PickText.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import RigImport from '@/shared/ui/RigImport.vue'
import { useQuestion } from '@/shared/api/useQuestion'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { useDraft } from '@/shared/ui/useDraft'
import type { Problem } from '@/shared/model/outcome'
import { day, degreeSign, readDegrees, today } from '@/shared/model/units'

const { t } = useI18n()
const router = useRouter()
const catalogue = useCatalogue()
const { outcome: sites } = useQuestion('sites', true, api.sites, { follows: false })
const { outcome: rigs, again } = useQuestion('rigs', true, api.rigs, { follows: false })

const route = useRoute()
/** All that is typed here stays on this device until the visit begins. */
const store = useDraft<typeof EMPTY>('visit.new')
const EMPTY = {
  id: crypto.randomUUID() as string,
  site: '',
  unit: '',
  rig: '',
  kit: '',
  complaint: '',
  symptoms: [] as string[],
  outside: '',
  on: today(),
}
const form = reactive({ ...EMPTY, ...store.read() })
if (typeof route.query.rig === 'string') Object.assign(form, { rig: route.query.rig, kit: '' })
const asked = (key: string) => (typeof route.query[key] === 'string' ? (route.query[key] as string) : null)
if (asked('site') && asked('unit'))
  Object.assign(form, { site: asked('site'), unit: asked('unit'), rig: '', kit: '' })
watch(form, (now) => store.write({ ...now }))
const typed = computed(() => !!(form.site || form.unit || form.complaint || form.symptoms.length))
function clear() {
  store.forget()
  Object.assign(form, { ...EMPTY, id: crypto.randomUUID() })
}
const problem = shallowRef<Problem | null>(null)
const busy = ref(false)
const touched = ref(false)

const siteNames = computed(() =>
  sites.value.state === 'ready' ? sites.value.value.sites.map((site) => site.name) : [],
)
const unitNames = computed(() => {
  if (sites.value.state !== 'ready') return []
  return sites.value.value.sites.find((site) => site.name === form.site)?.units.map((unit) => unit.name) ?? []
})
const knownUnit = computed(() => {
  if (sites.value.state !== 'ready') return null
  const site = sites.value.value.sites.find((one) => one.name === form.site.trim())
  return site?.units.find((unit) => unit.name === form.unit.trim())?.id ?? null
})
/** Earlier visits to this unit: what was fitted then can be taken over. */
const { value: ofUnit } = useQuestion('unit_visits', knownUnit, api.unitVisits, {
  follows: false,
  stays: false,
})
const earlier = computed<Visit[]>(() => ofUnit.value?.visits ?? [])
const asVisit = ref('')
watch(earlier, (visits) => (asVisit.value = form.rig || form.kit ? '' : (visits[0]?.id ?? '')))
/** One of the three: a rig of the library, an earlier visit's, or a usual kit. */
watch(
  () => form.rig,
  (rig) => rig && ((asVisit.value = ''), (form.kit = '')),
)
watch(
  () => form.kit,
  (kit) => kit && ((asVisit.value = ''), (form.rig = '')),
)
watch(asVisit, (visit) => visit && ((form.rig = ''), (form.kit = '')))

const lacking = computed(() =>
  [
    !form.site.trim() && t('NewVisitPage.theSite'),
    !form.unit.trim() && t('NewVisitPage.theUnit'),
    !form.rig && !asVisit.value && !form.kit && t('NewVisitPage.whatIsFitted2'),
  ].filter((one): one is string => !!one),
)

async function imported(rig: Rig) {
  await again()
  form.rig = rig.id
}

function pick(symptom: string) {
  form.symptoms = form.symptoms.includes(symptom)
    ? form.symptoms.filter((one) => one !== symptom)
    : [...form.symptoms, symptom]
}

async function begin() {
  touched.value = true
  if (lacking.value.length || busy.value) return
  const outside = readDegrees(form.outside)
  if (outside === undefined) {
    problem.value = {
      type: 'about:blank',
      title: t('NewVisitPage.notAcceptable'),
      status: 422,
      detail: t('NewVisitPage.outsideTemperature', { unit: degreeSign() }),
    }
    return
  }
  busy.value = true
  problem.value = null
  const answer = await api.createVisit({
    id: form.id,
    site_name: form.site.trim(),
    unit_name: form.unit.trim(),
    ...(form.rig ? { rig_id: form.rig } : form.kit ? { kit: form.kit } : { as_visit_id: asVisit.value }),
    visit_on: form.on,
    complaint: form.complaint,
    symptoms: form.symptoms,
    outdoor_degrees_f: outside,
  })
  busy.value = false
  if (answer.state === 'ready') store.forget()
  if (answer.state === 'ready') await router.push(`/visits/${answer.value.id}/intake`)
  else if (answer.state === 'failed') problem.value = answer.problem
}
</script>

<template>
  <main class="begin">
    <h1>{{ $t('NewVisitPage.beginAVisit') }}</h1>
    <p v-if="typed" class="kept">
      {{ $t('NewVisitPage.whatYouTypeStaysOn') }}
      <el-button class="key quiet" data-testid="clear" @click="clear">{{
        $t('NewVisitPage.beginAnew')
      }}</el-button>
    </p>
    <form @submit.prevent="begin">
      <section>
        <h2>{{ $t('NewVisitPage.where') }}</h2>
        <div class="two">
          <label
            >{{ $t('NewVisitPage.site')
            }}<PickText
              v-model="form.site"
              :known="siteNames"
              maxlength="200"
              :placeholder="$t('NewVisitPage.boathouseLibrary')"
              data-testid="site"
          /></label>
          <label
            >{{ $t('NewVisitPage.unit')
            }}<PickText
              v-model="form.unit"
              :known="unitNames"
              maxlength="200"
              :placeholder="$t('NewVisitPage.northUnit')"
              data-testid="unit"
          /></label>
          <label
            >{{ $t('NewVisitPage.day')
            }}<el-date-picker
              v-model="form.on"
              type="date"
              value-format="YYYY-MM-DD"
              format="ddd, MMM D, YYYY"
              :clearable="false"
              :aria-label="$t('NewVisitPage.day')"
          /></label>
          <label
            >{{ $t('NewVisitPage.outside', { degreeSign: degreeSign() })
            }}<el-input
              v-model="form.outside"
              class="mono"
              inputmode="decimal"
              maxlength="8"
              :placeholder="$t('NewVisitPage.degreesExample')"
          /></label>
        </div>
      </section>
      <div v-if="!catalogue" class="until-there" />
      <template v-else>
        <section>
          <h2>{{ $t('NewVisitPage.whatIsFitted') }}</h2>
          <div
            v-if="earlier.length"
            class="rigs"
            role="radiogroup"
            :aria-label="$t('NewVisitPage.asAtAnEarlierVisit')"
          >
            <el-radio
              v-for="visit in earlier.slice(0, 3)"
              :key="visit.id"
              v-model="asVisit"
              :value="visit.id"
              :class="['rig', { chosen: asVisit === visit.id }]"
              data-testid="as-earlier"
            >
              <b>{{ $t('NewVisitPage.asAtTheVisitOf', { day: day(visit.visit_on, true) }) }}</b>
              <span>{{
                $t('NewVisitPage.revisionLandingsAndSettingsAs', {
                  rig_name: visit.rig_name,
                  rig_revision: visit.rig_revision,
                })
              }}</span>
            </el-radio>
          </div>
          <div class="kits" role="radiogroup" :aria-label="$t('NewVisitPage.aUsualKit')">
            <el-radio
              v-for="kit in catalogue.kits"
              :key="kit.id"
              v-model="form.kit"
              :value="kit.id"
              :class="['kit', { chosen: form.kit === kit.id }]"
              :data-testid="`kit-${kit.id}`"
            >
              <KitPicture :kind="kit.picture" />
              <b>{{ kit.title }}</b>
              <small>{{ kit.says }}</small>
            </el-radio>
          </div>
          <p class="compose">
            {{ $t('NewVisitPage.aUsualKitIsAll') }}
          </p>
          <details :open="!!form.rig" data-testid="library">
            <summary>{{ $t('NewVisitPage.fromTheLibraryOfRigs') }}</summary>
            <div
              v-if="rigs.state === 'ready'"
              class="rigs"
              role="radiogroup"
              :aria-label="$t('NewVisitPage.rig')"
            >
              <el-radio
                v-for="rig in rigs.value.rigs"
                :key="rig.id"
                v-model="form.rig"
                :value="rig.id"
                :class="['rig', { chosen: form.rig === rig.id }]"
              >
                <b>{{ rig.name }}</b>
                <span>{{
                  $t('NewVisitPage.type', {
                    archetype_title: rig.archetype_title,
                    changeover: rig.changeover,
                  })
                }}</span>
              </el-radio>
            </div>
          </details>
          <ProblemNote v-if="rigs.state === 'failed'" :problem="rigs.problem" />
          <p class="compose">
            {{ $t('NewVisitPage.notInTheLibrary') }}
            <RouterLink class="key" to="/rigs/new?for=visit">{{ $t('NewVisitPage.composeIt') }}</RouterLink>
            {{ $t('NewVisitPage.byArchetypeAndOptionsOr') }}
          </p>
          <RigImport @imported="imported" />
        </section>
        <section>
          <h2>{{ $t('NewVisitPage.whatTheCustomerSays') }}</h2>
          <el-input
            v-model="form.complaint"
            type="textarea"
            :autosize="{ minRows: 2, maxRows: 8 }"
            maxlength="4000"
            :aria-label="$t('NewVisitPage.complaintInTheCustomersWords')"
            :placeholder="$t('NewVisitPage.inTheirWords')"
            data-testid="complaint"
          />
          <div class="symptoms">
            <el-button
              v-for="symptom in catalogue.symptoms"
              :key="symptom.id"
              class="key"
              :aria-pressed="form.symptoms.includes(symptom.id)"
              @click="pick(symptom.id)"
            >
              {{ symptom.title }}
            </el-button>
          </div>
        </section>
        <ProblemNote v-if="problem" :problem="problem" />
        <p v-if="touched && lacking.length" class="lacking" role="alert">
          {{ $t('NewVisitPage.stillMissing', { lacking: lacking.join(', ') }) }}
        </p>
        <el-button class="key solid go" native-type="submit" :disabled="busy" data-testid="begin">
          {{ busy ? $t('NewVisitPage.beginning') : $t('NewVisitPage.begin') }}
        </el-button>
      </template>
    </form>
  </main>
</template>

<style scoped>
.begin {
  max-width: 900px;
  margin: 0 auto;
  padding: 16px 16px 40px;
}

h1 {
  font-size: 26px;
}

h2 {
  padding: 14px 0 8px;
  font-size: 18px;
}

section {
  border-top: 3px solid var(--ink);
  margin-top: 14px;
}

.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 12px;
}

.two label {
  color: var(--ink-soft);
}

.two :deep(.el-date-editor.el-input) {
  width: 100%;
}

.rigs {
  display: grid;
  margin-bottom: 10px;
}

.rig {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  min-height: 52px;
  padding: 4px 10px;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
}

.rig:hover,
.rig.chosen {
  background: var(--note-soft);
}

.rig :deep(.el-radio__label) {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
}

.rig span {
  color: var(--ink-soft);
}

.kits {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 8px;
  padding-bottom: 10px;
}

.kit {
  align-items: start;
  padding: 8px 10px;
  border: 1px solid var(--rule-strong);
  background: var(--panel);
}

.kit :deep(.el-radio__input) {
  position: absolute;
  opacity: 0;
}

.kit :deep(.el-radio__label) {
  display: grid;
  gap: 2px;
  align-content: start;
  width: 100%;
  padding: 0;
}

.kit.chosen {
  outline: 3px solid var(--ink);
  outline-offset: -1px;
  background: var(--note-soft);
}

.kit:focus-within {
  outline: 3px solid var(--focus);
}

.kit small {
  color: var(--ink-soft);
}

summary {
  display: flex;
  align-items: center;
  min-height: var(--target);
  cursor: pointer;
}

.kept {
  color: var(--ink-soft);
}

.compose {
  padding-bottom: 8px;
  color: var(--ink-soft);
}

.symptoms {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-top: 10px;
}

.symptoms .key {
  border-width: 1px;
  font-weight: 450;
}

.lacking {
  color: var(--alarm);
  font-weight: 650;
  padding-top: 12px;
}

.go {
  margin-top: 16px;
  min-height: 54px;
  padding: 0 40px;
  font-size: 19px;
}

@media (max-width: 640px) {
  .kits {
    grid-template-columns: minmax(0, 1fr);
  }

  .kit :deep(.el-radio__label) {
    grid-template-columns: 116px minmax(0, 1fr);
    column-gap: 12px;
    align-items: center;
  }

  .kit :deep(svg) {
    grid-row: 1 / span 2;
  }

  .kit b {
    align-self: end;
  }

  .kit small {
    align-self: start;
  }
}
</style>
