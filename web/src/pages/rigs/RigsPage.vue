<script setup lang="ts">
import { shallowRef } from 'vue'
import { api, type Rig } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import RigImport from '@/shared/ui/RigImport.vue'
import { useQuestion } from '@/shared/api/useQuestion'

const { outcome, again } = useQuestion('rigs', true, api.rigs, { follows: false })
const newest = shallowRef<Rig | null>(null)

async function imported(rig: Rig) {
  newest.value = rig
  await again()
}
</script>

<template>
  <main class="library">
    <div class="top">
      <h1>{{ $t('RigsPage.rigs') }}</h1>
      <span class="begin">
        <RouterLink class="key" to="/rigs/new/rungs">{{ $t('RigsPage.typeItsRungs') }}</RouterLink>
        <RouterLink class="key solid" to="/rigs/new">{{ $t('RigsPage.composeARig') }}</RouterLink>
      </span>
    </div>
    <RigImport @imported="imported" />
    <p v-if="newest" class="kept" role="status">{{ $t('RigsPage.kept', { name: newest.name }) }}</p>
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <p v-if="outcome.state === 'ready' && !outcome.value.rigs.length" class="empty">
      {{ $t('RigsPage.theLibraryIsEmptyImport') }}
    </p>
    <ol v-if="outcome.state === 'ready'">
      <li v-for="rig in outcome.value.rigs" :key="rig.id" data-testid="rig">
        <RouterLink class="name" :to="`/rigs/${rig.id}`"
          >{{ rig.name
          }}<small>{{
            $t('RigsPage.typeRevision', {
              archetype_title: rig.archetype_title,
              changeover: rig.changeover,
              revision: rig.revision,
            })
          }}</small></RouterLink
        >
        <RouterLink class="key" :to="`/rigs/${rig.id}/trace`">{{ $t('RigsPage.trace') }}</RouterLink>
        <RouterLink class="key" :to="`/rigs/${rig.id}/rungs`">{{ $t('RigsPage.rungs') }}</RouterLink>
        <a class="key" :href="`/api/rigs/${rig.id}/export`" download>{{ $t('RigsPage.export') }}</a>
      </li>
    </ol>
  </main>
</template>

<style scoped>
.library {
  max-width: 900px;
  margin: 0 auto;
  padding: 16px 16px 40px;
}

.top {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding-bottom: 12px;
}

.begin {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

h1 {
  font-size: 26px;
}

.kept {
  padding: 8px 12px;
  margin-top: 8px;
  border-left: 6px solid var(--agrees);
  background: var(--agrees-soft);
}

.empty {
  padding: 20px 0;
  color: var(--ink-soft);
}

ol {
  margin: 16px 0 0;
  padding: 0;
  list-style: none;
  border-top: 3px solid var(--ink);
}

li {
  display: grid;
  grid-template-columns: 1fr auto auto auto;
  gap: 10px;
  align-items: center;
  min-height: 68px;
  border-bottom: 1px solid var(--rule);
}

.name {
  text-decoration: none;
  font-size: 19px;
  font-weight: 700;
  overflow-wrap: anywhere;
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
  font-weight: 450;
}

@media (max-width: 520px) {
  li {
    grid-template-columns: 1fr 1fr 1fr;
    padding: 8px 0;
  }

  .name {
    grid-column: 1 / -1;
  }
}
</style>
