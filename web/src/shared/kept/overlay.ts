import type { Catalogue, Photo, Reading, Visit } from '@/shared/api/client'
import type { Item, Json } from '@/shared/kept/item'
import { amountSays, whereSays } from '@/shared/kept/writes'
import { say } from '@/words'

/** What is said of a reading that nothing here could hold against the circuit. */
export const NOT_JUDGED = say('overlay.notJudged')

type Words = Pick<Catalogue, 'calls' | 'symptoms'> | null

/** The visit as it stands with what was done here and not sent yet. changed: whether its marks lean on any of it. */
export function visitNow(
  visit: Visit,
  items: Item[],
  by: string,
  words: Words,
  changed = items.length > 0,
): Visit {
  let now = visit
  for (const item of items) {
    if (item.kind === 'desk') now = withDesk(now, item, by)
    if (item.kind === 'visit') now = withFields(now, item.body ?? {}, words)
    if (item.kind === 'closing') now = { ...now, closed_number: Number(item.body?.after ?? 0) + 1 }
  }
  return changed ? { ...now, marks: marksLeft(now.marks) } : now
}

/** An all-clear does not outlive a change that nothing here could look at; what is wrong stays wrong until something says otherwise. */
const marksLeft = (marks: Visit['marks']) =>
  Object.fromEntries(
    Object.entries(marks).map(([desk, mark]) => [desk, mark === 'disagrees' ? mark : 'untouched']),
  ) as Visit['marks']

function withDesk(visit: Visit, item: Item, by: string): Visit {
  const id = item.chain.replace('desk.', '') as keyof NonNullable<Visit['desks']>
  const desk = {
    version: Number(item.body?.version ?? 0) + 1,
    content: item.body?.content ?? {},
    by,
    at: new Date(item.at).toISOString(),
  }
  return { ...visit, desks: { ...visit.desks, [id]: desk } as unknown as Visit['desks'] }
}

function withFields(visit: Visit, body: Json, words: Words): Visit {
  const { version, ...fields } = body
  const now = { ...visit, ...fields, version: Number(version) + 1 } as Visit
  const titles = new Map(words?.symptoms.map((one) => [one.id, one.title]))
  return { ...now, symptom_titles: now.symptoms.map((key) => titles.get(key) ?? key) }
}

/** The readings with those that wait; `judged` has the ones that the engine here held against the circuit. */
export function readingsNow(
  readings: Reading[],
  items: Item[],
  by: string,
  words: Words,
  judged: ReadonlyMap<string, Reading> = new Map(),
): Reading[] {
  let now = readings
  for (const item of items) {
    const body = item.body ?? {}
    if (item.kind === 'retraction') {
      const id = item.chain.replace('reading.', '')
      now = now.map((one) =>
        one.id === id ? { ...one, retracted_at: new Date(item.at).toISOString() } : one,
      )
    }
    if (item.kind !== 'reading' || now.some((one) => one.id === body.id)) continue
    const old = body.supersedes_id
    now = now.map((one) => (one.id === old ? { ...one, superseded_by_id: String(body.id) } : one))
    now = [...now, judged.get(String(body.id)) ?? unjudged(item, by, words)]
  }
  return now
}

function unjudged(item: Item, by: string, words: Words): Reading {
  const body = item.body ?? {}
  const call = (body.condition as Json | undefined)?.call
  return {
    from_node: null,
    to_node: null,
    place: null,
    value: null,
    value_high: null,
    about: false,
    open: false,
    choice: null,
    isolated: false,
    instrument: '',
    moment: {},
    note: '',
    supersedes_id: null,
    ...body,
    visit_id: item.visit,
    rig_revision_id: '',
    circuit: 'reference',
    where: whereSays(body),
    reads: amountSays(body),
    call_title: words?.calls.find((one) => one.id === call)?.title ?? String(call ?? ''),
    expected: null,
    verdict: 'undetermined',
    says: NOT_JUDGED,
    received_at: new Date(item.at).toISOString(),
    taken_by: by,
    superseded_by_id: null,
    retracted_at: null,
  } as unknown as Reading
}

/** The photos with those that wait. */
export function photosNow(photos: Photo[], items: Item[]): Photo[] {
  let now = photos
  for (const item of items) {
    const id = item.chain.replace('photo.', '')
    if (item.kind === 'photo' && !now.some((one) => one.id === id)) now = [...now, photoOf(item, id)]
    if (item.kind === 'photo_note')
      now = now.map((one) => (one.id === id ? { ...one, note: String(item.body?.note ?? '') } : one))
    if (item.kind === 'photo_deletion') now = now.filter((one) => one.id !== id)
  }
  return now
}

function photoOf(item: Item, id: string): Photo {
  const about = new URL(item.path, 'http://here').searchParams
  return {
    id,
    visit_id: item.visit,
    of: about.get('of') ?? 'other',
    fact_key: about.get('fact'),
    note: about.get('note') ?? '',
    width: 0,
    height: 0,
    created_at: new Date(item.at).toISOString(),
  } as Photo
}
