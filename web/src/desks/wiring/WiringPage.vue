<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type AsFound, type ConductorEnd, type LandingsRead, type Wiring } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import LandingEntry from '@/desks/wiring/LandingEntry.vue'
import LandingList from '@/desks/wiring/LandingList.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import WiringBoard from '@/desks/wiring/WiringBoard.vue'
import WiringSide from '@/desks/wiring/WiringSide.vue'
import VisitHead from '@/shared/ui/VisitHead.vue'
import { useHistory } from '@/shared/ui/useHistory'
import { useVisit } from '@/shared/ui/useVisit'
import { isTyping } from '@/shared/model/keys'
import { endsAt, nextUnseen, noted, readEntry, withEntry, type Entry } from '@/desks/wiring/landings'
import type { Problem } from '@/shared/model/outcome'
import { saveFile } from '@/shared/model/saveFile'
import PickFile from '@/shared/ui/kit/PickFile.vue'

const { t } = useI18n()
const props = defineProps<{ id: string }>()
const { visit, problem: keeping, saved, load, held, keepDesk, newer } = useVisit()
const history = useHistory<AsFound>({})
const wiring = shallowRef<Wiring | null>(null)
const problem = shallowRef<Problem | null>(null)
const place = ref('wall')
const picked = ref<string | null>(null)
const text = ref('')
const says = ref('')
const bad = ref(false)
const marked = ref<string[]>([])
const refused = shallowRef<LandingsRead | null>(null)
const entry = ref<InstanceType<typeof LandingEntry> | null>(null)

const key = (end: ConductorEnd) => `${end.cable}.${end.conductor}@${end.place}`
const current = computed(() => wiring.value?.ends.find((end) => key(end) === picked.value) ?? null)
const places = computed(() => wiring.value?.strips ?? [])
const letter = (at: string, terminal: string) =>
  places.value.find((one) => one.place === at)?.terminals.find((one) => one.id === terminal)?.letter ??
  terminal
const leftAt = (at: string) => (wiring.value ? endsAt(wiring.value, at).filter((end) => !end.seen).length : 0)

/** What was recorded here; null: as the visit has it. */
const recorded = shallowRef<AsFound | null>(null)
const { value: solved, problem: refusal } = useQuestion(
  `wiring.${props.id}`,
  () => ({ record: recorded.value }),
  ({ record }) => api.wiring(props.id, record ?? undefined),
  { follows: false },
)
watch(refusal, (now) => (problem.value = now))
watch(solved, async (now, before) => {
  if (!now) return
  wiring.value = now
  if (before) return
  history.restart(now.as_found)
  aim(nextUnseen(now, place.value, null))
  await nextTick()
  entry.value?.focus()
})

/** Somebody else's landings take the place of what was shown, with nothing of theirs to undo. */
watch(
  () => newer.value.wiring,
  (version) => {
    if (!version) return
    const theirs = held('wiring') as AsFound
    history.restart(theirs)
    recorded.value = theirs
  },
)

const keep = ({ landings = [], jumpers = [] }: AsFound) => keepDesk('wiring', { landings, jumpers })

/** What was found goes to the picture and to the visit at once. */
async function record(next: AsFound) {
  history.set(next)
  recorded.value = next
  await keep(next)
}

if (visit.value?.id !== props.id) void load(props.id)

function aim(end: ConductorEnd | null) {
  picked.value = end ? key(end) : null
  if (end) place.value = end.place
}

function go(to: string) {
  place.value = to
  if (wiring.value) aim(nextUnseen(wiring.value, to, null))
  entry.value?.focus()
}

/** On to the next end that nobody has looked at, in this place or the next one. */
function onward(after: ConductorEnd | null) {
  if (!wiring.value) return
  const here = nextUnseen(wiring.value, place.value, after)
  const next = places.value.map((one) => one.place).find((one) => leftAt(one) > 0)
  aim(here ?? (next ? nextUnseen(wiring.value, next, null) : null))
}

async function enter() {
  if (!wiring.value) return
  const before = current.value
  const made = readEntry(wiring.value, place.value, before, text.value)
  bad.value = made.kind === 'wrong'
  says.value = made.kind === 'wrong' ? made.says : told(made)
  if (made.kind === 'wrong') return
  text.value = ''
  wiring.value = noted(wiring.value, made)
  onward(made.kind === 'landing' ? made.end : before)
  await record(withEntry(history.current.value, made))
}

function told(made: Entry): string {
  if (made.kind === 'jumper') {
    const { from, to, found } = made.jumper
    return found ? t('WiringPage.toldJumper', { from, to }) : t('WiringPage.toldNoJumper', { from, to })
  }
  if (made.kind === 'wrong') return made.says
  const { conductor, lands_on, lies } = made.landing
  const stands = lands_on ? t('WiringPage.on', { terminal: letter(made.landing.place, lands_on) }) : lies
  return `${conductor.replace(/_/g, ' ')}: ${stands}.`
}

async function land(at: string, terminal: string) {
  if (!current.value || current.value.place !== at) {
    place.value = at
    return
  }
  text.value = terminal
  await enter()
}

async function step(by: 'undo' | 'redo') {
  history[by]()
  recorded.value = history.current.value
  await keep(history.current.value)
}

async function readFile(chosen: File) {
  const answer = await api.readLandings(props.id, await chosen.text())
  problem.value = answer.state === 'failed' ? answer.problem : null
  if (answer.state !== 'ready') return
  refused.value = answer.value
  if (answer.value.as_found) await record(answer.value.as_found)
}

async function writeFile() {
  const answer = await api.landingsCsv(props.id)
  if (answer.state === 'failed') problem.value = answer.problem
  else if (answer.state === 'ready') saveFile('landings.csv', answer.value, 'text/csv')
}

const traceTo = (faults: Wiring['faults'], call: string) =>
  `/visits/${props.id}/trace?${new URLSearchParams({ call, faults: JSON.stringify(faults) })}`
const asDrawn = () => record({ settings: history.current.value.settings ?? {} })
const print = () => window.print()

function onKey(event: KeyboardEvent) {
  if (
    (event.ctrlKey || event.metaKey) &&
    event.key.toLowerCase() === 'z' &&
    (!isTyping(event) || text.value === '')
  ) {
    event.preventDefault()
    void step(event.shiftKey ? 'redo' : 'undo')
    return
  }
  if (event.altKey || event.ctrlKey || event.metaKey) return
  const strip = places.value[Number(event.key) - 1]
  if (!isTyping(event) && strip) go(strip.place)
  else if (!isTyping(event) && event.key === '/') entry.value?.focus()
  else return
  event.preventDefault()
}

function arrows(event: KeyboardEvent) {
  if (!wiring.value || text.value) return
  const ends = endsAt(wiring.value, place.value)
  const at = ends.findIndex((end) => key(end) === picked.value)
  const all = places.value.map((one) => one.place)
  const moves: Record<string, () => void> = {
    ArrowDown: () => aim(ends[(at + 1) % ends.length] ?? null),
    ArrowUp: () => aim(ends[(at - 1 + ends.length) % ends.length] ?? null),
    PageDown: () => go(all[(all.indexOf(place.value) + 1) % all.length] ?? 'wall'),
    PageUp: () => go(all[(all.indexOf(place.value) + all.length - 1) % all.length] ?? 'wall'),
  }
  const act = moves[event.key]
  if (!act) return
  event.preventDefault()
  act()
}
onMounted(() => addEventListener('keydown', onKey))
onBeforeUnmount(() => removeEventListener('keydown', onKey))
</script>

<template>
  <main class="wiring">
    <VisitHead page="wiring" class="head" :visit="visit" :kept="false">
      <el-button
        class="key"
        :disabled="!history.canUndo.value"
        :title="$t('WiringPage.ctrlZ')"
        data-testid="undo"
        @click="step('undo')"
      >
        {{ $t('WiringPage.undo') }}
      </el-button>
      <el-button
        class="key"
        :disabled="!history.canRedo.value"
        :title="$t('WiringPage.ctrlShiftZ')"
        data-testid="redo"
        @click="step('redo')"
      >
        {{ $t('WiringPage.redo') }}
      </el-button>
      <el-button
        class="key"
        :title="$t('WiringPage.allEndsAndJumpersBack')"
        data-testid="as-drawn"
        @click="asDrawn"
      >
        {{ $t('WiringPage.asDrawn') }}
      </el-button>
      <el-button class="key" data-testid="csv-out" @click="writeFile">{{
        $t('WiringPage.csvOut')
      }}</el-button>
      <PickFile
        accept=".csv,text/csv"
        :label="$t('WiringPage.csvIn')"
        data-testid="csv-in"
        @picked="readFile"
      />
      <el-button class="key" data-testid="print-landings" @click="print">{{
        $t('WiringPage.print')
      }}</el-button>
      <RouterLink
        v-if="wiring"
        class="key"
        data-testid="trace-found"
        :to="traceTo(wiring.faults, wiring.effects.find((one) => !one.works)?.trial ?? 'heat')"
        >{{ $t('WiringPage.traceAsFound') }}</RouterLink
      >
    </VisitHead>
    <ProblemNote v-if="problem ?? keeping" :problem="(problem ?? keeping)!" />
    <div v-if="refused?.refused.length" class="refused" role="alert" data-testid="refused">
      <strong>{{
        $t('WiringPage.nothingWasTakenInOf', { refused: refused.refused.length, rows: refused.rows })
      }}</strong>
      <ul>
        <li v-for="one in refused.refused.slice(0, 12)" :key="one.line">
          {{ $t('WiringPage.line', { line: one.line, problem: one.problem }) }}
        </li>
      </ul>
      <el-button class="key" @click="refused = null">{{ $t('WiringPage.awayWithThis') }}</el-button>
    </div>
    <p v-if="!wiring && !problem" class="quiet">{{ $t('WiringPage.solvingTheCircuit') }}</p>

    <LandingEntry
      v-if="wiring && visit"
      ref="entry"
      v-model="text"
      :places="places.map((one) => ({ ...one, left: leftAt(one.place) }))"
      :place="place"
      :current="current"
      :drawn="current?.drawn ? letter(current.place, current.drawn) : null"
      :says="says"
      :bad="bad"
      :kept="saved"
      @submit="enter"
      @go="go"
      @key="arrows"
    />

    <div v-if="wiring && visit" class="work">
      <div class="picture" tabindex="0" role="region" :aria-label="$t('WiringPage.drawingScrollsSideways')">
        <WiringBoard
          :wiring="wiring"
          :current="current"
          :place="place"
          :marked="marked"
          @pick="aim"
          @land="land"
        />
        <p class="jumpers">
          <template v-for="jumper in wiring.jumpers" :key="jumper.place + jumper.from + jumper.to">
            <span :class="{ odd: jumper.found !== jumper.drawn }"
              >{{ jumper.found === jumper.drawn ? '' : '≠ '
              }}{{ jumper.found ? $t('WiringPage.jumper') : $t('WiringPage.noJumper') }} {{ jumper.from }}–{{
                jumper.to
              }}, {{ places.find((one) => one.place === jumper.place)?.title }}</span
            >
          </template>
          <span class="seen mono">{{
            $t('WiringPage.ofEndsLookedAt', { done: wiring.seen.done, all: wiring.seen.all })
          }}</span>
        </p>
      </div>
      <WiringSide :wiring="wiring" :trace-to="traceTo" @mark="(ends) => (marked = ends)" />
    </div>

    <LandingList v-if="wiring && visit" :wiring="wiring" :visit="visit" />
  </main>
</template>

<style scoped>
.wiring {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 8px 16px 32px;
}

.work {
  display: grid;
  grid-template-columns: minmax(0, 812px) minmax(320px, 1fr);
  gap: 16px;
  align-items: start;
}

.picture {
  overflow-x: auto;
}

.jumpers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  color: var(--ink-soft);
}

.odd {
  color: var(--alarm);
  font-weight: 700;
}

.seen {
  margin-left: auto;
}

.refused {
  padding: 10px 14px;
  border-left: 6px solid var(--alarm);
  background: var(--alarm-soft);
}

.quiet {
  color: var(--ink-soft);
}

@media (max-width: 1040px) {
  .work {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media print {
  .head,
  .work {
    display: none;
  }
}
</style>
