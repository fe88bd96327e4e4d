<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { useQuestion } from '@/shared/api/useQuestion'
import PickFile from '@/shared/ui/kit/PickFile.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useSession } from '@/shared/ui/useSession'
import LearnerTable from '@/pages/practice/LearnerTable.vue'
import CourseForm from '@/pages/practice/CourseForm.vue'
import { saveFile } from '@/shared/model/saveFile'
import type { Problem } from '@/shared/model/outcome'
import { practiceApi, type Course, type PracticeSubject, type TryLine } from '@/pages/practice/api'

const { t } = useI18n()
/** Courses that are handed to me or made by me; new ones, and files. */
const props = defineProps<{ done: TryLine[]; subjects: PracticeSubject[] }>()
const router = useRouter()
const { mayChange } = useSession()
const { outcome, again } = useQuestion('courses', true, practiceApi.courses, { follows: false })
const problem = shallowRef<Problem | null>(null)

const making = ref(false)
async function made() {
  making.value = false
  await again()
}

async function begin(course: Course, drill: string) {
  const answer = await practiceApi.begin(crypto.randomUUID(), drill, course.id)
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state === 'ready') await router.push(`/practice/tries/${answer.value.id}`)
}

async function remove(course: Course) {
  const answer = await practiceApi.removeCourse(course.id)
  problem.value = answer.state === 'failed' ? answer.problem : null
  await again()
}

const sealing = shallowRef<Course | null>(null)
const taking = shallowRef<{ name: string; file: Record<string, unknown> } | null>(null)
const words = ref('')
async function seal() {
  if (!sealing.value) return
  const answer = await practiceApi.seal(sealing.value.id, words.value)
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state !== 'ready') return
  saveFile(
    `${sealing.value.name.replace(/\W+/g, '-')}.gorvant-drill.json`,
    JSON.stringify(answer.value),
    'application/json',
  )
  sealing.value = null
  words.value = ''
}
async function picked(file: File) {
  try {
    taking.value = { name: file.name, file: JSON.parse(await file.text()) as Record<string, unknown> }
    problem.value = null
  } catch {
    problem.value = {
      type: 'about:blank',
      title: t('CoursesPart.noDrillFile'),
      status: 422,
      detail: t('CoursesPart.notJson', { name: file.name }),
    }
  }
}
async function take() {
  if (!taking.value) return
  const answer = await practiceApi.open(crypto.randomUUID(), words.value, taking.value.file)
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state !== 'ready') return
  taking.value = null
  words.value = ''
  await again()
}
const mineOf = (course: Course, drill: string) =>
  props.done.find((one) => one.drill_id === drill && course.drills.some((each) => each.id === one.drill_id))
</script>

<template>
  <div class="courses">
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="mayChange" class="begin">
      <el-button class="key solid" data-testid="new-course" @click="making = !making">{{
        $t('CoursesPart.makeACourse')
      }}</el-button>
      <PickFile
        accept=".json,application/json"
        :label="$t('CoursesPart.takeOneFromAFile')"
        @picked="picked"
        >{{ $t('CoursesPart.takeOneFromAFile') }}</PickFile
      >
    </div>

    <CourseForm v-if="making" :subjects="subjects" @made="made" />

    <el-empty
      v-if="outcome.state === 'ready' && !outcome.value.courses.length"
      :description="mayChange ? $t('CoursesPart.noCourseYet') : $t('CoursesPart.noCourseIsHandedTo')"
      :image-size="1"
    />
    <section
      v-for="course in outcome.state === 'ready' ? outcome.value.courses : []"
      :key="course.id"
      class="course"
      data-testid="course"
    >
      <h2>{{ course.name }}</h2>
      <p class="soft">
        {{
          $t('CoursesPart.byFor', {
            made_by: course.made_by ?? $t('CoursesPart.somebodyWhoLeft'),
            learners: course.learners.length ? course.learners.join(', ') : $t('CoursesPart.everybody'),
          })
        }}
      </p>
      <ol>
        <li v-for="drill in course.drills" :key="drill.id">
          <span
            ><b>{{ drill.title }}</b
            >{{
              $t('CoursesPart.level', { what: drill.complaint[0] ?? drill.subject_title, level: drill.level })
            }}</span
          >
          <span v-if="course.results" class="results">
            <span
              v-for="(one, i) in course.results.filter((each) => each.drill_id === drill.id)"
              :key="i"
              data-testid="course-result"
              >{{ one.learner ?? $t('CoursesPart.somebodyWhoLeft') }}
              <b class="mono">{{ one.state === 'done' ? one.marks : '…' }}</b></span
            >
          </span>
          <span v-else-if="mineOf(course, drill.id)" class="mono">{{ mineOf(course, drill.id)?.marks }}</span>
          <el-button class="key" data-testid="begin-drill" @click="begin(course, drill.id)">{{
            $t('CoursesPart.begin')
          }}</el-button>
        </li>
      </ol>
      <LearnerTable v-if="course.by_learner?.length" :rows="course.by_learner" />
      <div v-if="course.mine" class="begin">
        <el-button class="key quiet" @click="sealing = course">{{ $t('CoursesPart.asAFile') }}</el-button>
        <SureButton
          :asks="$t('CoursesPart.takeThisCourseBackWhat')"
          :yes="$t('CoursesPart.takeItBack')"
          @sure="remove(course)"
          >{{ $t('CoursesPart.takeItBack') }}</SureButton
        >
      </div>
    </section>

    <el-dialog
      :model-value="sealing !== null || taking !== null"
      :title="sealing ? $t('CoursesPart.sealTheFile') : $t('CoursesPart.open', { name: taking?.name ?? '' })"
      width="min(480px, 94vw)"
      @close="((sealing = null), (taking = null), (words = ''))"
    >
      <p v-if="sealing">
        {{ $t('CoursesPart.whatIsReallySoIn') }}
      </p>
      <el-input
        v-model="words"
        type="password"
        show-password
        :aria-label="$t('CoursesPart.words')"
        data-testid="words"
      />
      <template #footer>
        <el-button class="key solid" :disabled="!words" @click="sealing ? seal() : take()">{{
          sealing ? $t('CoursesPart.saveTheFile') : $t('CoursesPart.takeItIn')
        }}</el-button>
      </template>
    </el-dialog>
  </div>
</template>

<style scoped>
.courses {
  display: grid;
  gap: 12px;
}

.begin {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.course {
  padding-top: 8px;
  border-top: 3px solid var(--ink);
}

.soft {
  color: var(--ink-soft);
}

ol {
  margin: 8px 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 12px;
  align-items: center;
  min-height: 56px;
  border-bottom: 1px solid var(--rule);
}

.results {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}

@media (max-width: 640px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
    padding: 6px 0;
  }

  .results {
    grid-row: 2;
  }
}
</style>
