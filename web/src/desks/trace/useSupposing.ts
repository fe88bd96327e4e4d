import type { ComputedRef } from 'vue'
import type { Condition } from '@/shared/api/client'
import type { useTape } from '@/desks/trace/useTape'
import type { Move } from '@/desks/trace/tape'
import type { Fault, Script, TraceState } from '@/desks/trace/traceState'

/** What is supposed of a circuit: by hand for the whole call, or, with the tape out, from its instant on. */
export function useSupposing(
  state: ComputedRef<TraceState>,
  condition: ComputedRef<Condition>,
  tape: ReturnType<typeof useTape>,
  change: (part: Partial<TraceState>) => void,
) {
  const same = (one: Fault, other: Fault) => JSON.stringify(one) === JSON.stringify(other)

  /** What is broken by hand begins, or ends, at the tape's instant. */
  function setFaults(faults: Fault[]) {
    if (!state.value.tape) return change({ faults })
    const now = condition.value.faults ?? []
    const without = (list: Fault[], others: Fault[]) =>
      list.filter((one) => !others.some((other) => same(one, other)))
    for (const one of without(faults, now)) tape.put({ what: 'fault', of: one, value: 'begins' })
    for (const one of without(now, faults)) tape.put({ what: 'fault', of: one, value: 'ends' })
  }

  function setSupplies(off: string[]) {
    if (!state.value.tape) return change({ off })
    for (const id of ['outdoor', 'air_handler']) {
      const on = !off.includes(id)
      if ((condition.value.supplies?.[id] ?? true) !== on)
        tape.put({ what: 'supply', of: id, value: on ? 'on' : 'off' })
    }
  }

  /** position: null lets the switch go again: it rests, or follows coil and weather. */
  function suppose(code: string, position: 'open' | 'closed' | null) {
    if (state.value.tape) return tape.put({ what: 'switch', of: code, value: position ?? 'free' })
    const supposed = { ...state.value.supposed }
    if (position) supposed[code] = position
    else delete supposed[code]
    change({ supposed })
  }

  /** The tape comes out with what is called and supposed now, or goes away again. */
  function toggleTape(outdoor: number) {
    if (state.value.tape) return tape.set(null, { at: 0 })
    const { call, supposed, faults, off } = state.value
    const moves: Move[] = [
      ...faults.map((one) => ({ at_seconds: 0, what: 'fault', of: one, value: 'begins' })),
      ...off.map((id) => ({ at_seconds: 0, what: 'supply', of: id, value: 'off' })),
      ...Object.entries(supposed).map(([of, value]) => ({ at_seconds: 0, what: 'switch', of, value })),
      ...(call === 'off' ? [] : [{ at_seconds: 5, what: 'call', value: call === 'defrost' ? 'heat' : call }]),
    ]
    tape.go(0)
    tape.set({ start: { outdoor_degrees_f: outdoor }, moves } as Script)
  }

  return { setFaults, setSupplies, suppose, toggleTape }
}
