import { describe, expect, it } from 'vitest'
import {
  clashes,
  fateOf,
  heldBy,
  nextToSend,
  onVersion,
  shifted,
  together,
  withItem,
  type Item,
} from '@/shared/kept/item'
import { inTwo, leansOn, mayKeep, nameOf, type Asked } from '@/shared/kept/question'
import { olderSays } from '@/shared/kept/room'
import { writeOf } from '@/shared/kept/writes'

const VISIT = '0b0e1a52-7a53-4c1b-9d4e-3f7c5a1d2e60'
const item = (given: Partial<Item>): Item => ({
  visit: VISIT,
  kind: 'reading',
  chain: 'reading.1',
  method: 'POST',
  path: `/api/visits/${VISIT}/readings`,
  body: { id: '1' },
  says: '',
  at: 0,
  tries: 0,
  state: 'waits',
  ...given,
})
const desk = (version: number, content: object, given: Partial<Item> = {}) =>
  item({ kind: 'desk', chain: 'desk.wiring', method: 'PUT', body: { version, content }, ...given })
const asked = (method: string, under: string, body: unknown = null): Asked => ({
  method,
  path: `/api/visits/${VISIT}${under}`,
  query: '',
  units: '',
  body,
  visit: VISIT,
})

describe('one more thing that waits', () => {
  it('goes into a change of the same desk that was never sent, on the version that one began from', () => {
    const first = desk(3, { landings: [1] }, { before: { landings: [] } })
    const { items } = withItem([first], desk(4, { landings: [1, 2] }, { before: { landings: [1] } }))
    expect(items).toHaveLength(1)
    expect(items[0]).toMatchObject({
      body: { version: 3, content: { landings: [1, 2] } },
      before: { landings: [] },
    })
  })

  it('stands behind one that was sent already: its answer may have been lost', () => {
    const { items } = withItem([desk(3, { a: 1 }, { tries: 1 })], desk(4, { a: 2 }))
    expect(items.map((one) => one.body?.version)).toEqual([3, 4])
  })

  it('keeps every field of the intake that was changed', () => {
    const change = (body: object) =>
      item({ kind: 'visit', chain: 'visit', method: 'PATCH', body: { ...body } })
    const { put } = withItem(
      [change({ version: 2, complaint: 'It hums' })],
      change({ version: 3, outdoor_degrees_f: 31 }),
    )
    expect(put.body).toEqual({ version: 2, complaint: 'It hums', outdoor_degrees_f: 31 })
  })

  it('never takes two readings for one', () => {
    expect(withItem([item({})], item({ chain: 'reading.1' })).items).toHaveLength(2)
  })
})

describe('what is sent next', () => {
  const refused = item({ state: 'refused' })
  const asking = desk(1, {}, { state: 'asks' })
  const closing = item({ kind: 'closing', chain: 'closing' })
  const other = item({ chain: 'reading.2' })
  it.each<[string, Item[], Item | null]>([
    ['the first', [item({}), other], item({})],
    ['nothing of what asks', [asking], null],
    ['what has nothing to do with one that was refused', [refused, other], other],
    ['not what corrects one that was refused', [refused, item({})], null],
    ['not a closing before all of the visit is there', [asking, closing], null],
    ['a closing with nothing before it', [closing], closing],
    ['a closing beside what another visit waits for', [{ ...asking, visit: 'another' }, closing], closing],
  ])('%s', (_says, items, next) => expect(nextToSend(items)).toEqual(next))

  it('says what holds an item up, and nothing of one that only waits its turn', () => {
    expect(heldBy([refused, closing], closing)).toBe(refused)
    expect(heldBy([other, closing], closing)).toBeNull()
    expect(heldBy([refused, other], other)).toBeNull()
  })
})

describe('what becomes of an item', () => {
  it.each([
    [200, 'sent'],
    [201, 'sent'],
    [401, 'signed_out'],
    [409, 'refused'],
    [404, 'refused'],
    [413, 'refused'],
    [422, 'refused'],
    [500, 'refused'],
    [0, 'again'],
    [429, 'again'],
    [502, 'again'],
    [503, 'again'],
    [504, 'again'],
  ] as const)('by %i it is %s', (status, fate) => expect(fateOf(status)).toBe(fate))

  it('waits for its person where somebody else is signed in, and is refused where its person may not', () => {
    const refused = (type: string) => ({ type, title: '', status: 403, detail: '' })
    expect(fateOf(403, item({}), refused('urn:gorvant:problem:somebody_else'))).toBe('signed_out')
    expect(fateOf(403, item({}), refused('urn:gorvant:problem:not_allowed'))).toBe('refused')
  })

  it('asks whose word stands only where there is another version of the same', () => {
    const stale = { type: '', title: '', status: 409, detail: '', current_version: 4 }
    const closed = { ...stale, current_version: undefined }
    expect(fateOf(409, desk(3, {}), stale)).toBe('asks')
    expect(fateOf(409, desk(3, {}), closed)).toBe('refused') // the visit was closed meanwhile
    expect(fateOf(409, item({ kind: 'closing', body: { id: 'x', after: 0 } }), stale)).toBe('refused')
  })
})

describe('a change that met another', () => {
  const problem = (current: object, current_version = 7) => ({
    type: '',
    title: '',
    status: 409,
    detail: '',
    current: current as Record<string, never>,
    current_version,
  })
  it('is put together with it where they do not touch, on the version of now', () => {
    const mine = desk(3, { a: 1, b: 0 }, { before: { a: 0, b: 0 } })
    expect(together(mine, problem({ a: 0, b: 5 }))?.body).toEqual({ version: 7, content: { a: 1, b: 5 } })
  })
  it('asks where both changed the same', () => {
    expect(together(desk(3, { a: 1 }, { before: { a: 0 } }), problem({ a: 2 }))).toBeNull()
  })
  it('looks at the fields of the intake that were changed, and at no other', () => {
    const mine = item({
      kind: 'visit',
      chain: 'visit',
      body: { version: 3, complaint: 'It hums' },
      before: { complaint: '', room_degrees_f: 60 },
    })
    expect(together(mine, problem({ complaint: '' }))?.body).toEqual({ version: 7, complaint: 'It hums' })
    expect(together(mine, problem({ complaint: 'It rattles' }))).toBeNull()
  })
  it('says both, of what was changed here and stands otherwise there, and of nothing else', () => {
    const mine = desk(
      3,
      { done: 'Mine', parts: 'as it was', landings: [1, 2], plain: 'the same' },
      { before: { done: '', parts: 'as it was', landings: [], plain: '' } },
    )
    const theirs = { done: 'Theirs', parts: 'another', plain: 'the same' }
    expect(clashes({ ...mine, problem: problem(theirs) })).toEqual([
      { field: 'done', mine: '“Mine”', theirs: '“Theirs”' },
      { field: 'landings', mine: '2 entries', theirs: 'nothing' },
    ])
  })
  it('asks of a closing, whatever came', () => {
    expect(together(item({ kind: 'closing', body: { id: 'x', after: 0 } }), problem({}))).toBeNull()
  })
  it('goes by the version of now where mine is to stand, and so do those behind it', () => {
    const mine = { ...desk(3, { a: 1 }), state: 'asks' as const, problem: problem({}) }
    expect(onVersion(mine, mine.problem)).toMatchObject({ state: 'waits', body: { version: 7 } })
    const behind = [desk(4, {}), item({}), desk(5, {})]
    expect(shifted(behind, 'desk.wiring', 8).map((one) => one.body?.version)).toEqual([8, undefined, 9])
  })
})

describe('a question', () => {
  it('has one name whoever asks it', () => {
    const one = asked('POST', '/trace', { condition: { call: 'heat', switches: {} }, drawing: undefined })
    const same = asked('POST', '/trace', { condition: { switches: {}, call: 'heat' } })
    expect(nameOf(one)).toBe(nameOf(same))
    expect(nameOf({ ...one, units: 'C' })).not.toBe(nameOf(one))
  })

  it.each<[string, string, object | null, ReturnType<typeof leansOn>]>([
    ['GET', '', null, 'nothing'],
    ['GET', '/readings', null, 'nothing'],
    ['POST', '/trace', {}, 'circuit'],
    ['POST', '/defrost/forced_test', {}, 'circuit'],
    ['POST', '/wiring', {}, 'desks'],
    ['POST', '/wiring', { as_found: {} }, 'circuit'],
    ['POST', '/settings', { settings: {} }, 'desks'],
    ['POST', '/defrost/outlook', {}, 'desks'],
    ['POST', '/find', {}, 'whole'],
    ['GET', '/close-out', null, 'whole'],
    ['GET', '/known-good', null, 'whole'],
    ['POST', '/report', {}, 'whole'],
  ])('%s %s %o leans on %s', (method, under, body, leans) =>
    expect(leansOn(asked(method, under, body))).toBe(leans),
  )

  it('is kept where it changes nothing, and nobody comes in by it', () => {
    expect(mayKeep(asked('POST', '/find', {}))).toBe(true)
    expect(mayKeep(asked('POST', '/readings', {}))).toBe(false)
    expect(mayKeep(asked('POST', '/closings', {}))).toBe(false)
    expect(mayKeep({ ...asked('GET', ''), path: '/api/people', visit: null })).toBe(false)
    expect(mayKeep({ ...asked('GET', ''), path: '/api/catalogue', visit: null })).toBe(true)
  })

  it('for a trace with a drawing is two, of which each may be known by itself', () => {
    const both = inTwo(
      asked('POST', '/trace', { condition: { call: 'off' }, drawing: { view: 'loops', opened: [] } }),
    )
    expect(both?.trace.body).toEqual({ condition: { call: 'off' } })
    expect(both?.drawing).toMatchObject({
      path: `/api/visits/${VISIT}/drawing`,
      body: { condition: { call: 'off' }, view: 'loops', opened: [] },
    })
    expect(inTwo(asked('POST', '/trace', { condition: {} }))).toBeNull()
  })
})

describe('a write that can wait', () => {
  const reading = { id: 'r', function: 'volts_ac', from_node: 'outdoor.C', to_node: 'outdoor.Y', value: 24.1 }
  it.each<[string, string, object | null, string | null, string | null]>([
    ['PUT', '/desks/wiring', { content: {} }, 'desk.wiring', 'Wiring: what lands where'],
    ['PATCH', '', { version: 1, complaint: '' }, 'visit', 'Intake: complaint'],
    ['POST', '/readings', reading, 'reading.r', '24.1 V, C to Y'],
    ['POST', '/readings', { ...reading, supersedes_id: 'old' }, 'reading.old', '24.1 V, C to Y'],
    [
      'POST',
      '/readings',
      { id: 'r', function: 'seen', place: 'outdoor_fan', choice: 'turns' },
      'reading.r',
      'turns, outdoor fan',
    ],
    [
      'POST',
      '/readings',
      { ...reading, value: null, open: true, function: 'ohms' },
      'reading.r',
      'OL, C to Y',
    ],
    ['POST', '/readings/r/retraction', null, 'reading.r', 'A reading taken back'],
    ['POST', '/closings', { id: 'c', after: 0 }, 'closing', 'The visit closed'],
    ['POST', '/fitted', {}, null, null],
    ['POST', '/find', {}, null, null],
    ['POST', '/here', {}, null, null],
    ['GET', '', null, null, null],
  ])('%s %s %o', (method, under, body, chain, says) => {
    const write = writeOf(asked(method, under, body))
    expect(write?.chain ?? null).toBe(chain)
    expect(write?.says ?? null).toBe(says)
  })
})

describe('a visit that came along before the server was renewed', () => {
  it.each([
    ['a', '1', 'a', '1', ''],
    ['a', '1', 'b', '1', 'The engine here is another'],
    ['a', '1', 'b', '2', 'The engine here is another'],
    ['a', '1', 'a', '2', 'The server was renewed'],
    ['', '1', 'b', '1', ''], // no engine came along with it
    ['a', '1', '', '1', ''], // none lies here any more
    ['a', '1', 'a', '', ''], // no signal yet: nobody knows
  ])('engine %o and build %o, beside %o and %o: “%s”', (engine, build, here, now, says) => {
    const told = olderSays({ engine, build }, here, now)
    expect(says ? told : told === '').toEqual(says ? expect.stringContaining(says) : true)
  })
})
