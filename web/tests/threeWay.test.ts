import { describe, expect, it } from 'vitest'
import { threeWay } from '@/shared/model/threeWay'

describe('what two made of one record', () => {
  it.each([
    [
      'marks of two watches',
      { marks: { a: 1 } },
      { marks: { a: 1, b: 2 } },
      { marks: { a: 1, c: 3 } },
      { marks: { a: 1, b: 2, c: 3 } },
    ],
    ['the same change twice', { a: 1 }, { a: 2 }, { a: 2 }, { a: 2 }],
    ['one took away, one added', { a: 1, b: 2 }, { a: 1 }, { a: 1, b: 2, c: 3 }, { a: 1, c: 3 }],
    ['one took away what the other changed', { a: 1 }, {}, { a: 2 }, null],
    ['both put in one place', {}, { a: 1 }, { a: 2 }, null],
    ['lists that both changed', { l: [1] }, { l: [1, 2] }, { l: [1, 3] }, null],
    ['a list that one changed', { l: [1], n: 0 }, { l: [1, 2], n: 0 }, { l: [1], n: 5 }, { l: [1, 2], n: 5 }],
    ['a thing that became a list', { a: { b: 1 } }, { a: [1] }, { a: { b: 2 } }, null],
    ['nothing at all', {}, {}, {}, {}],
  ])('%s', (_name, base, theirs, mine, whole) => {
    expect(threeWay<unknown>(base, theirs, mine)).toEqual(whole)
    // Whoever comes first: the same, but for whose word it was.
    expect(threeWay<unknown>(base, mine, theirs)).toEqual(whole)
  })

  it('lets mine stand where it is told to, and there alone', () => {
    expect(threeWay<unknown>({ a: 1 }, { a: 2, b: 1 }, { a: 3 }, true)).toEqual({ a: 3, b: 1 })
  })

  it('changes nothing that it is given', () => {
    const [base, theirs, mine] = [{ m: {} }, { m: { a: 1 } }, { m: { b: 2 } }].map((one) =>
      Object.freeze(one),
    )
    expect(threeWay<unknown>(base, theirs, mine)).toEqual({ m: { a: 1, b: 2 } })
    expect([base, theirs, mine]).toEqual([{ m: {} }, { m: { a: 1 } }, { m: { b: 2 } }])
  })
})
