<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { api } from '@/shared/api/client'
import { useLongAnswer } from '@/shared/api/useLongAnswer'
import { useQuestion } from '@/shared/api/useQuestion'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import PickTab from '@/shared/ui/kit/PickTab.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { practiceApi, type Drill, type DrillWanted, type PracticeSubject } from '@/pages/practice/api'
import CoursesPart from '@/pages/practice/CoursesPart.vue'
import DoneTries from '@/pages/practice/DoneTries.vue'
import SubjectRows from '@/pages/practice/SubjectRows.vue'

const { t } = useI18n()
const router = useRouter()
const catalogue = useCatalogue()
const { outcome } = useQuestion('practice', true, practiceApi.practice, { follows: false })
const { outcome: rigs } = useQuestion('rigs', true, api.rigs, { follows: false })
const practice = computed(() => (outcome.value.state === 'ready' ? outcome.value.value : null))
const known = computed(() => catalogue.value?.practice ?? null)

const tab = ref<'drills' | 'courses' | 'done'>('drills')
const TABS = computed(() => [
  { id: 'drills' as const, title: t('PracticePage.drills') },
  { id: 'courses' as const, title: t('PracticePage.courses') },
  { id: 'done' as const, title: t('PracticePage.done2'), count: practice.value?.done.length },
])

const RIG = 'gorvant.practice.rig'
const rig = ref(localStorage.getItem(RIG) ?? '')
const level = ref(1)
const rigOptions = computed(() =>
  rigs.value.state === 'ready' ? rigs.value.value.rigs.map((one) => ({ id: one.id, title: one.name })) : [],
)
const levelOptions = computed(
  () => known.value?.levels.map((one) => ({ id: one.id, title: `${one.id} · ${one.title}` })) ?? [],
)
watch(
  rigOptions,
  (all) => {
    if (!all.some((one) => one.id === rig.value)) rig.value = all[0]?.id ?? ''
  },
  { immediate: true },
)
watch(rig, (id) => localStorage.setItem(RIG, id))

const wanted = shallowRef<DrillWanted | null>(null)
const beginning = ref(false)
const {
  answer: drill,
  task,
  problem,
  again,
  cancel,
} = useLongAnswer<Drill>(() => practiceApi.ask(wanted.value!))

function begin(subject: string, form: string, at = level.value) {
  if (!rig.value || wanted.value) return
  problem.value = null
  drill.value = null
  wanted.value = { id: crypto.randomUUID(), rig_id: rig.value, form, subject, level: at }
  void again()
}
watch(problem, (now) => now && (wanted.value = null))
watch(drill, async (now) => {
  if (!now || beginning.value) return
  beginning.value = true
  const answer = await practiceApi.begin(crypto.randomUUID(), now.id, null)
  beginning.value = false
  wanted.value = null
  if (answer.state === 'ready') await router.push(`/practice/tries/${answer.value.id}`)
  else if (answer.state === 'failed') problem.value = answer.problem
})
async function giveUp() {
  await cancel()
  wanted.value = null
}
const subjectOf = (id: string): PracticeSubject | undefined =>
  practice.value?.subjects.find((one) => one.id === id)
const formTitle = (id: string) => known.value?.forms.find((one) => one.id === id)?.title ?? id
const busy = computed(() => wanted.value !== null)
</script>

<template>
  <main class="practice">
    <h1>{{ $t('PracticePage.practice') }}</h1>
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <ProblemNote v-if="problem" :problem="problem" />
    <section v-if="task" class="drawing-up" role="status" data-testid="drawing-up">
      <p>
        {{
          $t('PracticePage.hidingSomethingInAndChecking', {
            title: rigOptions.find((one) => one.id === rig)?.title,
          })
        }}
      </p>
      <TaskProgress :label="$t('PracticePage.drillMade')" :done="task.done" :total="task.total" />
      <el-button class="key quiet" @click="giveUp">{{ $t('PracticePage.leaveIt') }}</el-button>
    </section>

    <div v-if="outcome.state !== 'failed' && !(practice && known)" class="until-there" />
    <template v-else-if="practice && known">
      <section v-if="practice.open.length" class="left-off" :aria-label="$t('PracticePage.leftHalfWay')">
        <RouterLink
          v-for="one in practice.open.slice(0, 3)"
          :key="one.id"
          class="go-on"
          :to="`/practice/tries/${one.id}`"
          data-testid="go-on"
        >
          <b>{{ $t('PracticePage.goOn') }}</b>
          <span>{{ one.title }}: {{ one.complaint[0] ?? one.subject_title }}</span>
          <small>{{ $t('PracticePage.done', { rig_name: one.rig_name, acts: one.acts }) }}</small>
        </RouterLink>
      </section>

      <PickTab
        :tabs="TABS"
        :tab="tab"
        :label="$t('PracticePage.practice')"
        testid="practice"
        @choose="(id) => (tab = id)"
      />

      <template v-if="tab === 'drills'">
        <div class="where">
          <label
            >{{ $t('PracticePage.unit')
            }}<PickOne v-model="rig" :options="rigOptions" :label="$t('PracticePage.unit')" data-testid="rig"
          /></label>
          <label
            >{{ $t('PracticePage.level')
            }}<PickOne
              v-model="level"
              :options="levelOptions"
              :label="$t('PracticePage.level')"
              data-testid="level"
          /></label>
        </div>
        <section
          v-if="practice.today && subjectOf(practice.today.subject)"
          class="today"
          :aria-label="$t('PracticePage.today')"
        >
          <p>
            {{ $t('PracticePage.today2') }} <b>{{ practice.today.title }}</b>,
            {{ formTitle(practice.today.form).toLowerCase() }}
          </p>
          <el-button
            class="key solid"
            :disabled="busy || !rig"
            data-testid="today"
            @click="begin(practice.today!.subject, practice.today!.form, practice.today!.level)"
            >{{ $t('PracticePage.begin') }}</el-button
          >
        </section>
        <SubjectRows :subjects="practice.subjects" :forms="known.forms" :busy="busy || !rig" @begin="begin" />
      </template>
      <CoursesPart v-else-if="tab === 'courses'" :done="practice.done" :subjects="practice.subjects" />
      <DoneTries v-else :tries="practice.done" />
    </template>
    <p class="small">
      {{ $t('PracticePage.aBenchOnAScreen') }}
    </p>
  </main>
</template>

<style scoped>
.practice {
  display: grid;
  gap: 12px;
  max-width: 1000px;
  margin: 0 auto;
  padding: 12px 16px 40px;
}

h1 {
  font-size: 26px;
}

.left-off {
  display: grid;
  gap: 6px;
}

.go-on {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
  min-height: var(--target);
  padding: 10px 14px;
  border-left: 6px solid var(--live);
  background: var(--live-soft);
  color: inherit;
  text-decoration: none;
}

.go-on small,
.small {
  color: var(--ink-soft);
}

.where {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr);
  gap: 12px;
}

.where label {
  display: grid;
  gap: 2px;
  font-weight: 700;
}

.today {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 8px 16px;
  margin-top: 12px;
  padding: 10px 14px;
  border: 3px solid var(--ink);
  background: var(--panel);
  font-size: 19px;
}

.drawing-up {
  display: grid;
  gap: 8px;
  padding: 12px 14px;
  background: var(--note-soft);
}

@media (max-width: 640px) {
  .where {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
