<script setup lang="ts">
import PickTab from '@/shared/ui/kit/PickTab.vue'
import { VIEWS, type View } from '@/desks/trace/traceState'

defineProps<{ view: View }>()
const emit = defineEmits<{ choose: [view: View] }>()

const TITLES: Record<View, string> = {
  loops: 'Loom',
  ladder: 'Ladder',
  connections: 'Connections',
  focus: 'One loop',
  legend: 'Legend',
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
