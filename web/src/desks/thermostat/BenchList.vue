<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'
import type { SettingsAnswer } from '@/shared/api/client'
import { minutes } from '@/shared/model/staging'
import KeptInput from '@/shared/ui/KeptInput.vue'

/** Terminals seen live, or why the line was not run. */
export type Seen = string[] | { not_run: string }
type Line = SettingsAnswer['bench'][number]
const props = defineProps<{ lines: Line[]; terminals: string[]; seen: Record<string, Seen> }>()
const emit = defineEmits<{ seen: [seen: Record<string, Seen>] }>()

const of = (line: string): string[] | null => {
  const seen = props.seen[line]
  return Array.isArray(seen) ? seen : null
}
const notRun = (line: string): string => {
  const seen = props.seen[line]
  return seen && !Array.isArray(seen) ? seen.not_run : ''
}
const same = (a: string[], b: string[]) => [...a].sort().join() === [...b].sort().join()
const verdict = (line: Line) => {
  if (notRun(line.id)) return 'not_run'
  const seen = of(line.id)
  return seen ? (same(seen, line.expect) ? 'agrees' : 'disagrees') : 'untouched'
}
const SIGN = { agrees: '=', disagrees: '≠', untouched: '·', not_run: '–' }

function touch(line: string, terminal: string) {
  const before = of(line) ?? []
  const now = before.includes(terminal) ? before.filter((one) => one !== terminal) : [...before, terminal]
  emit('seen', { ...props.seen, [line]: now })
}
function set(line: string, seen: Seen | null) {
  const others = Object.fromEntries(Object.entries(props.seen).filter(([key]) => key !== line))
  emit('seen', seen ? { ...others, [line]: seen } : others)
}
const because = (line: string, text: string) => set(line, text.trim() ? { not_run: text.trim() } : null)

/** One wait at a time: which line, until when. */
const waiting = ref<{ line: string; until: number } | null>(null)
const now = ref(Date.now())
const ticking = window.setInterval(() => (now.value = Date.now()), 1000)
onBeforeUnmount(() => window.clearInterval(ticking))
const left = (line: string) =>
  waiting.value?.line === line ? Math.max(0, Math.ceil((waiting.value.until - now.value) / 1000)) : null
function wait(line: Line) {
  now.value = Date.now()
  waiting.value =
    waiting.value?.line === line.id ? null : { line: line.id, until: Date.now() + line.after_seconds * 1000 }
}
</script>

<template>
  <ol class="bench" data-testid="bench">
    <li v-for="line in lines" :key="line.id" :class="verdict(line)" :data-testid="`bench-${line.id}`">
      <p class="does">
        <b aria-hidden="true">{{ SIGN[verdict(line)] }}</b>
        {{ line.does }}
        <el-button
          v-if="line.after_seconds > 5"
          class="key mono"
          :aria-pressed="left(line.id) !== null"
          :data-testid="`wait-${line.id}`"
          @click="wait(line)"
        >
          {{
            left(line.id) === null
              ? $t('BenchList.wait', { minutes: minutes(line.after_seconds) })
              : left(line.id) === 0
                ? $t('BenchList.over')
                : minutes(left(line.id)!)
          }}
        </el-button>
        <span class="expect"
          >{{ $t('BenchList.expect') }}
          <b class="mono">{{ line.expect.join(' ') || $t('BenchList.noneLive') }}</b></span
        >
      </p>
      <p v-for="caution in line.cautions" :key="caution" class="caution">⚠ {{ caution }}</p>
      <div class="seen" role="group" :aria-label="$t('BenchList.seenLive', { does: line.does })">
        <button
          v-for="terminal in terminals"
          :key="terminal"
          class="lamp mono"
          :aria-pressed="!!of(line.id)?.includes(terminal)"
          @click="touch(line.id, terminal)"
        >
          {{ terminal }}
        </button>
        <el-button
          class="key"
          :aria-pressed="verdict(line) === 'agrees'"
          @click="set(line.id, [...line.expect])"
        >
          {{ $t('BenchList.asExpected') }}
        </el-button>
        <el-button v-if="of(line.id)" class="key quiet" @click="set(line.id, null)">{{
          $t('BenchList.notDone')
        }}</el-button>
        <label class="because"
          >{{ $t('BenchList.notRunBecause') }}
          <KeptInput
            maxlength="200"
            :value="notRun(line.id)"
            :data-testid="`not-run-${line.id}`"
            @keep="(text) => because(line.id, text)"
        /></label>
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

li.not_run {
  border-left-style: dashed;
  border-left-color: var(--between);
}

.because {
  display: flex;
  flex: 1 1 240px;
  gap: 8px;
  align-items: center;
  color: var(--ink-soft);
}

.because .el-input {
  flex: 1;
  min-width: 120px;
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
