<script setup lang="ts">
import type { CloseOutRecord } from '@/shared/api/client'
import {
  outcomes,
  outcomeOf,
  saidOf,
  type CallLine,
  type OutcomeId,
  type Said,
} from '@/desks/close_out/closing'
import KeptInput from '@/shared/ui/KeptInput.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'

/** Every call of the unit, once: what should be live and run, and how it came out. */
const props = defineProps<{ lines: CallLine[]; kept: CloseOutRecord }>()
const emit = defineEmits<{ keep: [calls: NonNullable<CloseOutRecord['calls']>] }>()

const said = (id: string): Said | undefined => props.kept.calls?.[id]
const set = (id: string, now: Said) => emit('keep', { ...props.kept.calls, [id]: now })
const choose = (id: string, one: OutcomeId) => set(id, saidOf(one, said(id)?.note ?? ''))
const note = (id: string, text: string) => {
  const before = said(id)
  if (before) set(id, { ...before, note: text.trim() })
}
/** Not even a person in a hurry says that all of them ran: only what the weather lets be run, and nobody spoke of yet. */
const open = () => props.lines.filter((line) => !said(line.id) && line.season === 'in')
function allAsExpected() {
  emit('keep', {
    ...props.kept.calls,
    ...Object.fromEntries(open().map((line) => [line.id, saidOf('run-expected', '')])),
  })
}
const mark = (line: CallLine) => {
  const now = said(line.id)
  if (!now) return 'open'
  return now.how === 'not_run' ? 'left' : now.as === 'otherwise' ? 'wrong' : 'fine'
}
const SIGN = { open: '·', left: '–', wrong: '≠', fine: '=' }
</script>

<template>
  <div class="calls">
    <p v-if="open().length > 1" class="all">
      <el-button class="key" data-testid="all-expected" @click="allAsExpected">{{
        $t('CallsPart.theThatTheWeatherAllows', { open: open().length })
      }}</el-button>
    </p>
    <ul>
      <li v-for="line in lines" :key="line.id" :class="mark(line)" :data-testid="`call-${line.id}`">
        <p class="what">
          <b class="sign" aria-hidden="true">{{ SIGN[mark(line)] }}</b>
          <b>{{ line.title }}</b>
          <span v-if="line.season === 'out'" class="season">{{ $t('CallsPart.outOfSeason') }}</span>
        </p>
        <p class="expect">
          <b class="mono">{{ line.expect.join(' ') || $t('CallsPart.noneLive') }}</b>
          <span>{{ line.works.join(', ') || $t('CallsPart.nothingRuns') }}</span>
        </p>
        <PickOne
          :model-value="outcomeOf(said(line.id))"
          :options="outcomes()"
          :label="$t('CallsPart.howCameOut', { title: line.title })"
          :placeholder="$t('CallsPart.howItCameOut')"
          :data-testid="`outcome-${line.id}`"
          @update:model-value="(one) => choose(line.id, one)"
        />
        <KeptInput
          v-if="said(line.id)"
          maxlength="400"
          :placeholder="
            said(line.id)?.how === 'not_run' ? $t('CallsPart.whyNot') : $t('CallsPart.whatWasSeen')
          "
          :value="said(line.id)?.note"
          :aria-label="$t('CallsPart.noteOn', { title: line.title })"
          :data-testid="`note-${line.id}`"
          @keep="(text) => note(line.id, text)"
        />
        <p v-if="line.missing && said(line.id)" class="missing">{{ line.missing }}</p>
        <p v-for="caution in line.season === 'out' ? line.cautions : []" :key="caution" class="caution">
          ⚠ {{ caution }}
        </p>
      </li>
    </ul>
  </div>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(110px, 150px) minmax(0, 1fr) 230px minmax(120px, 220px);
  gap: 4px 12px;
  align-items: center;
  padding: 5px 8px 5px 10px;
  border-left: 6px dashed var(--between);
  border-bottom: 1px solid var(--rule);
  background: var(--panel);
}

li.fine {
  border-left: 6px solid var(--agrees);
}

li.wrong {
  border-left: 6px solid var(--alarm);
}

.all {
  padding-bottom: 6px;
}

.sign {
  display: inline-block;
  width: 1em;
  text-align: center;
}

.season {
  display: block;
  color: var(--between);
  font-size: 15px;
}

.expect {
  display: grid;
  color: var(--ink-soft);
  font-size: 15px;
}

.expect b {
  color: var(--ink);
  font-size: 16px;
}

.missing,
.caution {
  grid-column: 1 / -1;
  color: var(--between);
  font-size: 15px;
}

@media (max-width: 760px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
