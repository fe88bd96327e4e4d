import { ref } from 'vue'
import { describe, expect, it } from 'vitest'
import { useProbes } from '@/desks/trace/useProbes'
import { loopThrough, stands, stopsOf, type Reading, type Trace } from '@/shared/model/readingTable'
import { readState, type TraceState } from '@/desks/trace/traceState'

const bead = (id: string, kind: string, nodes: string[]) => ({ id, kind, nodes, label: id })
/** Two loops that share the terminal Y outdoors, as contactor and board do. */
const trace = {
  strings: [
    {
      load: 'CC',
      beads: [
        bead('outdoor.Y', 'point', ['outdoor.Y']),
        bead('b', 'cable', ['outdoor.Y', 'outdoor.Y2']),
        bead('HPS', 'device', ['outdoor.HPS.1', 'outdoor.HPS.2']),
        bead('CC', 'load', ['outdoor.CC.1', 'outdoor.CC.2']),
        bead('outdoor.C', 'point', ['outdoor.C']),
      ],
    },
    {
      load: 'RVS',
      beads: [
        bead('outdoor.O', 'point', ['outdoor.O']),
        bead('RVS', 'load', ['outdoor.RVS.1', 'outdoor.RVS.2']),
      ],
    },
  ],
} as unknown as Trace

function bench(part: Partial<TraceState> = {}) {
  const state = ref<TraceState>({ ...readState({}), hop: true, ...part })
  const probes = useProbes(
    ref(trace) as never,
    state,
    (change) => (state.value = { ...state.value, ...change }),
  )
  return { state, ...probes }
}
const probesOf = (state: TraceState) => [state.black, state.red]

describe('tapping', () => {
  it('a terminal while hopping puts red there and black on the common of its place', () => {
    const { state, tap } = bench()
    tap({ id: 'outdoor.Y', kind: 'terminal', nodes: ['outdoor.Y'] })
    expect(probesOf(state.value)).toEqual(['outdoor.C', 'outdoor.Y'])
  })

  it('a common moves the black probe and leaves the red one where it is', () => {
    const { state, tap } = bench({ red: 'outdoor.Y', black: 'outdoor.C' })
    tap({ id: 'air_handler.C', kind: 'terminal', nodes: ['air_handler.C'] })
    expect(probesOf(state.value)).toEqual(['air_handler.C', 'outdoor.Y'])
  })

  it('keeps a common that somebody chose in the same place, and takes its own place for another', () => {
    const { state, tap } = bench({ red: 'outdoor.Y', black: 'outdoor.C' })
    tap({ id: 'wall.Y', kind: 'terminal', nodes: ['wall.Y'] })
    expect(probesOf(state.value)).toEqual(['wall.C', 'wall.Y'])
  })

  it('a device while hopping goes to its far side, and again to its near side', () => {
    const { state, tap } = bench()
    const station = { id: 'HPS', kind: 'device', nodes: ['outdoor.HPS.1', 'outdoor.HPS.2'] }
    tap(station)
    expect(state.value.red).toBe('outdoor.HPS.2')
    tap(station)
    expect(state.value.red).toBe('outdoor.HPS.1')
  })

  it('a load takes both probes, hopping or not', () => {
    const { state, tap } = bench()
    tap({ id: 'CC', kind: 'coil', nodes: ['outdoor.CC.1', 'outdoor.CC.2'] })
    expect(probesOf(state.value)).toEqual(['outdoor.CC.2', 'outdoor.CC.1'])
  })
})

describe('going along a loop', () => {
  it('steps station by station, stops at the ends, and never leaves the loop', () => {
    const { state, step } = bench({ loop: 'CC', red: 'outdoor.Y', part: 'outdoor.Y' })
    const seen = Array.from({ length: 6 }, () => {
      step(1)
      return [state.value.loop, state.value.part]
    })
    expect(seen.map(([, part]) => part)).toEqual([
      'HPS',
      'CC',
      'outdoor.C',
      'outdoor.C',
      'outdoor.C',
      'outdoor.C',
    ])
    expect(new Set(seen.map(([loop]) => loop))).toEqual(new Set(['CC']))
    for (let i = 0; i < 9; i++) step(-1)
    expect(state.value.part).toBe('outdoor.Y')
  })

  it('after a reading goes on in the loop in hand, and stays where it is at its end or off it', () => {
    const { state, step } = bench({ loop: 'CC', red: 'outdoor.Y', part: null })
    step(1, true)
    expect([state.value.part, state.value.red]).toEqual(['HPS', 'outdoor.HPS.2'])
    step(1, true)
    expect(state.value.part).toBe('CC')
    const off = bench({ loop: 'CC', red: 'outdoor.O', part: null })
    off.step(1, true)
    expect([off.state.value.red, off.state.value.loop]).toEqual(['outdoor.O', 'CC'])
  })

  it('takes the loop in hand when it holds the point, else the first that does', () => {
    expect(loopThrough(trace, 'outdoor.O', 'CC')).toBe('RVS')
    expect(loopThrough(trace, 'outdoor.Y', 'CC')).toBe('CC')
    expect(loopThrough(trace, 'nowhere', 'CC')).toBe('CC')
    expect(stopsOf(trace, 'CC')).not.toContain('outdoor.Y2')
    expect(stopsOf(trace, 'none')).toEqual([])
  })
})

describe('a reading', () => {
  it.each([
    [null, null, true],
    ['2026-11-28T10:00:00Z', null, false],
    [null, 'later', false],
  ])('taken back %s, corrected by %s: counts %s', (retracted_at, superseded_by_id, counts) =>
    expect(stands({ retracted_at, superseded_by_id } as unknown as Reading)).toBe(counts),
  )
})
