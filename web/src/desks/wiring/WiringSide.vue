<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Wiring, WiringFinding } from '@/shared/api/client'
import { SIGNS } from '@/shared/model/visitPages'

const props = defineProps<{ wiring: Wiring; traceTo: (faults: Wiring['faults'], call: string) => string }>()
const emit = defineEmits<{ mark: [ends: string[]] }>()

const SIGN: Record<string, string> = { fault: '≠', warning: '!', note: 'i', as_designed: '=' }
const wrong = computed(() => props.wiring.effects.filter((effect) => !effect.works))
/** Every call by itself, and what is wrong in whatever state; the states that work fold away. */
const shown = computed(() =>
  all.value
    ? props.wiring.effects
    : props.wiring.effects.filter((effect) => !effect.works || callOf(effect.trial) === effect.trial),
)
const folded = computed(() => props.wiring.effects.length - shown.value.length)
const all = ref(false)
/** A call that works agrees only when all that it leans on was looked at. */
const soFar = computed(() => {
  const { looked_at, taken } = props.wiring.standing
  return !looked_at.length ? 'untouched' : taken.length ? 'so_far' : 'agrees'
})
const fewest = computed(() => props.wiring.correction)
const endsOf = (finding: WiringFinding) =>
  finding.ends.map((end) => `${end.cable}.${end.conductor}@${end.place}`)
/** The call that a trial is of: its name goes before the switch or the state. */
const callOf = (trial: string) => trial.replace(/_([A-Z0-9]+_(open|closed)|lockout)$/, '')
</script>

<template>
  <div class="side">
    <section class="calls" :aria-label="$t('WiringSide.everyCallAsFound')" data-testid="calls">
      <span
        v-for="effect in shown"
        :key="effect.trial"
        :class="['call', effect.works ? soFar : 'wrong']"
        :title="effect.says"
        >{{ effect.works ? SIGNS[soFar] : '≠' }} {{ effect.title }}</span
      >
      <el-button v-if="folded || all" class="key quiet" data-testid="states" @click="all = !all">
        {{
          all
            ? $t('WiringSide.callsOnly')
            : $t('WiringSide.statesOfWeatherSafetiesAnd', { soFar: SIGNS[soFar], folded })
        }}
      </el-button>
    </section>
    <section v-if="wrong.length || fewest.moves.length" class="fewest" data-testid="fewest">
      <h2>{{ $t('WiringSide.fewestMovesSoThatEvery') }}</h2>
      <ol v-if="fewest.moves.length">
        <li v-for="move in fewest.moves" :key="move">{{ move }}</li>
      </ol>
      <p v-if="!fewest.works">{{ $t('WiringSide.puttingAllBackAsDrawn') }}</p>
      <p v-else-if="!fewest.complete" class="quiet">{{ $t('WiringSide.notEverySmallerSetCould') }}</p>
    </section>
    <p v-else-if="wiring.findings.some((one) => one.hidden)" class="fewest" data-testid="fewest">
      {{ $t('WiringSide.whatIsWrongMakesUp') }}
    </p>
    <p v-else :class="['fine', wiring.standing.mark]" data-testid="wiring-standing">
      {{ SIGNS[wiring.standing.mark] }} {{ wiring.standing.says }}
    </p>

    <section :aria-label="$t('WiringSide.findings')" data-testid="wiring-findings">
      <details
        v-for="(finding, i) in wiring.findings"
        :key="finding.code + i"
        :class="['finding', finding.severity]"
        :open="finding.severity === 'fault' && i < 4"
        @mouseenter="emit('mark', endsOf(finding))"
        @mouseleave="emit('mark', [])"
        @click="emit('mark', endsOf(finding))"
      >
        <summary>
          <b aria-hidden="true">{{ SIGN[finding.severity] }}</b> {{ finding.title }}
        </summary>
        <p>{{ finding.says }}</p>
        <ul v-if="finding.effects.length" class="effects">
          <li v-for="effect in finding.effects" :key="effect.trial">
            <b>{{ effect.title }}</b> {{ effect.says }}
            <small v-if="effect.nodes.length">{{
              $t('WiringSide.otherwise', {
                nodes: effect.nodes
                  .slice(0, 4)
                  .map((node) => $t('WiringSide.shouldBe', { point: node.label, should: node.should }))
                  .join(', '),
              })
            }}</small>
          </li>
        </ul>
        <p v-for="caution in finding.cautions" :key="caution" class="caution">⚠ {{ caution }}</p>
        <p v-if="finding.next_step" class="move">→ {{ finding.next_step }}</p>
        <ul v-if="finding.evidence.length || finding.assumed.length" class="evidence">
          <li v-for="line in [...finding.evidence, ...finding.assumed]" :key="line">{{ line }}</li>
        </ul>
        <RouterLink
          v-if="finding.faults.length && finding.effects[0]"
          class="key quiet"
          :to="traceTo(finding.faults, callOf(finding.effects[0].trial))"
          >{{ $t('WiringSide.thisOneAloneInTrace') }}</RouterLink
        >
      </details>
    </section>
  </div>
</template>

<style scoped>
.side {
  display: grid;
  gap: 8px;
  align-content: start;
}

.calls {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 4px;
}

.call {
  padding: 3px 8px;
  border: 1px solid var(--agrees);
  color: var(--agrees);
  font-size: 14px;
}

.call.so_far,
.call.untouched {
  border: 1px dashed var(--between);
  color: var(--ink);
}

.call.wrong {
  border: 2px solid var(--alarm);
  background: var(--alarm-soft);
  color: var(--alarm);
  font-weight: 700;
}

.fewest,
.fine {
  padding: 8px 12px;
  border-left: 6px solid var(--ink);
  background: var(--panel);
}

.fine.so_far,
.fine.untouched {
  border-left: 6px dashed var(--between);
  color: var(--ink);
}

.fine {
  border-color: var(--agrees);
}

h2 {
  font-size: 15px;
  font-weight: 650;
  color: var(--ink-soft);
}

ol {
  margin: 4px 0 0;
  padding-left: 22px;
  font-size: 17px;
  font-weight: 650;
}

.finding {
  margin-bottom: 6px;
  padding: 0 12px 6px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
  overflow-wrap: anywhere;
}

.finding.fault {
  border-color: var(--alarm);
  background: var(--alarm-soft);
}

.finding.note {
  border-color: var(--rule-strong);
  background: var(--panel);
}

summary {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: var(--target);
  font-weight: 700;
  cursor: pointer;
}

summary::first-letter {
  text-transform: uppercase;
}

summary b {
  font-size: 20px;
}

.effects {
  margin: 6px 0;
  padding: 0;
  list-style: none;
}

.effects li {
  padding: 3px 0;
  border-top: 1px solid var(--rule);
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 14px;
}

.caution,
.move {
  font-weight: 650;
}

.evidence {
  margin: 6px 0 0;
  padding-left: 18px;
  color: var(--ink-soft);
  font-size: 14px;
}

.quiet {
  color: var(--ink-soft);
}
</style>
