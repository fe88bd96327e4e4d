import { describe, expect, it } from 'vitest'
import { codesIn, outcomes, outcomeOf, saidOf, stateOf, stepOf, type Line } from '@/desks/close_out/closing'

const line = (by_record: string | null, never_left = false): Line => ({
  id: 'did.jumper.r_y',
  says: 'Jumper off: R–Y.',
  by_record,
  never_left,
  cautions: [],
  state: 'open',
  left: null,
})

describe('a call as one choice', () => {
  it('comes back as the choice that it was made of, with its note', () => {
    for (const { id } of outcomes()) {
      const said = saidOf(id, 'a note')
      expect([id, outcomeOf(said), said.note]).toEqual([id, id, 'a note'])
    }
    expect(outcomeOf(undefined)).toBeNull()
  })

  it('has nothing to compare where it was not run', () => {
    expect(saidOf('not_run', 'no time')).toEqual({ how: 'not_run', note: 'no time' })
    expect(saidOf('low_voltage-otherwise', '')).toEqual({ how: 'low_voltage', as: 'otherwise', note: '' })
  })
})

describe('a line to be put back', () => {
  it.each([
    [{}, null, 'open'],
    [{}, 'noted as undone at 09:40', 'back'],
    [{ put_back: { 'did.jumper.r_y': 'back' as const } }, null, 'back'],
    [{ put_back: { 'did.jumper.r_y': { left: 'asked to' } } }, null, 'left'],
    [{ put_back: { 'did.jumper.r_y': { left: '' } } }, 'noted as undone', 'left'],
    [{ put_back: { other: 'back' as const } }, null, 'open'],
  ])('%o, by record %s: %s', (kept, by, state) => expect(stateOf(line(by), kept)).toBe(state))
})

it.each([
  ['/cause', 'found'],
  ['/finding', 'found'],
  ['/done', 'done'],
  ['/not_repeated', 'done'],
  ['/natural_defrost', 'done'],
  ['/calls/heat', 'calls'],
  ['/put_back/wiring.crossed.move', 'put_back'],
  ['/plain', 'customer'],
  ['/answered', 'customer'],
  ['', 'found'],
])('what is missing at %s is said under %s', (field, step) => expect(stepOf(field)).toBe(step))

it.each([
  ['The fan ran on. We put in a new board.', []],
  ['W2 was dead, and so was Y1.', ['W2', 'Y1']],
  ['R–C read 24 V; DFT closed.', ['R–C', 'DFT']],
  ['Off and on again. OK.', []],
  ['O/B set to B', ['O/B']],
])('codes in “%s”: %o', (text, codes) => expect(codesIn(text)).toEqual(codes))
