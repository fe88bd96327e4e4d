<script setup lang="ts">
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { shownIn, unitShown } from '@/shared/model/units'
import { useIntervalFn, useLocalStorage } from '@vueuse/core'
import { onCrewEvent } from '@/shared/api/stream'
import {
  heard,
  instrumentOf,
  keepable,
  place,
  refused,
  stale,
  type Live,
  type Sample,
} from '@/desks/trace/liveMeter'

const { t } = useI18n()
/** A meter that sends by itself: what it shows now, held once it has settled, kept by a key with its two points. */
const props = defineProps<{
  visit: string
  black: string | null
  red: string | null
  where: string
  busy: boolean
}>()
const emit = defineEmits<{
  function: [id: string]
  keep: [sample: Sample, instrument: string]
}>()

const TICK_MS = 500
const live = shallowRef<Live | null>(null)
const now = ref(Date.now())
useIntervalFn(() => (now.value = Date.now()), TICK_MS)

/** The meter of the crew that this person holds: another's may be clipped to another unit. */
const inHand = useLocalStorage('gorvant.meter', '')
const offered = shallowRef<{ id: string; name: string } | null>(null)
const off = onCrewEvent((event) => {
  if (event.kind !== 'device_reading' || 'try_id' in event) return
  const sample = event as unknown as Sample
  const where = place({ visit_id: event.visit_id, device_id: sample.device_id }, props.visit, inHand.value)
  if (where === 'offer') offered.value = { id: sample.device_id, name: sample.device }
  if (where !== 'show') return
  live.value = heard(live.value, sample, Date.now())
  now.value = Date.now()
})
onScopeDispose(off)
function take() {
  inHand.value = offered.value?.id ?? ''
  offered.value = null
}

const quiet = computed(() => live.value !== null && stale(live.value, now.value))
const wrong = computed(() => live.value !== null && refused(live.value.sample))
const ready = computed(() => keepable(live.value, now.value, [props.black, props.red]))
const shown = computed(() => live.value?.held ?? live.value?.sample ?? null)
const SAYS: Record<string, string> = {
  volts_dc: t('LiveMeter.theMeterIsOn'),
  hertz: t('LiveMeter.theMeterIsOn2'),
  amps_dc: t('LiveMeter.theMeterIsOn3'),
}

// What the meter is set to, the page is on.
watch(
  () => (live.value && !wrong.value ? live.value.sample.function : null),
  (id) => id && emit('function', id),
)

function keep() {
  if (ready.value && !props.busy) emit('keep', ready.value, instrumentOf(ready.value))
}
defineExpose({ keep })
</script>

<template>
  <el-button v-if="offered && !live" class="key" data-testid="take-meter" @click="take">{{
    $t('LiveMeter.sendsIHoldIt', { name: offered.name })
  }}</el-button>
  <section
    v-if="live && shown"
    :class="['live', { quiet, wrong, settled: shown.stable && !quiet }]"
    :aria-label="$t('LiveMeter.liveMeter')"
    data-testid="live-meter"
  >
    <p class="head">
      <b>{{ live.sample.device }}</b>
      <span role="status">{{
        quiet
          ? $t('LiveMeter.quietNoValueFor3')
          : wrong
            ? $t('LiveMeter.wrongFunction')
            : shown.stable
              ? $t('LiveMeter.held')
              : $t('LiveMeter.settling')
      }}</span>
    </p>
    <p class="digits mono" data-testid="live-value">
      {{ quiet ? '– –' : shownIn(shown.unit, shown.value) }}<small>{{ unitShown(shown.unit) }}</small>
    </p>
    <p v-if="wrong" class="says">
      {{ SAYS[live.sample.function] ?? $t('LiveMeter.anotherFunctionThanAPerson') }}
    </p>
    <template v-else>
      <el-button
        class="key solid"
        :disabled="!ready || busy"
        :title="$t('LiveMeter.k')"
        data-testid="keep-live"
        @click="keep"
        >{{ $t('LiveMeter.keep', { where }) }}</el-button
      >
      <small v-if="!live.sample.instrument">{{ $t('LiveMeter.itsInputIsNotKnown') }}</small>
      <small v-else>{{ $t('LiveMeter.aLiveValueProvesNothing') }}</small>
    </template>
  </section>
</template>

<style scoped>
.live {
  display: grid;
  gap: 6px;
  padding: 8px 10px;
  border-left: 6px solid var(--rule-strong);
  background: var(--glass);
  color: var(--on-glass);
}

.settled {
  border-left-color: var(--agrees);
}

.wrong,
.quiet {
  border-left-color: var(--alarm);
}

.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}

.digits {
  font-size: 34px;
  font-weight: 700;
  line-height: 1.1;
}

.digits small {
  margin-left: 6px;
  font-size: 16px;
}

.quiet .digits {
  opacity: 0.6;
}

small {
  color: var(--on-glass-soft);
}
</style>
