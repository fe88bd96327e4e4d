<script setup lang="ts">
import { computed, ref } from 'vue'
import { useQuestion } from '@/shared/api/useQuestion'
import PickTab from '@/shared/ui/kit/PickTab.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ScenePane from '@/shared/scene/ScenePane.vue'
import SceneView from '@/shared/scene/SceneView.vue'
import type { Station } from '@/shared/scene/geometry'
import { practiceApi } from '@/pages/practice/api'
import { panelViews, type PanelView, type Probes } from '@/pages/practice/bench'

/** The diagram of a drill's unit, everything off: it shows where things are, never what is live. */
const props = defineProps<{ drill: string; probes?: Probes; lit?: string[]; only?: PanelView }>()
defineEmits<{ tap: [station: Station] }>()

const view = ref<PanelView>(props.only ?? 'loops')
const asked = computed(() => ({ drill: props.drill, view: view.value }))
const { outcome } = useQuestion('panel', asked, (one) => practiceApi.drawing(one.drill, one.view))
</script>

<template>
  <section class="panel" :aria-label="$t('PanelDrawing.thePanelsDiagram')">
    <PickTab
      v-if="!only"
      :tabs="panelViews()"
      :tab="view"
      :label="$t('PanelDrawing.view')"
      testid="panel"
      @choose="(one) => (view = one)"
    />
    <ProblemNote v-if="outcome.state === 'failed'" :problem="outcome.problem" />
    <ScenePane
      v-if="outcome.state === 'ready'"
      :width="outcome.value.width"
      :height="outcome.value.height"
      :name="view"
    >
      <SceneView
        :scene="outcome.value"
        :black="probes?.black"
        :red="probes?.red"
        :lit="lit"
        @tap="(station) => $emit('tap', station)"
      />
    </ScenePane>
  </section>
</template>

<style scoped>
.panel {
  min-width: 0;
}
</style>
