<script setup lang="ts">
import type { Trace } from '@/shared/api/client'
import type { TraceState } from '@/desks/trace/traceState'

/** Where things stand by themselves in this call: what weather and coil hold open, the moments of a defrost, and what
 *  is supposed otherwise. */
const props = defineProps<{ trace: Trace; state: TraceState }>()
const emit = defineEmits<{
  suppose: [code: string, position: 'open' | 'closed']
  change: [part: Partial<TraceState>]
}>()

/** A moment of the defrost, as a run has it: its switches, its faults. */
type Moment = Trace['moments'][number]
const showMoment = (moment: Moment) =>
  emit('change', {
    supposed: moment.id === 'natural' ? {} : (moment.condition.switches ?? {}),
    faults: moment.condition.faults ?? [],
  })
const isMoment = (moment: Moment) =>
  JSON.stringify(moment.condition.faults ?? []) === JSON.stringify(props.state.faults) &&
  (moment.id === 'natural') === !Object.keys(props.state.supposed).length
</script>

<template>
  <ul v-if="trace.stands.length || trace.moments.length" class="stands" data-testid="stands">
    <li v-for="stand in trace.stands" :key="stand.code" :class="stand.state">
      {{ stand.says }}
      <el-button
        class="key quiet"
        :data-testid="`stand-${stand.code}`"
        @click="emit('suppose', stand.code, stand.state === 'open' ? 'closed' : 'open')"
      >
        {{
          $t('StandsBar.suppose', {
            state: stand.state === 'open' ? $t('StandsBar.closed') : $t('StandsBar.open'),
          })
        }}
      </el-button>
    </li>
    <li v-for="moment in trace.moments" :key="moment.id">
      <el-button
        class="key"
        :aria-pressed="isMoment(moment)"
        :data-testid="`moment-${moment.id}`"
        @click="showMoment(moment)"
      >
        {{ moment.says }}
      </el-button>
    </li>
  </ul>
  <p v-if="Object.keys(state.supposed).length" class="supposed">
    <span v-for="(position, code) in state.supposed" :key="code">
      {{ $t('StandsBar.supposed') }} <b>{{ code }} {{ position }}</b>
    </span>
    <el-button class="key quiet" @click="emit('change', { supposed: {} })">{{
      $t('StandsBar.asAtRest')
    }}</el-button>
  </p>
</template>

<style scoped>
.supposed {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 0 10px;
  border-left: 6px solid var(--between);
  background: var(--note-soft);
}

.stands {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 18px;
  margin: 0;
  padding: 0 10px;
  border-left: 6px solid var(--rule-strong);
  list-style: none;
}

.stands .undetermined {
  border-left: 4px dashed var(--between);
  padding-left: 8px;
}
</style>
