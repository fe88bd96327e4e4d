<script setup lang="ts">
import { computed, ref } from 'vue'
import type { DrillTry } from '@/pages/practice/api'
import { benchClock } from '@/pages/practice/bench'
import PanelDrawing from '@/pages/practice/PanelDrawing.vue'

/** What was so, what it came to, and each act gone over again on the drawing. */
const props = defineProps<{ drillTry: DrillTry }>()
const result = computed(() => props.drillTry.result!)
const at = ref(0)
const step = computed(() => result.value.steps[at.value] ?? null)
const probes = computed(() => ({ black: step.value?.nodes[0] ?? null, red: step.value?.nodes[1] ?? null }))
/** Where it lay: a wire by its conductor, whatever end of it the fault is told of. */
const lit = computed(() =>
  result.value.truth.flatMap((one) => one.lit.flatMap((at) => [at, at.split('@')[0] ?? at])),
)
const MOST_BITS = 6
const bar = (bits: number) => `${Math.min(100, (Math.abs(bits) / MOST_BITS) * 100)}%`
const signed = (bits: number) => `${bits > 0 ? '+' : bits < 0 ? '−' : ''}${Math.abs(bits).toFixed(1)}`
</script>

<template>
  <section class="debrief" data-testid="debrief">
    <header>
      <p class="marks">
        <b class="mono">{{ drillTry.marks }}</b><small>{{ $t('DebriefView.of100') }}</small>
      </p>
      <div class="truth">
        <h1 v-for="one in result.truth" :key="one.title">{{ one.title }}</h1>
        <p v-if="result.spells">{{ $t('DebriefView.itCameAndWent') }}</p>
        <template v-for="one in result.truth" :key="one.title">
          <p v-if="one.shows">
            <span class="soft">{{ $t('DebriefView.shows') }}</span> {{ one.shows }}
          </p>
          <p v-if="one.proof">
            <span class="soft">{{ $t('DebriefView.proof') }}</span> {{ one.proof }}
          </p>
        </template>
      </div>
    </header>
    <ul class="score">
      <li v-for="line in result.score.lines" :key="line.part">
        <b class="mono">{{ line.got > 0 ? '+' : '' }}{{ Math.round(line.got) }}</b
        ><small v-if="line.of" class="mono">/{{ line.of }}</small> {{ line.says }}
      </li>
    </ul>
    <h2>{{ $t('DebriefView.whatEachTold') }}</h2>
    <p v-if="!result.steps.length" class="soft">{{ $t('DebriefView.nothingWasDoneAtThe') }}</p>
    <div v-else class="over">
      <ol class="steps">
        <li v-for="(one, i) in result.steps" :key="i">
          <el-button
            text
            :class="['step', { now: at === i, stopped: one.stopped }]"
            :aria-current="at === i"
            data-testid="debrief-step"
            @click="at = i"
          >
            <span class="mono">{{ benchClock(one.minutes) }}</span>
            <span class="did"
              >{{ one.title }}<b>{{ one.says }}</b></span
            >
            <span v-if="one.bits !== null" class="bits" :class="{ away: one.bits < 0 }">
              <i :style="{ width: bar(one.bits) }" /><span class="mono">{{
                $t('DebriefView.bits', { signed: signed(one.bits) })
              }}</span>
            </span>
            <small v-else-if="one.note" class="soft">{{ one.note }}</small>
            <small v-if="one.better" class="better" data-testid="better">{{
              $t('DebriefView.wouldHaveToldMoreAgainst', {
                says: one.better.says,
                bits: one.better.bits.toFixed(1),
                mine: one.better.mine.toFixed(1),
              })
            }}</small>
          </el-button>
        </li>
      </ol>
      <PanelDrawing :drill="drillTry.drill.id" :probes="probes" :lit="lit" />
    </div>
    <p class="soft">
      {{ $t('DebriefView.bitsHowMuchNearerWhat') }}
    </p>
    <RouterLink class="key solid" to="/practice">{{ $t('DebriefView.backToPractice') }}</RouterLink>
  </section>
</template>

<style scoped>
.debrief {
  display: grid;
  gap: 10px;
  justify-items: start;
}

.debrief > :not(.key) {
  width: 100%;
}

header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 28px;
  align-items: flex-start;
}

.marks b {
  font-size: 58px;
  line-height: 1;
}

.marks small,
.soft {
  color: var(--ink-soft);
}

.truth {
  flex: 1 1 320px;
  padding-left: 14px;
  border-left: 6px solid var(--live);
}

h1 {
  font-size: 24px;
}

h2 {
  font-size: 19px;
}

.score,
.steps {
  margin: 0;
  padding: 0;
  list-style: none;
}

.score {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
}

.over {
  display: grid;
  grid-template-columns: minmax(320px, 480px) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}

.steps {
  max-height: 74vh;
  overflow-y: auto;
  border-top: 3px solid var(--ink);
}

.step {
  width: 100%;
  height: auto;
  padding: 8px 6px;
  border-bottom: 1px solid var(--rule);
  text-align: left;
}

.step > :deep(span) {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr) 110px;
  gap: 2px 10px;
  width: 100%;
  color: var(--ink);
  font-weight: 450;
  white-space: normal;
}

.step.now {
  background: var(--live-soft);
}

.step.stopped {
  border-left: 6px solid var(--alarm);
}

.did b {
  display: block;
}

.bits i {
  display: block;
  height: 8px;
  background: var(--agrees);
}

.bits.away i {
  background: var(--alarm);
}

.better {
  grid-column: 2 / -1;
  color: var(--between);
}

@media (max-width: 1040px) {
  .over {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media (max-width: 640px) {
  .step > :deep(span) {
    grid-template-columns: 44px minmax(0, 1fr);
  }

  .bits {
    grid-column: 2;
  }
}
</style>
