<script setup lang="ts">
import { renewed, waiting } from '@/shared/api/patient'
import AppHeader from '@/shared/ui/AppHeader.vue'

const reload = () => location.reload()
</script>

<template>
  <AppHeader />
  <div class="over">
    <p v-if="waiting" class="waiting" role="status" data-testid="waiting">
      No answer from the server yet. Asking again by itself; what you typed stays here.
    </p>
    <p v-if="renewed" class="waiting" role="status" data-testid="renewed">
      Gorvant has been renewed since this page was opened.
      <el-button class="key" @click="reload">Reload it</el-button>
    </p>
  </div>
  <RouterView v-slot="{ Component, route }">
    <component :is="Component" :key="route.path" />
  </RouterView>
</template>

<style scoped>
/* Over the page and not in it: nothing moves under the finger. */
.over {
  position: sticky;
  top: 0;
  z-index: 30;
  height: 0;
}

.waiting {
  padding: 8px 16px;
  border-bottom: 3px dashed var(--between);
  background: var(--note-soft);
  color: var(--ink);
  font-weight: 650;
}
</style>
