import { shallowRef, watch, type Ref } from 'vue'
import {
  api,
  type Condition,
  type ExpectedVolts,
  type Ohms,
  type Source,
  type Trace,
} from '@/shared/api/client'
import { expectedBetween, type Expected } from '@/shared/model/readingTable'
import type { TraceState } from '@/desks/trace/traceState'

/** What the meter should show between the probes: volts at once from the trace, or asked for when the drawing lacks a
 *  point; ohms, with the power off, in circuit and of the part by itself. */
export function useExpected(
  source: Source,
  trace: Ref<Trace | null>,
  condition: Ref<Condition>,
  state: Ref<TraceState>,
) {
  const expected = shallowRef<Expected | null>(null)
  const ohms = shallowRef<{ circuit: Ohms; alone: Ohms } | null>(null)

  watch(
    [trace, () => state.value.black, () => state.value.red, () => state.value.ohms],
    async (_now, _before, onCleanup) => {
      let current = true
      onCleanup(() => (current = false))
      const { black, red, instrument } = state.value
      expected.value = null
      ohms.value = null
      if (!trace.value || !black || !red || black === red) return
      const ask = (of: { isolated: boolean } | null) =>
        api.measure(source, condition.value, instrument, black, red, of)
      if (state.value.ohms) {
        const [circuit, alone] = await Promise.all([ask({ isolated: false }), ask({ isolated: true })])
        if (current && circuit.state === 'ready' && alone.state === 'ready') {
          ohms.value = { circuit: circuit.value as Ohms, alone: alone.value as Ohms }
        }
        return
      }
      expected.value = expectedBetween(trace.value, black, red)
      if (expected.value) return
      const answer = await ask(null)
      if (current && answer.state === 'ready') expected.value = answer.value as ExpectedVolts
    },
    { immediate: true },
  )
  return { expected, ohms }
}
