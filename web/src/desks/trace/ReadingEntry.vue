<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Catalogue, Reading } from '@/shared/api/client'
import type { Read } from '@/shared/ui/useReadings'
import { readAmount, readNumber, shownIn, typedAmount, unitShown } from '@/shared/model/units'

const { t } = useI18n()
/** What the technician's instrument shows, typed; on a small screen with a keypad of its own. */
const props = defineProps<{
  /** It is said what is read. */
  ready: boolean
  busy: boolean
  last: Reading | null
  correcting: Reading | null
  docked: boolean
  about: Catalogue['functions'][number]
}>()
const emit = defineEmits<{ keep: [read: Read]; giveUp: [] }>()

const EXAMPLES: Record<string, number> = {
  volts_ac: 24.3,
  ohms: 12.5,
  amps_ac: 1.2,
  degrees_f: 85,
  psi: 110,
}
const example = computed(() => String(shownIn(props.about.unit, EXAMPLES[props.about.id] ?? 3)))
const PAD = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫']

const typed = ref('')
const stopped = ref('')
const field = ref<{ focus: () => void; blur: () => void } | null>(null)
const wrong = ref('')
const keypad = ref(false)

function press(key: string) {
  typed.value = key === '⌫' ? typed.value.slice(0, -1) : (typed.value + key).slice(0, 7)
}

// What was typed stays until it is kept.
watch(
  () => props.last?.id,
  () => (typed.value = ''),
)
watch(
  () => props.correcting?.id,
  () => {
    if (!props.correcting) return
    typed.value = typedAmount(props.correcting, props.about.unit)
    field.value?.focus()
  },
  { immediate: true },
)

function keep() {
  const amount = readAmount(typed.value, props.about.unit, props.about.open)
  const minutes = readNumber(stopped.value)
  if (amount === null) {
    wrong.value = t('ReadingEntry.aNumber', {
      what: unitShown(props.about.title),
      example: example.value,
      orOl: props.about.open ? t('ReadingEntry.orOl') : '',
    })
    return
  }
  if (minutes === undefined || (minutes !== null && minutes < 0)) {
    wrong.value = t('ReadingEntry.minutesSuchAs')
    return
  }
  wrong.value = ''
  keypad.value = false
  emit('keep', {
    ...amount,
    ...(minutes === null ? {} : { moment: { compressor_stopped_minutes: minutes } }),
  })
}

defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <div :class="['reading', { docked }]">
    <form class="entry" @submit.prevent="keep">
      <label>
        <span>{{ correcting ? $t('ReadingEntry.correctedReading') : $t('ReadingEntry.reads') }}</span>
        <el-input
          ref="field"
          v-model="typed"
          class="mono typed"
          :inputmode="docked ? 'none' : 'text'"
          autocomplete="off"
          maxlength="24"
          :placeholder="example"
          data-testid="measured"
          @focus="keypad = docked"
          @keydown.esc="field?.blur()"
        />
      </label>
      <el-button class="key solid" native-type="submit" :disabled="!ready || busy" data-testid="keep">
        {{ busy ? $t('ReadingEntry.keeping') : $t('ReadingEntry.keep') }}
      </el-button>
    </form>
    <div v-if="docked && keypad" class="pad" role="group" :aria-label="$t('ReadingEntry.keypad')">
      <el-button
        v-for="key in PAD"
        :key="key"
        class="key mono"
        :aria-label="key === '⌫' ? $t('ReadingEntry.delete') : key"
        @click="press(key)"
      >
        {{ key }}
      </el-button>
    </div>
    <label v-if="about.id !== 'volts_ac' || stopped" class="stopped">
      <span>{{ $t('ReadingEntry.minutesSinceTheCompressorStopped') }}</span>
      <el-input v-model="stopped" class="mono" inputmode="decimal" maxlength="7" data-testid="stopped" />
    </label>
    <p v-if="correcting" class="wrong">
      {{ $t('ReadingEntry.replaces', { reads: correcting.reads }) }}
      <el-button class="key quiet" @click="emit('giveUp')">{{ $t('ReadingEntry.leaveIt') }}</el-button>
    </p>
    <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
  </div>
</template>

<style scoped>
.reading {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.entry {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: end;
}

.entry label span {
  display: block;
  color: var(--ink-soft);
  font-size: 14px;
}

.typed :deep(.el-input__wrapper) {
  min-height: 48px;
  box-shadow: 0 0 0 2px var(--ink) inset;
}

.typed :deep(.el-input__inner) {
  font-size: 26px;
  font-weight: 650;
}

.stopped {
  display: grid;
  grid-template-columns: 1fr 92px;
  gap: 8px;
  align-items: center;
  color: var(--ink-soft);
  font-size: 14px;
}

.entry .key {
  min-height: 48px;
}

.wrong {
  color: var(--alarm);
  font-weight: 600;
}

.docked .entry label span {
  display: none;
}

.pad {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}

.pad .key {
  min-height: 52px;
  font-size: 22px;
}
</style>
