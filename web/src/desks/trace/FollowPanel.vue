<script setup lang="ts">
import { computed, nextTick, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type Catalogue, type Condition, type Source, type Trace, type Way } from '@/shared/api/client'
import type { Expected } from '@/shared/model/readingTable'
import type { Problem } from '@/shared/model/outcome'
import { volts } from '@/shared/model/units'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'

const { t } = useI18n()
const props = defineProps<{
  source: Source
  trace: Trace
  condition: Condition
  components: Catalogue['components']
  loop: string | null
  part: string | null
  black: string | null
  red: string | null
  expected: Expected | null
}>()
const emit = defineEmits<{ step: [by: number]; loop: [load: string]; light: [ids: string[]] }>()

const string = computed(() => props.trace.strings.find((one) => one.load === props.loop) ?? null)
const stations = computed(() => string.value?.beads.filter((bead) => bead.kind !== 'cable') ?? [])
const at = computed(() => {
  const chosen = stations.value.findIndex((bead) => bead.id === props.part)
  return chosen < 0 ? stations.value.findIndex((bead) => bead.nodes.includes(props.red ?? '')) : chosen
})
const here = computed(() => stations.value[at.value] ?? null)
const about = computed(() => props.components.find((one) => one.id === here.value?.id.split('.')[0]) ?? null)

const STATES: Record<string, string> = {
  live: t('FollowPanel.live'),
  dead: t('FollowPanel.dead'),
  home: t('FollowPanel.common'),
  between: t('FollowPanel.neitherLiveNorDead'),
  floating: t('FollowPanel.floats'),
}
const stands = computed(() => {
  const bead = here.value
  if (!bead) return ''
  if (bead.kind === 'load') return bead.sub ?? ''
  if (bead.kind === 'device') return bead.closed ? 'closed' : 'open'
  return STATES[bead.state] ?? bead.state
})

/** Keys go on along the loop, not through the list. */
function choose(load: string) {
  emit('loop', load)
  void nextTick(() => (document.activeElement as HTMLElement | null)?.blur())
}

const way = shallowRef<Way | null>(null)
const asked = shallowRef<'between' | 'from R' | null>(null)
const problem = shallowRef<Problem | null>(null)

async function ask(what: 'between' | 'from R') {
  if (!props.red) return
  const from = what === 'between' ? props.black : null
  const answer = await api.way(props.source, props.condition, props.red, from)
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state !== 'ready') return
  asked.value = what
  way.value = answer.value
  emit('light', [...answer.value.branches, ...answer.value.nodes])
}

function clear() {
  way.value = null
  asked.value = null
  emit('light', [])
}

watch(
  () => [props.red, props.black, JSON.stringify(props.condition)],
  () => way.value && clear(),
)
</script>

<template>
  <section class="follow" :aria-label="$t('FollowPanel.followTheLoop')">
    <div class="top">
      <PickOne
        :model-value="loop"
        :options="trace.strings.map((one) => ({ id: one.load, title: one.title }))"
        :label="$t('FollowPanel.loop')"
        data-testid="loop"
        @update:model-value="choose"
      />
      <el-button
        class="key"
        title="←"
        :aria-label="$t('FollowPanel.backAlongTheLoop')"
        @click="emit('step', -1)"
        >←</el-button
      >
      <el-button
        class="key"
        title="→"
        :aria-label="$t('FollowPanel.onAlongTheLoop')"
        data-testid="step-on"
        @click="emit('step', 1)"
      >
        →
      </el-button>
    </div>
    <p v-if="here" class="here" data-testid="here" aria-live="polite">
      <b>{{ $t('FollowPanel.of', { what: at + 1, stations: stations.length, label: here.label }) }}</b>
      <span v-if="about">{{ about.does }}.</span>
      <span :class="['stands', { broken: here.broken }]">{{ stands }}{{ here.broken ? ' ≠' : '' }}</span>
      <span v-if="expected">{{ $t('FollowPanel.toBeReadV', { volts: volts(expected.volts_ac) }) }}</span>
    </p>
    <p v-else class="here quiet">{{ $t('FollowPanel.goesAlongThisLoopFrom') }}</p>
    <div class="ways">
      <el-button class="key" :disabled="!red" data-testid="way-from-r" @click="ask('from R')">
        {{ $t('FollowPanel.howDoes24VGet') }}
      </el-button>
      <el-button class="key" :disabled="!red || !black" data-testid="way-between" @click="ask('between')">
        {{ $t('FollowPanel.whatLiesBetween') }}
      </el-button>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="way" class="way" data-testid="way">
      <p>
        <b
          >{{
            asked === 'between' ? $t('FollowPanel.betweenTheProbes') : $t('FollowPanel.shortestWayFromR')
          }}.</b
        >
        {{ way.says }}
      </p>
      <ol>
        <li v-for="stop in way.stops" :key="stop.id" :class="[stop.kind, { open: stop.open }]">
          {{ stop.label }}<span v-if="stop.open">{{ $t('FollowPanel.open') }}</span>
        </li>
      </ol>
      <el-button class="key quiet" @click="clear">{{ $t('FollowPanel.clear') }}</el-button>
    </div>
  </section>
</template>

<style scoped>
.follow {
  display: grid;
  gap: 8px;
}

.top {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 6px;
}

.here {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
}

.here b {
  flex-basis: 100%;
}

.stands {
  font-weight: 700;
}

.broken,
.open {
  color: var(--alarm);
  font-weight: 700;
}

.quiet {
  color: var(--ink-soft);
}

.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.ways .key {
  flex: 1 1 140px;
}

.way {
  padding: 8px 10px;
  border-left: 6px solid var(--focus);
  background: var(--note-soft);
}

ol {
  margin: 4px 0;
  padding-left: 26px;
}

.cable {
  color: var(--ink-soft);
}
</style>
