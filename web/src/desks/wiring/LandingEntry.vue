<script setup lang="ts">
import { ref } from 'vue'
import type { ConductorEnd } from '@/shared/api/client'
import { cableLetter, nameOf } from '@/desks/wiring/landings'

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
const field = ref<HTMLInputElement | null>(null)

defineExpose({ focus: () => field.value?.focus({ preventScroll: true }) })
</script>

<template>
  <form class="entry" @submit.prevent="emit('submit')">
    <div class="places" role="tablist" aria-label="Place">
      <button
        v-for="(one, i) in places"
        :key="one.place"
        type="button"
        role="tab"
        class="place"
        :aria-selected="one.place === place"
        :title="`${i + 1}`"
        :data-testid="`place-${one.place}`"
        @click="emit('go', one.place)"
      >
        {{ one.title }} <small class="mono">{{ one.left || '✓' }}</small>
      </button>
    </div>
    <label class="line">
      <span data-testid="now">
        <template v-if="current">
          <b>{{ nameOf(current) }}</b> of cable {{ cableLetter(current.cable) }}, drawn
          {{ drawn ? `on ${drawn}` : 'loose' }}:
        </template>
        <template v-else>All looked at here. A line such as “orange B”:</template>
      </span>
      <input
        ref="field"
        v-model="text"
        class="mono"
        maxlength="60"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        :placeholder="current ? 'Enter = as drawn' : 'orange B'"
        data-testid="entry"
        @keydown="(event) => emit('key', event)"
      />
    </label>
    <button class="key solid" type="submit">{{ text ? 'Note it' : 'As drawn' }}</button>
    <p :class="['says', { bad }]" :role="bad ? 'alert' : 'status'">
      {{ bad ? '≠ ' : ''
      }}{{ says || 'B · capped · bare · orange B · as brown (past a splice) · jumper W2 E · no jumper W2 E' }}
      <span v-if="kept && !bad" class="kept">kept</span>
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

.places {
  display: flex;
}

.place {
  min-height: var(--target);
  padding: 0 10px;
  border: 0;
  border-bottom: 4px solid transparent;
  background: transparent;
  font-weight: 650;
  cursor: pointer;
}

.place[aria-selected='true'] {
  border-bottom-color: var(--ink);
}

.place small {
  color: var(--ink-soft);
}

.line {
  display: flex;
  flex: 1 1 380px;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  font-size: 17px;
}

.line input {
  flex: 1 1 150px;
  min-height: var(--target);
  padding: 0 12px;
  border: 0;
  border-radius: 3px;
  background: var(--glass);
  color: var(--on-glass);
  font-size: 20px;
}

.line input::placeholder {
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
