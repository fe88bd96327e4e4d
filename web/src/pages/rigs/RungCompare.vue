<script setup lang="ts">
import { computed } from 'vue'
import type { NotationAnswer } from '@/shared/api/client'
import SceneView from '@/shared/scene/SceneView.vue'

const props = defineProps<{ comparison: NonNullable<NotationAnswer['comparison']>; lit: string[] }>()
const emit = defineEmits<{ light: [code: string] }>()

const different = computed(() => props.comparison.rungs.filter((rung) => !rung.same))
const same = computed(() => props.comparison.rungs.length - different.value.length)
</script>

<template>
  <section class="compare" :aria-label="$t('RungCompare.comparison')" data-testid="comparison">
    <p v-if="!different.length">{{ $t('RungCompare.everyRungIsAsOn', { with: comparison.with }) }}</p>
    <p v-else>
      {{
        $t('RungCompare.ofRungsDifferFromAre', {
          different: different.length,
          rungs: comparison.rungs.length,
          with: comparison.with,
          same,
        })
      }}
    </p>
    <details v-for="(rung, i) in different" :key="rung.code" :open="i === 0">
      <summary @click="emit('light', rung.code)">
        <b class="mono">{{ rung.code }}</b> {{ rung.title }}: {{ rung.says[0] }}
      </summary>
      <p v-for="line in rung.says.slice(1)" :key="line">{{ line }}</p>
      <template v-for="side in ['before', 'after'] as const" :key="side">
        <h3>{{ side === 'before' ? $t('RungCompare.thisPanel') : comparison.with }}</h3>
        <p v-if="!rung[side]">{{ $t('RungCompare.hasNoSuchRung') }}</p>
        <p v-for="feed in rung[side] ?? []" :key="feed" class="mono feed">{{ feed }}</p>
        <div v-if="rung[`${side}_scene`]" class="drawn">
          <SceneView
            :scene="rung[`${side}_scene`]!"
            :lit="rung.marked"
            :style="{ width: `${rung[`${side}_scene`]!.width}px` }"
          />
        </div>
      </template>
    </details>
  </section>
</template>

<style scoped>
.compare {
  padding: 8px 12px;
  border: 2px solid var(--rule-strong);
}

details {
  border-top: 1px solid var(--rule);
}

summary {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
  cursor: pointer;
}

h3 {
  margin-top: 8px;
  font-size: 15px;
}

.feed {
  overflow-wrap: anywhere;
  font-size: 14px;
}

.drawn {
  overflow-x: auto;
}
</style>
