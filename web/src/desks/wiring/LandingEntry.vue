<script setup lang="ts">
import { ref } from 'vue'
import type { InputInstance } from 'element-plus'
import type { ConductorEnd } from '@/shared/api/client'
import { cableLetter, nameOf } from '@/desks/wiring/landings'
import { day } from '@/shared/model/units'
import PickTab from '@/shared/ui/kit/PickTab.vue'

/** The line on which landings are typed, end by end and place by place. */
defineProps<{
  places: readonly { place: string; title: string; left: number }[]
  place: string
  current: ConductorEnd | null
  /** The terminal that the drawing has for it, null for a loose end. */
  drawn: string | null
  says: string
  bad: boolean
  kept: boolean
}>()
const text = defineModel<string>({ required: true })
const emit = defineEmits<{ submit: []; go: [place: string]; key: [event: KeyboardEvent] }>()
const field = ref<InputInstance | null>(null)

defineExpose({ focus: () => field.value?.input?.focus({ preventScroll: true }) })
</script>

<template>
  <form class="entry" @submit.prevent="emit('submit')">
    <PickTab
      class="places"
      :tabs="places.map((one) => ({ id: one.place, title: one.title, count: one.left || '✓' }))"
      :tab="place"
      :label="$t('LandingEntry.place')"
      testid="place"
      @choose="(one) => emit('go', one)"
    />
    <label class="line">
      <span data-testid="now">
        <template v-if="current">
          <b>{{ nameOf(current) }}</b>
          {{
            $t('LandingEntry.ofCableDrawn', {
              cableLetter: cableLetter(current.cable),
              drawn: drawn ? $t('LandingEntry.on', { drawn }) : $t('LandingEntry.loose'),
            })
          }}<template v-if="current.told">{{
            $t('LandingEntry.told', {
              day: day(current.told),
              lands_on: current.lands_on
                ? $t('LandingEntry.on2', { lands_on: current.lands_on })
                : current.lies,
            })
          }}</template
          >:
        </template>
        <template v-else>{{ $t('LandingEntry.allLookedAtHereA') }}</template>
      </span>
      <el-input
        ref="field"
        v-model="text"
        class="mono"
        maxlength="60"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        :placeholder="current ? $t('LandingEntry.enterAsDrawn') : $t('LandingEntry.orangeB')"
        data-testid="entry"
        @keydown="(event: KeyboardEvent) => emit('key', event)"
      />
    </label>
    <el-button class="key solid" native-type="submit">{{
      text ? $t('LandingEntry.noteIt') : $t('LandingEntry.asDrawn')
    }}</el-button>
    <p :class="['says', { bad }]" :role="bad ? 'alert' : 'status'">
      {{ bad ? '≠ ' : '' }}{{ says || $t('LandingEntry.bCappedBareOrangeB') }}
      <span v-if="kept && !bad" class="kept">{{ $t('LandingEntry.kept') }}</span>
    </p>
  </form>
</template>

<style scoped>
.entry {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 6px 10px;
  border: 2px solid var(--ink);
  border-radius: 3px;
  background: var(--panel);
}

.line {
  display: flex;
  flex: 1 1 380px;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  font-size: 17px;
}

.line .el-input {
  flex: 1 1 150px;
  width: auto;
}

.line :deep(.el-input__wrapper) {
  background: var(--glass);
}

.line :deep(.el-input__inner) {
  color: var(--on-glass);
  font-size: 20px;
}

.line :deep(.el-input__inner::placeholder) {
  color: var(--on-glass-soft);
}

.says {
  flex-basis: 100%;
  color: var(--ink-soft);
  font-size: 14px;
}

.says.bad {
  color: var(--alarm);
  font-size: 16px;
  font-weight: 650;
}

.kept {
  margin-left: 8px;
  color: var(--agrees);
}

@media print {
  .entry {
    display: none;
  }
}
</style>
