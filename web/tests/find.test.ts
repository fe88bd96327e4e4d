import { describe, expect, it } from 'vitest'
import type { Find } from '../src/shared/api/client'
import { lanesOf, percent } from '../src/desks/find/useFind'

const suspect = (id: string, belief: number, answer: string | null) =>
  ({
    id,
    belief,
    predicts: answer === null ? null : { answer, title: answer, share: 0.9 },
  }) as Find['suspects'][number]
const answer = (suspects: Find['suspects'], answers: { id: string | number; title: string }[]) =>
  ({
    suspects,
    next: {
      answers,
      splits: [{ answer: 'about_0', title: 'about 0 V', count: 1 }],
    },
  }) as unknown as Find

describe('lanesOf', () => {
  it('puts every answer in a lane with those that would give it, the weightiest lane first', () => {
    const lanes = lanesOf(
      answer(
        [suspect('a', 0.2, 'in'), suspect('b', 0.6, 'out'), suspect('c', 0.1, null)],
        [
          { id: 'in', title: 'pulled in' },
          { id: 'out', title: 'dropped out' },
        ],
      ),
    )
    expect(lanes.map((lane) => [lane.id, lane.suspects.map((one) => one.id)])).toEqual([
      ['out', ['b']],
      ['in', ['a']],
      ['about_0', []],
    ])
  })

  it('keeps a number a number, so that it is kept as it is', () => {
    const lanes = lanesOf(answer([], [{ id: 90, title: '90 min' }]))
    expect(lanes.find((lane) => lane.id === '90')?.raw).toBe(90)
  })
})

describe('percent', () => {
  it('never says nothing, and never says certain', () => {
    expect([0.0001, 0.0149, 0.5, 0.9949, 0.9999].map(percent)).toEqual(['<1%', '1%', '50%', '99%', '>99%'])
  })
})
