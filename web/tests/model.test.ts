import { describe, expect, it } from 'vitest'
import { commonFor, expectedBetween, triangleIndex, type Trace } from '@/shared/model/readingTable'
import { readState, writeState } from '@/desks/trace/traceState'
import { parseVolts, readNumber } from '@/shared/model/units'

describe('a typed reading', () => {
  it.each([
    ['24.3', 24.3],
    ['24,3', 24.3],
    [' 0 ', 0],
    ['1000', 1000],
  ])('takes %s', (text, volts) => expect(parseVolts(text)).toBe(volts))
  it.each(['', 'about 24', '-3', '1001', '24.3.1', '1e3', '24 V', '0x18'])('refuses %s', (text) =>
    expect(parseVolts(text)).toBeNull(),
  )
})

describe('the triangle of readings', () => {
  it('counts every pair once, row by row', () => {
    const seen: number[] = []
    for (let row = 0; row < 6; row++)
      for (let column = row + 1; column < 6; column++) seen.push(triangleIndex(row, column, 6))
    expect(seen).toEqual(Array.from({ length: 15 }, (_, i) => i))
  })

  it('gives the same for either order of the probes, and null for a point that is not drawn', () => {
    const readings = {
      nodes: ['a', 'b', 'c'],
      volts_ac: [1, 2, 3],
      low_volts_ac: [0, 1, 2],
      high_volts_ac: [2, 3, 4],
      klass: [0, 0, 1],
      says_index: [0, 0, 1],
      classes: ['about_0', 'between'],
      says: ['nothing', 'some'],
    }
    const trace = { readings } as unknown as Trace
    expect(expectedBetween(trace, 'c', 'b')).toEqual({
      volts_ac: 3,
      low_volts_ac: 2,
      high_volts_ac: 4,
      klass: 'between',
      says: 'some',
    })
    expect(expectedBetween(trace, 'b', 'c')).toEqual(expectedBetween(trace, 'c', 'b'))
    expect(expectedBetween(trace, 'a', 'd')).toBeNull()
  })
})

describe('the state in the address', () => {
  it('comes back as it was written', () => {
    const state = {
      call: 'heat',
      black: 'outdoor.C',
      red: 'outdoor.Y',
      instrument: 'low_impedance',
      hop: false,
      loop: 'CC',
      supposed: { DTS: 'open', DFT: 'closed' },
      faults: [{ kind: 'short', at: ['outdoor.R', 'outdoor.C'] }],
      off: ['outdoor'],
      ohms: true,
      view: 'ladder' as const,
      part: 'CC',
      opened: ['stage_2'],
      atRest: true,
      panel: true,
      tape: { moves: [{ at_seconds: 5, what: 'call', value: 'heat' }] },
      span: 3600,
      at: 12.5,
    }
    expect(readState(JSON.parse(JSON.stringify(writeState(state))))).toEqual(state)
  })

  it('drops what makes no sense', () => {
    expect(readState({ supposed: 'DTS:ajar,:open,LPS' }).supposed).toEqual({})
    expect(readState({ faults: '[{"kind":1},{"kind":"open","at":"CC"}', off: ',' })).toMatchObject({
      faults: [],
      off: [],
    })
    expect(readState({}).call).toBe('off')
  })
})

it('rests the black probe on the common of the place in hand', () => {
  expect([commonFor('outdoor.LPS.2'), commonFor('wall.Y'), commonFor('panel.L1')]).toEqual([
    'outdoor.C',
    'wall.C',
    'air_handler.C',
  ])
})

describe('a typed number', () => {
  it.each([
    ['14,5', 14.5],
    [' -3 ', -3],
    ['', null],
    ['  ', null],
    ['soon', undefined],
    ['1e999', undefined],
  ])('reads “%s” as %s', (text, value) => expect(readNumber(text)).toBe(value))
})
