import { shallowRef, watch, type Ref } from 'vue'
import { api, type Condition, type Source, type Trace } from '@/api/client'
import { expectedBetween, type Expected } from '@/model/readingTable'
import type { TraceState } from '@/model/traceState'

/** What the meter should show between the probes: at once from the trace, or asked for when the drawing lacks a point. */
export function useExpected(
  source: Source,
  trace: Ref<Trace | null>,
  condition: Ref<Condition>,
  state: Ref<TraceState>,
) {
  const expected = shallowRef<Expected | null>(null)
  watch(
    [trace, () => state.value.black, () => state.value.red],
    async (_now, _before, onCleanup) => {
      let current = true
      onCleanup(() => (current = false))
      const { black, red, instrument } = state.value
      expected.value = null
      if (!trace.value || !black || !red || black === red) return
      expected.value = expectedBetween(trace.value, black, red)
      if (expected.value) return
      const answer = await api.measure(source, condition.value, instrument, black, red)
      if (current && answer.state === 'ready') expected.value = answer.value
    },
    { immediate: true },
  )
  return expected
}
