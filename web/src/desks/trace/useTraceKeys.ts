import type { Ref } from 'vue'
import { useActionKeys } from '@/desks/trace/useActionKeys'
import type { useTape } from '@/desks/trace/useTape'
import { TAPE_ACTIONS } from '@/shared/model/keys'
import type { Trace } from '@/shared/model/readingTable'
import { VIEWS, type TraceState } from '@/desks/trace/traceState'

/** The neighbor of what is chosen, round and round. */
function beside<T>(all: readonly T[], now: T | undefined, by: number): T | undefined {
  const at = now === undefined ? -1 : all.indexOf(now)
  return all[(at + by + all.length) % all.length]
}

/** The keyboard of a trace at the bench. */
export function useTraceKeys(
  state: Ref<TraceState>,
  change: (part: Partial<TraceState>) => void,
  bench: {
    trace: Ref<Trace | null>
    loop: Ref<string | null>
    tape: ReturnType<typeof useTape>
    calls: Ref<{ id: string; key: string }[]>
    instruments: () => string[]
    choose: (call: string) => void
    step: (by: 1 | -1) => void
    measure: () => void
    keepLive: () => void
    tapeOut: () => void
    keys: () => void
  },
) {
  const view = (by: number) => change({ view: beside(VIEWS, state.value.view, by) ?? 'loops' })

  function nextLoop() {
    const loads = (bench.trace.value?.strings ?? []).map((one) => one.load)
    change({ loop: beside(loads, bench.loop.value ?? undefined, 1) ?? null, red: null, part: null })
  }

  useActionKeys(
    {
      measure: bench.measure,
      live: bench.keepLive,
      next: () => bench.step(1),
      previous: () => bench.step(-1),
      swap: () => change({ black: state.value.red, red: state.value.black }),
      hop: () => change({ hop: !state.value.hop }),
      instrument: () => change({ instrument: beside(bench.instruments(), state.value.instrument, 1) }),
      ohms: () => change({ function: state.value.function === 'ohms' ? 'volts_ac' : 'ohms' }),
      view: () => view(1),
      back: () => view(-1),
      tape: bench.tapeOut,
      play: () => bench.tape.play(),
      event: () => bench.tape.event(1),
      before: () => bench.tape.event(-1),
      pin: () => bench.tape.pin(),
      loop: nextLoop,
      say: () => undefined, // SayIt listens by itself, on every page of a visit
      keys: bench.keys,
    },
    () => bench.calls.value,
    bench.choose,
    (action) => TAPE_ACTIONS.includes(action) && !state.value.tape,
  )
}
