<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { readIn, shownIn, unitShown } from '@/shared/model/units'
import KeptInput from '@/shared/ui/KeptInput.vue'

const { t } = useI18n()
/** What was seen of a forced defrost without a time, and what was read. */
const props = defineProps<{
  answers: Record<string, boolean>
  readings: Record<string, number>
  closed: boolean
}>()
const emit = defineEmits<{
  answers: [answers: Record<string, boolean>]
  readings: [readings: Record<string, number>]
}>()

const ANSWERS = [
  { id: 'unplugged', title: t('ForcedSeen.switchUnpluggedForThe') },
  { id: 'switch_closed', title: t('ForcedSeen.coilSwitchReadClosed') },
  { id: 'went_in', title: t('ForcedSeen.itWentIntoDefrost') },
  { id: 'fan', title: t('ForcedSeen.theFanStopped') },
  { id: 'valve', title: t('ForcedSeen.theValveWasHeard') },
  { id: 'strips', title: t('ForcedSeen.heatCameOn') },
  { id: 'fan_back', title: t('ForcedSeen.theFanCameBack') },
  { id: 'strips_off', title: t('ForcedSeen.heatWentOff') },
]
const READINGS = [
  { id: 'fan_amps', title: t('ForcedSeen.fanInDefrost'), unit: 'A' },
  { id: 'vapour_before_degrees_f', title: t('ForcedSeen.vaporLineBefore'), unit: '°F' },
  { id: 'vapour_after_degrees_f', title: t('ForcedSeen.vaporLineInDefrost'), unit: '°F' },
  { id: 'true_suction_before_psi', title: t('ForcedSeen.trueSuctionBefore'), unit: 'psi' },
  { id: 'vapour_port_before_psi', title: t('ForcedSeen.vaporPortBefore'), unit: 'psi' },
  { id: 'true_suction_psi', title: t('ForcedSeen.trueSuctionInDefrost'), unit: 'psi' },
  { id: 'vapour_port_psi', title: t('ForcedSeen.vaporPortInDefrost'), unit: 'psi' },
  { id: 'coil_at_end_degrees_f', title: t('ForcedSeen.coilAtTheEnd'), unit: '°F' },
]

function answer(id: string, value: boolean) {
  const rest = Object.fromEntries(Object.entries(props.answers).filter(([key]) => key !== id))
  emit('answers', props.answers[id] === value ? rest : { ...rest, [id]: value })
}
const shown = ({ id, unit }: (typeof READINGS)[number]) => {
  const value = props.readings[id]
  return value === undefined ? '' : String(shownIn(unit, value))
}
const wrong = ref('')
function reading({ id, title, unit }: (typeof READINGS)[number], text: string) {
  const value = readIn(unit, text)
  wrong.value = value === undefined ? t('ForcedSeen.noNumber', { what: title, typed: text.trim() }) : ''
  const rest = Object.fromEntries(Object.entries(props.readings).filter(([key]) => key !== id))
  if (value !== undefined) emit('readings', value === null ? rest : { ...rest, [id]: value })
}
</script>

<template>
  <fieldset :disabled="closed">
    <legend>{{ $t('ForcedSeen.seenWithoutATime') }}</legend>
    <div v-for="one in ANSWERS" :key="one.id" class="answer">
      <span>{{ one.title }}</span>
      <el-button
        class="key"
        :disabled="closed"
        :aria-pressed="answers[one.id] === true"
        :data-testid="`yes-${one.id}`"
        @click="answer(one.id, true)"
      >
        {{ $t('ForcedSeen.yes') }}
      </el-button>
      <el-button
        class="key"
        :disabled="closed"
        :aria-pressed="answers[one.id] === false"
        :data-testid="`no-${one.id}`"
        @click="answer(one.id, false)"
      >
        {{ $t('ForcedSeen.no') }}
      </el-button>
    </div>
    <label v-for="one in READINGS" :key="one.id" class="reading"
      >{{ one.title }}
      <KeptInput
        class="mono"
        inputmode="decimal"
        :value="shown(one)"
        :data-testid="`reading-${one.id}`"
        @keep="(text) => reading(one, text)"
      />
      {{ unitShown(one.unit) }}</label
    >
    <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin: 0;
  padding: 6px 12px 10px;
  border: 1px solid var(--rule-strong);
}

.wrong {
  flex-basis: 100%;
  color: var(--alarm);
  font-weight: 650;
}

.answer {
  display: flex;
  align-items: center;
  gap: 4px;
  min-width: 240px;
}

.answer span {
  flex: 1;
}

.answer .key {
  border-width: 1px;
}

.reading {
  color: var(--ink-soft);
}

.reading .el-input {
  width: 92px;
}
</style>
