<script setup lang="ts">
import { refDebounced, useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, type Said } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { isTyping } from '@/shared/model/keys'
import SideSheet from '@/shared/ui/kit/SideSheet.vue'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useCatalogue } from '@/shared/ui/useCatalogue'
import { useReadings, type Read } from '@/shared/ui/useReadings'

const { t } = useI18n()
/** One line takes a reading as a person says it, or as the device's own dictation writes it, from any page of a visit.
 *  What was understood is shown before it is kept; call and place are remembered for the next line. */
const props = defineProps<{ visit: string }>()
const SETTLE_MS = 180
const catalogue = useCatalogue()
const open = ref(false)
const text = ref('')
const settled = refDebounced(text, SETTLE_MS)
const field = ref<{ focus: () => void } | null>(null)
const call = ref<string | null>(null)
const at = ref<Place | null>(null)
const meter = ref<Meter | null>(null)
const chosen = ref<{ call?: string; at?: Place; meter?: Meter }>({})
type Place = 'wall' | 'air_handler' | 'outdoor'
type Meter = 'high_impedance' | 'low_impedance'
const PLACES: { id: Place; title: string }[] = [
  { id: 'wall', title: t('SayIt.wall') },
  { id: 'air_handler', title: t('SayIt.airHandler') },
  { id: 'outdoor', title: t('SayIt.outdoors') },
]

const { value, problem: unread } = useQuestion(
  `said.${props.visit}`,
  () =>
    open.value && settled.value.trim()
      ? {
          text: settled.value.trim(),
          ...(call.value ? { call: call.value } : {}),
          ...(at.value ? { at: at.value } : {}),
          ...(meter.value ? { meter: meter.value } : {}),
          ...(Object.keys(chosen.value).length ? { chosen: chosen.value } : {}),
        }
      : null,
  (body) => api.say(props.visit, body),
)
const ways = computed(() => (text.value.trim() ? (value.value?.ways ?? []) : []))
const fresh = computed(() => settled.value === text.value && value.value !== null)
const { problem: refused, busy, keep } = useReadings(props.visit)
const kept = ref<{ says: string; verdict: string } | null>(null)
const placeOf = (way: Said) => way.at as Place | null
const meterOf = (way: Said) => way.meter as Meter | null
const meters = computed(() => (catalogue.value?.instruments ?? []) as { id: Meter; title: string }[])
const calls = computed(() => (catalogue.value?.calls ?? []).map((one) => ({ id: one.id, title: one.title })))

async function keepWay(way: Said) {
  if (!way.call || !fresh.value) return
  const rest = value.value?.rest ?? ''
  const reading = await keep({ ...(way.given as Read), condition: { call: way.call } } as Parameters<
    typeof keep
  >[0])
  if (!reading) return
  kept.value = { says: `${reading.where}: ${reading.reads}. ${reading.says}`, verdict: reading.verdict }
  call.value = way.call
  at.value = placeOf(way) ?? at.value
  meter.value = meterOf(way) ?? meter.value
  text.value = rest
  chosen.value = {}
  field.value?.focus()
}
/** Enter keeps what can be meant in one way alone. */
const enter = () => ways.value.length === 1 && keepWay(ways.value[0]!)

watch(open, async (now) => {
  if (!now) return
  kept.value = null
  await nextTick()
  field.value?.focus()
})
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (event.key !== 's' || isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  open.value = true
})
</script>

<template>
  <el-button class="say-it" data-testid="say-it" :title="$t('SayIt.keyS')" @click="open = true">{{
    $t('SayIt.sayIt')
  }}</el-button>
  <SideSheet v-model="open" :title="$t('SayIt.sayIt')" below class="say-drawer">
    <form class="say" @submit.prevent="enter">
      <el-input
        ref="field"
        v-model="text"
        maxlength="200"
        autocomplete="off"
        :placeholder="$t('SayIt.suchAsOutdoorSeeTo')"
        :aria-label="$t('SayIt.whatYouReadOrSaw')"
        data-testid="said"
      />
      <ProblemNote v-if="unread ?? refused" :problem="(unread ?? refused)!" />
      <div v-for="(way, i) in ways" :key="i" class="way" data-testid="said-way">
        <p>
          <b class="mono">{{ way.reads }}</b> {{ way.title }}, {{ way.where }}
        </p>
        <p v-if="way.note" class="quiet">{{ way.note }}</p>
        <p v-if="way.left.length" class="left" data-testid="said-left">
          {{ $t('SayIt.notUnderstoodAndLeft', { left: way.left.join(' ') }) }}
        </p>
        <div class="chips">
          <PickOne
            :model-value="way.call"
            :options="calls"
            :label="$t('SayIt.call')"
            :placeholder="$t('SayIt.inWhichCall')"
            data-testid="said-call"
            @update:model-value="(one: string | null) => one && (chosen = { ...chosen, call: one })"
          />
          <PickButtons
            v-if="way.given.from_node"
            :model-value="placeOf(way)"
            :options="PLACES"
            :label="$t('SayIt.place')"
            testid="said-at"
            @update:model-value="(one: Place) => (chosen = { ...chosen, at: one })"
          />
          <PickButtons
            v-if="way.meter"
            :model-value="meterOf(way)"
            :options="meters"
            :label="$t('SayIt.meter')"
            testid="said-meter"
            @update:model-value="(one: Meter) => (chosen = { ...chosen, meter: one })"
          />
          <el-button
            class="key solid"
            :disabled="!way.call || busy || !fresh"
            data-testid="said-keep"
            @click="keepWay(way)"
          >
            {{
              way.call
                ? ways.length === 1
                  ? $t('SayIt.keep')
                  : $t('SayIt.keepThis')
                : $t('SayIt.sayTheCall')
            }}
          </el-button>
        </div>
      </div>
      <p v-if="ways.length && value?.rest" class="quiet" data-testid="said-rest">
        {{ $t('SayIt.thenAsNext', { rest: value.rest }) }}
      </p>
      <p v-if="ways.length > 1" class="quiet">{{ $t('SayIt.thatCanBeMeantIn') }}</p>
      <p v-if="fresh && settled.trim() && !ways.length" class="left" role="status" data-testid="said-nothing">
        {{ $t('SayIt.notUnderstoodYetTwoPoints') }}
      </p>
      <p v-if="kept" :class="['kept', kept.verdict]" role="status" data-testid="said-kept">{{ kept.says }}</p>
    </form>
  </SideSheet>
</template>

<style scoped>
.say-it {
  min-height: var(--target);
  margin-left: 8px;
  border: 2px solid var(--bar-accent);
  background: transparent;
  color: var(--on-bar);
  font-weight: 700;
}

.say {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  max-width: 900px;
  margin-inline: auto;
}

.say :deep(.el-input__inner) {
  font-size: 20px;
}

.way {
  display: grid;
  gap: 8px;
  padding: 8px 12px;
  border-left: 6px solid var(--live);
  background: var(--panel);
}

.way p b {
  font-size: 22px;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.chips .el-select {
  width: 190px;
}

.left {
  color: var(--between);
  font-weight: 600;
}

.kept {
  padding: 6px 12px;
  border-left: 6px solid var(--between);
}

.kept.agrees {
  border-color: var(--agrees);
}

.kept.disagrees {
  border-color: var(--alarm);
}

.quiet {
  color: var(--ink-soft);
}
</style>
