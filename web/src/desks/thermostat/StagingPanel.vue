<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type Staging, type Visit } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { minutes, scriptOf, type StagingForm } from '@/shared/model/staging'
import { degreeSign, shownDegrees } from '@/shared/model/units'
import FindingList from '@/shared/ui/FindingList.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import StagingChart from '@/desks/thermostat/StagingChart.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import QuantityField from '@/shared/ui/kit/QuantityField.vue'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'

const { t } = useI18n()
const props = defineProps<{ visit: Visit; settings: Record<string, unknown> }>()

const form = reactive<StagingForm>({
  mode: 'heat',
  set: props.visit.set_point_degrees_f ?? 70,
  error: 4,
  outdoor: props.visit.outdoor_degrees_f ?? 35,
  outdoorEnd: '',
  room: 'held',
  course: `0:00 ${shownDegrees(66)} ${shownDegrees(41)}\n20:00 ${shownDegrees(69.5)} ${shownDegrees(30)}`,
  pushAt: '',
  pushTo: 74,
  hours: 1,
})
const at = ref(300)

const MODES = [
  { id: 'heat', title: t('StagingPanel.heat') },
  { id: 'cool', title: t('StagingPanel.cool') },
  { id: 'emergency', title: t('StagingPanel.emergency') },
] as const
const ROOMS = [
  { id: 'held', title: t('StagingPanel.errorHeld') },
  { id: 'house', title: t('StagingPanel.aSimpleHouse') },
  { id: 'course', title: t('StagingPanel.typed') },
] as const

const made = computed(() => scriptOf(form))
const wrong = computed(() => ('wrong' in made.value ? made.value.wrong : ''))
/** The last run that could be made stays in sight while a field cannot be read. */
const { value: staging, problem } = useQuestion<Parameters<typeof api.staging>[1], Staging>(
  `staging.${props.visit.id}`,
  () =>
    'script' in made.value
      ? {
          script: made.value.script,
          duration_seconds: form.hours * 3600,
          settings: props.settings,
          at_seconds: at.value,
        }
      : null,
  (asked) => api.staging(props.visit.id, asked),
)

const stages = computed(() => (staging.value?.stages ?? []).filter((one) => one.on_at < form.hours * 3600))
</script>

<template>
  <section class="staging" :aria-label="$t('StagingPanel.stagesOverTime')">
    <div class="asks">
      <PickButtons v-model="form.mode" :options="MODES" :label="$t('StagingPanel.mode')" testid="mode" />
      <label
        >{{ $t('StagingPanel.set') }}
        <QuantityField
          :model-value="form.set"
          live
          unit="°F"
          name="set point"
          :low="40"
          :high="95"
          @update:model-value="(one) => (form.set = one as number)"
      /></label>
      <label
        >{{ $t('StagingPanel.error') }}
        <QuantityField
          :model-value="form.error"
          live
          unit="°F"
          name="error"
          difference
          :low="-20"
          :high="40"
          data-testid="error"
          @update:model-value="(one) => (form.error = one as number)"
      /></label>
      <label
        >{{ $t('StagingPanel.outside') }}
        <QuantityField
          :model-value="form.outdoor"
          live
          unit="°F"
          name="outside"
          :low="-40"
          :high="120"
          data-testid="outdoor"
          @update:model-value="(one) => (form.outdoor = one as number)"
        />
        {{ $t('StagingPanel.to') }}
        <el-input
          v-model.lazy="form.outdoorEnd"
          class="mono"
          inputmode="decimal"
          maxlength="6"
          :placeholder="$t('StagingPanel.same')"
          data-testid="outdoor-end"
        />
        {{ degreeSign() }}</label
      >
      <span class="ask"
        >{{ $t('StagingPanel.room') }}
        <PickOne v-model="form.room" :options="ROOMS" :label="$t('StagingPanel.room2')" data-testid="room"
      /></span>
      <label
        >{{ $t('StagingPanel.setPointMovedAt') }}
        <el-input
          v-model="form.pushAt"
          class="mono"
          maxlength="8"
          :placeholder="$t('StagingPanel.timeExample')"
          data-testid="push-at"
        />
        {{ $t('StagingPanel.to') }}
        <QuantityField
          :model-value="form.pushTo"
          live
          unit="°F"
          name="set point then"
          :low="40"
          :high="95"
          @update:model-value="(one) => (form.pushTo = one as number)"
        />
      </label>
      <span class="ask"
        >{{ $t('StagingPanel.for') }}
        <PickOne
          v-model="form.hours"
          :options="[0.5, 1, 2, 6, 12, 24].map((id) => ({ id, title: `${id} h` }))"
          :label="$t('StagingPanel.forHowLong')"
      /></span>
    </div>
    <el-input
      v-if="form.room === 'course'"
      v-model="form.course"
      type="textarea"
      class="mono course"
      :autosize="{ minRows: 3, maxRows: 12 }"
      maxlength="4000"
      :aria-label="$t('StagingPanel.aTimeTheRoomOutside', { degreeSign: degreeSign() })"
      data-testid="course"
    />
    <small v-if="form.room === 'course'" class="how">{{ $t('StagingPanel.timeRoomOutsideSetPoint') }}</small>
    <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="!staging && !problem && !wrong" class="until-there" />
    <template v-if="staging">
      <StagingChart :staging="staging" :at="at" @at="(seconds) => (at = seconds)" />
      <p v-if="!staging.waiting.length" class="now" data-testid="waiting">
        {{ $t('StagingPanel.atNothingIsBeingWaited', { minutes: minutes(at) }) }}
      </p>
      <ul v-else class="now" data-testid="waiting">
        <li v-for="one in staging.waiting" :key="one.output">
          {{ $t('StagingPanel.at', { minutes: minutes(at) }) }} <b class="mono">{{ one.title }}</b>
          {{ $t('StagingPanel.isNotOn', { says: one.says }) }}
          <template v-if="one.seconds !== null">{{
            $t('StagingPanel.itComesAt', { minutes: minutes(one.seconds) })
          }}</template>
          <template v-else>{{ $t('StagingPanel.notWithinThisRun') }}</template>
        </li>
      </ul>
      <ol class="stages" data-testid="stages">
        <li v-for="one in stages" :key="one.output + one.on_at">
          <b class="mono">{{ minutes(one.on_at) }}</b> <b class="mono letter">{{ one.title }}</b>
          <span v-if="one.off_at !== null">{{
            $t('StagingPanel.until', { minutes: minutes(one.off_at) })
          }}</span>
          <span v-if="one.waited" class="why">{{
            $t('StagingPanel.notSooner', { waited: one.waited })
          }}</span>
        </li>
      </ol>
      <p v-if="!stages.length">{{ $t('StagingPanel.nothingComesOnInThis') }}</p>
      <FindingList :findings="staging.findings" />
    </template>
  </section>
</template>

<style scoped>
.staging {
  display: grid;
  gap: 8px;
}

.how {
  color: var(--ink-soft);
}

.wrong {
  color: var(--alarm);
  font-weight: 650;
}

.now {
  margin: 0;
  padding: 6px 12px;
  border-left: 6px solid var(--focus);
  background: var(--panel);
  list-style: none;
}

.stages {
  margin: 0;
  padding: 0;
  list-style: none;
}

.stages li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}

.letter {
  min-width: 34px;
}

.why {
  color: var(--ink-soft);
}
</style>
