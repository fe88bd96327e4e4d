<script setup lang="ts">
import { computed, ref } from 'vue'
import type { components } from '@/shared/api/schema'

type LoadState = components['schemas']['LoadState']

const props = defineProps<{ loads: LoadState[]; asked: string | null }>()
const emit = defineEmits<{ ask: [load: LoadState | null] }>()

const all = ref(false)
const why = computed(() => props.loads.find((load) => load.code === props.asked))
/** What does the work; the rest are relays and the board. Heat never drops out. */
const MAIN = ['COMP', 'COMP2', 'OFM', 'RVS', 'RVS_LINE', 'HGS', 'BLOWER', 'HTR', 'HTR2', 'GAS']
</script>

<template>
  <section class="loads" :aria-label="$t('LoadList.whatRuns')">
    <ul class="strip">
      <li v-for="load in all ? loads : loads.filter((one) => MAIN.includes(one.code))" :key="load.code">
        <button
          class="load"
          :aria-expanded="asked === load.code"
          :data-testid="`load-${load.code}`"
          @click="emit('ask', asked === load.code ? null : load)"
        >
          <span :class="['lamp', { on: load.on }]" aria-hidden="true"></span>
          <span class="title">{{ load.title }}</span>
          <span class="state mono">{{
            load.on ? $t('LoadList.on') : load.as_designed ? $t('LoadList.off') : $t('LoadList.off2')
          }}</span>
        </button>
      </li>
      <li>
        <el-button class="key quiet" @click="all = !all">{{
          all ? $t('LoadList.loadsOnly') : $t('LoadList.relaysToo')
        }}</el-button>
      </li>
    </ul>
    <ol v-if="why" class="chain" data-testid="why">
      <li v-for="link in why.chain" :key="link">{{ link }}</li>
    </ol>
  </section>
</template>

<style scoped>
ul,
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

.loads {
  margin-block: -4px;
}

.strip {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 2px;
}

.load {
  display: flex;
  align-items: center;
  gap: 7px;
  min-height: var(--target);
  padding: 0 10px 0 6px;
  border: 0;
  border-bottom: 2px solid transparent;
  background: transparent;
  font-size: 15px;
  cursor: pointer;
}

.load[aria-expanded='true'] {
  border-bottom-color: var(--ink);
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

.title::first-letter {
  text-transform: uppercase;
}

.state {
  font-weight: 700;
}

.chain {
  padding: 6px 12px 10px;
  background: var(--note-soft);
}

.chain li + li {
  margin-top: 4px;
}

.chain li + li::before {
  content: '↳ ';
}

/* With a mouse the strip is low, so that the drawing under it stays on the screen. */
@media (hover: hover) and (pointer: fine) {
  .load,
  .strip .key {
    min-height: 30px;
  }
}
</style>
