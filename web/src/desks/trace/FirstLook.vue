<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'

const { t } = useI18n()
/** Six marks on a live visit, for who sees the page for the first time. */
const props = defineProps<{ narrow: boolean }>()
const open = defineModel<boolean>({ required: true })

const MARKS = [
  {
    at: '[aria-label=Call]',
    title: t('FirstLook.theCall'),
    says: t('FirstLook.whatTheThermostatAsks'),
  },
  {
    at: '[aria-label="What runs"]',
    title: t('FirstLook.whatRuns'),
    says: t('FirstLook.tapOneThatIs'),
  },
  {
    at: '.drawing',
    title: t('FirstLook.theLoom'),
    says: t('FirstLook.every24VWay'),
  },
  {
    at: '[aria-label=Meter]',
    title: t('FirstLook.theMeter'),
    says: t('FirstLook.whatShouldBeRead'),
  },
  {
    at: '[data-testid=function-seen]',
    title: t('FirstLook.moreThanVolts'),
    says: t('FirstLook.ohmsAmpsTemperaturesAnd'),
  },
  {
    at: '[aria-label="Pages of the visit"]',
    title: t('FirstLook.theOtherDesks'),
    says: t('FirstLook.wiringThermostatDefrostEach'),
  },
]
/** On a phone the meter is folded. */
const marks = computed(() => MARKS.filter((one) => !props.narrow || !one.at.includes('function-')))
</script>

<template>
  <el-tour v-model="open" :mask="{ color: 'rgb(0 0 0 / 35%)' }" class="first-look" data-testid="first-look">
    <el-tour-step
      v-for="mark in marks"
      :key="mark.at"
      :target="mark.at"
      :title="mark.title"
      :description="mark.says"
      :next-button-props="{ children: 'Next', size: 'large' }"
      :prev-button-props="{ children: 'Back', size: 'large' }"
    />
  </el-tour>
</template>
