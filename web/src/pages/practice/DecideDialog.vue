<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import type { UnitPlaces } from '@/pages/practice/api'
import { wantedBy, whole, type Said } from '@/pages/practice/bench'

const { t } = useI18n()
/** What it is: a kind and a place, so that no list holds the answer. Two things where two are wrong. */
const props = defineProps<{ unit: UnitPlaces; busy: boolean }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ decide: [said: Said[]] }>()

const catalogue = useCatalogue()
const said = ref<Partial<Said>[]>([{}])
const kinds = computed(
  () =>
    catalogue.value?.practice.decisions.flatMap((group) =>
      group.kinds.map((kind) => ({ id: kind.id, title: kind.title, group: group.title, at: kind.at })),
    ) ?? [],
)
const atOf = (one: Partial<Said>) => kinds.value.find((kind) => kind.id === one.kind)?.at ?? ''
const wanted = (one: Partial<Said>) => wantedBy(atOf(one))
const ready = computed(() => said.value.every((one) => whole(one, atOf(one))))

function kind(i: number, id: string) {
  said.value[i] = { kind: id }
}
const first = (one: Partial<Said>) => (Array.isArray(one.at) ? one.at[0] : one.at) ?? ''
const second = (one: Partial<Said>) => (Array.isArray(one.at) ? one.at[1] : '') ?? ''
function place(i: number, at: string, number: 0 | 1, two: boolean) {
  const one = said.value[i]!
  const ends = [first(one), second(one)]
  ends[number] = at
  said.value[i] = {
    ...one,
    at: two ? ends : at,
    ...(wanted(one).value === 'fact' ? { value: undefined } : {}),
  }
}
const options = (one: Partial<Said>) =>
  ({
    link: props.unit.links,
    joint: props.unit.joints,
    joints: props.unit.joints,
    points: props.unit.points,
    point: props.unit.points,
    fact: props.unit.facts.filter((fact) => fact.group === 'settings'),
    design: catalogue.value?.practice.designs[one.kind as 'hidden' | 'as_designed'] ?? [],
    none: [],
  })[wanted(one).at]
const values = (one: Partial<Said>) =>
  ({
    point: props.unit.points,
    position: [
      { id: 'heating', title: t('DecideDialog.inHeating') },
      { id: 'cooling', title: t('DecideDialog.inCooling') },
    ],
    drift: [
      { id: 'high', title: t('DecideDialog.readsHigh') },
      { id: 'low', title: t('DecideDialog.readsLow') },
    ],
    fact: (props.unit.facts.find((fact) => fact.id === first(one))?.values ?? []).map((value) => ({
      id: String(value.id),
      title: value.title,
    })),
    none: [],
  })[wanted(one).value]
const two = (one: Partial<Said>) => ['joints', 'points'].includes(wanted(one).at)
</script>

<template>
  <el-dialog v-model="open" :title="$t('DecideDialog.itIs')" width="min(560px, 96vw)">
    <p>{{ $t('DecideDialog.aGuessThatTurnsOut') }}</p>
    <fieldset v-for="(one, i) in said" :key="i">
      <PickOne
        :model-value="one.kind ?? ''"
        :options="kinds"
        :label="$t('DecideDialog.whatIsWrong')"
        :placeholder="$t('DecideDialog.whatIsWrong2')"
        :data-testid="`kind-${i}`"
        @update:model-value="(id: string) => kind(i, id)"
      />
      <PickOne
        v-if="one.kind && wanted(one).at !== 'none'"
        :model-value="first(one)"
        :options="options(one)"
        :label="$t('DecideDialog.where')"
        :placeholder="$t('DecideDialog.where2')"
        :data-testid="`at-${i}`"
        @update:model-value="(id: string) => place(i, id, 0, two(one))"
      />
      <PickOne
        v-if="two(one)"
        :model-value="second(one)"
        :options="options(one)"
        :label="$t('DecideDialog.andWhere')"
        :placeholder="$t('DecideDialog.andWhere2')"
        @update:model-value="(id: string) => place(i, id, 1, true)"
      />
      <PickOne
        v-if="one.kind && wanted(one).value !== 'none'"
        :model-value="one.value ?? ''"
        :options="values(one)"
        :label="$t('DecideDialog.how')"
        :placeholder="$t('DecideDialog.how2')"
        @update:model-value="(id: string) => (said[i] = { ...one, value: id })"
      />
    </fieldset>
    <el-button v-if="said.length === 1" class="key quiet" @click="said.push({})">{{
      $t('DecideDialog.andASecondThing')
    }}</el-button>
    <el-button v-else class="key quiet" @click="said.pop()">{{ $t('DecideDialog.oneThingAlone') }}</el-button>
    <template #footer>
      <el-button
        class="key solid"
        :disabled="busy || !ready"
        data-testid="settle"
        @click="emit('decide', said as Said[])"
        >{{ $t('DecideDialog.decide') }}</el-button
      >
    </template>
  </el-dialog>
</template>

<style scoped>
fieldset {
  display: grid;
  gap: 8px;
  margin: 12px 0;
  padding: 0;
  border: 0;
}
</style>
