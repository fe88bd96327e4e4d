<script setup lang="ts">
import type { SettingsAnswer } from '@/api/client'
import { minutes } from '@/model/staging'

const props = defineProps<{
  lines: SettingsAnswer['bench']
  terminals: string[]
  seen: Record<string, string[]>
}>()
const emit = defineEmits<{ seen: [seen: Record<string, string[]>] }>()

const of = (line: string) => props.seen[line] ?? null
const same = (a: string[], b: string[]) => [...a].sort().join() === [...b].sort().join()
const verdict = (line: SettingsAnswer['bench'][number]) => {
  const seen = of(line.id)
  return seen ? (same(seen, line.expect) ? 'agrees' : 'disagrees') : 'untouched'
}

function touch(line: string, terminal: string) {
  const before = of(line) ?? []
  const now = before.includes(terminal) ? before.filter((one) => one !== terminal) : [...before, terminal]
  emit('seen', { ...props.seen, [line]: now })
}
function set(line: string, terminals: string[] | null) {
  const others = Object.fromEntries(Object.entries(props.seen).filter(([key]) => key !== line))
  emit('seen', terminals ? { ...others, [line]: terminals } : others)
}
</script>

<template>
  <ol class="bench" data-testid="bench">
    <li v-for="line in lines" :key="line.id" :class="verdict(line)" :data-testid="`bench-${line.id}`">
      <p class="does">
        <b aria-hidden="true">{{ { agrees: '=', disagrees: '≠', untouched: '·' }[verdict(line)] }}</b>
        {{ line.does }}
        <span v-if="line.after_seconds > 5" class="mono">to {{ minutes(line.after_seconds) }}</span>
        <span class="expect"
          >expect <b class="mono">{{ line.expect.join(' ') || 'none live' }}</b></span
        >
      </p>
      <p v-for="caution in line.cautions" :key="caution" class="caution">⚠ {{ caution }}</p>
      <div class="seen" role="group" :aria-label="`Seen live: ${line.does}`">
        <button
          v-for="terminal in terminals"
          :key="terminal"
          class="lamp mono"
          :aria-pressed="!!of(line.id)?.includes(terminal)"
          @click="touch(line.id, terminal)"
        >
          {{ terminal }}
        </button>
        <button
          class="key"
          :aria-pressed="verdict(line) === 'agrees'"
          @click="set(line.id, [...line.expect])"
        >
          As expected
        </button>
        <button v-if="of(line.id)" class="key quiet" @click="set(line.id, null)">not done</button>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.bench {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 6px 0 8px 10px;
  border-left: 6px solid var(--rule);
  border-bottom: 1px solid var(--rule);
}

li.agrees {
  border-left-color: var(--agrees);
}

li.disagrees {
  border-left-color: var(--alarm);
  background: var(--alarm-soft);
}

.does {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  font-weight: 650;
}

.expect {
  margin-left: auto;
  font-weight: 450;
}

.caution {
  font-weight: 650;
}

.seen {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding-top: 4px;
}

.lamp {
  min-width: var(--target);
  min-height: var(--target);
  border: 2px solid var(--rule-strong);
  border-radius: 22px;
  background: var(--panel);
  font-weight: 700;
  cursor: pointer;
}

.lamp[aria-pressed='true'] {
  border-color: var(--live);
  background: var(--live);
  color: var(--on-live);
}

.seen .key {
  border-width: 1px;
}
</style>
