<script setup lang="ts">
import { computed, reactive, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { minutes } from '@/shared/model/staging'
import { api, type DefrostOutlook, type Visit } from '@/shared/api/client'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { useQuestion } from '@/shared/api/useQuestion'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import OwnWord from '@/shared/ui/kit/OwnWord.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import QuantityField from '@/shared/ui/kit/QuantityField.vue'

const { t } = useI18n()
export interface Moment {
  call?: string
  outdoor_degrees_f?: number | null
  coil_degrees_f?: number | null
  counted_minutes?: number | null
  humidity_percent?: number | null
  as_found?: boolean
  switches?: Record<string, string>
}
const props = defineProps<{ visit: Visit; moment: Moment }>()
const emit = defineEmits<{ keep: [moment: Moment]; outlook: [outlook: DefrostOutlook] }>()
const catalogue = useCatalogue()

const form = reactive({
  call: props.moment.call ?? 'heat',
  outdoor: props.moment.outdoor_degrees_f ?? props.visit.outdoor_degrees_f,
  coil: props.moment.coil_degrees_f ?? null,
  counted: props.moment.counted_minutes ?? null,
  humidity: props.moment.humidity_percent ?? null,
  asFound: props.moment.as_found ?? false,
  frost: props.moment.switches?.APS ?? '',
})

const stands = computed<Moment>(() => ({
  call: form.call,
  outdoor_degrees_f: form.outdoor,
  coil_degrees_f: form.coil,
  counted_minutes: form.counted,
  humidity_percent: form.humidity,
  as_found: form.asFound,
  ...(form.frost ? { switches: { APS: form.frost } } : {}),
}))
/** Fields with what is no number in them: nothing is asked by what stood there before. */
const wrong = reactive(new Set<string>())
const mark = (field: string) => (is: boolean) => void (is ? wrong.add(field) : wrong.delete(field))

const { value: outlook, problem } = useQuestion<{ now: Moment; rig: string }, DefrostOutlook>(
  `outlook.${props.visit.id}`,
  () => (wrong.size ? null : { now: stands.value, rig: props.visit.rig_revision_id }),
  ({ now }) => api.defrostOutlook(props.visit.id, now),
)
/** What the server could answer is kept, unless it is what the visit had already. */
let kept = JSON.stringify(stands.value)
watch(
  outlook,
  (answer) => {
    if (!answer) return
    emit('outlook', answer)
    if (kept === JSON.stringify(stands.value)) return
    kept = JSON.stringify(stands.value)
    emit('keep', stands.value)
  },
  { immediate: true },
)

const counts = computed(() => {
  const words = outlook.value?.counts ?? t('DefrostNow.runTimeSince')
  return words.charAt(0).toUpperCase() + words.slice(1)
})
const share = computed(() => {
  const interval = outlook.value?.interval_minutes ?? 60
  return Math.min((stands.value.counted_minutes ?? 0) / interval, 1)
})
/** What is not yet so is waited for, and no fault. */
const SIGN = { true: '=', false: '…', null: '?' } as Record<string, string>
</script>

<template>
  <section class="now" :aria-label="$t('DefrostNow.howItStandsNow')">
    <div class="asks">
      <span class="ask"
        >{{ $t('DefrostNow.call') }}
        <PickOne
          v-model="form.call"
          :options="(catalogue?.calls ?? []).filter((call) => !outlook || outlook.calls.includes(call.id))"
          :label="$t('DefrostNow.call')"
          data-testid="now-call"
      /></span>
      <span class="ask"
        >{{ $t('DefrostNow.outside') }}
        <QuantityField
          v-model="form.outdoor"
          :name="$t('DefrostNow.outside')"
          unit="°F"
          optional
          @wrong="mark('outdoor')($event)"
      /></span>
      <span class="ask"
        >{{ $t('DefrostNow.coil') }}
        <QuantityField
          v-model="form.coil"
          :name="$t('DefrostNow.coil')"
          unit="°F"
          optional
          data-testid="coil"
          placeholder="?"
          @wrong="mark('coil')($event)"
      /></span>
      <span class="ask"
        >{{ counts }}
        <QuantityField
          v-model="form.counted"
          :name="counts"
          unit="min"
          optional
          :low="0"
          data-testid="counted"
          placeholder="?"
          @wrong="mark('counted')($event)"
      /></span>
      <span class="ask"
        >{{ $t('DefrostNow.humidity') }}
        <QuantityField
          v-model="form.humidity"
          :name="$t('DefrostNow.humidity')"
          unit="%"
          optional
          :low="1"
          :high="100"
          data-testid="humidity"
          placeholder="?"
          @wrong="mark('humidity')($event)"
      /></span>
      <span v-if="outlook?.air_pressure_switch" class="ask"
        >{{ $t('DefrostNow.airPressureSwitch') }}
        <PickOne
          v-model="form.frost"
          :none="$t('DefrostNow.notRead')"
          :options="[
            { id: 'closed', title: $t('DefrostNow.closedFrost') },
            { id: 'open', title: $t('DefrostNow.open') },
          ]"
          :label="$t('DefrostNow.airPressureSwitch')"
          data-testid="aps"
      /></span>
      <el-checkbox v-model="form.asFound">{{ $t('DefrostNow.wiredAsFound') }}</el-checkbox>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="outlook">
      <p v-for="warning in outlook.warnings" :key="warning" class="warning">⚠ {{ warning }}</p>
      <p v-if="!outlook.measured" class="unmeasured" data-testid="unmeasured">
        {{ $t('DefrostNow.nothingMeasuredYetWhatIs') }}
      </p>
      <ol :class="['lamps', { drawn: !outlook.measured }]" data-testid="lamps">
        <li
          v-for="lamp in outlook.lamps"
          :key="lamp.id"
          :class="String(lamp.on)"
          :data-testid="`lamp-${lamp.id}`"
        >
          <span class="bulb" aria-hidden="true">{{
            lamp.on && !outlook.measured ? '~' : SIGN[String(lamp.on)]
          }}</span>
          <b>{{ lamp.title }}</b>
          <span v-if="lamp.waits_for" class="waits">{{
            $t('DefrostNow.waitsFor', { waits_for: lamp.waits_for })
          }}</span>
        </li>
      </ol>
      <div
        class="count"
        role="img"
        :aria-label="
          $t('DefrostNow.countOfMinutes', {
            unknown: stands.counted_minutes ?? 'unknown',
            interval_minutes: outlook.interval_minutes,
          })
        "
      >
        <span class="full" :style="{ width: `${share * 100}%` }"></span>
      </div>
      <div class="next" data-testid="next">
        <p class="says">{{ outlook.following.says }}</p>
        <p v-for="line in outlook.following.because" :key="line">{{ line }}</p>
        <i18n-t keypath="DefrostNow.byTheSchool" tag="p" class="assumed" scope="global">
          <template #word
            ><OwnWord :means="$t('DefrostNow.schoolMeans')">{{ $t('DefrostNow.school') }}</OwnWord></template
          >
          <template #school>{{ outlook.school }}</template>
        </i18n-t>
        <details class="assumed">
          <summary>{{ $t('DefrostNow.whatThisLeansOn') }}</summary>
          <p v-for="line in outlook.following.assumed" :key="line">{{ line }}</p>
        </details>
      </div>
      <ol v-if="outlook.following.course.length" class="course" data-testid="course">
        <li class="head">{{ $t('DefrostNow.thenFromItsBeginning') }}</li>
        <li v-for="(sight, i) in outlook.following.course" :key="i">
          <b class="mono">{{ minutes(sight.after_seconds) }}</b> {{ sight.says }}
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
.now {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.lamps {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
  gap: 0;
  margin: 0;
  padding: 0;
  border: 2px solid var(--ink);
  list-style: none;
}

.lamps li {
  display: grid;
  align-content: start;
  gap: 4px;
  min-height: 130px;
  padding: 12px;
  border-right: 1px solid var(--rule);
  background: var(--panel);
}

.lamps li.false,
.lamps li.null {
  background: var(--note-soft);
}

.bulb {
  display: grid;
  width: 40px;
  height: 40px;
  border: 3px solid var(--dead);
  border-radius: 50%;
  font-size: 20px;
  font-weight: 800;
  place-items: center;
}

.true .bulb {
  border-color: var(--live);
  background: var(--live);
  color: var(--on-live);
}

.drawn .true .bulb {
  border-color: var(--between);
  border-style: dashed;
  background: transparent;
  color: inherit;
}

.unmeasured,
.warning {
  padding: 6px 12px;
  border-left: 6px dashed var(--between);
  background: var(--note-soft);
}

.warning {
  border-left-style: solid;
  font-weight: 650;
}

.false .bulb {
  border-color: var(--between);
}

.null .bulb {
  border-style: dashed;
}

.waits {
  font-size: 15px;
}

.count {
  height: 22px;
  border: 2px solid var(--ink);
  background: var(--panel);
}

.full {
  display: block;
  height: 100%;
  background: var(--live);
}

.next {
  padding: 8px 14px;
  border-left: 6px solid var(--ink);
  background: var(--panel);
}

.course {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 420px), 1fr));
  gap: 0 24px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.course li {
  display: flex;
  gap: 12px;
  min-height: 34px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
}

.course b {
  min-width: 56px;
  text-align: right;
}

.course .head {
  grid-column: 1 / -1;
  color: var(--ink-soft);
  font-weight: 650;
}

.says {
  font-size: 22px;
  font-weight: 700;
}

.assumed {
  padding-top: 4px;
  color: var(--ink-soft);
  font-size: 15px;
}
</style>
