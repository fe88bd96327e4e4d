<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { api } from '@/shared/api/client'
import { useLongAnswer } from '@/shared/api/useLongAnswer'
import { useQuestion } from '@/shared/api/useQuestion'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import { useSession } from '@/shared/ui/useSession'
import type { Problem } from '@/shared/model/outcome'
import { practiceApi, type Drill, type DrillWanted, type PracticeSubject } from '@/pages/practice/api'

/** A course put together: drills drawn from rigs of the library, in an order, and whom it is handed to. */
const props = defineProps<{ subjects: PracticeSubject[] }>()
const emit = defineEmits<{ made: [] }>()

const catalogue = useCatalogue()
const { viewer } = useSession()
const owner = computed(() => viewer.value?.owner ?? false)
const { outcome: rigs } = useQuestion('rigs', true, api.rigs, { follows: false })
const { value: crew } = useQuestion('people', owner, api.people, { follows: false })

const name = ref('')
const drills = shallowRef<Drill[]>([])
const learners = ref<string[]>([])
const rig = ref('')
const subject = ref('')
const form = ref('')
const level = ref(1)
const failed = shallowRef<Problem | null>(null)

const rigOptions = computed(() =>
  rigs.value.state === 'ready' ? rigs.value.value.rigs.map((one) => ({ id: one.id, title: one.name })) : [],
)
const formOptions = computed(() => {
  const offered = props.subjects.find((one) => one.id === subject.value)?.forms ?? []
  return catalogue.value?.practice.forms.filter((one) => offered.includes(one.id)) ?? []
})
const levelOptions = computed(
  () =>
    catalogue.value?.practice.levels.map((one) => ({ id: one.id, title: `${one.id} · ${one.title}` })) ?? [],
)
watch(rigOptions, (all) => (rig.value ||= all[0]?.id ?? ''), { immediate: true })
watch(formOptions, (all) => {
  if (!all.some((one) => one.id === form.value)) form.value = all[0]?.id ?? ''
})

const wanted = shallowRef<DrillWanted | null>(null)
const { answer, task, problem, again } = useLongAnswer<Drill>(() => practiceApi.ask(wanted.value!))
function add() {
  if (wanted.value) return
  answer.value = null
  problem.value = null
  wanted.value = {
    id: crypto.randomUUID(),
    rig_id: rig.value,
    form: form.value,
    subject: subject.value,
    level: level.value,
    fresh: true,
  }
  void again()
}
watch(answer, (now) => {
  if (!now) return
  drills.value = [...drills.value, now]
  wanted.value = null
})
watch(problem, (now) => now && (wanted.value = null))

async function make() {
  const made = await practiceApi.makeCourse({
    id: crypto.randomUUID(),
    name: name.value,
    drill_ids: drills.value.map((one) => one.id),
    learner_ids: learners.value,
  })
  failed.value = made.state === 'failed' ? made.problem : null
  if (made.state === 'ready') emit('made')
}
</script>

<template>
  <el-form class="make" label-position="top" @submit.prevent="make">
    <el-form-item :label="$t('CourseForm.name')">
      <el-input v-model="name" maxlength="200" data-testid="course-name" />
    </el-form-item>
    <ol v-if="drills.length" data-testid="course-drills">
      <li v-for="(one, i) in drills" :key="one.id">
        <span>{{
          $t('CourseForm.level', {
            title: one.title,
            subject_title: one.subject_title,
            level: one.level,
            rig_name: one.rig_name,
          })
        }}</span>
        <el-button class="key quiet" @click="drills = drills.filter((_, at) => at !== i)">{{
          $t('CourseForm.leaveOut')
        }}</el-button>
      </li>
    </ol>
    <div class="add">
      <PickOne v-model="rig" :options="rigOptions" :label="$t('CourseForm.unit')" data-testid="course-rig" />
      <PickOne
        v-model="subject"
        :options="subjects"
        :label="$t('CourseForm.subject')"
        :placeholder="$t('CourseForm.subject2')"
        data-testid="course-subject"
      />
      <PickOne
        v-model="form"
        :options="formOptions"
        :label="$t('CourseForm.form')"
        :placeholder="$t('CourseForm.form2')"
        data-testid="course-form"
      />
      <PickOne
        v-model="level"
        :options="levelOptions"
        :label="$t('CourseForm.level2')"
        data-testid="course-level"
      />
      <el-button
        class="key"
        :disabled="!rig || !subject || !form || wanted !== null"
        data-testid="add-drill"
        @click="add"
        >{{ $t('CourseForm.add') }}</el-button
      >
    </div>
    <TaskProgress v-if="task" :label="$t('CourseForm.drillsMade')" :done="task.done" :total="task.total" />
    <ProblemNote v-if="problem ?? failed" :problem="(problem ?? failed)!" />
    <el-form-item v-if="owner && crew" :label="$t('CourseForm.handedToNobodyNamedEverybody')">
      <el-checkbox-group v-model="learners">
        <el-checkbox v-for="one in crew.people" :key="one.id" :value="one.id">{{ one.name }}</el-checkbox>
      </el-checkbox-group>
    </el-form-item>
    <el-button
      class="key solid"
      native-type="submit"
      :disabled="!name.trim() || !drills.length || wanted !== null"
      data-testid="keep-course"
      >{{ $t('CourseForm.handItOut') }}</el-button
    >
  </el-form>
</template>

<style scoped>
.make {
  display: grid;
  gap: 12px;
  padding: 12px 14px;
  border-left: 6px solid var(--rule-strong);
  background: var(--panel);
}

.add {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr)) auto;
  gap: 8px;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px 12px;
  border-bottom: 1px solid var(--rule);
}

@media (max-width: 820px) {
  .add {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
