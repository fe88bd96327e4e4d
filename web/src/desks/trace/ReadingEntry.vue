<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Reading } from '@/shared/api/client'
import { parseVolts, volts } from '@/shared/model/units'

/** What the technician's meter shows, typed; on a small screen with a keypad of its own. */
const props = defineProps<{
  /** Two points are chosen. */
  ready: boolean
  busy: boolean
  last: Reading | null
  correcting: Reading | null
  docked: boolean
}>()
const emit = defineEmits<{ keep: [volts: number]; giveUp: [] }>()

const typed = ref('')
const field = ref<HTMLInputElement | null>(null)
const wrong = ref('')
const keypad = ref(false)

const PAD = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫']

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
    if (props.correcting) {
      typed.value = String(props.correcting.value_volts_ac)
      field.value?.focus()
    }
  },
)

function keep() {
  const value = parseVolts(typed.value)
  if (value === null) {
    wrong.value = 'Volts as a number from 0 to 1000, such as 24.3'
    return
  }
  wrong.value = ''
  keypad.value = false
  emit('keep', value)
}

defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <div :class="['reading', { docked }]">
    <form class="entry" @submit.prevent="keep">
      <label>
        <span>{{ correcting ? 'corrected reading' : 'reads' }}</span>
        <input
          ref="field"
          v-model="typed"
          class="mono"
          :inputmode="docked ? 'none' : 'decimal'"
          autocomplete="off"
          maxlength="12"
          placeholder="24.3"
          data-testid="measured"
          @focus="keypad = docked"
          @keydown.esc="field?.blur()"
        />
      </label>
      <button class="key solid" type="submit" :disabled="!ready || busy" data-testid="keep">
        {{ busy ? 'Keeping …' : 'Keep ↵' }}
      </button>
    </form>
    <div v-if="docked && keypad" class="pad" role="group" aria-label="Keypad">
      <button
        v-for="key in PAD"
        :key="key"
        class="key mono"
        :aria-label="key === '⌫' ? 'delete' : key"
        @click="press(key)"
      >
        {{ key }}
      </button>
    </div>
    <p v-if="correcting" class="wrong">
      Replaces {{ volts(correcting.value_volts_ac) }} V.
      <button class="key quiet" @click="emit('giveUp')">Leave it</button>
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

.entry input {
  width: 100%;
  height: 48px;
  padding: 0 10px;
  border: 2px solid var(--ink);
  border-radius: 3px;
  background: var(--panel);
  font-size: 26px;
  font-weight: 650;
}

.entry input::placeholder {
  color: var(--ink-soft);
  opacity: 0.6;
}

.entry .key {
  min-height: 48px;
}

.wrong {
  color: var(--alarm);
  font-weight: 600;
}

.docked label span {
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
