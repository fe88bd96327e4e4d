<script setup lang="ts">
import { computed } from 'vue'

/** How far something that takes its time has come; its name is said to those who do not see it. */
const props = defineProps<{
  label: string
  done: number
  total: number | null | undefined
  /** "45 of 440" in the place of a percentage. */
  counted?: boolean
}>()
const percent = computed(() =>
  props.total ? Math.min(Math.round((props.done / props.total) * 100), 100) : 0,
)
const says = () => (props.counted ? `${props.done} of ${props.total ?? '…'}` : `${percent.value}%`)
</script>

<template>
  <el-progress :percentage="percent" :format="says" :aria-label="label" :aria-valuetext="says()" />
</template>
