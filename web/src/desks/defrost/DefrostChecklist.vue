<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { DefrostOutlook, Reading, Visit } from '@/shared/api/client'
import { useReadings } from '@/shared/ui/useReadings'
import { parseVolts, volts } from '@/shared/model/units'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const { t } = useI18n()
const props = defineProps<{ visit: Visit; outlook: DefrostOutlook }>()
const { readings, problem, busy, keep } = useReadings(props.visit.id)
const typed = ref<Record<string, string>>({})
const wrong = ref('')
watch(typed, () => (wrong.value = ''), { deep: true })

type Line = DefrostOutlook['checklist'][number]
/** The newest reading at these two points in this call. */
const last = computed(
  () =>
    (line: Line): Reading | undefined =>
      readings.value.find(
        (one) =>
          !one.retracted_at &&
          !one.superseded_by_id &&
          one.function === 'volts_ac' &&
          one.from_node === line.from_node &&
          one.to_node === line.to_node &&
          one.condition.call === line.condition.call,
      ),
)

async function take(line: Line) {
  const value = parseVolts(typed.value[line.id] ?? '')
  if (value === null) {
    wrong.value = t('DefrostChecklist.voltsSuchAs', { what: line.title })
    return
  }
  const kept = await keep({
    from_node: line.from_node,
    to_node: line.to_node,
    function: 'volts_ac',
    value,
    instrument: 'high_impedance',
    condition: line.condition,
  })
  if (kept) typed.value = { ...typed.value, [line.id]: '' }
}
const traceOf = (line: Line) =>
  `/visits/${props.visit.id}/trace?${new URLSearchParams({ call: line.condition.call ?? 'heat', black: line.from_node, red: line.to_node })}`
</script>

<template>
  <section class="checklist" :aria-label="$t('DefrostChecklist.initiationAndTerminationChecklist')">
    <p class="setting">
      {{ $t('DefrostChecklist.interval') }}
      <b class="mono">{{ $t('DefrostChecklist.min', { interval_minutes: outlook.interval_minutes }) }}</b>{{
        $t('DefrostChecklist.limit')
      }}
      <b class="mono">{{ $t('DefrostChecklist.min2', { limit_minutes: outlook.limit_minutes }) }}</b>{{
        $t('DefrostChecklist.asTheRigHasIt')
      }}
      <RouterLink class="key quiet" :to="`/visits/${visit.id}/fitted`">{{
        $t('DefrostChecklist.selectorFoundOtherwise')
      }}</RouterLink>
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
    <ol>
      <li
        v-for="line in outlook.checklist"
        :key="line.id"
        :class="last(line)?.verdict"
        :data-testid="`check-${line.id}`"
      >
        <span class="what">
          {{ line.title }}
          <small>{{ line.says }}</small>
          <small v-for="caution in line.cautions" :key="caution" class="caution">⚠ {{ caution }}</small>
        </span>
        <span class="expect mono">{{
          $t('DefrostChecklist.v', {
            expected_volts_ac:
              line.expected_volts_ac === null ? $t('DefrostChecklist.n0Or24') : volts(line.expected_volts_ac),
          })
        }}</span>
        <form @submit.prevent="take(line)">
          <el-input
            v-model="typed[line.id]"
            class="mono"
            inputmode="decimal"
            maxlength="8"
            :aria-label="$t('DefrostChecklist.read2', { title: line.title })"
            :placeholder="$t('DefrostChecklist.read')"
          />
          <el-button native-type="submit" class="key" :disabled="busy">{{
            $t('DefrostChecklist.keep')
          }}</el-button>
        </form>
        <span class="had" role="status">
          <template v-if="last(line)"
            >{{ last(line)!.verdict === 'agrees' ? '=' : last(line)!.verdict === 'disagrees' ? '≠' : '?' }}
            {{ last(line)!.reads }}</template
          >
        </span>
        <RouterLink
          class="key quiet"
          :to="traceOf(line)"
          :aria-label="$t('DefrostChecklist.inTrace', { title: line.title })"
          >{{ $t('DefrostChecklist.trace') }}</RouterLink
        >
      </li>
    </ol>
  </section>
</template>

<style scoped>
.checklist {
  display: grid;
  gap: 8px;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 84px 190px 90px auto;
  gap: 10px;
  align-items: center;
  min-height: 60px;
  padding: 4px 0 4px 10px;
  border-left: 6px solid var(--rule);
  border-bottom: 1px solid var(--rule);
}

li.agrees {
  border-left-color: var(--agrees);
}

li.disagrees {
  border-left-color: var(--alarm);
  background: var(--alarm-soft);
}

.what {
  font-weight: 650;
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 14px;
  font-weight: 450;
}

.caution {
  color: var(--ink);
  font-weight: 650;
}

.expect {
  font-size: 17px;
  text-align: right;
}

form {
  display: flex;
  gap: 6px;
}

.el-input {
  width: 96px;
}

.el-input :deep(.el-input__wrapper) {
  background: var(--glass);
}

.el-input :deep(.el-input__inner) {
  color: var(--on-glass);
}

.el-input :deep(.el-input__inner::placeholder) {
  color: var(--on-glass-soft);
}

.had {
  font-weight: 700;
}

.wrong {
  color: var(--alarm);
  font-weight: 650;
}

@media (max-width: 760px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
