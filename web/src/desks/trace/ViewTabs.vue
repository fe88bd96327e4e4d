<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import PickTab from '@/shared/ui/kit/PickTab.vue'
import { VIEWS, type View } from '@/desks/trace/traceState'

const { t } = useI18n()
defineProps<{ view: View }>()
const emit = defineEmits<{ choose: [view: View] }>()

const TITLES: Record<View, string> = {
  loops: t('ViewTabs.loom'),
  ladder: t('ViewTabs.ladder'),
  connections: t('ViewTabs.connections'),
  focus: t('ViewTabs.oneLoop'),
  legend: t('ViewTabs.legend'),
}
const TABS = VIEWS.map((id) => ({ id, title: TITLES[id] }))
</script>

<template>
  <div class="views">
    <PickTab
      :tabs="TABS"
      :tab="view"
      :label="$t('ViewTabs.view')"
      testid="view"
      @choose="(one) => emit('choose', one)"
    />
    <slot />
  </div>
</template>

<style scoped>
.views {
  display: flex;
  max-width: 100%;
}
</style>
