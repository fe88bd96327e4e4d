<script setup lang="ts">
import type { components } from '@/shared/api/schema'

/** Folded: only their titles, where a drawing needs the room. */
defineProps<{ findings: components['schemas']['Finding'][]; folded?: boolean }>()

const SIGN: Record<string, string> = { fault: '≠', warning: '!', note: 'i', as_designed: '=' }
</script>

<template>
  <section v-if="findings.length" class="findings" :aria-label="$t('FindingList.findings')">
    <details
      v-for="finding in findings"
      :key="finding.code + finding.says"
      :class="finding.severity"
      :open="finding.severity === 'fault' && !folded"
    >
      <summary>
        <b aria-hidden="true">{{ SIGN[finding.severity] }}</b> {{ finding.title }}
      </summary>
      <p>{{ finding.says }}</p>
      <p v-if="finding.next_step">
        <strong>{{ $t('FindingList.next') }}</strong> {{ finding.next_step }}
      </p>
      <p v-for="caution in finding.cautions" :key="caution" class="caution">⚠ {{ caution }}</p>
      <ul v-if="finding.evidence.length">
        <li v-for="line in finding.evidence" :key="line">{{ line }}</li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.findings {
  display: grid;
  gap: 8px;
}

details {
  padding: 4px 12px 8px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
  overflow-wrap: anywhere;
}

details.fault {
  border-color: var(--alarm);
  background: var(--alarm-soft);
}

summary {
  min-height: var(--target);
  display: flex;
  align-items: center;
  gap: 10px;
  font-weight: 700;
  cursor: pointer;
}

summary b {
  font-size: 20px;
}

p + p {
  margin-top: 6px;
}

.caution {
  font-weight: 650;
}

ul {
  margin: 6px 0 0;
  padding-left: 18px;
  color: var(--ink-soft);
}
</style>
