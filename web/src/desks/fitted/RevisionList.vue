<script setup lang="ts">
import type { Revision } from '@/shared/api/client'
import { clock, day } from '@/shared/model/units'

defineProps<{ revisions: Revision[] }>()
</script>

<template>
  <section class="revisions" aria-label="Revisions">
    <h2>Revisions</h2>
    <details v-for="revision in revisions" :key="revision.id">
      <summary>
        <b class="mono">{{ revision.number }}</b> {{ day(revision.created_at) }}
        {{ clock(revision.created_at) }}, {{ revision.by }}
        <span>{{
          revision.differences.length ? `${revision.differences.length} changed` : 'the first'
        }}</span>
      </summary>
      <ul>
        <li v-for="difference in revision.differences" :key="difference.field">
          <b>{{ difference.title }}</b> {{ difference.before ?? 'nothing' }} →
          {{ difference.after ?? 'nothing' }}
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
h2 {
  font-size: 16px;
}

summary {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: var(--target);
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
}

summary span {
  margin-left: auto;
  color: var(--ink-soft);
}

ul {
  margin: 0;
  padding: 6px 0 10px 26px;
}
</style>
