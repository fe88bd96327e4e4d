<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import PocketChip from '@/shared/kept/PocketChip.vue'
import TogetherChip from '@/shared/ui/TogetherChip.vue'
import VisitPages from '@/shared/ui/VisitPages.vue'
import { useSession } from '@/shared/ui/useSession'

const { viewer } = useSession()
const route = useRoute()
const visitId = computed(() => /^\/visits\/([0-9a-f-]{36})\//.exec(route.path)?.[1] ?? null)
</script>

<template>
  <header class="bar">
    <RouterLink class="name" to="/">{{ $t('AppHeader.gorvant') }}</RouterLink>
    <nav v-if="viewer" :aria-label="$t('AppHeader.main')">
      <RouterLink to="/">{{ $t('AppHeader.visits') }}</RouterLink>
      <RouterLink to="/rigs">{{ $t('AppHeader.rigs') }}</RouterLink>
      <RouterLink to="/practice">{{ $t('AppHeader.practice') }}</RouterLink>
      <RouterLink to="/settings">{{ $t('AppHeader.settings') }}</RouterLink>
    </nav>
    <VisitPages v-if="viewer" />
    <TogetherChip v-if="viewer && visitId" :key="visitId" :visit="visitId" />
    <PocketChip v-if="viewer" :visit="visitId" />
    <RouterLink v-if="viewer" class="crew" to="/settings/account" data-testid="who">
      <span
        >{{ viewer.name
        }}<small>{{
          viewer.may_change ? viewer.crew : $t('AppHeader.apprenticeReadsAndPractices')
        }}</small></span
      >
    </RouterLink>
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
  min-height: var(--target);
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

.pocket + .crew {
  margin-left: 0;
}

.bar .crew {
  margin-left: auto;
  line-height: 1.15;
  text-align: right;
}

.crew small {
  display: block;
  color: var(--on-bar-soft);
  font-size: 13px;
}

@media print {
  .bar {
    display: none;
  }
}

/* A visit's pages need the room first. */
@media (max-width: 1400px) {
  .bar:has(.pages) {
    gap: 8px;
  }

  .bar:has(.pages) a:not(.name) {
    padding: 0 6px;
  }

  .bar:has(.pages) .crew {
    display: none;
  }
}

@media (max-width: 1180px) {
  .bar .crew {
    display: none;
  }
}

@media (max-width: 900px) {
  .bar {
    flex-wrap: wrap;
    gap: 0 8px;
    padding: 0 10px;
  }

  /* The pages of the visit have a row of their own, whoever comes and goes beside the rest. */
  .bar .together {
    order: 1;
  }

  .bar .pages {
    order: 2;
    flex: 1 1 60%;
    min-width: 0;
  }

  .bar:not(:has(.pocket)) .pages {
    flex-basis: 100%;
  }

  .bar .pocket {
    order: 3;
  }
}
</style>
