<script setup lang="ts">
import { computed } from 'vue'

/** Six marks on a live visit, for who sees the page for the first time. */
const props = defineProps<{ narrow: boolean }>()
const open = defineModel<boolean>({ required: true })

const MARKS = [
  {
    at: '[aria-label=Call]',
    title: 'The call',
    says: 'What the thermostat asks for. Keys 1 to 7 do the same. Everything below follows at once.',
  },
  {
    at: '[aria-label="What runs"]',
    title: 'What runs',
    says: 'Tap one that is off: why, and the first missing link, on the drawing too.',
  },
  {
    at: '.drawing',
    title: 'The loom',
    says: 'Every 24 V way from R to C, by place. Plum is live. Tap a terminal, a switch or a load to put the probes there.',
  },
  {
    at: '[aria-label=Meter]',
    title: 'The meter',
    says: 'What should be read there, and why. Type what yours shows: it is kept with the visit, and judged.',
  },
  {
    at: '[data-testid=function-seen]',
    title: 'More than volts',
    says: 'Ohms, amps, temperatures, and what you saw or did. “Could not tell” is an answer too.',
  },
  {
    at: '[aria-label="Pages of the visit"]',
    title: 'The other desks',
    says: 'Wiring, thermostat, defrost: each says what was looked at, and what was only taken as drawn.',
  },
]
/** On a phone the meter is folded. */
const marks = computed(() => MARKS.filter((one) => !props.narrow || !one.at.includes('function-')))
</script>

<template>
  <el-tour v-model="open" :mask="{ color: 'rgb(0 0 0 / 35%)' }" class="first-look" data-testid="first-look">
    <el-tour-step
      v-for="mark in marks"
      :key="mark.at"
      :target="mark.at"
      :title="mark.title"
      :description="mark.says"
      :next-button-props="{ children: 'Next', size: 'large' }"
      :prev-button-props="{ children: 'Back', size: 'large' }"
    />
  </el-tour>
</template>
