<script setup lang="ts">
import { computed } from 'vue'

/** A usual kit as a few strokes: the outdoor unit with its stages, what heats indoors, and what tells it apart. */
const props = defineProps<{ kind: string }>()
const gas = computed(() => props.kind.startsWith('gas'))
const two = computed(() => ['two', 'gas_two'].includes(props.kind))
</script>

<template>
  <svg viewBox="0 0 160 64" aria-hidden="true" class="kit-picture">
    <path d="M8 30 36 10 64 30V58H8Z" />
    <path
      v-if="gas"
      class="fire"
      d="M36 54c-8 0-11-6-8-12 2 3 4 3 4 0 0-4 2-7 6-10 0 5 7 8 7 15 0 5-4 7-9 7Z"
    />
    <path v-else d="M22 36h28M22 43h28M22 50h28" class="strip" />
    <path d="M64 46H92" class="pipe" />
    <rect x="92" y="20" width="60" height="38" />
    <circle cx="112" cy="39" r="12" />
    <path d="M112 27v24M100 39h24" />
    <circle v-if="two" cx="138" cy="39" r="9" />
    <path v-if="two" d="M138 30v18M129 39h18" />
    <text v-if="kind === 'b_valve'" x="138" y="46">{{ $t('KitPicture.b') }}</text>
    <text v-else-if="kind === 'plain'" x="138" y="46">{{ $t('KitPicture.o') }}</text>
    <path v-else-if="kind === 'odt'" d="M138 26v18a4 4 0 1 0 .1 0" />
    <path v-else-if="kind === 'demand'" d="M130 30c4 6 0 10 4 16M140 30c4 6 0 10 4 16" />
    <g v-else-if="kind === 'motor'">
      <circle cx="138" cy="39" r="9" />
      <path d="M138 33v6l4 3" />
    </g>
  </svg>
</template>

<style scoped>
.kit-picture {
  width: 100%;
  max-height: 72px;
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.pipe {
  stroke-width: 4;
}

.fire,
.strip {
  stroke: var(--live);
}

text {
  fill: var(--ink);
  stroke: none;
  font-size: 20px;
  font-weight: 700;
  text-anchor: middle;
}
</style>
