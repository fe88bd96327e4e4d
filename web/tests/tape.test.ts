import { describe, expect, it } from 'vitest'
import {
  clock,
  conditionAt,
  differences,
  levelAt,
  parseClock,
  valueAt,
  withMove,
  withoutMove,
  type Timeline,
} from '@/desks/trace/tape'

describe('times', () => {
  it.each([
    [0, '0:00'],
    [161, '2:41'],
    [3723, '1:02:03'],
    [12.5, '0:12.5'],
    [59.97, '1:00'],
  ])('%d s is %s', (seconds, text) => expect(clock(seconds)).toBe(text))
  it.each([
    ['2:41', 161],
    ['90', 90],
    ['1:00:00', 3600],
    ['0:12.5', 12.5],
    ['soon', null],
    ['', null],
    ['1:2:3:4', null],
    ['-5', null],
  ])('%s is %s s', (text, seconds) => expect(parseClock(text)).toBe(seconds))
})

const timeline = {
  instants: [
    [0, 0],
    [10, 1],
    [20, 0],
  ],
  conditions: [{ call: 'off' }, { call: 'heat' }],
  signals: [
    {
      id: 'CC',
      title: 'contactor',
      group: 'outdoor',
      steps: [
        [0, false],
        [10, true],
        [20, false],
      ],
    },
    { id: 'valve', title: 'valve', group: 'plant', steps: [[0, 'heating']] },
  ],
} as unknown as Timeline

describe('what holds at a time', () => {
  it('is the last step up to it', () => {
    expect([0, 9.9, 10, 19, 20, 99].map((at) => valueAt(timeline.signals[0], at))).toEqual([
      false,
      false,
      true,
      true,
      false,
      false,
    ])
    expect([0, 10, 15, 25].map((at) => conditionAt(timeline, at)?.call)).toEqual([
      'off',
      'heat',
      'heat',
      'off',
    ])
  })
  it('lies on the line between two points', () => {
    const curve = {
      id: 'coil',
      title: 'coil',
      unit: '°F',
      points: [
        [0, 30],
        [60, 20],
        [60, 50],
      ],
    }
    expect([0, 30, 60, 90].map((at) => levelAt(curve, at))).toEqual([30, 25, 20, 50])
    expect(levelAt(undefined, 3)).toBeNull()
  })
  it('differs between two instants only where it does', () => {
    expect(differences(timeline, 5, 15).map((one) => [one.id, one.before, one.after])).toEqual([
      ['CC', false, true],
    ])
  })
})

describe('a script', () => {
  const script = { moves: [{ at_seconds: 5, what: 'call', value: 'heat' }] }
  it('keeps its moves in order, one of a kind at a time', () => {
    const more = withMove(withMove(script, { at_seconds: 2, what: 'call', value: 'off' }), {
      at_seconds: 5,
      what: 'call',
      value: 'cool',
    })
    expect(more.moves?.map((move) => [move.at_seconds, move.value])).toEqual([
      [2, 'off'],
      [5, 'cool'],
    ])
    expect(withoutMove(more, 0).moves?.length).toBe(1)
    expect(script.moves.length).toBe(1)
  })
})
