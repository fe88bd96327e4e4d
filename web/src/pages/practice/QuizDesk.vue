<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { DrillTry } from '@/pages/practice/api'
import { rightOf } from '@/pages/practice/bench'
import type { Station } from '@/shared/scene/geometry'
import JudgedLines from '@/pages/practice/JudgedLines.vue'
import PanelDrawing from '@/pages/practice/PanelDrawing.vue'
import QuizAsk from '@/pages/practice/QuizAsk.vue'

/** A drill that asks: one question, then why it is so, then the next. */
const props = defineProps<{
  drillTry: DrillTry
  busy: boolean
  reply: (number: number, answer: Record<string, unknown>) => Promise<boolean>
}>()

/** The entry that is being looked at; null while a question is open. */
const looking = ref<number | null>(props.drillTry.ask ? null : props.drillTry.log.length - 1)
const entry = computed(() => (looking.value === null ? null : props.drillTry.log[looking.value]))
watch(
  () => props.drillTry.log.length,
  (count, before) => count > (before ?? 0) && (looking.value = count - 1),
)
const done = computed(() => props.drillTry.state === 'done')
/** A drawing helps where one has to look where things are. */
const drawn = computed(() => ['predict', 'panel', 'trace'].includes(props.drillTry.drill.form))
/** What was touched on the drawing last: a code can be struck out there too. */
const touched = ref<{ code: string; at: number } | null>(null)
const touch = (station: Station) =>
  (touched.value = { code: station.id.split('/').pop() ?? station.id, at: Date.now() })
const traceOrder = computed(() => props.drillTry.ask?.part === 'order' && looking.value === null)
</script>

<template>
  <section class="quiz" data-testid="quiz">
    <header>
      <h1>
        {{ drillTry.drill.title }}
        <small>{{ drillTry.drill.subject_title }}, {{ drillTry.drill.rig_name }}</small>
      </h1>
      <ol class="steps" :aria-label="$t('QuizDesk.questions')">
        <li
          v-for="i in drillTry.drill.questions"
          :key="i"
          :class="{ done: drillTry.log.length >= i, now: drillTry.ask?.number === i - 1 }"
        >
          <el-button
            text
            :disabled="drillTry.log.length < i"
            :aria-current="looking === i - 1"
            @click="looking = i - 1"
            >{{ i
            }}<small v-if="drillTry.log[i - 1]">{{
              rightOf(drillTry.log[i - 1]!.lines ?? [])
            }}</small></el-button
          >
        </li>
      </ol>
    </header>
    <div :class="['desk', { drawn: drawn && !traceOrder }]">
      <div class="asked">
        <template v-if="entry">
          <JudgedLines :lines="entry.lines ?? []" />
          <div class="row">
            <el-button
              v-if="drillTry.ask"
              class="key solid"
              data-testid="next-question"
              @click="looking = null"
              >{{ $t('QuizDesk.next') }}</el-button
            >
            <template v-else-if="done">
              <p class="marks" data-testid="marks">
                <b class="mono">{{ drillTry.marks }}</b> {{ $t('QuizDesk.of100') }}
              </p>
              <RouterLink class="key solid" to="/practice">{{ $t('QuizDesk.backToPractice') }}</RouterLink>
            </template>
          </div>
        </template>
        <QuizAsk
          v-else-if="drillTry.ask"
          :key="drillTry.ask.number"
          :ask="drillTry.ask"
          :form="drillTry.drill.form"
          :busy="busy"
          :touched="touched"
          @answer="(given) => reply(drillTry.ask!.number, given)"
        />
      </div>
      <PanelDrawing
        v-if="drawn && !traceOrder"
        :drill="drillTry.drill.id"
        :only="drillTry.drill.form === 'panel' ? 'connections' : undefined"
        @tap="touch"
      />
    </div>
  </section>
</template>

<style scoped>
.quiz {
  display: grid;
  gap: 12px;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 6px 20px;
}

h1 {
  font-size: 24px;
}

h1 small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
  font-weight: 450;
}

.steps {
  display: flex;
  margin: 0;
  padding: 0;
  list-style: none;
}

.steps li {
  border-bottom: 4px solid var(--rule);
}

.steps .done {
  border-color: var(--rule-strong);
}

.steps .now {
  border-color: var(--live);
}

.steps small {
  margin-left: 6px;
  color: var(--ink-soft);
}

.desk {
  display: grid;
  gap: 16px;
  align-items: start;
}

.desk.drawn {
  grid-template-columns: minmax(320px, 460px) minmax(0, 1fr);
}

.asked {
  display: grid;
  gap: 12px;
  max-width: 720px;
}

.row {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  align-items: center;
}

.marks b {
  font-size: 34px;
}

@media (max-width: 1040px) {
  .desk.drawn {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
