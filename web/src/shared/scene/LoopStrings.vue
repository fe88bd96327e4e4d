<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { components } from '@/shared/api/schema'

const { t } = useI18n()
type LoopString = components['schemas']['LoopString']
type Bead = components['schemas']['Bead']

const props = defineProps<{
  strings: LoopString[]
  loop: string | null
  black: string | null
  red: string | null
}>()
const emit = defineEmits<{ tap: [bead: Bead, load: string]; loop: [load: string] }>()

const rail = ref<HTMLElement | null>(null)

const STATES: Record<string, string> = {
  live: t('LoopStrings.live'),
  dead: t('LoopStrings.dead'),
  home: t('LoopStrings.common'),
  between: t('LoopStrings.between'),
  floating: t('LoopStrings.floats'),
}

function says(bead: Bead): string {
  if (bead.broken) return 'open ≠'
  if (bead.kind === 'load') return bead.sub ?? ''
  if (bead.kind === 'device' && bead.closed === false) return 'open'
  return STATES[bead.state] ?? bead.state
}

function show(load: string | null, smooth: boolean) {
  const index = props.strings.findIndex((one) => one.load === load)
  if (index >= 0 && rail.value)
    rail.value.scrollTo({ left: index * rail.value.clientWidth, behavior: smooth ? 'smooth' : 'instant' })
}

let settling = 0
function scrolled() {
  clearTimeout(settling)
  settling = window.setTimeout(() => {
    const element = rail.value
    const string = element && props.strings[Math.round(element.scrollLeft / element.clientWidth)]
    if (string && string.load !== props.loop) emit('loop', string.load)
  }, 120)
}

onMounted(() => nextTick(() => show(props.loop, false)))
watch(
  () => props.loop,
  (load) => show(load, true),
)
</script>

<template>
  <div class="picker" role="group" :aria-label="$t('LoopStrings.loops')">
    <button
      v-for="string in strings"
      :key="string.load"
      class="pick"
      :aria-pressed="string.load === (loop ?? strings[0]?.load)"
      @click="emit('loop', string.load)"
    >
      {{ string.load === 'THERMOSTAT' ? $t('LoopStrings.tstat') : string.load }}
      <span aria-hidden="true">{{ string.on ? '●' : '○' }}</span>
      <span class="hidden-label">{{ string.on ? $t('LoopStrings.on') : $t('LoopStrings.off') }}</span>
    </button>
  </div>
  <div
    ref="rail"
    class="rail"
    tabindex="0"
    :aria-label="$t('LoopStrings.loopStationByStation')"
    @scroll.passive="scrolled"
  >
    <section v-for="string in strings" :key="string.load" class="string" :aria-label="string.title">
      <p class="why">{{ string.why }}</p>
      <ol>
        <li
          v-for="bead in string.beads"
          :key="bead.id"
          :class="['bead', bead.kind, bead.state, { broken: bead.broken, open: bead.closed === false }]"
        >
          <button
            :class="{ black: bead.nodes.includes(black ?? ''), red: bead.nodes.includes(red ?? '') }"
            @click="emit('tap', bead, string.load)"
          >
            <span class="dot" aria-hidden="true"></span>
            <span class="label">{{ bead.label }}</span>
            <span v-if="bead.nodes.includes(black ?? '')" class="at" :title="$t('LoopStrings.blackProbe')"
              >■</span
            >
            <span v-if="bead.nodes.includes(red ?? '')" class="at red-at" :title="$t('LoopStrings.redProbe')"
              >●</span
            >
            <span class="state">{{ says(bead) }}</span>
          </button>
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.picker {
  position: relative;
  display: flex;
  overflow-x: auto;
  gap: 6px;
  padding: 6px 2px;
}

.pick {
  flex: none;
  min-height: var(--target);
  min-width: 60px;
  padding: 0 10px;
  border: 2px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--panel);
  font-weight: 650;
  white-space: nowrap;
}

.pick[aria-pressed='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--panel);
}

.rail {
  display: flex;
  overflow-x: auto;
  scroll-snap-type: x mandatory;
}

.string {
  flex: 0 0 100%;
  scroll-snap-align: start;
  padding: 0 2px;
}

.why {
  padding: 4px 0 8px;
  color: var(--ink-soft);
  min-height: 46px;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

.bead button {
  position: relative;
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: 46px;
  padding: 0 10px 0 44px;
  border: 0;
  background: transparent;
  text-align: left;
}

/* The string itself: thick with a light core when live, double when home, thin when dead, dotted when it floats. */
.bead button::before {
  content: '';
  position: absolute;
  left: 20px;
  top: 0;
  bottom: 0;
  width: 0;
  border-left: 2px solid var(--dead);
}

.bead.live button::before {
  left: 18px;
  border-left: 7px solid var(--live);
}

.bead.home button::before {
  left: 18px;
  border-left: 6px double var(--home);
}

.bead.floating button::before {
  border-left: 3px dotted var(--dead);
}

.bead.between button::before {
  left: 19px;
  border-left: 5px dashed var(--between);
}

.bead.broken button::before,
.bead.open.device button::before {
  bottom: 50%;
}

.dot {
  position: absolute;
  left: 12px;
  width: 18px;
  height: 18px;
  border: 3px solid var(--ink-soft);
  border-radius: 50%;
  background: var(--panel);
}

.live .dot {
  border-color: var(--live);
}

.home .dot {
  border-color: var(--home);
}

.device .dot {
  border-radius: 3px;
}

.cable .dot {
  width: 10px;
  height: 10px;
  left: 16px;
  border-radius: 0;
}

.load .dot {
  width: 26px;
  left: 8px;
  border-radius: 9px;
}

.bead.broken .dot {
  border-color: var(--alarm);
  border-style: dashed;
}

.label {
  flex: 1;
  font-weight: 600;
}

.cable .label {
  font-weight: 400;
  color: var(--ink-soft);
}

.state {
  font-family: var(--font-mono);
  color: var(--ink-soft);
}

.live .state {
  color: var(--live);
  font-weight: 700;
}

.bead.broken .state,
.bead.broken .label {
  color: var(--alarm);
  font-weight: 700;
}

.at {
  font-size: 20px;
}

.red-at {
  color: var(--probe-red);
}

.bead button.black,
.bead button.red {
  background: var(--note-soft);
}
</style>
