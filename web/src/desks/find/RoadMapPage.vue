<script setup lang="ts">
import { computed, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type RoadMap } from '@/shared/api/client'
import RoadBranch from '@/desks/find/RoadBranch.vue'
import { roadSvg } from '@/desks/find/roadSvg'
import { saveFile } from '@/shared/model/saveFile'
import { useLongAnswer } from '@/shared/api/useLongAnswer'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useVisit } from '@/shared/ui/useVisit'
import { day } from '@/shared/model/units'

/** The tests from here on, on one page to print, for the attic without a device. */
const props = defineProps<{ id: string }>()
const { t } = useI18n()
const { visit, load } = useVisit()
const { answer, task, problem, asking, again } = useLongAnswer<RoadMap>(() => api.roadMap(props.id))
watch(
  () => props.id,
  (id) => {
    if (visit.value?.id !== id) void load(id)
    void again()
  },
  { immediate: true },
)
const print = () => window.print()
const of = computed(() =>
  visit.value ? `${visit.value.site}, ${visit.value.unit}, ${day(visit.value.visit_on)}` : '',
)
function save() {
  if (!answer.value) return
  const title = `${t('RoadMapPage.roadMap')} ${of.value}`
  saveFile('gorvant-road-map.svg', roadSvg(title, answer.value.tree), 'image/svg+xml')
}
</script>

<template>
  <main class="road">
    <header>
      <h1>
        {{ $t('RoadMapPage.roadMap') }}
        <span v-if="visit">{{ of }}</span>
      </h1>
      <p v-if="visit?.symptom_titles.length">{{ visit.symptom_titles.join(', ') }}</p>
      <span class="ways">
        <RouterLink class="key" :to="`/visits/${id}/find`">{{ $t('RoadMapPage.backToFind') }}</RouterLink>
        <el-button v-if="answer" class="key" data-testid="road-svg" @click="save">{{
          $t('RoadMapPage.svg')
        }}</el-button>
        <el-button class="key solid" :disabled="!answer" @click="print">{{
          $t('RoadMapPage.print')
        }}</el-button>
      </span>
    </header>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="task?.kind === 'signatures'" role="status">
      {{ $t('RoadMapPage.whatEveryFaultWouldShow', { done: task.done, total: task.total || '…' }) }}
    </p>
    <el-skeleton
      v-else-if="(task || asking) && !answer"
      :rows="8"
      :aria-label="$t('RoadMapPage.drawingTheMap')"
    />
    <template v-if="answer">
      <div data-testid="road-map"><RoadBranch :stop="answer.tree" /></div>
      <p class="foot">
        {{ $t('RoadMapPage.downAndToTheRight') }}
      </p>
    </template>
  </main>
</template>

<style scoped>
.road {
  display: grid;
  gap: 10px;
  min-width: 0;
  padding: 8px 16px 40px;
  max-width: 1100px;
  font-size: 13px;
  line-height: 1.35;
}

header {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
}

/* A row of its own: whose it is comes later and moves nothing. */
h1 {
  flex: 1 0 100%;
  font-size: 20px;
}

h1 span {
  font-weight: 450;
}

.ways {
  display: flex;
  gap: 8px;
  margin-left: auto;
}

.foot {
  color: var(--ink-soft);
}

@media (max-width: 640px) {
  h1 {
    min-height: 3lh;
  }
}

@page {
  margin: 9mm;
}

@media print {
  .ways {
    display: none;
  }

  .road {
    padding: 0;
    max-width: none;
    font-size: 8pt;
    line-height: 1.15;
  }
}
</style>
