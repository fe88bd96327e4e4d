import { describe, expect, it } from 'vitest'
import { handsOf } from '@/shared/model/hands'

const olm = { client: 'a', by: 'Olm' }
const tilda = { client: 'b', by: 'Tilda' }

describe('hands clear', () => {
  it.each([
    ['nobody has answered', [olm, tilda], [], 'waiting', 'Olm, Tilda'],
    ['one of two has', [olm, tilda], [['a', 'clear']], 'waiting', 'Tilda'],
    [
      'both have',
      [olm, tilda],
      [
        ['a', 'clear'],
        ['b', 'clear'],
      ],
      'clear',
      'Olm, Tilda',
    ],
    [
      'one says not yet',
      [olm, tilda],
      [
        ['a', 'clear'],
        ['b', 'not_yet'],
      ],
      'not_yet',
      'Tilda',
    ],
    ['who answered has gone, and another stands there', [tilda], [['a', 'clear']], 'waiting', 'Tilda'],
    ['nobody stands there any more', [], [['a', 'clear']], 'waiting', ''],
    ['the only one has', [olm], [['a', 'clear']], 'clear', 'Olm'],
  ] as const)('%s', (_name, atUnit, replies, state, who) => {
    expect(handsOf(atUnit, new Map(replies))).toEqual({ state, who })
  })
})
