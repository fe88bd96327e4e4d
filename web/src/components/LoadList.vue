<script setup lang="ts">
import { ref } from 'vue'
import type { components } from '@/api/schema'

type LoadState = components['schemas']['LoadState']

defineProps<{ loads: LoadState[]; asked: string | null }>()
const emit = defineEmits<{ ask: [load: LoadState | null] }>()

const all = ref(false)
/** What does the work; the rest are relays and the board. Heat never drops out. */
const MAIN = ['COMP', 'COMP2', 'OFM', 'RVS', 'RVS_LINE', 'HGS', 'BLOWER', 'HTR', 'HTR2', 'GAS']
</script>

<template>
  <section class="loads" aria-label="What runs">
    <h2>What runs</h2>
    <ul>
      <li v-for="load in all ? loads : loads.filter((one) => MAIN.includes(one.code))" :key="load.code">
        <button
          class="load"
          :aria-expanded="asked === load.code"
          :data-testid="`load-${load.code}`"
          @click="emit('ask', asked === load.code ? null : load)"
        >
          <span :class="['lamp', { on: load.on }]" aria-hidden="true"></span>
          <span class="title">{{ load.title }}</span>
          <span class="state mono">{{ load.on ? 'on' : load.as_designed ? 'off' : 'off ≠' }}</span>
        </button>
        <ol v-if="asked === load.code" class="chain" data-testid="why">
          <li v-for="link in load.chain" :key="link">{{ link }}</li>
        </ol>
      </li>
    </ul>
    <button class="key quiet" @click="all = !all">{{ all ? 'Loads only' : 'Relays and board too' }}</button>
  </section>
</template>

<style scoped>
h2 {
  font-size: 16px;
}

ul,
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

.load {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: var(--target);
  padding: 0 4px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: transparent;
  text-align: left;
  cursor: pointer;
}

.load:hover {
  background: var(--note-soft);
}

.lamp {
  flex: none;
  width: 16px;
  height: 16px;
  border: 2px solid var(--dead);
  border-radius: 50%;
}

.lamp.on {
  border-color: var(--live);
  background: var(--live);
}

.title {
  flex: 1;
}

.title::first-letter {
  text-transform: uppercase;
}

.state {
  font-weight: 700;
}

.chain {
  padding: 6px 8px 10px 30px;
  background: var(--note-soft);
}

.chain li + li {
  margin-top: 4px;
}

.chain li + li::before {
  content: '↳ ';
}
</style>
