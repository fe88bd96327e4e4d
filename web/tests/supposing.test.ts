import { computed, ref } from 'vue'
import { describe, expect, it } from 'vitest'
import { useSupposing } from '@/desks/trace/useSupposing'
import { readState, type Fault, type Script, type TraceState } from '@/desks/trace/traceState'

const open: Fault = { kind: 'open', at: 'cable_b.blue' } as Fault
const stuck: Fault = { kind: 'stuck_closed', at: 'DFR.fan' } as Fault

/** A page with a tape that only writes down what it is told. */
function bench(
  part: Partial<TraceState> = {},
  now: { faults?: Fault[]; supplies?: Record<string, boolean> } = {},
) {
  const state = ref<TraceState>({ ...readState({}), ...part })
  const put: unknown[] = []
  const set: unknown[] = []
  const tape = {
    put: (move: unknown) => put.push(move),
    set: (...all: unknown[]) => set.push(all),
    go: () => {},
  }
  const supposing = useSupposing(
    computed(() => state.value),
    computed(() => now as never),
    tape as never,
    (change) => (state.value = { ...state.value, ...change }),
  )
  return { state, put, set, ...supposing }
}

describe('what is supposed by hand', () => {
  it('stands for the whole call, and is taken back one by one', () => {
    const { state, suppose, setFaults, setSupplies } = bench()
    suppose('HPS', 'open')
    suppose('DFT', 'closed')
    suppose('HPS', null)
    setFaults([open])
    setSupplies(['outdoor'])
    expect([state.value.supposed, state.value.faults, state.value.off]).toEqual([
      { DFT: 'closed' },
      [open],
      ['outdoor'],
    ])
  })
})

describe('the tape', () => {
  it('takes over what is supposed: faults, supplies and switches first, then the call', () => {
    const { set, toggleTape } = bench({
      call: 'heat',
      supposed: { HPS: 'open' },
      faults: [open],
      off: ['outdoor'],
    })
    toggleTape(28)
    const [script] = set[0] as [Script]
    expect(script.start).toEqual({ outdoor_degrees_f: 28 })
    expect(script.moves?.map((move) => [move.at_seconds, move.what, move.of ?? null, move.value])).toEqual([
      [0, 'fault', open, 'begins'],
      [0, 'supply', 'outdoor', 'off'],
      [0, 'switch', 'HPS', 'open'],
      [5, 'call', null, 'heat'],
    ])
  })

  it('begins a defrost as the heating that it comes of, and nothing where nothing is called', () => {
    const calls = ['defrost', 'off'].map((call) => {
      const one = bench({ call })
      one.toggleTape(35)
      return (one.set[0] as [Script])[0].moves
    })
    expect(calls).toEqual([[{ at_seconds: 5, what: 'call', value: 'heat' }], []])
  })

  it('goes away when it is out', () => {
    const { set, toggleTape } = bench({ tape: { moves: [] } as unknown as Script })
    toggleTape(35)
    expect(set).toEqual([[null, { at: 0 }]])
  })

  const out = { tape: { moves: [] } as unknown as Script }
  it('begins what is broken and ends what is mended, at its instant, and nothing that stays', () => {
    const { put, setFaults } = bench(out, { faults: [open] })
    setFaults([stuck])
    setFaults([open])
    expect(put).toEqual([
      { what: 'fault', of: stuck, value: 'begins' },
      { what: 'fault', of: open, value: 'ends' },
    ])
  })

  it('switches only the supply that is to stand otherwise', () => {
    const { put, setSupplies } = bench(out, { supplies: { outdoor: false } })
    setSupplies(['air_handler'])
    expect(put).toEqual([
      { what: 'supply', of: 'outdoor', value: 'on' },
      { what: 'supply', of: 'air_handler', value: 'off' },
    ])
  })

  it('lets a switch go again, whatever it follows', () => {
    const { put, suppose } = bench(out)
    suppose('HPS', 'open')
    suppose('HPS', null)
    expect(put).toEqual([
      { what: 'switch', of: 'HPS', value: 'open' },
      { what: 'switch', of: 'HPS', value: 'free' },
    ])
  })
})
