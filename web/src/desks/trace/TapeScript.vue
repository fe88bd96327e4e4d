<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type Source, type Trace } from '@/shared/api/client'
import { clock, parseClock, withMove, type Move, type Script } from '@/desks/trace/tape'
import type { Problem } from '@/shared/model/outcome'
import { degreeSign, inUnit, readDegrees } from '@/shared/model/units'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useFaults } from '@/desks/trace/useFaults'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import PickFile from '@/shared/ui/kit/PickFile.vue'

const { t } = useI18n()
const props = defineProps<{ source: Source; script: Script; span: number; trace: Trace; cursor: number }>()
const emit = defineEmits<{
  set: [script: Script, span: number]
  put: [move: Omit<Move, 'at_seconds'>, at: number]
  take: [index: number]
  go: [seconds: number]
}>()

const KINDS: Record<string, string> = {
  outdoor: t('TapeScript.outdoorAir'),
  room: t('TapeScript.room'),
  coil: t('TapeScript.outdoorCoil'),
  set_point: t('TapeScript.setPoint'),
  mode: t('TapeScript.thermostatMode'),
  switch: t('TapeScript.aSwitch'),
  supply: t('TapeScript.aSupply'),
  fault: t('TapeScript.aFault'),
}
const MODES = ['off', 'heat', 'cool', 'emergency']
const HOURS = [0.5, 1, 2, 3, 6, 12, 24]

const what = ref('outdoor')
const of = ref('')
const value = ref('30')
const at = ref('')
const over = ref('')
const wrong = ref('')
const problem = shallowRef<Problem | null>(null)

/** The script that is there, where it is one to begin with. */
const preset = computed(
  () =>
    props.trace.scripts.find((one) => JSON.stringify(one.script) === JSON.stringify(props.script))?.id ?? '',
)
function begin(id: string) {
  const chosen = props.trace.scripts.find((one) => one.id === id)
  if (chosen) emit('set', chosen.script as Script, chosen.duration_seconds)
}

const faults = useFaults(props.source, () => what.value === 'fault')
const parts = computed(() => {
  if (what.value === 'switch') return props.trace.movable
  if (what.value === 'fault') return faults.value.map((one) => one.title)
  return what.value === 'supply' ? ['outdoor', 'air_handler'] : []
})
const values = computed(() =>
  what.value === 'switch'
    ? ['open', 'closed', 'free']
    : what.value === 'supply'
      ? ['off', 'on']
      : what.value === 'fault'
        ? ['begins', 'ends']
        : what.value === 'mode'
          ? MODES
          : [],
)

function says(move: Move): string {
  const about =
    move.of && typeof move.of === 'object' && 'kind' in move.of
      ? `${move.of.kind} ${[move.of.at].flat().join(' – ')}`
      : [move.of ?? []].flat().join(' – ')
  const degrees = typeof move.value === 'number' ? ` ${degreeSign()}` : ''
  const value = typeof move.value === 'number' ? inUnit(move.value) : move.value
  const slow = move.over_seconds ? ` over ${clock(move.over_seconds)}` : ''
  return `${move.what.replace('_', ' ')} ${about} ${value}${degrees}${slow}`.replace(/\s+/g, ' ')
}

/** What the move is about: a switch, a supply, or a fault by its title. */
function about(): Move['of'] {
  const chosen = parts.value.includes(of.value) ? of.value : parts.value[0]!
  return what.value === 'fault' ? faults.value.find((one) => one.title === chosen)?.fault : chosen
}

function add() {
  const time = at.value.trim() ? parseClock(at.value) : props.cursor
  const slow = over.value.trim() ? parseClock(over.value) : 0
  if (time === null || slow === null) return (wrong.value = t('TapeScript.timesAs'))
  const chosen = values.value.length
    ? values.value.includes(value.value)
      ? value.value
      : values.value[0]!
    : readDegrees(value.value)
  if (chosen === null || chosen === undefined) return (wrong.value = t('TapeScript.degreesAs'))
  wrong.value = ''
  emit(
    'put',
    {
      what: what.value,
      value: chosen,
      ...(parts.value.length ? { of: about() } : {}),
      ...(slow ? { over_seconds: slow } : {}),
    },
    time,
  )
}

async function readCsv(chosen: File) {
  const answer = await api.readCourse(await chosen.text())
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state === 'ready')
    emit(
      'set',
      answer.value.moves.reduce((script, move) => withMove(script, move as Move), props.script),
      props.span,
    )
}
</script>

<template>
  <div class="script">
    <div class="row">
      <span>{{ $t('TapeScript.beginWith') }}</span>
      <PickOne
        :model-value="preset"
        :options="trace.scripts"
        :none="$t('TapeScript.aRunOfYourOwn')"
        :label="$t('TapeScript.beginWith')"
        data-testid="preset"
        @update:model-value="begin"
      />
    </div>
    <div class="row">
      <span>{{ $t('TapeScript.lasts') }}</span>
      <PickOne
        :model-value="span"
        :options="HOURS.map((hours) => ({ id: hours * 3600, title: `${hours} h` }))"
        :label="$t('TapeScript.lasts')"
        data-testid="span"
        @update:model-value="(seconds) => emit('set', script, seconds)"
      />
    </div>
    <ol v-if="script.moves?.length" class="moves" data-testid="moves">
      <li v-for="(move, i) in script.moves" :key="i">
        <button class="mono time" @click="emit('go', move.at_seconds)">{{ clock(move.at_seconds) }}</button>
        <span>{{ says(move) }}</span>
        <el-button
          class="key quiet"
          :aria-label="$t('TapeScript.takeOut', { says: says(move) })"
          @click="emit('take', i)"
          >✕</el-button
        >
      </li>
    </ol>
    <p v-else class="hint">
      {{ $t('TapeScript.chooseACallAboveIt') }}
    </p>
    <form class="add" @submit.prevent="add">
      <PickOne
        v-model="what"
        :options="Object.entries(KINDS).map(([id, title]) => ({ id, title }))"
        :label="$t('TapeScript.whatChanges')"
        data-testid="move-what"
      />
      <PickOne
        v-if="parts.length"
        :model-value="parts.includes(of) ? of : parts[0]"
        :options="parts.map((id) => ({ id, title: id.replace('_', ' ') }))"
        :label="$t('TapeScript.which')"
        @update:model-value="(part) => (of = part)"
      />
      <PickOne
        v-if="values.length"
        :model-value="values.includes(value) ? value : values[0]"
        :options="values.map((id) => ({ id, title: id }))"
        :label="$t('TapeScript.toWhat')"
        @update:model-value="(one) => (value = one)"
      />
      <el-input
        v-else
        v-model="value"
        class="mono"
        inputmode="decimal"
        :aria-label="$t('TapeScript.degrees')"
        data-testid="move-value"
      />
      <el-input
        v-model="at"
        class="mono"
        :placeholder="clock(cursor)"
        :aria-label="$t('TapeScript.at')"
        data-testid="move-at"
      />
      <el-input
        v-model="over"
        class="mono"
        :placeholder="$t('TapeScript.over')"
        :aria-label="$t('TapeScript.overHowLong')"
      />
      <el-button class="key" native-type="submit" data-testid="move-add">{{
        $t('TapeScript.add')
      }}</el-button>
    </form>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <PickFile
      accept=".csv,text/csv"
      :label="$t('TapeScript.temperaturesFromCsv')"
      data-testid="course-file"
      @picked="readCsv"
    />
    <ProblemNote v-if="problem" :problem="problem" />
  </div>
</template>

<style scoped>
.script {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.row {
  display: grid;
  grid-template-columns: 90px minmax(0, 1fr);
  align-items: center;
}

.moves {
  margin: 0;
  padding: 0;
  max-height: 240px;
  overflow: auto;
  list-style: none;
}

.moves li {
  display: grid;
  grid-template-columns: 70px minmax(0, 1fr) auto;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  overflow-wrap: anywhere;
}

.time {
  min-height: var(--target);
  border: 0;
  background: transparent;
  text-align: left;
  text-decoration: underline;
  cursor: pointer;
}

.add {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.add .el-select {
  flex: 1 1 130px;
  width: auto;
}

.add .el-input {
  width: 92px;
}

.hint {
  color: var(--ink-soft);
}

.wrong {
  color: var(--alarm);
  font-weight: 650;
}
</style>
