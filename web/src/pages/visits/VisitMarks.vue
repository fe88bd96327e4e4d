<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Visit } from '@/shared/api/client'
import { MEANS, PAGES, SIGNS } from '@/shared/model/visitPages'

const { t } = useI18n()
const props = defineProps<{ marks: Visit['marks']; readings: Visit['readings'] }>()

const all = computed(() =>
  PAGES.map(({ id, title }) => ({ page: title, mark: props.marks[id], sign: SIGNS[props.marks[id]] })),
)
/** The pages that somebody has looked at, each with how it stands. */
const told = computed(() =>
  all.value.filter((one) => one.mark !== 'untouched').map((one) => `${one.page}: ${MEANS[one.mark]}`),
)
const spoken = computed(() => {
  const { agree, disagree } = props.readings
  const read =
    agree + disagree ? t('VisitMarks.readings', { agree, disagree }) : t('VisitMarks.noReadingsYet')
  return [read, ...told.value].join('; ')
})
</script>

<template>
  <el-tooltip placement="top-start" :show-after="300" :disabled="!told.length">
    <template #content>
      <span v-for="one in told" :key="one" class="told">{{ one }}</span>
    </template>
    <span class="marks" role="img" :aria-label="spoken">
      <span v-for="one in all" :key="one.page" :class="['mark', one.mark]">{{ one.sign }}</span>
    </span>
  </el-tooltip>
</template>

<style scoped>
.told {
  display: block;
}

.marks {
  display: inline-flex;
  gap: 3px;
}

.mark {
  width: 24px;
  height: 30px;
  border-bottom: 3px solid var(--rule);
  color: var(--ink-soft);
  font-size: 20px;
  font-weight: 800;
  line-height: 28px;
  text-align: center;
}

.mark.agrees {
  border-color: var(--agrees);
  color: var(--agrees);
}

.mark.so_far {
  border-bottom-style: dashed;
  border-color: var(--between);
  color: var(--between);
}

.mark.disagrees {
  border-color: var(--alarm);
  background: var(--alarm-soft);
  color: var(--alarm);
}
</style>
