<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'

/** How far something that takes its time has come; its name is said to those who do not see it. */
const props = defineProps<{
  label: string
  done: number
  total: number | null | undefined
  /** "45 of 440" in the place of a percentage. */
  counted?: boolean
  /** A line along an edge, without figures. */
  thin?: boolean
}>()
const { t } = useI18n()
const percent = computed(() =>
  props.total ? Math.min(Math.round((props.done / props.total) * 100), 100) : 0,
)
/** Nothing is known of it yet, while it waits for its turn. */
const waits = computed(() => !props.total)
function says() {
  if (waits.value) return t('TaskProgress.waits')
  return props.counted
    ? t('TaskProgress.of', { done: props.done, total: props.total ?? 0 })
    : `${percent.value}%`
}
</script>

<template>
  <el-progress
    :percentage="waits ? 100 : percent"
    :indeterminate="waits"
    :format="says"
    :show-text="!thin"
    :stroke-width="thin ? 3 : 6"
    :aria-label="label"
    :aria-valuetext="says()"
  />
</template>
