import { shallowRef, watch, type Ref } from 'vue'
import {
  api,
  type Condition,
  type ExpectedVolts,
  type Ohms,
  type ExpectedTable,
  type Source,
} from '@/shared/api/client'
import { expectedBetween, type Expected } from '@/shared/model/readingTable'
import type { TraceState } from '@/desks/trace/traceState'

/** What the meter should show between the probes: volts at once from the table of the call, or asked for where it is
 *  not there yet or lacks a point; ohms, with the power off, in circuit and of the part by itself. */
export function useExpected(
  source: Source,
  table: Ref<ExpectedTable | null>,
  condition: Ref<Condition>,
  state: Ref<TraceState>,
) {
  const expected = shallowRef<Expected | null>(null)
  const ohms = shallowRef<{ circuit: Ohms; alone: Ohms } | null>(null)

  watch(
    [condition, table, () => state.value.black, () => state.value.red, () => state.value.function],
    async (_now, _before, onCleanup) => {
      let current = true
      onCleanup(() => (current = false))
      const { black, red, instrument } = state.value
      expected.value = null
      ohms.value = null
      if (!black || !red || black === red) return
      const ask = (of: { isolated: boolean } | null) =>
        api.measure(source, condition.value, instrument, black, red, of)
      if (state.value.function === 'ohms') {
        const [circuit, alone] = await Promise.all([ask({ isolated: false }), ask({ isolated: true })])
        if (current && circuit.state === 'ready' && alone.state === 'ready') {
          ohms.value = { circuit: circuit.value as Ohms, alone: alone.value as Ohms }
        }
        return
      }
      if (table.value) expected.value = expectedBetween(table.value, black, red)
      if (expected.value) return
      const answer = await ask(null)
      if (current && answer.state === 'ready') expected.value = answer.value as ExpectedVolts
    },
    { immediate: true },
  )
  return { expected, ohms }
}
