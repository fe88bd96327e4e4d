<script setup lang="ts">
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type Visit } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import type { Problem } from '@/shared/model/outcome'
import { courseShown, degreeSign, readCourse } from '@/shared/model/units'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SchoolsRuler from '@/desks/defrost/SchoolsRuler.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import PickFile from '@/shared/ui/kit/PickFile.vue'

const { t } = useI18n()
type History = Record<string, string | number>
const props = defineProps<{ visit: Visit; history: History; seen: number[]; busy: boolean }>()
const emit = defineEmits<{ keep: [history: History, seen: number[]]; use: [facts: Record<string, string>] }>()

const LANES = [
  { id: 'fed', title: t('DefrostSchools.compressorFed') },
  { id: 'cold', title: t('DefrostSchools.coilSwitchClosed') },
] as const
const form = reactive({
  minutes: Number(props.history.minutes ?? 180),
  fed: String(props.history.fed ?? '0-25, 40-62, 75-'),
  cold: String(props.history.cold ?? 'always'),
  y: String(props.history.y ?? ''),
  cooling: String(props.history.cooling ?? ''),
  unpowered: String(props.history.unpowered ?? ''),
  aps: String(props.history.aps ?? ''),
  coil: courseShown(String(props.history.coil ?? '')),
  outdoor: courseShown(String(props.history.outdoor ?? '')),
})
/** What each school counts on where somebody wants it otherwise than usual. */
const countsOn = ref<Record<string, 'Y' | 'T1'>>({})
const MORE = [
  { id: 'y', title: t('DefrostSchools.yLive'), placeholder: t('DefrostSchools.asFed') },
  { id: 'cooling', title: t('DefrostSchools.inCooling'), placeholder: t('DefrostSchools.never') },
  { id: 'unpowered', title: t('DefrostSchools.boardWithoutPower'), placeholder: t('DefrostSchools.never') },
  {
    id: 'aps',
    title: t('DefrostSchools.airPressureSwitchClosed'),
    placeholder: t('DefrostSchools.notAsked'),
  },
  {
    id: 'coil',
    title: t('DefrostSchools.coilCourse', { unit: degreeSign() }),
    placeholder: courseShown('0:40, 30:22'),
  },
  {
    id: 'outdoor',
    title: t('DefrostSchools.outdoorAir', { unit: degreeSign() }),
    placeholder: courseShown('30'),
  },
] as const
const COURSES = ['coil', 'outdoor'] as const
const inCore = (id: (typeof MORE)[number]['id']) =>
  COURSES.some((one) => one === id) ? readCourse(form[id]) : form[id]
const seen = ref(props.seen.join(', '))
const more = ref(false)

const given = computed<History>(() => ({
  minutes: form.minutes,
  fed: form.fed,
  cold: form.cold,
  ...Object.fromEntries(MORE.flatMap(({ id }) => (form[id].trim() ? [[id, inCore(id)]] : []))),
}))
const times = computed(() => seen.value.split(/[,;\s]+/).filter(Boolean))
const starts = computed(() => times.value.map(Number).filter(Number.isFinite))
const unread = computed(() => times.value.filter((one) => !Number.isFinite(Number(one))))

const { value: answer, problem: refusal } = useQuestion(
  `schools.${props.visit.id}`,
  () => ({
    asked: { history: given.value, seen: starts.value, counts_on: countsOn.value },
    rig: props.visit.rig_revision_id,
  }),
  ({ asked }) => api.defrostSchools(props.visit.id, asked),
)
const badFile = shallowRef<Problem | null>(null)
const problem = computed(() => refusal.value ?? badFile.value)
/** What the server could answer is kept, unless it is what the visit had already. */
const written = () => JSON.stringify([given.value, starts.value])
let kept = written()
watch(answer, () => {
  if (kept === written()) return
  kept = written()
  emit('keep', given.value, starts.value)
})

async function readFile(chosen: File) {
  const result = await api.defrostSchools(props.visit.id, { text: await chosen.text(), seen: starts.value })
  badFile.value = result.state === 'failed' ? result.problem : null
  if (result.state !== 'ready') return
  const read = result.value.history as unknown as History
  for (const id of COURSES) if (read[id] !== undefined) read[id] = courseShown(String(read[id]))
  Object.assign(form, { ...read, minutes: Math.ceil(Number(read.minutes)) })
}

/** Lengths of the ruler, the history's own among them. */
const rulers = computed(() =>
  [...new Set([60, 120, 180, 240, 480, 960, 1440, form.minutes])]
    .sort((a, b) => a - b)
    .map((id) => ({ id, title: t('DefrostSchools.minutes', { n: id }) })),
)
const courses = computed(() => answer.value?.courses ?? [])
const lanes = computed(() => LANES.map((lane) => ({ ...lane, text: form[lane.id] })))
</script>

<template>
  <section class="schools" :aria-label="$t('DefrostSchools.schoolsSideBySide')">
    <p class="hint">
      {{ $t('DefrostSchools.oneHistoryEverySchoolDrag') }}
      <b class="mono">{{
        $t('DefrostSchools.min', { interval_minutes: answer?.interval_minutes ?? '…' })
      }}</b>.
    </p>
    <div class="asks">
      <label v-for="lane in LANES" :key="lane.id"
        >{{ lane.title }}
        <el-input
          v-model.lazy="form[lane.id]"
          class="mono wide"
          maxlength="2000"
          :data-testid="`lane-${lane.id}`"
      /></label>
      <span class="ask"
        >{{ $t('DefrostSchools.ruler') }}
        <PickOne v-model="form.minutes" :options="rulers" :label="$t('DefrostSchools.ruler2')" />
      </span>
      <label
        >{{ $t('DefrostSchools.defrostsSeenAt') }}
        <el-input
          v-model.lazy="seen"
          class="mono"
          maxlength="200"
          :placeholder="$t('DefrostSchools.seenExample')"
          data-testid="seen"
        />
        {{ $t('DefrostSchools.min2') }}</label
      >
      <PickFile
        accept=".csv,text/csv"
        :label="$t('DefrostSchools.fromCsv')"
        data-testid="history-csv"
        @picked="readFile"
      />
      <el-button class="key quiet" :aria-expanded="more" @click="more = !more">
        {{ $t('DefrostSchools.yApartPowerFrostTemperatures') }}
      </el-button>
    </div>
    <div v-if="more" class="asks">
      <label v-for="one in MORE" :key="one.id"
        >{{ one.title }}
        <el-input
          v-model.lazy="form[one.id]"
          class="mono wide"
          :placeholder="one.placeholder"
          maxlength="2000"
          :data-testid="`lane-${one.id}`"
      /></label>
    </div>
    <p v-if="unread.length" class="wrong" role="alert">
      {{ $t('DefrostSchools.defrostsSeenAtIsNo', { unread: unread.join(', ') }) }}
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <SchoolsRuler
      :minutes="form.minutes"
      :lanes="lanes"
      :courses="courses"
      :starts="starts"
      @paint="(lane, text) => (form[lane] = text)"
    />
    <div v-if="answer" class="told">
      <p v-if="starts.length" class="fit" data-testid="fitting">
        {{
          answer.fitting.length
            ? $t('DefrostSchools.fitsWhatWasSeen', {
                join: courses
                  .filter((one) => answer!.fitting.includes(one.school))
                  .map((one) => one.title)
                  .join(', '),
              })
            : $t('DefrostSchools.noSchoolFitsWhatWas')
        }}
      </p>
      <details v-for="course in courses" :key="course.school">
        <summary>
          <b>{{ course.title }}</b>
          {{
            course.starts.length
              ? $t('DefrostSchools.firstAtMin', { what: Math.round(course.starts[0]! * 10) / 10 })
              : $t('DefrostSchools.neverInThisHistory')
          }}
        </summary>
        <p class="counts">
          {{ $t('DefrostSchools.itCounts', { counts: course.counts })
          }}<template v-if="course.counts_on">{{
            $t('DefrostSchools.on', { counts_on: course.counts_on })
          }}</template
          >.
          <el-button
            v-if="course.counts_on"
            class="key quiet"
            :data-testid="`counts-${course.school}`"
            @click="countsOn = { ...countsOn, [course.school]: course.counts_on === 'Y' ? 'T1' : 'Y' }"
          >
            {{ $t('DefrostSchools.onInstead', { counts_on: course.counts_on === 'Y' ? 'T1' : 'Y' }) }}
          </el-button>
        </p>
        <ul>
          <li v-for="step in course.steps" :key="step.minute + step.kind" :class="{ tie: step.tie }">
            {{ step.says }}
          </li>
        </ul>
        <el-button
          v-if="!course.own"
          class="key"
          :disabled="busy"
          :data-testid="`use-${course.school}`"
          @click="emit('use', course.facts)"
        >
          {{ $t('DefrostSchools.thisIsTheBoardsSchool') }}
        </el-button>
        <p v-else>{{ $t('DefrostSchools.theBoardsSchoolAsThe') }}</p>
      </details>
      <p class="assumed">
        {{
          $t('DefrostSchools.assumedADefrostLastsMin', {
            assumed: answer.assumed.join('; ') || $t('DefrostSchools.nothing'),
            lasts_minutes: answer.lasts_minutes,
          })
        }}
      </p>
    </div>
  </section>
</template>

<style scoped>
.schools {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.wrong {
  color: var(--alarm);
  font-weight: 650;
}

.hint,
.assumed {
  color: var(--ink-soft);
}

.asks .el-input.wide {
  width: 210px;
}

.told details {
  border-bottom: 1px solid var(--rule);
}

.counts {
  color: var(--ink-soft);
}

.tie {
  border-left: 4px dashed var(--between);
  padding-left: 8px;
}

summary {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  min-height: var(--target);
  cursor: pointer;
}

.fit {
  padding: 8px 12px;
  border-left: 6px solid var(--ink);
  background: var(--panel);
  font-weight: 650;
}
</style>
