import type { Problem } from '@/shared/model/outcome'
import { threeWay } from '@/shared/model/threeWay'
import { say } from '@/words'

export type Json = Record<string, unknown>

/** Something done without signal that the server does not have yet. */
export interface Item {
  /** Its place in the order in which things were done; given by the store. */
  seq?: number
  visit: string
  kind: 'desk' | 'visit' | 'reading' | 'retraction' | 'photo' | 'photo_note' | 'photo_deletion' | 'closing'
  /** What it is about: of one subject, each waits for the one before. */
  chain: string
  method: string
  /** With its query. */
  path: string
  /** A JSON body; null where there is none, or where the body is a picture. */
  body: Json | null
  picture?: { bytes: ArrayBuffer; type: string }
  /** What stood there before the first of these changes, to put both together where somebody else changes it too. */
  before?: Json
  /** In words, for the list. */
  says: string
  /** When it was done, by this device, in milliseconds. */
  at: number
  /** How often it was sent; one that was never sent can still take a later change in. */
  tries: number
  /** waits: to be sent; asks: somebody else changed the same; refused: the server says why it does not take it. */
  state: 'waits' | 'asks' | 'refused'
  problem?: Problem
}

/** The items with one more: what was never sent takes a later change of the same thing in. */
export function withItem(items: Item[], item: Item): { items: Item[]; put: Item } {
  const last = items.filter((one) => one.chain === item.chain && one.visit === item.visit).at(-1)
  const takesIn = last && last.tries === 0 && last.kind === item.kind && ['desk', 'visit'].includes(item.kind)
  if (!last || !takesIn) return { items: [...items, item], put: item }
  // What is sent goes by the version that the first of them began from.
  const put: Item = {
    ...last,
    body: {
      ...(item.kind === 'visit' ? last.body : {}),
      ...item.body,
      version: last.body?.version,
    },
    before: { ...item.before, ...last.before },
    says: item.says,
    at: item.at,
    state: 'waits',
    problem: undefined,
  }
  return { items: items.map((one) => (one === last ? put : one)), put }
}

/** The next to be sent: nothing goes before what it waits for, and what asks or was refused holds up only its own subject. */
export function nextToSend(items: Item[]): Item | null {
  return (
    items.find((item, i) => {
      if (item.state !== 'waits') return false
      const earlier = items.slice(0, i).filter((one) => one.visit === item.visit)
      // A closing freezes the visit as it stands: all of it has to be there first.
      return item.kind === 'closing' ? !earlier.length : !earlier.some((one) => one.chain === item.chain)
    }) ?? null
  )
}

/** What holds an item up, in the words of the list; null where it is only not sent yet. */
export function heldBy(items: Item[], item: Item): Item | null {
  if (item.state !== 'waits') return null
  const earlier = items
    .slice(0, items.indexOf(item))
    .filter((one) => one.visit === item.visit && one.state !== 'waits')
  return earlier.find((one) => item.kind === 'closing' || one.chain === item.chain) ?? null
}

export type Fate = 'sent' | 'again' | 'signed_out' | 'asks' | 'refused'

/** What becomes of an item by the status of its answer, 0 for none, and what that says. Only where there is another version of the
 *  same can somebody say which one stands. */
export function fateOf(status: number, item?: Item, problem?: Problem | null): Fate {
  if (status >= 200 && status < 300) return 'sent'
  // Its person has to come back before it can be sent.
  if (status === 401 || problem?.type === 'urn:gorvant:problem:somebody_else') return 'signed_out'
  if (status === 409)
    return problem?.current_version !== undefined && item?.body && 'version' in item.body ? 'asks' : 'refused'
  if (status === 0 || [408, 425, 429, 502, 503, 504].includes(status)) return 'again'
  return 'refused'
}

/** A change that met another's, put together with it as far as they do not touch; null where a person has to say. */
export function together(item: Item, problem: Problem): Item | null {
  if (problem.current_version === undefined || !problem.current || !item.body) return null
  const theirs = problem.current as Json
  if (item.kind === 'desk') {
    const whole = threeWay<Json>(item.before ?? {}, theirs, item.body.content as Json)
    return whole && onVersion({ ...item, before: theirs, body: { ...item.body, content: whole } }, problem)
  }
  if (item.kind !== 'visit') return null
  const fields = Object.keys(item.body).filter((field) => field !== 'version')
  const only = (row: Json) => Object.fromEntries(fields.map((field) => [field, row[field] ?? null]))
  const whole = threeWay<Json>(only(item.before ?? {}), only(theirs), only(item.body))
  return whole && onVersion({ ...item, before: theirs, body: { ...item.body, ...whole } }, problem)
}

/** The same item on the version that the server has now: mine stands. */
export function onVersion(item: Item, problem: Problem | undefined): Item {
  return {
    ...item,
    body: item.body && { ...item.body, version: problem?.current_version ?? item.body.version },
    state: 'waits',
    problem: undefined,
  }
}

/** Items that go by an earlier version of the same subject, once that one has become another. */
export function shifted(items: Item[], chain: string, version: number): Item[] {
  let next = version
  return items.map((item) =>
    item.chain === chain && item.body && 'version' in item.body
      ? { ...item, body: { ...item.body, version: next++ } }
      : item,
  )
}

export interface Clash {
  field: string
  mine: string
  theirs: string
}
const entries = (count: number) => say('item.entries', { count }, count)
const shown = (value: unknown) =>
  value === undefined || value === null || value === ''
    ? say('item.nothing')
    : typeof value === 'object'
      ? entries(Array.isArray(value) ? value.length : Object.keys(value).length)
      : `“${String(value)}”`

/** What two people made of the same, field by field: where mine was changed here and theirs is otherwise. */
export function clashes(item: Item): Clash[] {
  const body = item.body ?? {}
  const mine = (body.content as Json | undefined) ?? body
  const theirs = (item.problem?.current ?? {}) as Json
  const before = item.before ?? {}
  const text = (value: unknown) => JSON.stringify(value ?? null)
  return Object.keys(mine)
    .filter(
      (key) =>
        key !== 'version' && text(mine[key]) !== text(theirs[key]) && text(mine[key]) !== text(before[key]),
    )
    .map((key) => ({
      field: key.replace(/_/g, ' '),
      mine: shown(mine[key]),
      theirs: shown(theirs[key]),
    }))
}
