<script setup lang="ts">
import { RouterLink } from 'vue-router'
import { api, type SitePage } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import NotesField from '@/pages/units/NotesField.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { day } from '@/shared/model/units'

const props = defineProps<{ id: string }>()
const { value: site, problem } = useQuestion<string, SitePage>('site', () => props.id, api.site, {
  follows: false,
})
</script>

<template>
  <main class="site">
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="!site && !problem">{{ $t('SitePage.fetchingTheSite') }}</p>
    <template v-if="site">
      <h1>{{ site.name }}</h1>
      <NotesField
        :notes="site.notes"
        :version="site.version"
        :title="$t('SitePage.whoToAskHowTo')"
        :placeholder="$t('SitePage.keyAtTheBoathouseDesk')"
        :keep="(version, notes) => api.changeSite(id, version, notes)"
      />
      <ul>
        <li v-for="unit in site.units" :key="unit.id">
          <RouterLink class="unit" :to="`/units/${unit.id}`" data-testid="site-unit">
            <b>{{ unit.name }}</b>
            <span>{{ unit.rig ?? $t('SitePage.nothingKnownOfItYet') }}</span>
            <span class="mono">{{ unit.last_on ? day(unit.last_on) : '' }}</span>
            <span>{{
              $t('SitePage.visits', {
                visits: unit.visits,
                open: unit.open ? $t('SitePage.open', { open: unit.open }) : '',
              })
            }}</span>
          </RouterLink>
        </li>
      </ul>
    </template>
  </main>
</template>

<style scoped>
.site {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  max-width: 900px;
  padding: 12px 16px 40px;
}

h1 {
  font-size: 26px;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

.unit {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 80px 150px;
  gap: 4px 14px;
  align-items: center;
  min-height: var(--target);
  padding: 6px 10px;
  border-bottom: 1px solid var(--rule);
  color: var(--ink);
  text-decoration: none;
}

.unit:hover {
  background: var(--panel);
}

@media (max-width: 620px) {
  .unit {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
