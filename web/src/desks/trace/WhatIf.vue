<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Source, type Trace } from '@/shared/api/client'
import { useAlike } from '@/desks/trace/useAlike'
import type { Fault } from '@/desks/trace/traceState'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useFaults } from '@/desks/trace/useFaults'

const { t } = useI18n()
const props = defineProps<{
  source: Source
  trace: Trace
  faults: Fault[]
  off: string[]
  /** Ids of what was tapped last: branches and points. */
  touched: string[]
}>()
const emit = defineEmits<{ faults: [faults: Fault[]]; off: [off: string[]] }>()

const SUPPLIES = [
  { id: 'outdoor', title: t('WhatIf.outdoorDisconnect') },
  { id: 'air_handler', title: t('WhatIf.airHandler') },
]
const MOST = 8

const search = ref('')
const { alike, task, problem, ask, cancel } = useAlike(props.source)
const open = ref(props.faults.length > 0 || props.off.length > 0)

const known = useFaults(props.source, open)

function toggled(event: Event) {
  open.value = (event.target as HTMLDetailsElement).open
}

const same = (a: Fault, b: Fault) => JSON.stringify(a) === JSON.stringify(b)

/** What the search finds; with none, what touches the part in hand. */
const offered = computed(() => {
  const words = search.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const free = known.value.filter((one) => !props.faults.some((fault) => same(fault, one.fault)))
  if (words.length)
    return free.filter((one) => words.every((word) => one.title.toLowerCase().includes(word))).slice(0, MOST)
  const near = (at: string) =>
    props.touched.some((id) => at === id || at.startsWith(`${id}@`) || at.startsWith(`${id}/`))
  return free.filter((one) => [one.fault.at].flat().some(near)).slice(0, MOST)
})

const wordsOf = (fault: Fault) =>
  known.value.find((one) => equal(one.fault, fault) && one.fault.to === fault.to)
const titleOf = (fault: Fault) => known.value.find((one) => same(one.fault, fault))?.title ?? fault.kind
const equal = (a: Fault, b: Fault) =>
  a.kind === b.kind && JSON.stringify(a.at) === JSON.stringify(b.at) && a.value === b.value

/** Faults that read the same as the one in hand; null before it is known. */
const twins = computed(() => {
  const fault = props.faults[0]
  if (!alike.value || !fault || props.faults.length !== 1) return null
  if (alike.value.unseen.some((one) => equal(one, fault))) return { healthy: true, others: [] }
  const group = alike.value.classes.find((one) => one.some((other) => equal(other, fault)))
  return { healthy: false, others: (group ?? []).filter((one) => !equal(one, fault)) }
})

function toggleSupply(id: string) {
  emit('off', props.off.includes(id) ? props.off.filter((one) => one !== id) : [...props.off, id])
}
</script>

<template>
  <details class="what-if" :open="open" @toggle="toggled">
    <summary>{{ $t('WhatIf.whatIf') }}</summary>
    <div class="supplies" role="group" :aria-label="$t('WhatIf.supplies')">
      <el-button
        v-for="supply in SUPPLIES"
        :key="supply.id"
        class="key"
        :aria-pressed="off.includes(supply.id)"
        :data-testid="`supply-${supply.id}`"
        @click="toggleSupply(supply.id)"
      >
        {{ supply.title }} {{ off.includes(supply.id) ? $t('WhatIf.off') : $t('WhatIf.on') }}
      </el-button>
    </div>
    <ul v-if="faults.length" class="chosen">
      <li v-for="(fault, i) in faults" :key="JSON.stringify(fault)">
        <span>
          <b>{{ trace.faults[i] ?? fault.kind }}</b>
          <small v-if="wordsOf(fault)">{{
            $t('WhatIf.showsProof', { wordsOf: wordsOf(fault)?.shows, wordsOf2: wordsOf(fault)?.proof })
          }}</small>
        </span>
        <el-button
          class="key quiet"
          :aria-label="$t('WhatIf.takeAway2', { i: trace.faults[i] })"
          @click="
            emit(
              'faults',
              faults.filter((one) => one !== fault),
            )
          "
        >
          {{ $t('WhatIf.takeAway') }}
        </el-button>
      </li>
    </ul>
    <div v-if="faults.length === 1" class="alike" data-testid="alike">
      <el-button v-if="!alike && !task" class="key" @click="ask">{{
        $t('WhatIf.whichFaultsReadTheSame')
      }}</el-button>
      <template v-if="task">
        <TaskProgress
          class="share"
          :label="$t('WhatIf.faultsCompared')"
          :done="task.done"
          :total="task.total"
          :stroke-width="14"
        />
        <el-button class="key quiet" @click="cancel">{{ $t('WhatIf.stop') }}</el-button>
      </template>
      <p v-if="twins?.healthy">{{ $t('WhatIf.noVoltageShowsThisFault') }}</p>
      <p v-else-if="twins && !twins.others.length">{{ $t('WhatIf.noOtherSingleFaultReads') }}</p>
      <template v-else-if="twins">
        <p>{{ $t('WhatIf.readsTheSameInEvery') }}</p>
        <ul>
          <li v-for="other in twins.others" :key="JSON.stringify(other)">{{ titleOf(other) }}</li>
        </ul>
      </template>
      <ProblemNote v-if="problem" :problem="problem" />
    </div>
    <label class="search">
      <span>{{ $t('WhatIf.fault') }}</span>
      <el-input
        v-model="search"
        type="search"
        autocomplete="off"
        maxlength="60"
        :placeholder="$t('WhatIf.tapAPartOrType')"
        data-testid="fault-search"
      />
    </label>
    <ul class="offered">
      <li v-for="one in offered" :key="JSON.stringify(one.fault)">
        <button
          class="offer"
          :title="$t('WhatIf.shows', { is: one.is, shows: one.shows })"
          data-testid="fault-offer"
          @click="emit('faults', [...faults, one.fault])"
        >
          {{ one.title }}
        </button>
      </li>
    </ul>
    <p v-if="trace.changes" class="changes" data-testid="changes">
      <b aria-hidden="true">▲</b>
      {{
        trace.changes.loads.length
          ? $t('WhatIf.runsOtherwise', { join: trace.changes.loads.join(', ') })
          : $t('WhatIf.noLoadRunsOtherwise')
      }}
      {{
        trace.changes.nodes.length
          ? $t('WhatIf.pointsChanged', { nodes: trace.changes.nodes.length })
          : $t('WhatIf.noPointChanged')
      }}
      <span v-for="state in ['dead', 'live', 'home', 'floating', 'between']" :key="state">
        <template v-if="trace.changes.nodes.filter((node) => node.after === state).length">
          {{
            $t('WhatIf.now', {
              count: trace.changes.nodes.filter((node) => node.after === state).length,
              state: state === 'home' ? $t('WhatIf.common') : state,
            })
          }}
        </template>
      </span>
    </p>
  </details>
</template>

<style scoped>
summary {
  display: flex;
  align-items: center;
  min-height: var(--target);
  font-weight: 700;
  cursor: pointer;
}

.supplies {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}

.supplies .key {
  padding: 4px 8px;
  font-weight: 450;
}

ul {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}

.chosen li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding-left: 10px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
}

.chosen small {
  display: block;
  color: var(--ink-soft);
  font-size: 14px;
}

.search {
  display: block;
  padding-top: 8px;
}

.search span {
  color: var(--ink-soft);
  font-size: 14px;
}

.offer {
  width: 100%;
  min-height: var(--target);
  padding: 4px 8px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: transparent;
  text-align: left;
  cursor: pointer;
}

.offer:hover {
  background: var(--note-soft);
}

.changes {
  margin-top: 8px;
}

.changes b {
  color: var(--between);
}

.alike {
  padding-top: 8px;
}

.alike ul {
  margin-top: 2px;
  padding-left: 18px;
  list-style: disc;
}

.share {
  flex: 1;
}
</style>
