import { describe, expect, it } from 'vitest'
import { completed, offered, withFact, wordAt } from '@/pages/rigs/rungs'

const words = ['wall.Y', 'wall.Y2', 'outdoor.Y', 'LPS', '(CC)', '(CC2)', 'C', 'DFR/no'].map((id) => ({
  id,
  title: '',
}))
const offers = (typed: string) => offered(words, typed).map((word) => word.id)

describe('the word being typed', () => {
  it.each([
    ['R > wal', 'wal'],
    ['R > wall.Y > (c', '(c'],
    ['  | R > DF', 'DF'],
    ['R > wall.Y [yel', null],
    ['R > wall.Y # a remark', null],
    ['R > wall.Y [red] > LP', 'LP'],
  ])('in %s is %s', (text, word) => expect(wordAt(text, text.length)?.text ?? null).toBe(word))

  it('is the one under the cursor, not the last', () => {
    expect(wordAt('R > wal > (CC) > C', 7)).toEqual({ from: 4, to: 7, text: 'wal' })
  })
})

describe('what is offered', () => {
  it('begins with what begins so, parentheses aside', () => {
    expect(offers('y')).toEqual(['wall.Y', 'wall.Y2', 'outdoor.Y'])
    expect(offers('cc')).toEqual(['(CC)', '(CC2)'])
    expect(offers('outdoor.Y')).toEqual([])
    expect(offers('')).toEqual([])
  })
})

describe('a chosen word', () => {
  it('takes the place of what was typed and goes on', () => {
    const typing = wordAt('R > wal', 7)!
    expect(completed('R > wal', typing, 'wall.Y')).toEqual({ text: 'R > wall.Y > ', cursor: 13 })
  })
  it('adds no second arrow, and none after C', () => {
    const typing = wordAt('R > wal > (CC)', 7)!
    expect(completed('R > wal > (CC)', typing, 'wall.Y').text).toBe('R > wall.Y > (CC)')
    expect(completed('R > (CC) > c', wordAt('R > (CC) > c', 12)!, 'C').text).toBe('R > (CC) > C')
  })
})

it('a fact that no rung shows has one line', () => {
  const once = withFact('R > (BOARD) > C\n', 'start_kit', 'yes')
  expect(once).toBe('R > (BOARD) > C\nwith start_kit yes\n')
  expect(withFact(once, 'start_kit', 'no')).toBe('R > (BOARD) > C\nwith start_kit no\n')
})
