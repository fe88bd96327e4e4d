<script setup lang="ts">
import type { TryLine } from '@/pages/practice/api'
import { ago } from '@/shared/model/when'

/** Drills that are done, the newest first; each opens its debrief. */
defineProps<{ tries: TryLine[] }>()
</script>

<template>
  <el-empty v-if="!tries.length" :description="$t('DoneTries.noDrillDoneYet')" :image-size="1" />
  <ol v-else class="done">
    <li v-for="one in tries" :key="one.id" data-testid="done-try">
      <RouterLink :to="`/practice/tries/${one.id}`">
        <b class="mono marks">{{ one.marks }}</b>
        <span
          ><b>{{ one.title }}</b
          >: {{ one.complaint[0] ?? one.subject_title }}<small>{{ one.rig_name }}</small></span
        >
        <small>{{ ago(one.updated_at) }}</small>
      </RouterLink>
    </li>
  </ol>
</template>

<style scoped>
.done {
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 3px solid var(--ink);
}

a {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  min-height: 60px;
  border-bottom: 1px solid var(--rule);
  color: inherit;
  text-decoration: none;
}

.marks {
  font-size: 24px;
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
}
</style>
