<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { degreeSign } from '@/shared/model/units'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import type { DrillTry, UnitPlaces } from '@/pages/practice/api'
import { placed, swapped, type Probes } from '@/pages/practice/bench'
import { useBenchKeys } from '@/pages/practice/useBenchKeys'

const { t } = useI18n()
/** What one may do at the bench, by what is in the hand. */
const props = defineProps<{
  unit: UnitPlaces
  standing: NonNullable<DrillTry['standing']>
  busy: boolean
}>()
const probes = defineModel<Probes>('probes', { required: true })
const emit = defineEmits<{ act: [given: Record<string, unknown>] }>()

const HANDS = [
  { id: 'meter', title: t('ActRail.meter') },
  { id: 'look', title: t('ActRail.look') },
  { id: 'call', title: t('ActRail.call') },
  { id: 'wires', title: t('ActRail.wires2') },
  { id: 'power', title: t('ActRail.power') },
] as const
const hand = ref<(typeof HANDS)[number]['id']>('meter')
const METERS = [
  { id: 'high_impedance', title: t('ActRail.vHigh') },
  { id: 'low_impedance', title: t('ActRail.vLow') },
  { id: 'ohms', title: 'Ω' },
] as const
const meter = ref<(typeof METERS)[number]['id']>('high_impedance')
const isolated = ref(true)

const byPlace = computed(() => {
  const titles = new Map(props.unit.places.map((one) => [one.id, one.title]))
  return props.unit.points.map((one) => ({
    id: one.id,
    title: one.title,
    group: titles.get(one.place ?? '') ?? t('ActRail.lineVoltage'),
  }))
})
const act = (kind: string, given: Record<string, unknown> = {}) => emit('act', { act: kind, ...given })

function read() {
  const ends = { from: probes.value.black, to: probes.value.red }
  if (meter.value === 'ohms') act('ohms', { ...ends, isolated: isolated.value })
  else act('volts', { ...ends, instrument: meter.value })
}
useBenchKeys({
  m: () => (hand.value = 'meter'),
  l: () => (hand.value = 'look'),
  c: () => (hand.value = 'call'),
  w: () => (hand.value = 'wires'),
  p: () => (hand.value = 'power'),
  x: () => (probes.value = swapped(probes.value)),
  r: () => !props.busy && placed(probes.value) && read(),
})
const joint = ref('')
const fact = ref('')
const part = ref('')
const minutes = ref(5)
const isLifted = computed(() => props.standing.lifted.includes(joint.value))
const jumpered = computed(() =>
  props.standing.jumpers.some((ends) =>
    [probes.value.black, probes.value.red].every((node) => ends.includes(node ?? '')),
  ),
)
</script>

<template>
  <section class="rail" :aria-label="$t('ActRail.acts')">
    <p class="keys-hint" aria-hidden="true">{{ $t('ActRail.mLCWP') }}</p>
    <PickButtons
      v-model="hand"
      :options="HANDS"
      class="hands"
      :label="$t('ActRail.inTheHand')"
      testid="hand"
    />

    <div v-if="hand === 'meter' || hand === 'wires'" class="probes">
      <label
        ><i class="black" />{{ $t('ActRail.black')
        }}<PickOne
          :model-value="probes.black ?? ''"
          :options="byPlace"
          :label="$t('ActRail.blackProbe')"
          :placeholder="$t('ActRail.tapAPoint')"
          data-testid="black"
          @update:model-value="(node: string) => (probes = { ...probes, black: node })"
      /></label>
      <label
        ><i class="red" />{{ $t('ActRail.red')
        }}<PickOne
          :model-value="probes.red ?? ''"
          :options="byPlace"
          :label="$t('ActRail.redProbe')"
          :placeholder="$t('ActRail.tapAnother')"
          data-testid="red"
          @update:model-value="(node: string) => (probes = { ...probes, red: node })"
      /></label>
    </div>

    <div v-if="hand === 'meter'" class="hand">
      <PickButtons v-model="meter" :options="METERS" :label="$t('ActRail.meter')" testid="meter" />
      <el-checkbox v-if="meter === 'ohms'" v-model="isolated">{{
        $t('ActRail.thePartByItselfOne')
      }}</el-checkbox>
      <div class="row">
        <el-button class="key quiet" @click="probes = swapped(probes)">{{ $t('ActRail.swap') }}</el-button>
        <el-button class="key quiet" @click="probes = { black: null, red: null }">{{
          $t('ActRail.clear')
        }}</el-button>
        <el-button
          class="key solid"
          :disabled="busy || !placed(probes)"
          :title="$t('ActRail.r')"
          data-testid="read"
          @click="read"
          >{{ $t('ActRail.read') }}</el-button
        >
      </div>
    </div>

    <div v-else-if="hand === 'look'" class="hand">
      <div class="keys">
        <el-button
          v-for="one in unit.looks"
          :key="one.id"
          class="key"
          :disabled="busy"
          :data-testid="`look-${one.id}`"
          @click="act('look', { place: one.id })"
          >{{ one.title }}</el-button
        >
        <el-button
          v-for="one in unit.places"
          :key="one.id"
          class="key"
          :disabled="busy"
          :data-testid="`landings-${one.id}`"
          @click="act('landings', { place: one.id })"
          >{{ $t('ActRail.wires', { title: one.title }) }}</el-button
        >
        <el-button
          v-for="one in unit.degrees"
          :key="one.id"
          class="key"
          :disabled="busy"
          @click="act('degrees', { place: one.id })"
          >{{ degreeSign() }}, {{ one.title }}</el-button
        >
        <el-button
          v-for="one in unit.sensors"
          :key="one.id"
          class="key"
          :disabled="busy"
          @click="act('sensor', { of: one.id })"
          >{{ one.title }}</el-button
        >
        <el-button class="key" :disabled="busy" @click="act('since_stop')">{{
          $t('ActRail.howLongItHasStood')
        }}</el-button>
      </div>
      <div class="row">
        <PickOne
          v-model="fact"
          :options="unit.facts"
          :label="$t('ActRail.settingJumperOrPlate')"
          :placeholder="$t('ActRail.whatIsSet')"
        />
        <el-button class="key" :disabled="busy || !fact" @click="act('settings', { fact })">{{
          $t('ActRail.lookUp')
        }}</el-button>
      </div>
    </div>

    <div v-else-if="hand === 'call'" class="hand">
      <div class="keys">
        <el-button
          v-for="one in unit.calls"
          :key="one.id"
          :class="['key', { solid: one.id === standing.call }]"
          :disabled="busy"
          :aria-pressed="one.id === standing.call"
          :data-testid="`call-${one.id}`"
          @click="act('call', { value: one.id })"
          >{{ one.title }}</el-button
        >
      </div>
      <div class="row">
        <el-input-number v-model="minutes" :min="1" :max="180" :aria-label="$t('ActRail.minutesToWait')" />
        <el-button class="key" :disabled="busy" data-testid="wait" @click="act('wait', { minutes })">{{
          $t('ActRail.waitMin')
        }}</el-button>
      </div>
      <div class="row">
        <el-button class="key" :disabled="busy" data-testid="force" @click="act('force')">{{
          $t('ActRail.forceADefrost')
        }}</el-button>
        <el-button class="key quiet" :disabled="busy" @click="act('unforce')">{{
          $t('ActRail.freeThePins')
        }}</el-button>
      </div>
    </div>

    <div v-else-if="hand === 'wires'" class="hand">
      <div class="row">
        <el-button
          class="key"
          :disabled="busy || !placed(probes)"
          data-testid="jumper"
          @click="act(jumpered ? 'unjumper' : 'jumper', { from: probes.black, to: probes.red })"
          >{{ jumpered ? $t('ActRail.jumperOff') : $t('ActRail.jumperBetweenTheProbes') }}</el-button
        >
      </div>
      <div class="row">
        <PickOne
          v-model="joint"
          :options="unit.joints"
          :label="$t('ActRail.wire')"
          :placeholder="$t('ActRail.aWireOnItsScrew')"
        />
        <el-button
          class="key"
          :disabled="busy || !joint"
          data-testid="lift"
          @click="act(isLifted ? 'land' : 'lift', { joint })"
          >{{ isLifted ? $t('ActRail.landIt') : $t('ActRail.liftIt') }}</el-button
        >
      </div>
      <p class="caution">{{ $t('ActRail.rToCIsA') }}</p>
    </div>

    <div v-else class="hand">
      <div class="keys">
        <el-button
          v-for="id in ['air_handler', 'outdoor']"
          :key="id"
          class="key"
          :disabled="busy"
          :data-testid="`supply-${id}`"
          @click="act('supply', { of: id, value: standing.off.includes(id) ? 'on' : 'off' })"
          >{{ id === 'outdoor' ? $t('ActRail.outdoorDisconnect') : $t('ActRail.airHandlerSupply') }}
          {{ standing.off.includes(id) ? $t('ActRail.on') : $t('ActRail.off') }}</el-button
        >
        <el-button class="key" :disabled="busy" data-testid="prove" @click="act('prove_dead')">{{
          $t('ActRail.proveDead')
        }}</el-button>
      </div>
      <div class="row">
        <PickOne
          v-model="part"
          :options="unit.parts"
          :label="$t('ActRail.part')"
          :placeholder="$t('ActRail.aPart')"
        />
        <SureButton
          :asks="$t('ActRail.aNewPartCostsMost')"
          :yes="$t('ActRail.changeIt')"
          @sure="part && act('swap', { part })"
          >{{ $t('ActRail.changeIt') }}</SureButton
        >
      </div>
      <p class="caution">
        {{ $t('ActRail.twoSuppliesTheOutdoorDisconnect') }}
      </p>
    </div>
  </section>
</template>

<style scoped>
.rail {
  display: grid;
  gap: 10px;
  padding: 10px;
  border: 3px solid var(--ink);
  background: var(--panel);
}

.rail :deep(.pick-buttons.hands .el-segmented__item) {
  min-width: 0;
  padding: 0 5px;
  font-size: 15px;
}

.probes {
  display: grid;
  gap: 6px;
}

.probes label {
  display: grid;
  grid-template-columns: 14px 42px minmax(0, 1fr);
  gap: 8px;
  align-items: center;
}

.probes i {
  width: 14px;
  height: 14px;
  border: 1px solid var(--ink-soft);
  border-radius: 50%;
  background: var(--probe-black);
}

.probes .red {
  background: var(--probe-red);
}

.keys-hint {
  color: var(--ink-soft);
  font-family: var(--font-mono);
  font-size: 13px;
}

@media (max-width: 1040px) {
  .keys-hint {
    display: none;
  }
}

.hand {
  display: grid;
  gap: 10px;
}

.keys,
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}

.keys :deep(.el-button),
.row :deep(.el-button) {
  margin: 0;
}

.row > :deep(.el-select) {
  flex: 1 1 160px;
}

.caution {
  padding-left: 10px;
  border-left: 4px solid var(--between);
  color: var(--ink-soft);
  font-size: 15px;
}
</style>
