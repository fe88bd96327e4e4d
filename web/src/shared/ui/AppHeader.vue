<script setup lang="ts">
import { useQuestion } from '@/shared/api/useQuestion'
import { api } from '@/shared/api/client'
import VisitPages from '@/shared/ui/VisitPages.vue'

const { value: viewer } = useQuestion('viewer', true, api.viewer)
</script>

<template>
  <header class="bar">
    <RouterLink class="name" to="/">gorvant</RouterLink>
    <nav aria-label="Main">
      <RouterLink to="/">Visits</RouterLink>
      <RouterLink to="/rigs">Rigs</RouterLink>
      <RouterLink to="/settings">Settings</RouterLink>
    </nav>
    <VisitPages />
    <span v-if="viewer" class="crew">{{ viewer.crew }}</span>
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: stretch;
  gap: 20px;
  min-height: 44px;
  padding: 0 16px;
  background: var(--bar);
  color: var(--on-bar);
}

.bar a {
  display: inline-flex;
  align-items: center;
  min-width: var(--target);
  justify-content: center;
  padding: 0 8px;
  color: var(--on-bar);
  text-decoration: none;
}

.bar .name {
  padding-left: 0;
  font-family: var(--font-mono);
  font-weight: 700;
  font-size: 20px;
  letter-spacing: -0.02em;
}

nav {
  display: flex;
}

.bar > nav[aria-label='Main'] a {
  border-bottom: 4px solid transparent;
  border-top: 4px solid transparent;
}

.bar > nav[aria-label='Main'] a.router-link-exact-active {
  border-bottom-color: var(--bar-accent);
  font-weight: 700;
}

.bar :focus-visible {
  outline-color: var(--bar-accent);
  outline-offset: -4px;
}

.crew {
  margin-left: auto;
  align-self: center;
  color: var(--on-bar-soft);
}

@media print {
  .bar {
    display: none;
  }
}

@media (max-width: 1180px) {
  .crew {
    display: none;
  }
}

@media (max-width: 900px) {
  .bar {
    flex-wrap: wrap;
    gap: 0 8px;
    padding: 0 10px;
  }
}
</style>
