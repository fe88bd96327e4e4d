<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Find, FindTest } from '@/shared/api/client'
import type { Read } from '@/shared/ui/useReadings'
import { readAmount, readNumber, unitShown } from '@/shared/model/units'
import { lanesOf, percent, width, type Lane } from '@/desks/find/useFind'

const { t } = useI18n()
/** The test to make now: one sentence, and its answers as lanes with the suspects that would give each. resting: no tap is
 *  taken, it may be meant for the test before. */
const props = defineProps<{ answer: Find; busy: boolean; resting: boolean }>()
const emit = defineEmits<{ keep: [read: Read]; skip: []; untold: [] }>()

const test = computed(() => props.answer.next!)
const lanes = computed(() => lanesOf(props.answer))
const MOST = 4
const typed = ref('')
const wrong = ref('')
const UNITS: Partial<Record<FindTest['function'], string>> = {
  volts_ac: 'V',
  ohms: 'Ω',
  microfarads: 'µF',
  minutes: 'min',
  degrees_f: '°F',
}
const numeric = computed(() => test.value.function in UNITS)
const unit = computed(() => UNITS[test.value.function] ?? '')
const where = () =>
  test.value.from_node
    ? { from_node: test.value.from_node, to_node: test.value.to_node }
    : { place: test.value.place }

function keepNumber() {
  const amount =
    test.value.function === 'minutes' ? minutes() : readAmount(typed.value, unit.value, unit.value === 'Ω')
  if (!amount) {
    wrong.value = t('NextTest.aNumber', {
      unit: unitShown(unit.value),
      example: unit.value === 'min' ? '4' : '24.3',
      orOl: unit.value === 'Ω' ? t('NextTest.orOl') : '',
    })
    return
  }
  emit('keep', {
    function: test.value.function,
    instrument: test.value.instrument,
    ...(test.value.isolated ? { isolated: true } : {}),
    ...where(),
    ...amount,
  })
}
function minutes() {
  const value = readNumber(typed.value)
  return value === null || value === undefined || value < 0 ? null : { value }
}
const choose = (lane: Lane) =>
  emit('keep', { function: test.value.function, place: test.value.place, choice: lane.raw })
const digit = (i: number) => (i < 9 ? String(i + 1) : '')
defineExpose({
  choose: (i: number) =>
    !props.busy && !props.resting && !numeric.value && lanes.value[i] && choose(lanes.value[i]),
  typing: () => typed.value !== '',
  clear: () => ((typed.value = ''), (wrong.value = '')),
})
</script>

<template>
  <section class="next" :aria-label="$t('NextTest.nextTest')">
    <p class="kicker">
      <b>{{ $t('NextTest.next') }}</b>
      <span v-if="test.at_title">{{ $t('NextTest.atThe', { at_title: test.at_title }) }}</span>
      <span class="mono">{{ $t('NextTest.min', { minutes: test.minutes }) }}</span>
    </p>
    <h2 data-testid="next-test" :data-test="test.id">{{ test.says }}</h2>
    <p v-if="test.again" class="first" data-testid="once-more">↻ {{ test.again }}</p>
    <p v-if="test.first" class="first">{{ $t('NextTest.first', { first: test.first }) }}</p>
    <p v-for="caution in test.cautions" :key="caution" class="caution">⚠ {{ caution }}</p>
    <form v-if="numeric" class="entry" @submit.prevent="keepNumber">
      <label>
        <span>{{ $t('NextTest.reads') }}</span>
        <el-input
          v-model="typed"
          class="mono typed"
          inputmode="decimal"
          autocomplete="off"
          maxlength="24"
          :placeholder="unit === 'min' ? '4' : '24.3'"
          data-testid="find-reads"
        >
          <template #suffix>{{ unitShown(unit) }}</template>
        </el-input>
      </label>
      <el-button class="key solid" native-type="submit" :disabled="busy || resting" data-testid="find-keep">
        {{ busy ? $t('NextTest.keeping') : $t('NextTest.keep') }}
      </el-button>
    </form>
    <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
    <ul :class="['lanes', { chosen: !numeric }]" :style="{ '--lanes': Math.min(lanes.length, 4) }">
      <li v-for="(lane, i) in lanes" :key="lane.id" class="lane">
        <el-button
          v-if="!numeric"
          class="key head"
          :disabled="busy || resting"
          :data-testid="`lane-${lane.id}`"
          @click="choose(lane)"
        >
          <kbd aria-hidden="true">{{ digit(i) }}</kbd> {{ lane.title }}
        </el-button>
        <p v-else class="head">{{ lane.title }}</p>
        <ol>
          <li v-for="one in lane.suspects.slice(0, MOST)" :key="one.id">
            <span class="bar" :style="{ width: width(one.belief) }" aria-hidden="true" />
            <span class="mono">{{ percent(one.belief) }}</span> {{ one.title }}
          </li>
        </ol>
        <p v-if="lane.suspects.length > MOST" class="quiet">
          {{ $t('NextTest.andMore', { MOST: lane.suspects.length - MOST }) }}
        </p>
        <p v-if="!lane.suspects.length" class="quiet">{{ $t('NextTest.noneOfThoseInFront') }}</p>
      </li>
    </ul>
    <div class="aside">
      <el-button class="key quiet" :disabled="busy || resting" data-testid="untold" @click="emit('untold')">
        {{ $t('NextTest.couldNotTell') }}
      </el-button>
      <el-button class="key quiet" :disabled="busy || resting" data-testid="skip" @click="emit('skip')">{{
        $t('NextTest.notPossibleHere')
      }}</el-button>
    </div>
  </section>
</template>

<style scoped>
.next {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 12px 16px 16px;
  border: 2px solid var(--ink);
  background: var(--panel);
}

.kicker {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  color: var(--ink-soft);
}

.kicker b {
  color: var(--live);
  text-transform: uppercase;
  letter-spacing: 0.08em;
}

h2 {
  font-size: 26px;
  line-height: 1.2;
  overflow-wrap: anywhere;
}

.first {
  padding: 6px 10px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
}

.caution {
  font-weight: 600;
}

.entry {
  display: grid;
  grid-template-columns: minmax(0, 260px) auto;
  gap: 8px;
  align-items: end;
}

.entry label span {
  color: var(--ink-soft);
}

.typed :deep(.el-input__wrapper) {
  min-height: 52px;
  box-shadow: 0 0 0 2px var(--ink) inset;
}

.typed :deep(.el-input__inner) {
  font-size: 26px;
  font-weight: 650;
}

.entry .key {
  min-height: 52px;
}

.lanes {
  display: grid;
  grid-template-columns: repeat(var(--lanes), minmax(0, 1fr));
  gap: 0;
  padding: 0;
  list-style: none;
  border-top: 4px solid var(--ink);
}

.lane {
  display: grid;
  align-content: start;
  gap: 6px;
  padding: 8px 10px;
  border-left: 2px solid var(--rule);
}

.lane:first-child {
  border-left: 0;
}

.lane .head {
  justify-content: flex-start;
  width: 100%;
  min-height: var(--target);
  height: auto;
  font-weight: 700;
  white-space: normal;
  text-align: left;
}

p.head {
  display: flex;
  align-items: center;
  font-family: var(--font-mono);
}

kbd {
  margin-right: 8px;
  color: var(--ink-soft);
  font-family: var(--font-mono);
}

ol {
  display: grid;
  gap: 6px;
  padding: 0;
  list-style: none;
}

ol li {
  position: relative;
  padding: 2px 0 5px;
  overflow-wrap: anywhere;
}

.bar {
  position: absolute;
  bottom: 0;
  left: 0;
  height: 3px;
  background: var(--live);
  transition: width 0.15s;
}

.quiet {
  color: var(--ink-soft);
}

.aside {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.wrong {
  color: var(--alarm);
  font-weight: 600;
}

@media (prefers-reduced-motion: reduce) {
  .bar {
    transition: none;
  }
}

@media (max-width: 640px) {
  .next {
    padding: 10px 12px 12px;
  }

  h2 {
    font-size: 22px;
  }

  .lanes {
    grid-template-columns: minmax(0, 1fr);
  }

  .lane {
    border-left: 0;
    border-bottom: 1px solid var(--rule);
    padding-inline: 0;
  }

  .entry {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
