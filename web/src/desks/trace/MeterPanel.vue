<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Catalogue, Ohms, Reading } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'
import { unitShown, volts } from '@/shared/model/units'
import type { Expected, Trace } from '@/shared/model/readingTable'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import PlaceEntry from '@/desks/trace/PlaceEntry.vue'
import ReadingEntry from '@/desks/trace/ReadingEntry.vue'
import type { Read } from '@/shared/ui/useReadings'

const { t } = useI18n()
const props = defineProps<{
  trace: Trace
  expected: Expected | null
  /** What the meter is on. */
  of: string
  functions: Catalogue['functions']
  facts: Catalogue['facts']
  ohms: { circuit: Ohms; alone: Ohms } | null
  black: string | null
  red: string | null
  /** The load whose loop is in hand. */
  loop: string | null
  instrument: string
  hop: boolean
  canKeep: boolean
  busy: boolean
  last: Reading | null
  correcting: Reading | null
  problem: Problem | null
  /** At the foot of a small screen, with a keypad of its own. */
  docked: boolean
}>()
const emit = defineEmits<{
  place: [probe: 'black' | 'red', node: string]
  swap: []
  hop: [on: boolean]
  function: [id: string]
  instrument: [id: string]
  keep: [read: Read]
  giveUp: []
}>()

const entry = ref<InstanceType<typeof ReadingEntry> | null>(null)
const unfolded = ref(false)
/** Ohms of the part by itself, with a side lifted, or as it hangs in the circuit. */
const isolated = ref(true)

/** Functions by what is read, in the unit that it is read in. */
const choices = computed(() => props.functions.map((one) => ({ ...one, title: unitShown(one.title) })))
const about = computed(() => props.functions.find((one) => one.id === props.of) ?? props.functions[0]!)
const between = computed(() => about.value.at === 'points')
const inOhms = computed(() => about.value.id === 'ohms')
const shownOhms = (value: number | null) =>
  value === null ? 'OL' : value < 10 ? value.toFixed(1) : String(Math.round(value))
const labelOf = (node: string | null) =>
  props.trace.points.find((point) => point.id === node)?.label ?? t('MeterPanel.tapAPoint')
const points = computed(() =>
  ['wall', 'air_handler', 'outdoor'].flatMap((place) =>
    props.trace.points
      .filter((one) => one.place === place)
      .map((one) => ({ id: one.id, title: one.label, group: place.replace('_', ' ') })),
  ),
)
const pair = computed(() => props.black !== null && props.red !== null && props.black !== props.red)

function keep(read: Read) {
  const way = inOhms.value ? { isolated: isolated.value } : { instrument: props.instrument }
  emit('keep', { ...read, from_node: props.black, to_node: props.red, ...way })
}

defineExpose({ focus: () => entry.value?.focus() })
</script>

<template>
  <section :class="['meter', { docked }]" :aria-label="$t('MeterPanel.meter')">
    <button v-if="docked" class="fold" :aria-expanded="unfolded" @click="unfolded = !unfolded">
      <template v-if="between">
        <span><i aria-hidden="true">■</i> {{ labelOf(black) }}</span>
        <span><i class="red" aria-hidden="true">●</i> {{ labelOf(red) }}</span>
      </template>
      <span v-else class="on">{{ unitShown(about.title) }}</span>
      <b aria-hidden="true">{{ unfolded ? '▾' : '▴' }}</b>
      <span class="hidden-label">{{ $t('MeterPanel.probesAndMeter') }}</span>
    </button>
    <PickButtons
      v-show="!docked || unfolded"
      class="functions tight"
      :model-value="of"
      :options="choices"
      :label="$t('MeterPanel.whatIsRead')"
      testid="function"
      @update:model-value="(id) => emit('function', id)"
    />

    <template v-if="between">
      <div v-show="!docked || unfolded" class="probes">
        <div v-for="probe in ['black', 'red'] as const" :key="probe" class="probe">
          <span :class="['sign', probe]" aria-hidden="true">{{ probe === 'black' ? '■' : '●' }}</span>
          <PickOne
            :model-value="probe === 'black' ? black : red"
            :options="points"
            :label="$t('MeterPanel.probeOn', { probe })"
            :placeholder="$t('MeterPanel.tapAPoint')"
            :data-testid="`probe-${probe}`"
            @update:model-value="(node) => emit('place', probe, node)"
          />
        </div>
      </div>

      <div class="glass">
        <template v-if="pair && inOhms && ohms">
          <span class="should">{{
            $t('MeterPanel.powerOff', {
              isolated: isolated ? $t('MeterPanel.byItself') : $t('MeterPanel.inCircuit'),
            })
          }}</span>
          <span class="digits mono" data-testid="ohms"
            >{{ shownOhms(isolated ? ohms.alone.ohms : ohms.circuit.ohms)
            }}<small>{{ $t('MeterPanel.text') }}</small></span
          >
          <p class="reason" data-testid="reason" aria-live="polite">
            {{ isolated ? ohms.alone.says : ohms.circuit.says }}
          </p>
          <p class="reason alone">{{ isolated ? ohms.circuit.says : ohms.alone.says }}</p>
        </template>
        <template v-else-if="pair && !inOhms && expected">
          <span class="should">{{ $t('MeterPanel.shouldRead') }}</span>
          <span class="digits mono" data-testid="expected"
            >{{ volts(expected.volts_ac) }}<small>{{ $t('MeterPanel.vAc') }}</small></span
          >
          <span v-if="expected.low_volts_ac !== null" class="span mono">{{
            $t('MeterPanel.to', {
              volts: volts(expected.low_volts_ac),
              volts2: volts(expected.high_volts_ac),
            })
          }}</span>
          <p class="reason" data-testid="reason" aria-live="polite">{{ expected.says }}</p>
        </template>
        <p v-else-if="pair" class="reason">{{ $t('MeterPanel.workingItOut') }}</p>
        <p v-else class="reason">{{ $t('MeterPanel.tapTwoPointsOrOne') }}</p>
      </div>

      <div v-show="!docked || unfolded" class="tools">
        <el-button class="key" :aria-pressed="hop" :title="$t('MeterPanel.c')" @click="emit('hop', true)">{{
          $t('MeterPanel.fromC')
        }}</el-button>
        <el-button class="key" :aria-pressed="!hop" :title="$t('MeterPanel.c')" @click="emit('hop', false)">{{
          $t('MeterPanel.across')
        }}</el-button>
        <el-button class="key" :disabled="!pair" :title="$t('MeterPanel.x')" @click="emit('swap')">{{
          $t('MeterPanel.swap')
        }}</el-button>
      </div>
      <PickButtons
        v-if="inOhms"
        v-model="isolated"
        :options="[
          { id: true, title: $t('MeterPanel.oneSideLifted') },
          { id: false, title: $t('MeterPanel.inCircuit2') },
        ]"
        :label="$t('MeterPanel.howThePartHangs')"
        testid="isolated"
      />
      <PickOne
        v-else
        v-show="!docked || unfolded"
        :model-value="instrument"
        :options="about.instruments"
        :label="$t('MeterPanel.meter')"
        data-testid="instrument"
        @update:model-value="(id) => emit('instrument', id)"
      />
      <ReadingEntry
        v-if="canKeep"
        ref="entry"
        :ready="pair"
        :busy="busy"
        :last="last"
        :correcting="correcting"
        :docked="docked"
        :about="about"
        @keep="keep"
        @give-up="emit('giveUp')"
      />
    </template>
    <PlaceEntry
      v-else
      :key="of"
      :about="about"
      :facts="facts"
      :trace="trace"
      :loop="loop"
      :can-keep="canKeep"
      :busy="busy"
      :last="last"
      :correcting="correcting"
      :docked="docked"
      @keep="(read) => emit('keep', read)"
      @give-up="emit('giveUp')"
    />
    <p v-for="one in about.cautions" :key="one" class="caution">⚠ {{ one }}</p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="last" :class="['verdict', last.verdict]" role="status" data-testid="verdict">
      <b aria-hidden="true">{{
        last.verdict === 'agrees' ? '=' : last.verdict === 'disagrees' ? '≠' : '·'
      }}</b>
      <span
        >{{ last.says }} <small>{{ last.where }}, {{ last.call_title }}</small></span
      >
    </p>
    <slot />
  </section>
</template>

<style scoped>
.meter {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px;
  border: 2px solid var(--ink);
  border-radius: 4px;
  background: var(--panel);
}

.probes {
  display: grid;
  gap: 4px;
}

.probe {
  display: flex;
  align-items: center;
  gap: 8px;
}

.sign {
  width: 20px;
  font-size: 20px;
  line-height: 1;
  text-align: center;
}

.sign.red {
  color: var(--probe-red);
}

:root[data-theme='dark'] .sign.red {
  color: var(--alarm);
}

.functions {
  width: 100%;
}

.glass {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: baseline;
  min-height: 132px;
  padding: 8px 12px;
  border-radius: 3px;
  background: var(--glass);
  color: var(--on-glass);
}

.should,
.glass .span {
  grid-row: 1;
  color: var(--on-glass-soft);
  font-size: 14px;
}

.span {
  text-align: right;
}

.digits {
  grid-column: 1 / -1;
  grid-row: 2;
  font-size: 50px;
  font-weight: 700;
  line-height: 1.05;
}

.digits small {
  margin-left: 8px;
  font-size: 18px;
  font-weight: 500;
}

.reason {
  grid-column: 1 / -1;
  align-self: start;
}

.alone {
  margin-top: 6px;
  color: var(--on-glass-soft);
}

.caution {
  font-weight: 650;
}

.tools {
  display: grid;
  grid-template-columns: repeat(3, auto);
  gap: 6px;
}

.tools .key {
  padding: 0 8px;
}

.instrument {
  min-width: 0;
}

.verdict {
  display: flex;
  gap: 10px;
  padding: 8px 10px;
  border-left: 6px solid var(--rule-strong);
  background: var(--note-soft);
}

.verdict b {
  font-size: 24px;
  line-height: 1;
}

.verdict small {
  display: block;
  color: var(--ink-soft);
  font-size: 14px;
}

.verdict.agrees {
  border-color: var(--agrees);
  background: var(--agrees-soft);
}

.verdict.disagrees {
  border-color: var(--alarm);
  background: var(--alarm-soft);
}

.fold {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 8px;
  align-items: center;
  min-height: var(--target);
  padding: 0;
  border: 0;
  background: transparent;
  text-align: left;
  font-weight: 650;
}

.fold span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.fold i {
  font-style: normal;
}

.fold .red {
  color: var(--probe-red);
}

:root[data-theme='dark'] .fold .red {
  color: var(--alarm);
}

.meter.docked {
  position: fixed;
  z-index: 20;
  right: 0;
  bottom: 0;
  left: 0;
  gap: 6px;
  max-height: 86vh;
  padding: 0 10px 10px;
  overflow: auto;
  border-width: 3px 0 0;
  border-radius: 0;
  box-shadow: 0 -6px 18px var(--shade);
}

.meter.docked .glass {
  grid-template-columns: auto 1fr;
  column-gap: 14px;
  align-items: center;
  min-height: 62px;
  padding: 4px 12px;
}

.meter.docked .should,
.meter.docked .span {
  display: none;
}

.meter.docked .digits {
  grid-column: 1;
  grid-row: 1;
  font-size: 34px;
}

.meter.docked .reason {
  grid-column: 2;
  align-self: center;
  font-size: 15px;
  line-height: 1.2;
}

.meter.docked .digits + .reason {
  grid-row: 1;
}

@media (min-width: 1041px) {
  .meter.docked {
    display: grid;
    grid-template-columns: 300px minmax(0, 1fr) 320px auto;
    align-items: center;
    padding-top: 6px;
  }

  .meter.docked .fold {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .meter.docked .fold b {
    grid-area: 1 / 2 / span 2;
  }

  .meter.docked .probes,
  .meter.docked .tools,
  .meter.docked > p {
    grid-column: 1 / -1;
  }
}

/* On a screen as low as this (a phone lying down, a page twice as large) it would cover what it measures. */
@media (max-height: 520px) {
  .meter.docked {
    position: static;
    max-height: none;
    box-shadow: none;
  }
}

@media print {
  .meter {
    display: none;
  }
}
</style>
