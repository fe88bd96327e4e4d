<script setup lang="ts">
import UPlot from 'uplot'
import { computed, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useClipboard, useIntervalFn } from '@vueuse/core'
import { recordedApi, type Log } from '@/desks/defrost/recorded/api'
import { columnTitle } from '@/desks/defrost/recorded/columns'
import {
  fromPicture,
  heardNow,
  heardOf,
  quietFor,
  rowsOf,
  withGaps,
  withRows,
  type LiveRows,
} from '@/desks/defrost/recorded/live'
import { minutes } from '@/shared/model/staging'
import { degreeSign, inUnit } from '@/shared/model/units'
import { onCrewEvent } from '@/shared/api/stream'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SureButton from '@/shared/ui/kit/SureButton.vue'
import { useChart } from '@/shared/ui/kit/useChart'
import type { Problem } from '@/shared/model/outcome'

/** A record that is still coming: drawn as its rows come, quiet where none do, closed by a person. */
const props = defineProps<{ log: Log; mayChange: boolean }>()
const emit = defineEmits<{ closed: [task: string] }>()
const { t } = useI18n()

const LINES: Record<string, string> = {
  coil: '--live',
  outdoor: '--home',
  supply: '--between',
  vapor: '--dead',
}
const HEIGHT = 260
const MOST_PIXELS = 2000
const TICK_MS = 1000
const SPANS = [1800, 7200, 43_200]

const now = ref(Date.now())
useIntervalFn(() => (now.value = Date.now()), TICK_MS)
const log = shallowRef(props.log)
const heard = shallowRef(heardOf(props.log, Date.now()))
const quiet = computed(() => quietFor(heard.value, now.value))
const problem = shallowRef<Problem | null>(null)
const rows = shallowRef<LiveRows>({ times: [], values: {} })
const span = ref(SPANS[1]!)
const newestAt = computed(() => rows.value.times.at(-1) ?? log.value.to ?? null)
const from = computed(() => (newestAt.value ?? 0) - span.value)
const zone = computed(() => String((log.value.mapping as { zone?: string } | null)?.zone ?? 'UTC'))

/** All that lies in the stretch, asked for anew: at the beginning, and where an event did not carry it. */
let asked = 0
async function load() {
  const mine = ++asked
  const given = await recordedApi.log(props.log.id)
  if (mine !== asked) return
  if (given.state === 'failed') return (problem.value = given.problem)
  if (given.state !== 'ready') return
  log.value = given.value
  heard.value = heardOf(given.value, Date.now())
  const { to, interval_seconds: every, columns } = given.value
  if (to === null) return
  const start = to - span.value
  const end = to + (every ?? 1)
  const pixels = Math.round((end - start) / Math.max(every ?? 1, (end - start) / MOST_PIXELS))
  const picture = await recordedApi.picture(props.log.id, start, end, Math.max(10, pixels), columns)
  if (mine !== asked) return
  if (picture.state === 'failed') return (problem.value = picture.problem)
  if (picture.state !== 'ready') return
  problem.value = null
  rows.value = fromPicture(picture.value as Parameters<typeof fromPicture>[0])
}
watch([() => props.log.id, span], load, { immediate: true })

const off = onCrewEvent((event) => {
  const came = rowsOf(event, props.log.id)
  if (!came) return
  heard.value = heardNow(came, Date.now())
  now.value = Date.now()
  // The first row says what its columns are; what an event left out comes with the picture.
  if (!came.whole || !log.value.columns.length) void load()
  else rows.value = withRows(rows.value, came, Math.max(...came.rows.map((row) => row[0]!)) - span.value)
})
onScopeDispose(off)

const box = useTemplateRef<HTMLElement>('box')
const lines = computed(() => Object.keys(LINES).filter((id) => log.value.columns.includes(id)))
useChart(box, HEIGHT, ({ tone, axis }) => {
  if (!rows.value.times.length) return null
  const { times, values } = withGaps(rows.value, heard.value.quietAfter)
  const last = newestAt.value!
  return {
    options: {
      legend: { show: false },
      tzDate: (ts) => UPlot.tzDate(new Date(ts * 1000), zone.value),
      cursor: { drag: { x: false, y: false } },
      scales: { x: { time: true, range: () => [from.value, last] } },
      axes: [axis, { ...axis, values: (_u, all) => all.map((one) => `${one}°`) }],
      series: [
        {},
        ...lines.value.map((id) => ({
          label: columnTitle(id),
          stroke: tone(LINES[id]!),
          width: 2,
          spanGaps: false,
          points: { show: times.length < 3 },
        })),
      ],
    },
    data: [
      times,
      ...lines.value.map((id) => (values[id] ?? []).map((one) => (one === null ? null : inUnit(one)))),
    ] as UPlot.AlignedData,
  }
})

/** The newest value of each column, a gap as one. */
const latest = computed(() =>
  log.value.columns.map((id) => {
    const value = rows.value.values[id]?.at(-1) ?? null
    const line = id in LINES
    const words =
      value === null ? '–' : line ? `${inUnit(value).toFixed(1)}${degreeSign()}` : value.toFixed(1)
    return { id, title: columnTitle(id), line: LINES[id], words }
  }),
)
const spans = computed(() =>
  SPANS.map((seconds) => ({
    id: String(seconds),
    title:
      seconds < 3600
        ? t('LiveRecord.lastMinutes', { count: seconds / 60 })
        : t('LiveRecord.lastHours', { count: seconds / 3600 }),
  })),
)

const { copy, copied, isSupported } = useClipboard()
async function close() {
  const given = await recordedApi.close(props.log.id)
  if (given.state === 'failed') problem.value = given.problem
  if (given.state === 'ready') emit('closed', given.value.id)
}
</script>

<template>
  <section class="live" data-testid="live-record" :aria-label="$t('LiveRecord.aRecordThatIsComing')">
    <p
      :class="['heard', { quiet: quiet !== null, waits: heard.at === null }]"
      role="status"
      data-testid="heard"
    >
      <span aria-hidden="true">{{ heard.at === null ? '…' : quiet === null ? '▸' : '‖' }}</span>
      <template v-if="heard.at === null">{{ $t('LiveRecord.listeningNothingHasComeYet') }}</template>
      <template v-else-if="quiet !== null">{{
        $t('LiveRecord.quietFor', { name: heard.from ?? '?', time: minutes(quiet) })
      }}</template>
      <template v-else>{{ $t('LiveRecord.sendsNow', { name: heard.from ?? '?' }) }}</template>
    </p>
    <p v-if="quiet !== null" class="note">{{ $t('LiveRecord.whatIsDrawnIsOld') }}</p>
    <ProblemNote v-if="problem" :problem="problem" />
    <el-descriptions v-if="heard.at === null" :column="1" border>
      <el-descriptions-item :label="$t('LiveRecord.recordNumber')">
        <span class="mono number" data-testid="record-number">{{ log.id }}</span>
        <el-button v-if="isSupported" class="key" @click="copy(log.id)">{{
          copied ? $t('LiveRecord.copied') : $t('LiveRecord.copy')
        }}</el-button>
      </el-descriptions-item>
      <el-descriptions-item :label="$t('LiveRecord.theLoggersToken')">{{
        $t('LiveRecord.madeInSettings')
      }}</el-descriptions-item>
    </el-descriptions>
    <template v-else>
      <dl class="latest" :class="{ old: quiet !== null }" data-testid="latest">
        <div v-for="one in latest" :key="one.id" :style="one.line ? { '--line': `var(${one.line})` } : {}">
          <dt>{{ one.title }}</dt>
          <dd class="mono">{{ one.words }}</dd>
        </div>
      </dl>
      <PickButtons
        :model-value="String(span)"
        :options="spans"
        :label="$t('LiveRecord.stretch')"
        @update:model-value="(id: string) => (span = Number(id))"
      />
      <div ref="box" class="plot" data-testid="live-plot" :style="{ minHeight: `${HEIGHT}px` }"></div>
    </template>
    <SureButton
      v-if="mayChange && heard.at !== null"
      :asks="$t('LiveRecord.closeAskedFor')"
      :yes="$t('LiveRecord.closeAndJudge')"
      testid="close-live"
      @sure="close"
      >{{ $t('LiveRecord.closeAndJudge') }}</SureButton
    >
  </section>
</template>

<style scoped>
.live {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  justify-items: start;
}

.heard {
  padding: 8px 14px;
  border-left: 8px solid var(--live);
  background: var(--panel);
  font-size: 20px;
  font-weight: 700;
}

.heard > span {
  margin-right: 0.5em;
}

.heard.waits {
  border-left: 8px dotted var(--between);
}

.heard.quiet {
  border-left: 8px double var(--alarm);
  background: var(--alarm-soft);
}

.note {
  color: var(--ink-soft);
}

.number {
  overflow-wrap: anywhere;
}

.latest {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(128px, 1fr));
  width: 100%;
  margin: 0;
  border: 2px solid var(--ink);
  background: var(--panel);
}

.latest div {
  padding: 6px 12px;
  border-left: 6px solid var(--line, transparent);
}

.latest dt {
  color: var(--ink-soft);
  font-size: 14px;
}

.latest dd {
  margin: 0;
  font-size: 22px;
  font-weight: 700;
}

.latest.old dd {
  text-decoration: line-through;
  text-decoration-thickness: 1px;
}

.plot {
  width: 100%;
}
</style>
