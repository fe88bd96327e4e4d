import { computed, toValue, type MaybeRefOrGetter, type Ref } from 'vue'
import { api, type Condition, type Scene, type Source, type Trace } from '@/shared/api/client'
import type { Drawn, TraceState } from '@/desks/trace/traceState'
import { useKept } from '@/desks/trace/useKept'

/** The trace of a visit or rig under a condition; those of `ahead` are asked for beforehand. */
export function useTrace(
  source: Source,
  condition: Ref<Condition>,
  instrument: MaybeRefOrGetter<string>,
  ahead: MaybeRefOrGetter<Condition[]>,
) {
  type Question = { condition: Condition; instrument: string }
  const question = (one: Condition): Question => ({ condition: one, instrument: toValue(instrument) })
  return useKept<Question, Trace>(
    () => question(condition.value),
    (one) => api.trace(source, one.condition, one.instrument),
    () => toValue(ahead).map(question),
  )
}

/** The drawing of the view in hand under the same condition. */
export function useDrawing(
  source: Source,
  condition: Ref<Condition>,
  state: Ref<TraceState>,
  loop: Ref<string | null>,
  ahead: MaybeRefOrGetter<Condition[]>,
) {
  type Question = { condition: Condition } & Drawn
  const drawn = computed<Drawn | null>(() => {
    const { view, opened, atRest, panel } = state.value
    if (view === 'legend') return null
    if (view === 'focus') return loop.value ? { view, load: loop.value } : null
    if (view === 'ladder') return { view, at_rest: atRest, panel }
    return view === 'loops' ? { view, opened } : { view }
  })
  return useKept<Question, Scene>(
    () => (drawn.value ? { condition: condition.value, ...drawn.value } : null),
    (one) => api.drawing(source, one),
    () =>
      drawn.value ? toValue(ahead).map((other) => ({ condition: other, ...(drawn.value as Drawn) })) : [],
  )
}
