<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Catalogue, Reading, Trace } from '@/shared/api/client'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import type { Read } from '@/shared/ui/useReadings'
import { readIn, unitShown } from '@/shared/model/units'
import ReadingEntry from '@/desks/trace/ReadingEntry.vue'

const { t } = useI18n()
/** What is read at a place and not between two points: a lead, a tube, a port; what was seen, looked up or done. */
const props = defineProps<{
  about: Catalogue['functions'][number]
  facts: Catalogue['facts']
  trace: Trace
  loop: string | null
  canKeep: boolean
  busy: boolean
  last: Reading | null
  correcting: Reading | null
  docked: boolean
}>()
const emit = defineEmits<{ keep: [read: Read]; giveUp: [] }>()

type Choice = string | number | boolean
const places = computed<{ id: string; title: string }[]>(() => {
  if (props.about.at === 'load') return props.trace.loads.map((one) => ({ id: one.code, title: one.title }))
  if (props.about.at === 'place') return props.about.places
  return props.facts
    .filter((one) => props.trace.readable.includes(one.key))
    .map((one) => ({ id: one.key, title: one.title }))
})
const place = ref<string | null>(props.correcting?.place ?? null)
watch(
  [places, () => props.loop],
  () => {
    if (places.value.some((one) => one.id === place.value)) return
    const near = props.about.at === 'load' ? places.value.find((one) => one.id === props.loop) : undefined
    place.value = (near ?? places.value[0])?.id ?? null
  },
  { immediate: true },
)

const named = computed(() => props.about.places.find((one) => one.id === place.value) ?? null)
const fact = computed(() =>
  props.about.at === 'fact' ? props.facts.find((one) => one.key === place.value) : null,
)
const UNTOLD = { id: 'could_not_tell', title: t('PlaceEntry.couldNotTell') }
const choices = computed<{ id: Choice; title: string }[]>(() => {
  if (named.value?.choices.length) return named.value.choices
  if (!fact.value || fact.value.kind === 'number') return []
  const given =
    fact.value.kind === 'flag'
      ? [
          { id: true, title: t('PlaceEntry.yes') },
          { id: false, title: t('PlaceEntry.no') },
        ]
      : fact.value.choices.map((one) => ({ id: one.value as Choice, title: one.says }))
  return [...given, UNTOLD]
})
const choice = ref<Choice | null>((props.correcting?.choice as Choice | null) ?? null)
const note = ref(props.correcting?.note ?? '')
const number = ref('')
const wrong = ref('')
watch(place, () => ((choice.value = null), (note.value = number.value = wrong.value = '')))
watch(
  () => props.last?.id,
  () => ((choice.value = null), (note.value = number.value = '')),
)

function keepChoice() {
  const looked =
    fact.value?.kind === 'number' ? readIn(fact.value.unit, number.value, fact.value.delta) : choice.value
  if (looked === null || looked === undefined) {
    wrong.value =
      fact.value?.kind === 'number' ? t('PlaceEntry.aNumberAsIt') : t('PlaceEntry.chooseWhatItWas')
    return
  }
  wrong.value = ''
  emit('keep', {
    place: place.value,
    choice: looked,
    ...(note.value.trim() ? { note: note.value.trim() } : {}),
  })
}
</script>

<template>
  <div class="at-place">
    <PickOne
      v-model="place"
      :options="places"
      :label="$t('PlaceEntry.ofWhat', { unitShown: unitShown(about.title) })"
      data-testid="place"
    />
    <ReadingEntry
      v-if="about.unit && canKeep"
      :ready="!!place"
      :busy="busy"
      :last="last"
      :correcting="correcting"
      :docked="docked"
      :about="about"
      @keep="(read) => emit('keep', { ...read, place })"
      @give-up="emit('giveUp')"
    />
    <form v-else-if="canKeep" class="told" @submit.prevent="keepChoice">
      <PickButtons
        v-if="choices.length"
        v-model="choice"
        :options="choices"
        :label="unitShown(about.title)"
        testid="choice"
        class="choices"
      />
      <label v-else-if="fact" class="number">
        <span>{{ fact.asks }}{{ fact.unit ? `, ${unitShown(fact.unit)}` : '' }}</span>
        <el-input v-model="number" class="mono" inputmode="decimal" maxlength="12" data-testid="looked-up" />
      </label>
      <label v-if="named?.note" class="number">
        <span>{{ $t('PlaceEntry.whichWhere') }}</span>
        <el-input
          v-model="note"
          maxlength="200"
          :placeholder="$t('PlaceEntry.oAtTheBoard')"
          data-testid="reading-note"
        />
      </label>
      <el-button class="key solid" native-type="submit" :disabled="busy" data-testid="keep">
        {{ busy ? $t('PlaceEntry.keeping') : $t('PlaceEntry.keep') }}
      </el-button>
      <p v-if="wrong" class="wrong" role="alert">≠ {{ wrong }}</p>
    </form>
    <p v-else class="quiet">{{ $t('PlaceEntry.readingsAreKeptOnA') }}</p>
  </div>
</template>

<style scoped>
.at-place,
.told {
  display: grid;
  gap: 8px;
}

.number {
  display: grid;
  gap: 4px;
  color: var(--ink-soft);
}

.choices :deep(.el-segmented__item) {
  flex: 1 0 auto;
}

.wrong {
  color: var(--alarm);
  font-weight: 650;
}
</style>
