<script setup lang="ts">
import type { Verdict } from '@/shared/api/client'

defineProps<{ verdicts: Verdict[] }>()
const SIGN: Record<Verdict['verdict'], string> = {
  right: '=',
  wrong: '≠',
  as_designed: '=',
  undetermined: '?',
}
</script>

<template>
  <div class="verdicts" data-testid="verdicts">
    <article v-for="(one, i) in verdicts" :key="one.code + i" :class="['verdict', one.verdict]">
      <h3>
        <b aria-hidden="true">{{ SIGN[one.verdict] }}</b> {{ one.title }}
        <small v-if="one.look_first" class="first">{{ $t('VerdictList.lookAtThisFirst') }}</small>
        <small v-if="one.verdict === 'as_designed'">{{ $t('VerdictList.asDesigned') }}</small>
      </h3>
      <p>{{ one.says }}</p>
      <p v-for="caution in one.cautions" :key="caution" class="caution">⚠ {{ caution }}</p>
      <p v-if="one.verdict !== 'right'" class="next">→ {{ one.next_step }}</p>
      <details>
        <summary>{{ $t('VerdictList.seenAssumedNotProved') }}</summary>
        <dl>
          <dt>{{ $t('VerdictList.seen') }}</dt>
          <dd v-for="line in one.evidence" :key="line">{{ line }}</dd>
          <dt>{{ $t('VerdictList.assumed') }}</dt>
          <dd v-for="line in one.assumed" :key="line">{{ line }}</dd>
          <dt>{{ $t('VerdictList.notProved') }}</dt>
          <dd v-for="line in one.not_proved" :key="line">{{ line }}</dd>
        </dl>
      </details>
    </article>
  </div>
</template>

<style scoped>
.verdicts {
  display: grid;
  gap: 8px;
}

.verdict {
  padding: 6px 12px;
  border-left: 6px solid var(--rule-strong);
  background: var(--panel);
  overflow-wrap: anywhere;
}

.verdict.right,
.verdict.as_designed {
  border-color: var(--agrees);
}

.verdict.wrong {
  border-color: var(--alarm);
  background: var(--alarm-soft);
}

.verdict.undetermined {
  border-color: var(--between);
  background: var(--note-soft);
}

h3 {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 8px;
  font-size: 16px;
}

h3 b {
  font-size: 20px;
}

.first {
  padding: 0 8px;
  background: var(--alarm);
  color: var(--panel);
}

.caution,
.next {
  font-weight: 650;
}

summary {
  display: flex;
  align-items: center;
  min-height: 30px;
  color: var(--ink-soft);
  cursor: pointer;
}

dl {
  margin: 0;
  font-size: 15px;
}

dt {
  font-weight: 700;
}

dd {
  margin: 0 0 0 14px;
  color: var(--ink-soft);
}
</style>
