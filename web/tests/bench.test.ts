import { describe, expect, it } from 'vitest'
import { benchClock, dueIn, placed, rightOf, tapped, wantedBy, whole } from '@/pages/practice/bench'
import { toggled } from '@/shared/ui/kit/factField'

describe('the probes of a bench', () => {
  const none = { black: null, red: null }

  it('go black first, then red, and black stays where common is', () => {
    const first = tapped(none, ['outdoor.C'])
    const second = tapped(first, ['outdoor.Y'])
    expect([first, second]).toEqual([
      { black: 'outdoor.C', red: null },
      { black: 'outdoor.C', red: 'outdoor.Y' },
    ])
    expect(tapped(second, ['outdoor.R'])).toEqual({ black: 'outdoor.C', red: 'outdoor.R' })
    expect(tapped(second, ['outdoor.C'])).toEqual(second)
  })

  it('go both across what has two ends, and nowhere for what has none', () => {
    expect(tapped(none, ['outdoor.HPS.1', 'outdoor.HPS.2'])).toEqual({
      black: 'outdoor.HPS.1',
      red: 'outdoor.HPS.2',
    })
    expect(tapped(none, [])).toEqual(none)
  })

  it('read only between two points', () => {
    expect(placed(none)).toBe(false)
    expect(placed({ black: 'a', red: null })).toBe(false)
    expect(placed({ black: 'a', red: 'a' })).toBe(false)
    expect(placed({ black: 'a', red: 'b' })).toBe(true)
  })
})

describe('a decision', () => {
  it.each([
    [{}, 'link', false],
    [{ kind: 'open' }, 'link', false],
    [{ kind: 'open', at: 'CC' }, 'link', true],
    [{ kind: 'short', at: ['a'] }, 'points', false],
    [{ kind: 'short', at: ['a', 'a'] }, 'points', false],
    [{ kind: 'short', at: ['a', 'b'] }, 'points', true],
    [{ kind: 'landed', at: 'w' }, 'joint_to', false],
    [{ kind: 'landed', at: 'w', value: 'wall.R' }, 'joint_to', true],
    [{ kind: 'valve_stuck' }, 'position', false],
    [{ kind: 'valve_stuck', value: 'cooling' }, 'position', true],
    [{ kind: 'set_up', at: 'system_setup', value: 'conventional' }, 'setting', true],
  ])('%j of a %s is whole: %s', (said, at, is) => {
    expect(whole(said, at)).toBe(is)
  })

  it('asks one place where nobody has said how many', () => {
    expect(wantedBy('something new')).toEqual({ at: 'link', value: 'none' })
  })
})

describe('words of the bench', () => {
  it('has hours and minutes', () => {
    expect([0, 9.9, 60, 754.2].map(benchClock)).toEqual(['0:00', '0:09', '1:00', '12:34'])
  })

  it('takes a station out again at the second tap', () => {
    expect(toggled(toggled(['a'], 'b'), 'a')).toEqual(['b'])
  })

  it('counts what was right', () => {
    expect(rightOf([{ right: true }, { right: false }])).toBe('1 of 2')
  })

  it('is due at once, or in whole days', () => {
    const now = Date.parse('2026-11-29T12:00:00Z')
    expect(dueIn(null, now)).toBe(0)
    expect(dueIn('2026-11-28T12:00:00Z', now)).toBe(0)
    expect(dueIn('2026-11-30T11:00:00Z', now)).toBe(1)
    expect(dueIn('2026-12-05T12:00:00Z', now)).toBe(6)
  })
})
