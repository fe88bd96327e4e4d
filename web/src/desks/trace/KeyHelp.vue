<script setup lang="ts">
import type { Catalogue } from '@/shared/api/client'
import { KEYS } from '@/shared/model/keys'

defineProps<{ calls: Catalogue['calls'] }>()
defineEmits<{ look: [] }>()
const shown = defineModel<boolean>({ required: true })

const NAMES: Record<string, string> = { ArrowRight: '→', ArrowLeft: '←', ' ': 'space' }
</script>

<template>
  <details class="keys" :open="shown" @toggle="shown = ($event.target as HTMLDetailsElement).open">
    <summary>{{ $t('KeyHelp.keys') }} <kbd>?</kbd></summary>
    <ul>
      <li v-for="call in calls" :key="call.id">
        <kbd>{{ call.key }}</kbd> {{ call.title }}
      </li>
      <li v-for="entry in KEYS" :key="entry.key">
        <kbd>{{ NAMES[entry.key] ?? entry.key }}</kbd> {{ entry.says }}
      </li>
      <li><kbd>↵</kbd> {{ $t('KeyHelp.keepTheReading') }}</li>
    </ul>
    <el-button class="key" data-testid="first-look-again" @click="$emit('look')">{{
      $t('KeyHelp.firstLookAgain')
    }}</el-button>
  </details>
</template>

<style scoped>
summary {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
  cursor: pointer;
  color: var(--ink-soft);
}

kbd {
  display: inline-block;
  min-width: 26px;
  padding: 1px 6px;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
  font-family: var(--font-mono);
  text-align: center;
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(280px, 100%), 1fr));
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
</style>
