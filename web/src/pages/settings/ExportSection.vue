<script setup lang="ts">
import { computed, onMounted, shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type CrewExport } from '@/shared/api/client'
import { useLongAnswer } from '@/shared/api/useLongAnswer'
import { moment } from '@/shared/model/when'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TaskProgress from '@/shared/ui/kit/TaskProgress.vue'

/** All that the crew keeps as archives of its units: made by a task, kept for a day. */
const { t } = useI18n()
const id = shallowRef<string | null>(null)
const last = shallowRef<CrewExport | null>(null)
const { answer, task, problem, asking, again, cancel } = useLongAnswer<CrewExport>(() =>
  api.makeExport(id.value ?? ''),
)
const made = computed(() => answer.value ?? last.value)
const whole = computed(() => made.value?.state === 'done' && made.value)

onMounted(async () => {
  const given = await api.lastExport()
  if (given.state !== 'ready' || !given.value.export) return
  last.value = given.value.export
  if (!['waiting', 'running'].includes(last.value.state)) return
  id.value = last.value.id
  void again()
})
function make() {
  id.value = crypto.randomUUID()
  answer.value = last.value = null
  void again()
}
const MB = 1024 * 1024
const size = (bytes: number) =>
  bytes < MB / 10
    ? t('ExportSection.kb', { n: Math.ceil(bytes / 1024) })
    : t('ExportSection.mb', { n: (bytes / MB).toFixed(1) })
const all = computed(() => made.value?.files.reduce((sum, one) => sum + one.bytes, 0) ?? 0)
function holds(one: CrewExport['files'][number]) {
  if (one.records) return t('ExportSection.record')
  if (!one.visits) return t('ExportSection.shelf')
  return t('ExportSection.visits', { count: one.visits }, one.visits)
}
</script>

<template>
  <section>
    <h2>{{ $t('ExportSection.title') }}</h2>
    <p class="settings-note">{{ $t('ExportSection.what') }}</p>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="task" class="at-it">
      <TaskProgress :label="$t('ExportSection.unitsPacked')" :done="task.done" :total="task.total" counted />
      <el-button class="key" data-testid="export-stop" @click="cancel">{{
        $t('ExportSection.stop')
      }}</el-button>
    </div>
    <template v-else>
      <p v-if="made && !whole" class="settings-note" role="status">
        {{ $t('ExportSection.cameToNothing', { why: made.error ?? '' }) }}
      </p>
      <div v-if="whole" class="made" data-testid="export-made">
        <p>
          <b>{{ $t('ExportSection.files', { count: whole.files.length }, whole.files.length) }}</b>
          · <span class="mono">{{ size(all) }}</span> · {{ moment(whole.created_at) }} ·
          {{ $t('ExportSection.goes', { at: moment(whole.goes_at) }) }}
        </p>
        <p class="keys">
          <a class="key solid" :href="`/api/exports/${whole.id}/whole`" download data-testid="export-whole">{{
            $t('ExportSection.allInOne')
          }}</a>
          <el-button class="key" :loading="asking" @click="make">{{ $t('ExportSection.anew') }}</el-button>
        </p>
        <el-collapse>
          <el-collapse-item :title="$t('ExportSection.byUnit')">
            <ul>
              <li v-for="one in whole.files" :key="one.number">
                <a :href="`/api/exports/${whole.id}/files/${one.number}`" download>{{ one.name }}</a>
                {{ holds(one) }}, <span class="mono">{{ size(one.bytes) }}</span>
              </li>
            </ul>
          </el-collapse-item>
        </el-collapse>
      </div>
      <el-button v-else class="key" :loading="asking" data-testid="export" @click="make">{{
        $t('ExportSection.make')
      }}</el-button>
    </template>
  </section>
</template>

<style scoped>
section,
.made,
.at-it {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}

section > .el-button,
.at-it > .el-button {
  justify-self: start;
}

.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

ul {
  margin: 0;
  padding-left: 20px;
}

li {
  padding: 6px 0;
  overflow-wrap: anywhere;
}
</style>
