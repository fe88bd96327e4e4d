import { computed, toValue, type MaybeRefOrGetter, type Ref } from 'vue'
import {
  api,
  type Condition,
  type Drawn,
  type ExpectedTable,
  type Scene,
  type Source,
  type Trace,
} from '@/shared/api/client'
import type { Outcome } from '@/shared/model/outcome'
import type { TraceState } from '@/desks/trace/traceState'
import { useQuestion } from '@/shared/api/useQuestion'

type Shown = { condition: Condition } & Drawn

/** The trace of a visit or rig under a condition, the drawing of the view in hand, and the table of what the
 *  instrument should show; those of `ahead` are asked for beforehand. The loop that is unrolled may follow from the
 *  trace. */
export function useTrace(
  source: Source,
  condition: Ref<Condition>,
  state: Ref<TraceState>,
  ahead: MaybeRefOrGetter<Condition[]>,
) {
  const { askTrace, askDrawing } = inOneBreath(source)
  const of = `${source.kind}.${source.id}`
  const { value: trace, outcome } = useQuestion<Condition, Trace>(`trace.${of}`, condition, askTrace, {
    ahead,
  })

  function useDrawing(loop: Ref<string | null>) {
    const drawn = computed(() => drawnFor(state.value, loop.value))
    return useQuestion<Shown, Scene>(
      `drawing.${of}`,
      () => (drawn.value ? { condition: condition.value, ...drawn.value } : null),
      askDrawing,
      {
        ahead: () => {
          const view = drawn.value
          return view ? toValue(ahead).map((other) => ({ condition: other, ...view })) : []
        },
      },
    )
  }

  type Table = { condition: Condition; instrument: string }
  /** null while that of the condition is on its way: no reading is held against another call's. */
  const { value: expectedTable } = useQuestion<Table, ExpectedTable>(
    `expected.${of}`,
    () => (trace.value ? { condition: condition.value, instrument: state.value.instrument } : null),
    (one) => api.expected(source, one.condition, one.instrument),
    { stays: false },
  )
  return { outcome, trace, expectedTable, useDrawing }
}

function drawnFor(state: TraceState, loop: string | null): Drawn | null {
  const { view, opened, atRest, panel } = state
  if (view === 'legend') return null
  if (view === 'focus') return loop ? { view, load: loop } : null
  if (view === 'ladder') return { view, at_rest: atRest, panel }
  return view === 'loops' ? { view, opened } : { view }
}

/** Trace and drawing of one condition, asked for at the same moment, go out as one request. */
function inOneBreath(source: Source) {
  const traces = new Map<string, { condition: Condition; drawing?: Drawn; answer: Promise<Outcome<Trace>> }>()

  function askTrace(condition: Condition): Promise<Outcome<Trace>> {
    const key = JSON.stringify(condition)
    const asking = { condition } as { condition: Condition; drawing?: Drawn; answer: Promise<Outcome<Trace>> }
    asking.answer = Promise.resolve().then(() => {
      traces.delete(key)
      return api.trace(source, condition, asking.drawing)
    })
    traces.set(key, asking)
    return asking.answer
  }

  async function askDrawing({ condition, ...drawing }: Shown): Promise<Outcome<Scene>> {
    const asking = traces.get(JSON.stringify(condition))
    if (!asking || asking.drawing) return api.drawing(source, { condition, ...drawing })
    asking.drawing = drawing
    const answer = await asking.answer
    if (answer.state !== 'ready') return answer
    return answer.value.scene
      ? { state: 'ready', value: answer.value.scene }
      : api.drawing(source, { condition, ...drawing })
  }

  return { askTrace, askDrawing }
}
