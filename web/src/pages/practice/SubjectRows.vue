<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { PracticeSubject } from '@/pages/practice/api'
import { dueIn, standings } from '@/pages/practice/bench'

const { t } = useI18n()
/** The subjects, each with how it stands and the ways to practice it. */
defineProps<{
  subjects: PracticeSubject[]
  forms: { id: string; title: string; says: string }[]
  busy: boolean
}>()
const emit = defineEmits<{ begin: [subject: string, form: string] }>()

const open = ref<string | null>(null)
const WORDS = standings()
const now = Date.now()

function when(subject: PracticeSubject): string {
  if (!subject.done) return ''
  const days = dueIn(subject.due_at, now)
  return days ? t('SubjectRows.againIn', { days }) : t('SubjectRows.due')
}
</script>

<template>
  <ol class="subjects">
    <li v-for="subject in subjects" :key="subject.id" :class="subject.standing">
      <el-button
        class="subject"
        text
        :aria-expanded="open === subject.id"
        :data-testid="`subject-${subject.id}`"
        @click="open = open === subject.id ? null : subject.id"
      >
        <i class="dot" aria-hidden="true" />
        <b>{{ subject.title }}</b>
        <span class="how">{{ WORDS[subject.standing] }}</span>
        <span class="marks mono">{{ subject.last_marks ?? '' }}</span>
        <span class="due" :class="{ now: subject.done > 0 && subject.due }">{{ when(subject) }}</span>
      </el-button>
      <div v-if="open === subject.id" class="ways">
        <el-button
          v-for="form in forms.filter((one) => subject.forms.includes(one.id))"
          :key="form.id"
          class="way"
          :disabled="busy"
          :data-testid="`form-${form.id}`"
          @click="emit('begin', subject.id, form.id)"
        >
          <span
            ><b>{{ form.title }}</b
            ><small>{{ form.says }}</small></span
          >
        </el-button>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.subjects {
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 3px solid var(--ink);
}

li {
  border-bottom: 1px solid var(--rule);
}

.subject {
  width: 100%;
  height: auto;
  min-height: 52px;
  padding: 6px 4px;
  text-align: left;
}

.subject > :deep(span) {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) 90px 48px 110px;
  gap: 12px;
  align-items: center;
  width: 100%;
  color: var(--ink);
  font-size: 18px;
  white-space: normal;
}

.dot {
  width: 18px;
  height: 18px;
  border: 3px solid var(--ink);
  border-radius: 50%;
}

.shaky .dot {
  background: linear-gradient(90deg, var(--between) 50%, transparent 50%);
}

.sure .dot {
  background: var(--agrees);
}

.how,
.due {
  color: var(--ink-soft);
  font-size: 16px;
}

.due.now {
  color: var(--between);
  font-weight: 700;
}

.ways {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 8px;
  padding: 4px 0 14px 34px;
}

.way {
  justify-content: flex-start;
  height: auto;
  min-height: 60px;
  margin: 0;
  padding: 8px 12px;
  text-align: left;
}

.way small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
  white-space: normal;
}

@media (max-width: 640px) {
  .subject > :deep(span) {
    grid-template-columns: 22px minmax(0, 1fr) auto;
  }

  .how,
  .marks {
    display: none;
  }

  .ways {
    grid-template-columns: minmax(0, 1fr);
    padding-left: 0;
  }
}
</style>
