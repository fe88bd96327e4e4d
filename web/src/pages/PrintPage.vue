<script setup lang="ts">
import { onBeforeUnmount, ref, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import { api, type Condition, type Source } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import type { Problem } from '@/shared/model/outcome'

const { t } = useI18n()
const props = defineProps<{ kind: 'visit' | 'rig'; id: string }>()
const route = useRoute()

const VIEWS = [
  { view: 'loops', title: t('PrintPage.loom') },
  { view: 'ladder', title: t('PrintPage.ladder') },
  { view: 'connections', title: t('PrintPage.connections') },
] as const
const source: Source = { kind: props.kind, id: props.id }
const sheets = shallowRef<{ view: string; title: string; url: string; width: number; height: number }[]>([])
const problem = shallowRef<Problem | null>(null)
const drawn = ref(false)

function condition(): Condition {
  try {
    const parsed: unknown = JSON.parse(String(route.query.condition ?? '{}'))
    return typeof parsed === 'object' && parsed ? (parsed as Condition) : {}
  } catch {
    return {}
  }
}

void (async () => {
  const answers = await Promise.all(
    VIEWS.map((one) =>
      api.svg(source, {
        condition: condition(),
        view: one.view,
        ...(one.view === 'loops' ? { opened: ['all'] } : {}),
        ...(one.view === 'ladder' ? { panel: true } : {}),
      }),
    ),
  )
  const there = answers.flatMap((answer, i) => {
    const one = VIEWS[i]
    if (answer.state === 'failed') problem.value = answer.problem
    if (answer.state !== 'ready' || !one) return []
    return [{ ...one, url: URL.createObjectURL(new Blob([answer.value], { type: 'image/svg+xml' })) }]
  })
  // Each sheet's size first, so that none is pushed down by the one above it.
  sheets.value = await Promise.all(
    there.map(async (one) => {
      const image = new Image()
      image.src = one.url
      await image.decode().catch(() => null)
      return { ...one, width: image.naturalWidth || 1, height: image.naturalHeight || 1 }
    }),
  )
  drawn.value = true
})()
onBeforeUnmount(() => sheets.value.forEach((sheet) => URL.revokeObjectURL(sheet.url)))

const print = () => window.print()
</script>

<template>
  <main class="print">
    <div class="bar">
      <h1>{{ $t('PrintPage.print') }}</h1>
      <el-button class="key solid" :disabled="!drawn" data-testid="print-now" @click="print">{{
        $t('PrintPage.print')
      }}</el-button>
      <RouterLink class="key" :to="`/${kind}s/${id}/trace`">{{ $t('PrintPage.backToTrace') }}</RouterLink>
      <p>{{ $t('PrintPage.threeSheetsLightWhateverThe') }}</p>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="!drawn && !problem" class="until-there">{{ $t('PrintPage.drawing') }}</p>
    <figure v-for="sheet in sheets" :key="sheet.view" data-testid="sheet">
      <img :src="sheet.url" :alt="sheet.title" :width="sheet.width" :height="sheet.height" />
    </figure>
    <p v-if="drawn" class="small">
      {{ $t('PrintPage.theMakersDiagramAndInstructions') }}
    </p>
  </main>
</template>

<style scoped>
.print {
  padding: 12px 16px;
}

.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  padding-bottom: 12px;
}

figure {
  margin: 0 0 16px;
  break-after: page;
}

img {
  display: block;
  max-width: 100%;
  max-height: 100vh;
  border: 1px solid var(--rule);
}

.small {
  color: var(--ink-soft);
  font-size: 14px;
}

@media print {
  .bar {
    display: none;
  }

  .print {
    padding: 0;
  }

  img {
    border: 0;
    max-height: 96vh;
  }
}
</style>
