import type { Photo, Reading, Visit } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'
import type { Item } from '@/shared/kept/item'
import { photosNow, visitNow } from '@/shared/kept/overlay'
import { asked, leansOn, mayKeep, type Asked } from '@/shared/kept/question'
import { writeOf } from '@/shared/kept/writes'
import { NEEDS_SIGNAL, away, canKeep, hand, isKept, keptVisits, outbox, pause } from '@/shared/kept/state'
import {
  catalogue,
  keepAnswer,
  kept,
  keptAnswer,
  keptText,
  questionOf,
  readingsHere,
  visitOf,
  type Asking,
} from '@/shared/kept/answers'
import { goneAway, put, send } from '@/shared/kept/outbox'
import { lastSession, openFor } from '@/shared/kept/person'
import { say } from '@/words'

/** What is answered without the server. */

/** Longer a page does not wait for what is being sent before it asks. */
const SENDING_MS = 5_000

const waitsFor = (visit: string | null) =>
  outbox.value.filter((one) => one.visit === visit && one.state === 'waits').length > 0

const json = (value: unknown, status = 200) =>
  new Response(typeof value === 'string' ? value : JSON.stringify(value), {
    status,
    headers: { 'content-type': status < 400 ? 'application/json' : 'application/problem+json' },
  })

const needsSignal = () =>
  new Response(JSON.stringify({ ...NEEDS_SIGNAL, status: 503 }), {
    status: 503,
    headers: { 'content-type': 'application/problem+json' },
  })

/** Before the server is asked: answered here while it is away, or while things of the visit wait to be sent. */
export async function first(request: Request): Promise<Response | null> {
  if (!canKeep) return null
  await hand.opening
  const one = await asked(request)
  if (away.value) return here(one, request, 0)
  if (!waitsFor(one.visit)) return null
  if (one.method !== 'GET' && !mayKeep(one)) {
    const answer = await keepWrite(one, request, 0)
    void send()
    return answer
  }
  await Promise.race([send(), pause(SENDING_MS)])
  return away.value ? here(one, request, 0) : null
}

/** The server could not be reached: answered here where that can be. */
export async function without(request: Request): Promise<Response | null> {
  if (!canKeep) return null
  await hand.opening
  const one = await asked(request)
  const session = lastSession()
  if (one.path === '/api/session' && one.method === 'GET' && session) await openFor(session)
  // It went out, and may have come: what follows it is another change.
  const answer = await here(one, request, 1)
  if (answer) goneAway()
  return answer
}

/** An answer has come: kept where it is one of a visit that was taken along. */
export async function heard(request: Request, answer: Response, asking: Asking) {
  if (away.value) void send()
  away.value = false
  if (!hand.store || !answer.ok || !keptVisits.value.length) return
  const copy = answer.clone() // before its page reads it
  const one = await asked(request)
  if ((one.visit !== null && !isKept(one.visit)) || answer.status === 202) return
  if (!answer.headers.get('content-type')?.includes('json')) return
  const body = await copy.text()
  // Somebody else may have come in since it was asked.
  if (asking.whose !== hand.user?.id) return
  if (mayKeep(one)) return keepAnswer(one, body, asking.stands)
  const kind = writeOf(one)?.kind
  if (one.visit && (kind === 'desk' || kind === 'visit')) await keepAnswer(questionOf(one.visit, ''), body)
}

/** What can be answered without the server; null where this device knows nothing of it. */
async function here(one: Asked, request: Request, tries: number): Promise<Response | null> {
  if (one.path === '/api/session' && one.method === 'GET') {
    const session = lastSession()
    return session && json(session)
  }
  if (!hand.store || !hand.user) return null
  if (one.method !== 'GET' && !mayKeep(one))
    return (await keepWrite(one, request, tries)) ?? (isKept(one.visit) ? needsSignal() : null)
  const visit = isKept(one.visit) ? one.visit : null
  const own = visit && leansOn(one) === 'nothing' ? await standing(one, visit) : null
  if (own) return json(own)
  const list = one.path === '/api/visits' ? await dayNow(one) : null
  if (list) return json(list)
  const answer = (await keptAnswer(one)) ?? (visit && (await worked(one, visit, false)))
  if (answer) return said(answer)
  // Of a visit that was taken along it is said at once; of anything else the server is waited for first.
  return away.value || visit ? needsSignal() : null
}

/** The day sheet as it was, each visit with what waits of it. */
async function dayNow(one: Asked): Promise<unknown> {
  const text = await keptAnswer(one)
  if (!text) return null
  const day = JSON.parse(text) as { visits: Visit[] }
  const words = await catalogue()
  const now = (visit: Visit) => {
    const mine = outbox.value.filter((item) => item.visit === visit.id && item.kind !== 'desk')
    const any = outbox.value.some((item) => item.visit === visit.id)
    return any ? visitNow(visit, mine, hand.user?.name ?? '', words, any) : visit
  }
  return { ...day, visits: day.visits.map(now) }
}

/** An answer of the engine, or why the core refuses the question. */
function said(answer: string) {
  const { problem } = answer.startsWith('{"problem"') ? (JSON.parse(answer) as { problem?: string }) : {}
  if (!problem) return json(answer)
  return json({ type: 'about:blank', title: say('here.notAcceptable'), status: 422, detail: problem }, 422)
}

/** What the engine says of a visit as it stands with what waits. */
async function worked(one: Asked, id: string, atOnce: boolean): Promise<string | null> {
  const [visit, along] = [await visitOf(id), await keptText('GET', `/api/visits/${id}/along`)]
  if (!visit || !along || !hand.user) return null
  const mine = outbox.value.filter((item) => item.visit === id)
  const words = await catalogue()
  const now = visitNow(visit, mine, hand.user.name, words)
  const inHand = {
    visit: now,
    readings: await readingsHere(id, mine, words),
    photos: await photosHere(id, mine),
    along,
  }
  const answer = await hand.ways.engine(asDraft(one, mine), inHand, atOnce).catch(() => null)
  return answer && one.path.endsWith('/close-out') ? withClosings(answer, id) : answer
}

/** The closings of before, which no engine knows, and the one that waits. */
async function withClosings(answer: string, id: string) {
  const had = await kept<{ closings: unknown[]; addenda: unknown[] }>('GET', `/api/visits/${id}/close-out`)
  const waits = outbox.value.filter((item) => item.visit === id && item.kind === 'closing')
  const closings = await Promise.all(waits.map((item) => closingOf(item)))
  return JSON.stringify({
    ...JSON.parse(answer),
    closings: [...(had?.closings ?? []), ...closings],
    addenda: had?.addenda ?? [],
  })
}

/** A closing that waits, as the server will show it; how it is marked is the engine's to say. */
async function closingOf(item: Item) {
  const marked = await worked(questionOf(item.visit, '/closing-mark'), item.visit, false)
  return {
    id: String(item.body?.id),
    number: Number(item.body?.after ?? 0) + 1,
    mark: marked ? (JSON.parse(marked) as { mark: string }).mark : 'untouched',
    digest: '',
    by: hand.user?.name ?? '',
    at: new Date(item.at).toISOString(),
    reopened_at: null,
    reopened_by: null,
    reopened_why: null,
  }
}

/** What a visit still lacks before it can be closed, as the server would refuse it; null where nothing, or nobody here knows. */
async function notReady(id: string): Promise<Response | null> {
  const answer = await worked(questionOf(id, '/close-out'), id, false)
  const missing = answer ? (JSON.parse(answer) as { missing?: Problem['errors'] }).missing : []
  if (!missing?.length) return null
  const detail = say('here.missing', { count: missing.length }, missing.length)
  return json(
    { type: 'about:blank', title: say('here.notAcceptable'), status: 422, detail, errors: missing },
    422,
  )
}

async function photosHere(id: string, mine: Item[]): Promise<Photo[]> {
  return photosNow((await kept<{ photos: Photo[] }>('GET', `/api/visits/${id}/photos`))?.photos ?? [], mine)
}

/** The report of a closing that waits is the draft until the server has frozen it. */
function asDraft(one: Asked, mine: Item[]): Asked {
  const { number, ...rest } = (one.body ?? {}) as { number?: number }
  const waits = mine.some((item) => item.kind === 'closing' && Number(item.body?.after) + 1 === number)
  return one.path.endsWith('/report') && waits ? { ...one, body: rest } : one
}

/** What the visit itself holds, with what waits. */
async function standing(one: Asked, id: string): Promise<unknown> {
  const visit = await visitOf(id)
  if (!visit || !hand.user) return null
  const mine = outbox.value.filter((item) => item.visit === id)
  const address = one.path.replace(`/api/visits/${id}`, '')
  if (address === '/photos') return { photos: await photosHere(id, mine) }
  if (address !== '' && address !== '/readings') return null
  const answer = mine.length ? await worked(one, id, true) : null
  if (answer) return answer
  const words = await catalogue()
  if (address === '') return visitNow(visit, mine, hand.user.name, words)
  return { readings: await readingsHere(id, mine, words) }
}

/** Keeps a write until there is signal, and answers as the server would; null where it is none that can wait. */
async function keepWrite(one: Asked, request: Request, tries: number): Promise<Response | null> {
  const draft = writeOf(one)
  if (!draft || !hand.store) return null
  const visit = draft.visit ?? (await visitOfPhoto(draft.chain))
  if (!visit || !isKept(visit)) return null
  const before = await visitOf(visit)
  if (!before) return null
  const open = draft.kind === 'closing' ? await notReady(visit) : null
  if (open) return open
  const picture = one.body === null && draft.kind === 'photo' ? await pictureIn(request) : undefined
  await put({
    visit,
    kind: draft.kind,
    chain: draft.chain,
    method: one.method,
    path: one.path + one.query,
    body: one.body as Item['body'],
    picture,
    before: beforeOf(draft, before),
    says: draft.says,
    at: Date.now(),
    tries,
    state: 'waits',
  })
  return json(await answerTo(one, visit), draft.kind === 'reading' || draft.kind === 'photo' ? 201 : 200)
}

function beforeOf({ kind, chain }: Pick<Item, 'kind' | 'chain'>, visit: Visit): Item['before'] {
  if (kind === 'visit') return visit as unknown as Item['before']
  const desk = chain.replace('desk.', '') as keyof NonNullable<Visit['desks']>
  return kind === 'desk' ? (visit.desks?.[desk].content as Item['before']) : undefined
}

async function pictureIn(request: Request) {
  return {
    bytes: await request.clone().arrayBuffer(),
    type: request.headers.get('content-type') ?? 'image/jpeg',
  }
}

async function visitOfPhoto(chain: string): Promise<string | null> {
  const id = chain.replace('photo.', '')
  for (const { id: visit } of keptVisits.value) {
    const had = await kept<{ photos: Photo[] }>('GET', `/api/visits/${visit}/photos`)
    if (had?.photos.some((one) => one.id === id)) return visit
    if (outbox.value.some((one) => one.visit === visit && one.chain === chain)) return visit
  }
  return null
}

/** What the page hears of a write that waits. */
async function answerTo(one: Asked, visit: string): Promise<unknown> {
  const draft = writeOf(one)
  const look = (path: string) =>
    standing({ ...one, method: 'GET', body: null, query: '', path: `/api/visits/${visit}${path}` }, visit)
  const parsed = async <T>(path: string) => {
    const answer = await look(path)
    return (typeof answer === 'string' ? JSON.parse(answer) : answer) as T
  }
  const id = draft?.chain.replace(/^\w+\./, '')
  if (draft?.kind === 'reading') {
    const mine = String((one.body as { id?: string } | null)?.id)
    return (await parsed<{ readings: Reading[] }>('/readings')).readings.find((row) => row.id === mine)
  }
  if (draft?.kind === 'retraction')
    return (await parsed<{ readings: Reading[] }>('/readings')).readings.find((row) => row.id === id)
  if (draft?.kind === 'photo' || draft?.kind === 'photo_note')
    return (await parsed<{ photos: Photo[] }>('/photos')).photos.find((row) => row.id === id)
  if (draft?.kind === 'photo_deletion') return { deleted: id }
  const closing = outbox.value.find((item) => item.visit === visit && item.kind === 'closing')
  if (draft?.kind === 'closing' && closing) return closingOf(closing)
  return look('')
}
