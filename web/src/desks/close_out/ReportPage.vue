<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { RouterLink } from 'vue-router'
import { ElMessage } from 'element-plus/es/components/message/index'
import { api, type Report } from '@/shared/api/client'
import { useLongAnswer } from '@/shared/api/useLongAnswer'
import { useQuestion } from '@/shared/api/useQuestion'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ReportBlocks from '@/desks/close_out/ReportBlocks.vue'
import { isTyping } from '@/shared/model/keys'
import { moment } from '@/shared/model/when'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'
import { useSession } from '@/shared/ui/useSession'
import { useVisit } from '@/shared/ui/useVisit'
import { saveFile } from '@/shared/model/saveFile'

const { t } = useI18n()
const { mayChange } = useSession()
const { visit, problem: keeping, load, keepDesk } = useVisit()
const props = defineProps<{ id: string; number: number | null }>()
const { value: report, problem: unread } = useQuestion<{ id: string; number: number | null }, Report>(
  'report',
  () => ({ id: props.id, number: props.number }),
  ({ id, number }) => api.report(id, number),
  { follows: false },
)
const out = ref<string[]>([])
watch(report, (now, before) => {
  if (now && !before) out.value = now.leave_out
})
const shown = computed(() =>
  (report.value?.sections ?? []).filter((one) => one.always || !out.value.includes(one.id)),
)
/** What goes into the paper of an open visit is kept with it; of a closing, which stays as it is, only chosen here. */
const mayKeep = computed(() => !props.number && mayChange.value && !!report.value?.draft)
watch(
  () => mayKeep.value && props.id,
  (id) => id && visit.value?.id !== id && load(id),
  { immediate: true },
)
const chosen = ref(false) // and not kept yet: the visit itself may still be on its way
watch(
  () => chosen.value && mayKeep.value && visit.value?.id === props.id,
  (can) => {
    if (!can) return
    chosen.value = false
    void keepDesk('close_out', { leave_out: out.value })
  },
)
function toggle(id: string, on: unknown) {
  out.value = on ? out.value.filter((one) => one !== id) : [...out.value, id]
  chosen.value = mayKeep.value
}

const MARK = '/api/crew/mark'
const {
  answer: paper,
  task,
  problem,
  asking: making,
  again: draw,
  cancel,
} = useLongAnswer<Blob>(() => api.reportPdf(props.id, props.number, out.value))
const pdf = () => report.value && draw()
watch(paper, (bytes) => {
  if (!bytes || !report.value) return
  const which = props.number ? `, ${props.number}` : ', draft'
  saveFile(`${report.value.title}, ${report.value.visit_on}${which}.pdf`, bytes, 'application/pdf')
})
async function copy() {
  if (!report.value) return
  try {
    await navigator.clipboard.writeText(report.value.handover)
    ElMessage({ message: t('ReportPage.handOverTextCopied'), type: 'success', duration: 2500 })
  } catch {
    ElMessage({
      message: t('ReportPage.thisBrowserLetsNothing'),
      type: 'warning',
      duration: 5000,
    })
  }
}
const print = () => window.print()
function key(event: KeyboardEvent) {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'h') void copy()
  if (event.key === 'p') void pdf()
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
</script>

<template>
  <main class="report">
    <div class="bar" :aria-label="$t('ReportPage.report')">
      <RouterLink class="key" :to="`/visits/${id}/close-out`">{{
        $t('ReportPage.backToCloseOut')
      }}</RouterLink>
      <el-button class="key solid" :loading="making" :disabled="!report" data-testid="pdf" @click="pdf"
        >{{ $t('ReportPage.pdf') }} <kbd>{{ $t('ReportPage.p') }}</kbd></el-button
      >
      <el-button class="key" :disabled="!report" @click="print">{{ $t('ReportPage.print') }}</el-button>
      <el-button class="key" :disabled="!report" data-testid="copy" @click="copy"
        >{{ $t('ReportPage.copyHandOverText') }} <kbd>{{ $t('ReportPage.h') }}</kbd></el-button
      >
      <details v-if="report" class="choose">
        <summary class="key">{{ $t('ReportPage.whatGoesIn') }}</summary>
        <div class="sections">
          <el-checkbox
            v-for="one in report.sections"
            :key="one.id"
            :model-value="one.always || !out.includes(one.id)"
            :disabled="one.always"
            :data-testid="`section-${one.id}`"
            @change="(on: unknown) => toggle(one.id, on)"
            >{{ one.title }}</el-checkbox
          >
        </div>
      </details>
    </div>
    <ProblemNote v-if="problem ?? unread ?? keeping" :problem="(problem ?? unread ?? keeping)!" />
    <div v-if="task" class="drawing">
      <TaskProgress :label="$t('ReportPage.paperDrawn')" :done="task.done" :total="null" />
      <el-button class="key" @click="cancel">{{ $t('ReportPage.stop') }}</el-button>
    </div>
    <p v-if="!report && !unread" class="quiet">{{ $t('ReportPage.puttingItTogether') }}</p>
    <template v-if="report">
      <article class="sheet first" data-testid="customer-page">
        <img v-if="report.marked" class="mark" :src="MARK" alt="" />
        <p class="quiet">{{ report.crew }}</p>
        <h1>{{ report.title }}</h1>
        <p class="quiet">{{ report.visit_on }} · {{ report.names.join(', ') }}</p>
        <p :class="report.draft ? 'draft' : 'quiet'">
          {{
            report.closing
              ? $t('ReportPage.closingBy', {
                  number: report.closing.number,
                  by: report.closing.by,
                  moment: moment(report.closing.at),
                })
              : $t('ReportPage.draftThisVisitIsNot')
          }}
        </p>
        <section v-for="part in report.customer" :key="part.title">
          <h2 v-if="part.title">{{ part.title }}</h2>
          <ReportBlocks :blocks="part.blocks" />
        </section>
      </article>
      <article class="sheet" data-testid="technician-pages">
        <section v-for="one in shown" :key="one.id" :data-testid="`report-${one.id}`">
          <h2>{{ one.title }}</h2>
          <ReportBlocks :blocks="one.blocks" />
        </section>
        <section v-if="report.addenda.length">
          <h2>{{ $t('ReportPage.arrivedAfterTheClosing') }}</h2>
          <p v-for="one in report.addenda" :key="one.id">
            {{ one.reads }}, {{ one.where }}, {{ one.call_title }}, {{ one.by }},
            {{ moment(one.received_at) }}
          </p>
        </section>
      </article>
      <pre class="handover" :aria-label="$t('ReportPage.handOverText')">{{ report.handover }}</pre>
    </template>
  </main>
</template>

<style scoped>
.report {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  padding: 8px 16px 40px;
}

.drawing {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  align-items: center;
}

.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 8px;
}

.choose {
  position: relative;
}

summary {
  list-style: none;
}

.sections {
  display: grid;
  padding: 8px 12px;
  border: 2px solid var(--ink);
  background: var(--panel);
}

.sheet {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
  max-width: 900px;
  padding: 26px 34px;
  border: 1px solid var(--rule-strong);
  background: var(--panel);
}

.mark {
  justify-self: end;
  max-width: 200px;
  max-height: 76px;
}

h1 {
  font-size: 28px;
}

h2 {
  width: fit-content;
  margin: 14px 0 6px;
  border-bottom: 3px solid var(--ink);
  font-size: 19px;
}

.draft {
  color: var(--alarm);
  font-weight: 700;
}

.quiet {
  color: var(--ink-soft);
}

.handover {
  max-width: 900px;
  margin: 0;
  padding: 12px 16px;
  border-left: 6px solid var(--rule-strong);
  background: var(--panel);
  font-family: var(--font-sans);
  white-space: pre-wrap;
}

@media (max-width: 620px) {
  .sheet {
    padding: 14px 12px;
  }
}

@media print {
  h2 {
    break-after: avoid;
  }

  .bar,
  .handover {
    display: none;
  }

  .report {
    padding: 0;
  }

  .sheet {
    max-width: none;
    padding: 0;
    border: 0;
    background: none;
  }

  .first {
    break-after: page;
  }
}
</style>
