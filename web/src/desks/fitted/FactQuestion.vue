<script setup lang="ts">
import type { Answer, Fact, Question } from '@/desks/fitted/answers'
import FactField from '@/shared/ui/kit/FactField.vue'

/** One question of the composer: what is asked, by whose word it is answered, the answer, what is wrong with it. */
defineProps<{ question: Question; fact: Fact | undefined; value: Answer; wrong: string }>()
const emit = defineEmits<{ answer: [value: Answer]; clear: [] }>()
</script>

<template>
  <div class="question" :data-fact="question.key">
    <p class="what">
      {{ question.title }} <small>{{ question.asks }}</small>
      <span :class="['source', fact?.provenance.source ?? 'assumed']">{{
        fact?.provenance.source ?? $t('FactQuestion.assumed')
      }}</span>
      <el-button
        v-if="fact"
        class="key quiet"
        :aria-label="$t('FactQuestion.leaveOpen2', { title: question.title })"
        @click="emit('clear')"
      >
        {{ $t('FactQuestion.leaveOpen') }}
      </el-button>
    </p>
    <FactField :fact="question" :model-value="value" @update:model-value="(one) => emit('answer', one)" />
    <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
  </div>
</template>

<style scoped>
.question {
  padding: 8px 0 10px;
  border-bottom: 1px solid var(--rule);
}

.what {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
  padding-bottom: 4px;
  font-weight: 700;
}

.what small {
  color: var(--ink-soft);
  font-size: 15px;
  font-weight: 450;
}

.wrong {
  color: var(--alarm);
  font-weight: 650;
}

.source {
  margin-left: auto;
  padding: 0 6px;
  border: 1px solid var(--agrees);
  color: var(--agrees);
  font-size: 13px;
  font-weight: 450;
}

.source.assumed {
  border-style: dashed;
  border-color: var(--between);
  color: var(--between);
}

.what .key {
  min-width: 24px;
  margin-block: -8px -4px; /* a thumb's height in a line of text */
  padding: 0 4px;
  font-size: 13px;
  font-weight: 450;
}
</style>
