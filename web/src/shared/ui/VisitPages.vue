<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Visit } from '@/shared/api/client'
import SayIt from '@/shared/ui/SayIt.vue'
import { useVisit } from '@/shared/ui/useVisit'
import { MEANS, PAGES, SIGNS } from '@/shared/model/visitPages'

const route = useRoute()
const { visit, load } = useVisit()
const PagesSheet = defineAsyncComponent(() => import('@/shared/ui/PagesSheet.vue'))
/** A thumb opens the list of them; a row that scrolls would hide the page one is on. */
const phone = useMediaQuery('(max-width: 640px)')
const open = ref(false)
const opened = ref(false)
const here = computed(() => PAGES.find((one) => one.path && route.path.split('/')[3] === one.path) ?? null)
const id = computed(() => {
  const known = /^\/visits\/([0-9a-f-]{36})\//.exec(route.path)
  return known ? (known[1] as string) : null
})
/** How a page stands, null until the visit is there. */
const mark = (page: keyof Visit['marks']) =>
  visit.value && visit.value.id === id.value ? visit.value.marks[page] : null
watch(
  id,
  (now) => {
    if (now && visit.value?.id !== now) void load(now)
  },
  { immediate: true },
)
</script>

<template>
  <nav v-if="id && phone" class="pages" :aria-label="$t('VisitPages.pagesOfTheVisit')">
    <el-button class="here" :aria-expanded="open" data-testid="pages-here" @click="open = opened = true">
      <span v-if="here" :class="['sign', mark(here.id)]" aria-hidden="true">{{
        SIGNS[mark(here.id) ?? 'untouched']
      }}</span>
      {{ here?.title ?? $t('VisitPages.pages') }}
      <span class="hidden-label">{{ $t('VisitPages.pagesOfTheVisit') }}</span>
    </el-button>
    <PagesSheet
      v-if="opened"
      :id="id"
      v-model="open"
      :here="here?.id ?? null"
      :marks="visit && visit.id === id ? visit.marks : null"
    />
    <SayIt :key="id" :visit="id" />
  </nav>
  <nav v-else-if="id" class="pages" :aria-label="$t('VisitPages.pagesOfTheVisit')">
    <RouterLink
      v-for="page in PAGES.filter((one) => one.path)"
      :key="page.id"
      :to="`/visits/${id}/${page.path}`"
      :data-testid="`page-${page.id}`"
    >
      <span :class="['sign', mark(page.id)]" aria-hidden="true">{{
        SIGNS[mark(page.id) ?? 'untouched']
      }}</span>
      {{ page.title }}
      <span v-if="mark(page.id)" class="hidden-label">{{ MEANS[mark(page.id)!] }}</span>
    </RouterLink>
    <SayIt :key="id" :visit="id" />
  </nav>
</template>

<style scoped>
.pages {
  position: relative; /* keeps the spoken marks inside what scrolls */
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
  border-left: 1px solid var(--on-bar-soft);
  padding-left: 8px;
}

a {
  display: inline-flex;
  flex: none;
  align-items: center;
  gap: 6px;
  min-width: var(--target);
  min-height: var(--target);
  justify-content: center;
  padding: 0 9px;
  border-top: 4px solid transparent;
  border-bottom: 4px solid transparent;
  color: var(--on-bar);
  text-decoration: none;
}

a.router-link-active {
  border-bottom-color: var(--bar-accent);
  font-weight: 700;
}

.here {
  flex: 1;
  min-height: var(--target);
  border: 0;
  background: transparent;
  color: var(--on-bar);
  font-size: 17px;
  font-weight: 700;
}

.here :deep(> span) {
  gap: 8px;
}

.here :deep(> span)::after {
  content: '▾' / '';
}

.sign {
  width: 10px;
  text-align: center;
  font-weight: 800;
  color: var(--on-bar-soft);
}

.sign.disagrees {
  color: var(--bar-accent);
}

a:focus-visible {
  outline-color: var(--bar-accent);
  outline-offset: -4px;
}
</style>
