<script setup lang="ts">
import { computed, onScopeDispose, ref, watch } from 'vue'
import { onCrewEvent } from '@/shared/api/stream'
import type { Station } from '@/shared/scene/geometry'
import { practiceApi, type DrillTry } from '@/pages/practice/api'
import { benchClock, placed, tapped, type Probes, type Said } from '@/pages/practice/bench'
import { degrees } from '@/shared/model/units'
import ActRail from '@/pages/practice/ActRail.vue'
import BenchTape from '@/pages/practice/BenchTape.vue'
import BenchLog from '@/pages/practice/BenchLog.vue'
import DecideDialog from '@/pages/practice/DecideDialog.vue'
import PanelDrawing from '@/pages/practice/PanelDrawing.vue'

/** The free bench: the panel's diagram, what one may do, what was seen, and the decision. */
const props = defineProps<{ drillTry: DrillTry; busy: boolean }>()
const emit = defineEmits<{
  act: [given: Record<string, unknown>]
  decide: [said: Said[]]
  heard: []
}>()

const probes = ref<Probes>({ black: null, red: null })
const deciding = ref(false)
/** A meter that sends by itself reads where the probes are; a reading of it is an act like any other. */
const live = ref<{ device: string; value: number } | null>(null)
watch(probes, (now) => {
  live.value = null
  if (placed(now)) void practiceApi.place(props.drillTry.id, [now.black!, now.red!])
})
const off = onCrewEvent((event) => {
  const sent = event as unknown as { try_id?: string; device: string; value: number; probes?: string[] }
  if (event.kind !== 'device_reading' || sent.try_id !== props.drillTry.id) return
  if (sent.probes?.[0] !== probes.value.black || sent.probes[1] !== probes.value.red) return
  if (!live.value) emit('heard')
  live.value = sent
})
onScopeDispose(off)
const standing = computed(() => props.drillTry.standing!)
const unit = computed(() => props.drillTry.unit!)
/** Where the probes were at the act that the tape stands at; theirs again with the next tap. */
const looking = ref<Probes | null>(null)
/** What the panel shows is what the meter in hand would read. */
const shown = computed(() => looking.value ?? probes.value)
function tap(station: Station) {
  looking.value = null
  probes.value = tapped(probes.value, station.nodes)
}
watch([probes, () => props.drillTry.log.length], () => (looking.value = null))
const callTitle = computed(
  () => unit.value.calls.find((one) => one.id === standing.value.call)?.title ?? standing.value.call,
)
const offs = computed(() =>
  unit.value.places.filter((one) => standing.value.off.includes(one.id)).map((one) => one.title),
)
function decide(said: Said[]) {
  deciding.value = false
  emit('decide', said)
}
</script>

<template>
  <section class="bench" data-testid="bench">
    <header>
      <h1>
        {{ drillTry.drill.complaint[0] ?? drillTry.drill.title }}
        <small>{{
          $t('BenchDesk.outdoorsLevel', {
            rig_name: drillTry.drill.rig_name,
            degrees: degrees(drillTry.drill.outdoor_degrees_f ?? 0),
            level: drillTry.drill.level,
          })
        }}</small>
      </h1>
      <p class="clock mono" :aria-label="$t('BenchDesk.benchClock')" data-testid="bench-clock">
        {{ benchClock(standing.minutes) }}<small>{{ $t('BenchDesk.hMin') }}</small>
      </p>
      <ul class="where" :aria-label="$t('BenchDesk.whereYouStand')">
        <li
          v-for="place in unit.places"
          :key="place.id"
          :class="[place.id, { here: standing.place === place.id, off: standing.off.includes(place.id) }]"
        >
          {{ place.title }}
        </li>
      </ul>
      <el-button class="key solid" data-testid="decide" @click="deciding = true">{{
        $t('BenchDesk.itIs')
      }}</el-button>
    </header>
    <p class="state">
      {{ $t('BenchDesk.thermostat') }} <b>{{ callTitle }}</b>
      <span v-if="offs.length" class="off-words">{{ $t('BenchDesk.off', { offs: offs.join(', ') }) }}</span>
      <span v-if="offs.length && !standing.proved" class="alarm">{{ $t('BenchDesk.notProvedDead') }}</span>
      <span v-if="standing.lifted.length">{{
        $t('BenchDesk.wiresOff', { lifted: standing.lifted.length })
      }}</span>
      <span v-if="standing.jumpers.length">{{
        $t('BenchDesk.jumpersOn', { jumpers: standing.jumpers.length })
      }}</span>
    </p>
    <div class="desk">
      <div class="main">
        <PanelDrawing :drill="drillTry.drill.id" :probes="shown" @tap="tap" />
        <BenchTape
          v-if="drillTry.log.length"
          :drill-try="drillTry"
          :unit="unit"
          @at="(at) => (looking = at)"
        />
      </div>
      <div class="side">
        <ActRail
          :probes="shown"
          :unit="unit"
          :standing="standing"
          :busy="busy"
          @update:probes="(now) => ((looking = null), (probes = now))"
          @act="(given) => emit('act', given)"
        />
        <p v-if="live" class="live mono" data-testid="bench-live">
          {{ $t('BenchDesk.v', { live: live.value.toFixed(1) }) }} <small>{{ live.device }}</small>
        </p>
        <BenchLog :log="drillTry.log" />
      </div>
    </div>
    <DecideDialog v-model="deciding" :unit="unit" :busy="busy" @decide="decide" />
  </section>
</template>

<style scoped>
.bench {
  display: grid;
  gap: 8px;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 20px;
}

h1 {
  flex: 1 1 260px;
  font-size: 24px;
}

h1 small {
  display: block;
  color: var(--ink-soft);
  font-size: 15px;
  font-weight: 450;
}

.clock {
  font-size: 30px;
  font-weight: 700;
}

.clock small {
  margin-left: 6px;
  color: var(--ink-soft);
  font-size: 14px;
  font-weight: 450;
}

.where {
  display: flex;
  margin: 0;
  padding: 0;
  list-style: none;
}

.where li {
  padding: 8px 12px;
  border-bottom: 4px solid transparent;
  background: var(--band-wall);
}

.where .air_handler {
  background: var(--band-air-handler);
}

.where .outdoor {
  background: var(--band-outdoor);
}

.where .here {
  border-bottom-color: var(--ink);
  font-weight: 700;
}

.where .off {
  text-decoration: line-through;
}

.state {
  min-height: 24px;
}

.alarm {
  color: var(--alarm);
  font-weight: 700;
}

.live {
  padding: 6px 12px;
  background: var(--glass);
  color: var(--on-glass);
  font-size: 28px;
}

.live small {
  color: var(--on-glass-soft);
  font-size: 15px;
}

.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 296px;
  gap: 12px;
  align-items: start;
}

.side {
  display: grid;
  gap: 12px;
}

.main {
  display: grid;
  gap: 12px;
  min-width: 0;
}

@media (max-width: 1040px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media (max-width: 640px) {
  .side {
    order: -1;
  }
}
</style>
