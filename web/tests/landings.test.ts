import { describe, expect, it } from 'vitest'
import type { ConductorEnd, Wiring } from '@/shared/api/client'
import { nextUnseen, readEntry, withEntry } from '@/desks/wiring/landings'
import { minutes, scriptOf, secondsOf, type StagingForm } from '@/shared/model/staging'

const end = (cable: string, conductor: string, place: string, drawn: string | null): ConductorEnd => ({
  cable,
  conductor,
  place,
  lands_on: drawn,
  lies: drawn ? 'landed' : 'capped',
  seen: false,
  color: conductor.replace('_', ' '),
  sheath: conductor,
  drawn,
  known: true,
})
const strip = (place: string, cables: string[], terminals: string[]) => ({
  place,
  title: place,
  cables: cables.map((id) => ({ id, title: id })),
  terminals: terminals.map((id) => ({ id, letter: id === 'OB' ? 'O/B' : id.replace('_', ' '), tap: false })),
})
const wiring = {
  strips: [
    strip('wall', ['cable_a'], ['R', 'C', 'Y', 'OB', 'W2', 'E']),
    strip('air_handler', ['cable_a', 'cable_b'], ['R', 'C', 'Y', 'W']),
    strip('outdoor', ['cable_b'], ['R', 'C', 'Y', 'W2_out', 'CC']),
  ],
  ends: [
    end('cable_a', 'red', 'wall', 'R'),
    end('cable_a', 'light_blue', 'wall', null),
    end('cable_a', 'white', 'air_handler', 'W'),
    end('cable_b', 'white', 'air_handler', 'W'),
    end('cable_b', 'white', 'outdoor', 'W2_out'),
  ],
} as unknown as Wiring

describe('one line of quick entry', () => {
  const red = wiring.ends[0] as ConductorEnd
  const landing = (place: string, text: string, current: ConductorEnd | null = null) => {
    const entry = readEntry(wiring, place, current, text)
    return entry.kind === 'landing' ? { ...entry.landing } : entry
  }

  it.each([
    ['', { conductor: 'red', lands_on: 'R', lies: 'landed' }],
    ['y', { conductor: 'red', lands_on: 'Y' }],
    ['o/b', { conductor: 'red', lands_on: 'OB' }],
    ['cap', { conductor: 'red', lands_on: null, lies: 'capped' }],
    ['BARE', { conductor: 'red', lands_on: null, lies: 'bare' }],
    ['light blue W2', { conductor: 'light_blue', lands_on: 'W2' }],
    ['a light blue bare', { conductor: 'light_blue', lies: 'bare' }],
    ['violet E', { cable: 'cable_a', conductor: 'violet', color: 'violet', lands_on: 'E' }],
  ])('reads %j at the wall, red in hand', (text, expected) => {
    expect(landing('wall', text, red)).toMatchObject(expected)
  })

  it.each([
    ['as brown', { conductor: 'red', lands_on: 'R', color: 'brown' }],
    ['as brown Y', { conductor: 'red', lands_on: 'Y', color: 'brown' }],
    ['light blue as dark blue', { conductor: 'light_blue', color: 'dark blue', lies: 'capped' }],
    ['green as brown', { kind: 'wrong' }],
    ['red as', { kind: 'wrong' }],
  ])('takes down a color past a splice: %j', (text, expected) => {
    expect(landing('wall', text, red)).toMatchObject(expected)
  })

  it('asks which cable where two bring the color, and takes its letter', () => {
    expect(landing('air_handler', 'white W')).toMatchObject({
      kind: 'wrong',
      says: expect.stringContaining('cable A and B'),
    })
    expect(landing('air_handler', 'b white Y')).toMatchObject({ cable: 'cable_b', lands_on: 'Y' })
    expect(landing('outdoor', 'white w2 out')).toMatchObject({ lands_on: 'W2_out' })
    expect(landing('air_handler', 'tan Y')).toMatchObject({ says: expect.stringContaining('in which cable') })
  })

  it.each([
    ['Q7', 'end with a terminal'],
    ['red Q7', 'end with a terminal'],
    ['jumper W2', 'two terminals'],
    ['z red R', 'No cable Z'],
    ['<b> R', 'no color'],
  ])('says what is wrong with %j', (text, words) => {
    expect(landing('wall', text)).toMatchObject({ kind: 'wrong', says: expect.stringContaining(words) })
  })

  it('records each end and each jumper once, the last word', () => {
    const lines = ['red Y', 'red R', 'jumper W2 E', 'no jumper E W2']
    const record = lines.reduce((sofar, text) => withEntry(sofar, readEntry(wiring, 'wall', null, text)), {})
    expect(record).toEqual({
      landings: [expect.objectContaining({ conductor: 'red', lands_on: 'R' })],
      jumpers: [{ place: 'wall', from: 'E', to: 'W2', found: false }],
    })
  })

  it('goes on to the next end that nobody looked at, round and round', () => {
    expect(nextUnseen(wiring, 'wall', null)?.conductor).toBe('red')
    expect(nextUnseen(wiring, 'wall', red)?.conductor).toBe('light_blue')
    const seen = { ...wiring, ends: wiring.ends.map((one) => ({ ...one, seen: true })) }
    expect(nextUnseen(seen, 'wall', seen.ends[0] ?? null)).toBeNull()
  })
})

describe('a staging form', () => {
  const form: StagingForm = {
    mode: 'heat',
    set: 70,
    error: 4,
    outdoor: 30,
    outdoorEnd: '',
    room: 'held',
    course: '',
    pushAt: '',
    pushTo: 74,
    hours: 1,
  }

  it('reads and writes times', () => {
    expect(['12', '12:30', '1:05:00', 'soon', ''].map(secondsOf)).toEqual([720, 750, 3900, null, null])
    expect([0, 59, 750, 3900].map(minutes)).toEqual(['0:00', '0:59', '12:30', '1:05:00'])
  })

  it('makes a script, or says what is wrong', () => {
    expect(scriptOf({ ...form, pushAt: '5:00' })).toMatchObject({
      script: {
        start: { room_degrees_f: 66 },
        moves: [{ what: 'mode' }, { at_seconds: 300, what: 'set_point', value: 74 }],
      },
    })
    expect(scriptOf({ ...form, mode: 'cool' })).toMatchObject({ script: { start: { room_degrees_f: 74 } } })
    expect(scriptOf({ ...form, room: 'course', course: '0 66\n10 68' })).toMatchObject({
      script: {
        moves: [
          { what: 'mode' },
          { what: 'room', value: 66 },
          { at_seconds: 0, value: 68, over_seconds: 600 },
        ],
      },
    })
    for (const bad of ['x 66', '10 66\n5 67', '10', '10 - 30', '10 66 cold', '10 66 30 70 1'])
      expect(scriptOf({ ...form, room: 'course', course: bad })).toHaveProperty('wrong')
    expect(scriptOf({ ...form, pushAt: 'soon' })).toHaveProperty('wrong')
    expect(scriptOf({ ...form, outdoorEnd: 'cold' })).toHaveProperty('wrong')
  })

  it('lets the weather and the set point go their own way', () => {
    expect(scriptOf({ ...form, outdoorEnd: '12,5' })).toMatchObject({
      script: { moves: [{ what: 'mode' }, { what: 'outdoor', value: 12.5, over_seconds: 3600 }] },
    })
    const made = scriptOf({
      ...form,
      room: 'course',
      course: '0 66 41\n10 67 – 72\n20 68 20',
      outdoorEnd: '5',
    })
    const moves = 'script' in made ? (made.script.moves ?? []) : []
    expect(made).toMatchObject({ script: { start: { room_degrees_f: 66, outdoor_degrees_f: 41 } } })
    const of = (what: string) => moves.filter((move) => move.what === what)
    expect(of('outdoor')).toEqual([
      { at_seconds: 0, what: 'outdoor', value: 41, over_seconds: 0 },
      { at_seconds: 0, what: 'outdoor', value: 20, over_seconds: 1200 },
    ])
    expect(of('room').map((move) => [move.at_seconds, move.value])).toEqual([
      [0, 66],
      [0, 67],
      [600, 68],
    ])
    expect(of('set_point')).toEqual([{ at_seconds: 600, what: 'set_point', value: 72 }])
    expect(moves.map((move) => move.at_seconds)).toEqual([0, 0, 0, 0, 0, 600, 600])
  })
})
