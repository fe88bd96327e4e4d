<script setup lang="ts">
import { computed } from 'vue'
import type { Legend } from '@/shared/api/client'
import SymbolGlyph from '@/shared/scene/SymbolGlyph.vue'

const props = defineProps<{ legend: Legend; part: string | null }>()
const emit = defineEmits<{ light: [code: string | null] }>()

const fitted = computed(() => props.legend.entries.filter((entry) => entry.fitted))
const absent = computed(() => props.legend.entries.filter((entry) => !entry.fitted))

function stands(entry: Legend['entries'][number]): string {
  if (entry.rest && entry.now)
    return entry.rest === entry.now ? entry.now : `${entry.now}, at rest ${entry.rest}`
  return entry.now ?? ''
}
</script>

<template>
  <div class="legend">
    <ul class="codes" :aria-label="$t('LegendView.codes')">
      <li v-for="entry in fitted" :key="entry.code">
        <button
          class="entry"
          :aria-pressed="part === entry.code"
          :data-testid="`legend-${entry.code}`"
          @click="emit('light', part === entry.code ? null : entry.code)"
        >
          <SymbolGlyph :strokes="entry.strokes" />
          <span class="code mono">{{ entry.code }}</span>
          <span class="words">
            <b>{{ entry.title }}</b> <span>{{ entry.does }}</span>
            <small v-if="entry.moves">{{ $t('LegendView.movedBy', { moves: entry.moves }) }}</small>
          </span>
          <span class="stands mono">{{ stands(entry) }}</span>
        </button>
        <p v-for="caution in part === entry.code ? entry.cautions : []" :key="caution" class="caution">
          ⚠ {{ caution }}
        </p>
      </li>
    </ul>
    <h2>{{ $t('LegendView.onManyPanelsNotFitted') }}</h2>
    <ul class="codes absent" :aria-label="$t('LegendView.notFitted')">
      <li v-for="entry in absent" :key="entry.code" class="entry">
        <SymbolGlyph :strokes="entry.strokes" struck />
        <span class="code mono"
          ><s>{{ entry.code }}</s></span
        >
        <span class="words"
          ><b>{{ entry.title }}</b> <span>{{ entry.does }}</span></span
        >
      </li>
    </ul>
    <h2>{{ $t('LegendView.linesAndSymbols') }}</h2>
    <ul class="marks" :aria-label="$t('LegendView.linesAndSymbols')">
      <li v-for="mark in legend.marks" :key="mark.key">
        <SymbolGlyph :strokes="mark.strokes" :line="mark.line" />
        <span
          ><b>{{ mark.title }}</b> {{ mark.says }}</span
        >
      </li>
    </ul>
  </div>
</template>

<style scoped>
h2 {
  margin: 14px 0 4px;
  font-size: 16px;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

.codes li {
  border-bottom: 1px solid var(--rule);
}

.entry {
  display: grid;
  grid-template-columns: 64px 118px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: var(--target);
  padding: 2px 6px;
  border: 0;
  background: transparent;
  text-align: left;
}

button.entry {
  cursor: pointer;
}

button.entry:hover {
  background: var(--note-soft);
}

.entry[aria-pressed='true'] {
  background: var(--note-soft);
  box-shadow: inset 6px 0 var(--focus);
}

.code {
  font-weight: 700;
}

.words b::after {
  content: ':';
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 14px;
}

.stands,
.absent {
  color: var(--ink-soft);
}

.caution {
  padding: 4px 12px 8px 80px;
  color: var(--between);
  font-weight: 600;
}

.marks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: 4px 20px;
}

.marks li {
  display: grid;
  grid-template-columns: 64px 1fr;
  gap: 10px;
  align-items: center;
  min-height: 48px;
}

@media (max-width: 640px) {
  .entry {
    grid-template-columns: 56px minmax(0, 1fr) auto;
  }

  .words {
    grid-column: 1 / -1;
  }
}
</style>
