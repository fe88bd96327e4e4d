<script setup lang="ts">
import { computed } from 'vue'
import { api, type Condition, type Legend, type Reading, type Scene, type Source } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import type { Outcome } from '@/shared/model/outcome'
import type { TraceState } from '@/desks/trace/traceState'
import type { SceneLink, Station } from '@/shared/scene/geometry'
import ScenePane from '@/shared/scene/ScenePane.vue'
import SceneView from '@/shared/scene/SceneView.vue'
import { useOthers } from '@/shared/ui/useTogether'
import LegendView from '@/desks/trace/LegendView.vue'
import LineLegend from '@/desks/trace/LineLegend.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

const props = defineProps<{
  source: Source
  condition: Condition
  state: TraceState
  drawing: Outcome<Scene>
  missing: string | null
  readings: Reading[]
  changed: string[]
  lit: string[]
  /** What the meter should show, for when the drawing fills the screen. */
  says: string
}>()
const emit = defineEmits<{
  change: [part: Partial<TraceState>]
  tap: [station: Station]
  wire: [link: SceneLink]
  svg: []
}>()

const { others } = useOthers()
const scene = computed(() => (props.drawing.state === 'ready' ? props.drawing.value : null))
const { value: legend } = useQuestion<Condition, Legend>(
  `legend.${props.source.kind}.${props.source.id}`,
  () => (props.state.view === 'legend' ? props.condition : null),
  (condition) => api.legend(props.source, condition),
)
const shown = computed(() => (scene.value && scene.value.view === props.state.view ? scene.value : null))
const print = computed(() => ({
  path: `/${props.source.kind}s/${props.source.id}/print`,
  query: { condition: JSON.stringify(props.condition) },
}))
</script>

<template>
  <div class="views-of-one">
    <ProblemNote v-if="drawing.state === 'failed'" :problem="drawing.problem" />
    <LegendView
      v-if="state.view === 'legend' && legend"
      :legend="legend"
      :part="state.part"
      @light="(part) => emit('change', { part })"
    />
    <ScenePane
      v-else-if="shown && state.view !== 'legend'"
      :width="shown.width"
      :height="shown.height"
      :name="state.view"
    >
      <SceneView
        :scene="shown"
        :black="state.black"
        :red="state.red"
        :missing="missing"
        :readings="readings"
        :changed="changed"
        :lit="lit"
        :others="others.flatMap((one) => one.probes)"
        @tap="(station) => emit('tap', station)"
        @wire="(link) => emit('wire', link)"
      />
      <template #foot="{ full }">
        <LineLegend />
        <template v-if="state.view === 'ladder'">
          <el-button
            class="key"
            :aria-pressed="state.atRest"
            data-testid="at-rest"
            @click="emit('change', { atRest: !state.atRest })"
          >
            {{ $t('TraceViews.contactsAtRest') }}
          </el-button>
          <el-button
            class="key"
            :aria-pressed="state.panel"
            data-testid="panel"
            @click="emit('change', { panel: !state.panel })"
          >
            {{ $t('TraceViews.notFittedStruckOut') }}
          </el-button>
        </template>
        <el-button
          v-for="one in shown.folded"
          :key="one.id"
          class="key"
          :data-testid="`unfold-${one.id}`"
          @click="emit('change', { opened: [...state.opened, one.id] })"
        >
          + {{ one.title }}
        </el-button>
        <el-button v-if="state.opened.length" class="key quiet" @click="emit('change', { opened: [] })">
          {{ $t('TraceViews.fold') }}
        </el-button>
        <b v-if="full">{{ says }}</b>
        <el-button class="key" data-testid="svg" @click="emit('svg')">{{ $t('TraceViews.svg') }}</el-button>
        <RouterLink class="key" :to="print" data-testid="print">{{ $t('TraceViews.print') }}</RouterLink>
      </template>
    </ScenePane>
    <p v-else-if="drawing.state === 'loading'" class="waiting">{{ $t('TraceViews.drawing') }}</p>
  </div>
</template>

<style scoped>
.views-of-one {
  min-width: 0;
}

.waiting {
  color: var(--ink-soft);
}
</style>
