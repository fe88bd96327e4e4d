import { afterEach, describe, expect, it } from 'vitest'
import { commonFor, expectedBetween, triangleIndex, type ExpectedTable } from '@/shared/model/readingTable'
import { readState, writeState } from '@/desks/trace/traceState'
import { chooseUnit, parseVolts, readAmount, readNumber, typedAmount } from '@/shared/model/units'

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

describe('a value as a person has it', () => {
  afterEach(() => chooseUnit('temperature', '°F'))
  it.each([
    ['24.3', { value: 24.3 }],
    ['24,3', { value: 24.3 }],
    ['25 to 30', { value: 25, value_high: 30 }],
    ['25-30', { value: 25, value_high: 30 }],
    ['25 – 30', { value: 25, value_high: 30 }],
    ['-5 to 3', { value: -5, value_high: 3 }],
    ['-5--3', { value: -5, value_high: -3 }],
    ['about 24', { value: 24, about: true }],
    ['~ 20 to 22', { value: 20, value_high: 22, about: true }],
    ['12k', { value: 12000 }],
    ['OL', { open: true }],
  ])('%s is taken', (text, amount) => expect(readAmount(text, 'Ω', true)).toEqual(amount))

  it.each(['', 'lots', '30 to 25', '25 to', 'about', 'to 30', '1.2.3', '24 V'])('%s is refused', (text) =>
    expect(readAmount(text, 'V')).toBeNull(),
  )

  it('is open on an ohmmeter alone', () => expect(readAmount('OL', 'A')).toBeNull())

  it('comes back to be corrected as it was typed, temperatures in the chosen unit', () => {
    chooseUnit('temperature', '°C')
    const typed = readAmount('about 10 to 20', '°F')
    expect(typed).toEqual({ value: 50, value_high: 68, about: true })
    const kept = { value: 50, value_high: 68, about: true, open: false }
    expect(typedAmount(kept, '°F')).toBe('about 10 to 20')
    expect(typedAmount({ ...kept, value_high: null, about: false }, 'psi')).toBe('50')
    expect(typedAmount({ value: null, value_high: null, about: false, open: true }, 'Ω')).toBe('OL')
  })
})

describe('the triangle of readings', () => {
  it('counts every pair once, row by row', () => {
    const seen: number[] = []
    for (let row = 0; row < 6; row++)
      for (let column = row + 1; column < 6; column++) seen.push(triangleIndex(row, column, 6))
    expect(seen).toEqual(Array.from({ length: 15 }, (_, i) => i))
  })

  it('gives the same for either order of the probes, and null for a point that is not drawn', () => {
    const table: ExpectedTable = {
      nodes: ['a', 'b', 'c'],
      volts_ac: [1, 2, 3],
      low_volts_ac: [0, 1, 2],
      high_volts_ac: [2, 3, 4],
      klass: [0, 0, 1],
      says_index: [0, 0, 1],
      classes: ['about_0', 'between'],
      says: ['nothing', 'some'],
    }
    expect(expectedBetween(table, 'c', 'b')).toEqual({
      volts_ac: 3,
      low_volts_ac: 2,
      high_volts_ac: 4,
      klass: 'between',
      says: 'some',
    })
    expect(expectedBetween(table, 'b', 'c')).toEqual(expectedBetween(table, 'c', 'b'))
    expect(expectedBetween(table, 'a', 'd')).toBeNull()
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
      function: 'ohms',
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
