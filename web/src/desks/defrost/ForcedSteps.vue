<script setup lang="ts">
import { computed } from 'vue'
import type { ForcedTest } from '@/shared/api/client'
import KeptInput from '@/shared/ui/KeptInput.vue'

/** The steps of a forced test: what to press, when it was, what it proves, with the caution at the step. */
type Step = ForcedTest['steps'][number]
const props = defineProps<{
  steps: Step[]
  marks: Record<string, number>
  tally: Record<string, string>
  closed: boolean
  /** No watch runs: seconds can only be typed. */
  typed: boolean
}>()
const emit = defineEmits<{
  press: [step: Step]
  correct: [mark: string, what: string, text: string]
  forget: [mark: string]
}>()

const isDone = (step: Step) => {
  if (step.mark) return props.marks[step.mark] !== undefined
  const changes = step.tally as Record<string, string> | null
  return !!changes && Object.entries(changes).every(([item, state]) => props.tally[item] === state)
}
/** The step that is next: the first that takes something down and has not. */
const next = computed(() =>
  props.closed ? undefined : props.steps.find((step) => (step.mark || step.tally) && !isDone(step))?.id,
)
</script>

<template>
  <ol class="steps">
    <li
      v-for="step in steps"
      :key="step.id"
      :class="{ done: isDone(step), next: step.id === next }"
      :data-testid="`step-${step.id}`"
    >
      <button
        v-if="(step.mark || step.tally) && !closed"
        class="mark"
        :disabled="typed && !step.tally"
        :data-testid="step.mark ? `mark-${step.mark}` : `do-${step.id}`"
        @click="emit('press', step)"
      >
        {{ step.does }}
      </button>
      <p v-else class="plain">{{ step.does }}</p>
      <span v-if="step.mark && (!closed || marks[step.mark] !== undefined)" class="at">
        <KeptInput
          class="mono"
          inputmode="decimal"
          :value="marks[step.mark] ?? ''"
          placeholder="–"
          :disabled="closed"
          :aria-label="$t('ForcedSteps.secondsOf', { does: step.does })"
          @keep="(text) => emit('correct', step.mark ?? '', step.does, text)"
        />
        {{ $t('ForcedSteps.s') }}
        <el-button
          v-if="!closed && marks[step.mark] !== undefined"
          class="key quiet"
          :aria-label="$t('ForcedSteps.forget', { does: step.does })"
          @click="emit('forget', step.mark ?? '')"
        >
          ×
        </el-button>
      </span>
      <small>
        <template v-if="step.proves">{{
          $t('ForcedSteps.provesNot', { proves: step.proves, not: step.not })
        }}</template>
        <template v-else-if="step.note">{{ step.note[0]?.toUpperCase() + step.note.slice(1) }}.</template>
        <template v-for="caution in step.cautions" :key="caution"> ⚠ {{ caution }}</template>
      </small>
    </li>
  </ol>
</template>

<style scoped>
.steps {
  margin: 0;
  padding: 0;
  list-style: none;
}

.steps li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 8px;
  align-items: center;
  padding: 5px 0 5px 8px;
  border-left: 6px solid var(--rule);
  border-bottom: 1px solid var(--rule);
}

.steps li.done {
  border-left-color: var(--agrees);
}

.steps li.next {
  border-left-color: var(--live);
}

.mark {
  min-height: 56px;
  padding: 6px 14px;
  border: 2px solid var(--ink);
  border-radius: 3px;
  background: var(--panel);
  font-size: 17px;
  font-weight: 650;
  text-align: left;
  cursor: pointer;
}

.next .mark {
  border-color: var(--live);
  background: var(--live);
  color: var(--on-live);
}

.done .mark {
  border-color: var(--rule-strong);
  font-weight: 450;
}

.plain {
  font-weight: 650;
}

.at {
  display: flex;
  align-items: center;
  gap: 4px;
}

.at .el-input {
  width: 92px;
}

.steps small {
  grid-column: 1 / -1;
  color: var(--ink-soft);
  font-size: 14px;
}
</style>
