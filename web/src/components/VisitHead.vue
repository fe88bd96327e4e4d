<script setup lang="ts">
import type { Visit } from '@/api/client'

/** What stands over every page of a visit: which page, which unit, and whether all is kept. */
defineProps<{ title: string; visit: Visit | null; kept: boolean }>()
</script>

<template>
  <div class="head">
    <h1>
      {{ title }} <span v-if="visit">{{ visit.site }}, {{ visit.unit }}</span>
    </h1>
    <p v-if="kept" class="kept" role="status">= kept</p>
    <slot />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 16px;
}

h1 {
  flex: 1 1 260px;
  font-size: 20px;
}

h1 span {
  font-weight: 450;
}

.kept {
  color: var(--agrees);
}
</style>
