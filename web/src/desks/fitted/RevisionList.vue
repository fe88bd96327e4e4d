<script setup lang="ts">
import type { Revision } from '@/shared/api/client'
import { clock, day } from '@/shared/model/units'

defineProps<{ revisions: Revision[] }>()
</script>

<template>
  <section class="revisions" :aria-label="$t('RevisionList.revisions')">
    <h2>{{ $t('RevisionList.revisions') }}</h2>
    <details v-for="revision in revisions" :key="revision.id">
      <summary>
        <b class="mono">{{ revision.number }}</b> {{ day(revision.created_at) }}
        {{ clock(revision.created_at) }}, {{ revision.by }}
        <span>{{
          revision.differences.length
            ? $t('RevisionList.changed', { differences: revision.differences.length })
            : $t('RevisionList.theFirst')
        }}</span>
      </summary>
      <ul>
        <li v-for="difference in revision.differences" :key="difference.field">
          <b>{{ difference.title }}</b> {{ difference.before ?? $t('RevisionList.nothing') }} →
          {{ difference.after ?? $t('RevisionList.nothing') }}
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
