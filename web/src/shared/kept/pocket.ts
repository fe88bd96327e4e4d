import { computed, ref, shallowRef } from 'vue'
import type { Catalogue, Photo, Reading, Session, Visit } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'
import { fateOf, nextToSend, onVersion, shifted, together, withItem, type Item } from '@/shared/kept/item'
import { photosNow, readingsNow, visitNow } from '@/shared/kept/overlay'
import { degreeUnit } from '@/shared/model/units'
import {
  asked,
  inTwo,
  leansOn,
  mayKeep,
  nameOf,
  stampOf,
  type Asked,
  type LeansOn,
} from '@/shared/kept/question'
import { bytesOf, dropVisit, openStore, wipeStore, type KeptVisit, type Store } from '@/shared/kept/store'
import { writeOf } from '@/shared/kept/writes'

/** What this device has of its user for when there is no signal: kept visits, and what waits to be sent. */

const WHO = 'gorvant.who'
const CHANNEL = 'gorvant.kept'
const LOCK = 'gorvant.outbox'
const LOOK_AGAIN_MS = 5_000
/** Longer a page does not wait for what is being sent before it asks. */
const SENDING_MS = 5_000
const RETRY_SECONDS = 2
/** A visit that was taken along longer ago is left behind by itself. */
export const KEPT_DAYS = 14
const DAY_MS = 86_400_000

/** Whether the server cannot be reached just now. */
export const away = ref(false)
/** What waits, in the order in which it was done. */
export const outbox = shallowRef<Item[]>([])
export const keptVisits = shallowRef<KeptVisit[]>([])
export const sending = ref(false)
/** Whether what waits cannot be sent before its person has signed in again. */
export const sessionEnded = ref(false)
/** Whether this browser keeps things at all: only where the address is one of this machine or behind TLS. */
export const canKeep = typeof indexedDB !== 'undefined' && (globalThis.isSecureContext ?? false)
export const notSent = computed(() => outbox.value.length)
export const asks = computed(() => outbox.value.filter((one) => one.state !== 'waits').length)

type Send = (request: Request) => Promise<Response>
/** A visit as the engine takes it in hand: as it stands here, and, as text, what came along for it. */
export interface InHand {
  visit: Visit
  readings: Reading[]
  along: string
}
/** Answers a question by itself; null where it cannot. At once: only if it is up. */
export type Engine = (question: Asked, inHand: InHand, atOnce: boolean) => Promise<string | null>
interface Ways {
  send: Send
  engine: Engine
}
let ways: Ways = { send: (request) => fetch(request), engine: () => Promise.resolve(null) }
let user: { id: string; name: string } | null = null
let store: Store | null = null
let opening: Promise<void> | null = null
const sentHandlers = new Set<(visit: string) => void>()
const others = 'BroadcastChannel' in globalThis ? new BroadcastChannel(CHANNEL) : null
others?.addEventListener('message', () => void look())

/** How requests go out, and who answers without the server. */
export const wire = (given: Partial<Ways>) => (ways = { ...ways, ...given })
/** Tells when things of a visit have arrived, or are known better, until the returned function is called. */
export function onSent(handler: (visit: string) => void) {
  sentHandlers.add(handler)
  return () => sentHandlers.delete(handler)
}

/** Has the pages of a visit ask anew. */
export function tellPages(visit: string) {
  for (const handler of sentHandlers) handler(visit)
}

async function look() {
  if (!store) return
  outbox.value = await store.getAll('outbox')
  // On the icon of the installed application, where there is one.
  void navigator.setAppBadge?.(outbox.value.length).catch(() => undefined)
  keptVisits.value = await store.getAll('visits')
}

async function changed() {
  await look()
  others?.postMessage('changed')
}

/** Opens what this person has here. Who it is comes from the server's own word, or, without signal, from its last one. */
export async function openFor(session: Session) {
  const viewer = session.viewer
  if (!canKeep || !viewer) return
  sessionEnded.value = false
  if (user?.id === viewer.id) return void send()
  close()
  user = { id: viewer.id, name: viewer.name }
  localStorage.setItem(WHO, JSON.stringify(session))
  opening = openStore(viewer.id).then(async (opened) => {
    store = opened
    await look()
    for (const { id, at } of keptVisits.value) {
      const waits = outbox.value.some((one) => one.visit === id)
      if (Date.now() - at > KEPT_DAYS * DAY_MS && !waits) await dropVisit(opened, id)
      else await stampAnew(id)
    }
    await look()
  })
  await opening
  void send()
}

function close() {
  store?.close()
  store = null
  user = null
  stamps.clear()
  outbox.value = []
  keptVisits.value = []
}

/** Takes everything of this person off this device: kept visits, pictures, drafts, and what was not sent. */
export async function wipe() {
  const gone = user
  close()
  localStorage.removeItem(WHO)
  for (const key of Object.keys(localStorage))
    if (key.startsWith('gorvant.draft.')) localStorage.removeItem(key)
  if (gone) await wipeStore(gone.id)
}

/** Who was signed in here last, where nobody signed out. */
function lastSession(): Session | null {
  try {
    return JSON.parse(localStorage.getItem(WHO) ?? 'null') as Session | null
  } catch {
    return null
  }
}

/** How the visits that were taken along stand, by the server's last word. */
const stamps = new Map<string, Record<LeansOn, string>>()

/** Looks anew how a visit stands. */
async function stampAnew(id: string) {
  const visit = await visitOf(id)
  const had = await kept<{ readings: Reading[] }>('GET', `/api/visits/${id}/readings`)
  if (visit) stamps.set(id, stampOf(visit, had?.readings ?? []))
}

/** Who asks, and how the visit stands that is asked about: what is heard later is of that person, and of that moment. */
export interface Asking {
  whose: string | null
  stands?: Record<LeansOn, string>
}
export const askingNow = (request: Request): Asking => ({
  whose: user?.id ?? null,
  stands: stamps.get(/[0-9a-f-]{36}/.exec(request.url)?.[0] ?? ''),
})

const isKept = (visit: string | null) => keptVisits.value.some((one) => one.id === visit)
const waitsFor = (visit: string | null) =>
  outbox.value.filter((one) => one.visit === visit && one.state === 'waits').length > 0

const json = (value: unknown, status = 200) =>
  new Response(typeof value === 'string' ? value : JSON.stringify(value), {
    status,
    headers: { 'content-type': status < 400 ? 'application/json' : 'application/problem+json' },
  })

const NEEDS_SIGNAL: Problem = {
  type: 'urn:gorvant:problem:no_signal',
  title: 'No signal',
  status: 0,
  detail: 'This needs signal. What you typed is still here.',
}
const needsSignal = () =>
  new Response(JSON.stringify({ ...NEEDS_SIGNAL, status: 503 }), {
    status: 503,
    headers: { 'content-type': 'application/problem+json' },
  })

/** Before the server is asked: answered here while it is away, or while things of the visit wait to be sent. */
export async function first(request: Request): Promise<Response | null> {
  if (!canKeep) return null
  await opening
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
  await opening
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
  if (!store || !answer.ok || !keptVisits.value.length) return
  const one = await asked(request)
  if ((one.visit !== null && !isKept(one.visit)) || answer.status === 202) return
  if (!answer.headers.get('content-type')?.includes('json')) return
  const body = await answer.text()
  // Somebody else may have come in since it was asked.
  if (asking.whose !== user?.id) return
  if (mayKeep(one)) return keepAnswer(one, body, asking.stands)
  const kind = writeOf(one)?.kind
  if (one.visit && (kind === 'desk' || kind === 'visit')) await keepAnswer(questionOf(one.visit, ''), body)
}

/** The question for a visit, or for what lies under it. */
const questionOf = (visit: string, under: string): Asked => ({
  method: 'GET',
  path: `/api/visits/${visit}${under}`,
  query: '',
  degrees: degreeUnit.value,
  body: null,
  visit,
})

async function keepAnswer(one: Asked, body: string, stood?: Record<LeansOn, string>): Promise<void> {
  const two = inTwo(one)
  if (two) {
    const { scene, ...trace } = JSON.parse(body) as { scene?: unknown }
    if (scene) await keepAnswer(two.drawing, JSON.stringify(scene), stood)
    return keepAnswer(two.trace, JSON.stringify(trace), stood)
  }
  const leans = leansOn(one)
  const stamp = leans === 'nothing' ? '' : stood?.[leans]
  if (stamp === undefined) return
  await store?.put('answers', { key: nameOf(one), visit: one.visit ?? '', body, stamp, at: Date.now() })
  if (one.visit && leans === 'nothing') await stampAnew(one.visit)
}

/** An answer from before as it was, in whichever degrees it was asked for. */
async function keptText(method: string, path: string): Promise<string | null> {
  for (const degrees of [degreeUnit.value, 'F', 'C']) {
    const row = await store?.get('answers', `${method} ${path} ${degrees} `)
    if (row) return row.body
  }
  return null
}

async function kept<T>(method: string, path: string): Promise<T | null> {
  const text = await keptText(method, path)
  return text === null ? null : (JSON.parse(text) as T)
}

const visitOf = (id: string) => kept<Visit>('GET', `/api/visits/${id}`)
const catalogue = () => kept<Catalogue>('GET', '/api/catalogue')

/** What can be answered without the server; null where this device knows nothing of it. */
async function here(one: Asked, request: Request, tries: number): Promise<Response | null> {
  if (one.path === '/api/session' && one.method === 'GET') {
    const session = lastSession()
    return session && json(session)
  }
  if (!store || !user) return null
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
    return any ? visitNow(visit, mine, user?.name ?? '', words, any) : visit
  }
  return { ...day, visits: day.visits.map(now) }
}

/** An answer of the engine, or why the core refuses the question. */
function said(answer: string) {
  const { problem } = answer.startsWith('{"problem"') ? (JSON.parse(answer) as { problem?: string }) : {}
  if (!problem) return json(answer)
  return json({ type: 'about:blank', title: 'Not acceptable', status: 422, detail: problem }, 422)
}

/** What the engine says of a visit as it stands with what waits. */
async function worked(one: Asked, id: string, atOnce: boolean): Promise<string | null> {
  const [visit, along] = [await visitOf(id), await keptText('GET', `/api/visits/${id}/along`)]
  if (!visit || !along || !user) return null
  const mine = outbox.value.filter((item) => item.visit === id)
  const words = await catalogue()
  const now = visitNow(visit, mine, user.name, words)
  const inHand = { visit: now, readings: await readingsHere(id, mine, words), along }
  const answer = await ways.engine(one, inHand, atOnce).catch(() => null)
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
    by: user?.name ?? '',
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
  const detail = `${missing.length} thing(s) missing before it can be closed`
  return json({ type: 'about:blank', title: 'Not acceptable', status: 422, detail, errors: missing }, 422)
}

/** An answer from before, as long as what it leans on stands as it did. */
async function keptAnswer(one: Asked): Promise<string | null> {
  const two = inTwo(one)
  if (two) {
    const [trace, scene] = [await keptAnswer(two.trace), await keptAnswer(two.drawing)]
    return trace && scene && JSON.stringify({ ...JSON.parse(trace), scene: JSON.parse(scene) })
  }
  const row = await store?.get('answers', nameOf(one))
  const stamp = (await stampHere(one.visit))?.[leansOn(one)] ?? ''
  return row && row.stamp === stamp ? row.body : null
}

/** How a visit stands with what waits: an answer from before is none any more where it leans on that. */
async function stampHere(id: string | null) {
  const visit = id && (await visitOf(id))
  if (!id || !visit) return null
  const mine = outbox.value.filter((item) => item.visit === id)
  return stampOf(visitNow(visit, mine, '', null), await readingsHere(id, mine, null))
}

/** What the visit itself holds, with what waits. */
async function standing(one: Asked, id: string): Promise<unknown> {
  const visit = await visitOf(id)
  if (!visit || !user) return null
  const mine = outbox.value.filter((item) => item.visit === id)
  const address = one.path.replace(`/api/visits/${id}`, '')
  if (address === '/photos')
    return { photos: photosNow((await kept<{ photos: Photo[] }>('GET', one.path))?.photos ?? [], mine) }
  if (address !== '' && address !== '/readings') return null
  const answer = mine.length ? await worked(one, id, true) : null
  if (answer) return answer
  const words = await catalogue()
  if (address === '') return visitNow(visit, mine, user.name, words)
  return { readings: await readingsHere(id, mine, words) }
}

async function readingsHere(id: string, mine: Item[], words: Catalogue | null) {
  const had = await kept<{ readings: Reading[] }>('GET', `/api/visits/${id}/readings`)
  return readingsNow(had?.readings ?? [], mine, user?.name ?? '', words)
}

/** Keeps a write until there is signal, and answers as the server would; null where it is none that can wait. */
async function keepWrite(one: Asked, request: Request, tries: number): Promise<Response | null> {
  const draft = writeOf(one)
  if (!draft || !store) return null
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

async function put(item: Item) {
  if (!store) return
  const work = store.transaction('outbox', 'readwrite')
  const { put: one } = withItem(await work.store.getAll(), item)
  await work.store.put(one)
  await work.done
  await changed()
}

/** Sends what waits, one after another, by one tab at a time; what comes of each is written down before the next. */
export function send(): Promise<void> {
  const work = () => sendAll().catch(() => undefined)
  return navigator.locks ? navigator.locks.request(LOCK, work).then(() => undefined) : work()
}

async function sendAll() {
  await look()
  if (!store || !user || !outbox.value.length) return
  sending.value = true
  try {
    for (let item = nextToSend(outbox.value); item && (await sendOne(item)); item = nextToSend(outbox.value));
  } finally {
    sending.value = false
  }
}

/** Whether the next may follow. */
async function sendOne(item: Item): Promise<boolean> {
  const whose = user
  if (!store || !whose || item.seq === undefined) return false
  await store.put('outbox', { ...item, tries: item.tries + 1 })
  const answer = await ways.send(requestOf(item)).catch(() => null)
  if (user !== whose || !store) return false
  const problem = answer && !answer.ok ? ((await answer.json().catch(() => null)) as Problem | null) : null
  const fate = fateOf(answer?.status ?? 0, item, problem)
  if (fate === 'again') {
    if (answer?.status === 429) await pause(1000 * Number(answer.headers.get('retry-after') ?? RETRY_SECONDS))
    else goneAway()
    await look()
    return answer?.status === 429
  }
  away.value = false
  if (fate === 'signed_out') {
    sessionEnded.value = true
    await look()
    return false
  }
  if (fate === 'sent') await arrived(item, (await answer!.json().catch(() => null)) as Visit | null)
  else await kickedBack(item, fate, problem)
  await changed()
  return true
}

function requestOf(item: Item): Request {
  const headers = new Headers()
  if (item.body) headers.set('content-type', 'application/json')
  if (item.picture) headers.set('content-type', item.picture.type)
  return new Request(new URL(item.path, location.origin), {
    method: item.method,
    headers,
    body: item.picture?.bytes ?? (item.body ? JSON.stringify(item.body) : undefined),
  })
}

async function arrived(item: Item, answer: Visit | null) {
  const work = store!.transaction(['outbox'], 'readwrite')
  const rows = work.objectStore('outbox')
  await rows.delete(item.seq!)
  if (item.kind === 'desk' || item.kind === 'visit') {
    const desk = item.chain.replace('desk.', '') as keyof NonNullable<Visit['desks']>
    const version = item.kind === 'visit' ? answer?.version : answer?.desks?.[desk].version
    const left = (await rows.getAll()).filter((one) => one.visit === item.visit)
    if (version !== undefined) for (const one of shifted(left, item.chain, version)) await rows.put(one)
  }
  await work.done
  if ((item.kind === 'desk' || item.kind === 'visit') && answer?.id)
    await keepAnswer(questionOf(item.visit, ''), JSON.stringify(answer))
  tellPages(item.visit)
}

async function kickedBack(item: Item, fate: 'asks' | 'refused', problem: Problem | null) {
  const now = (await store!.get('outbox', item.seq!)) ?? item
  const merged = fate === 'asks' && problem ? together(now, problem) : null
  const told = problem ?? {
    ...NEEDS_SIGNAL,
    title: 'Not taken',
    detail: 'The server did not take it, and did not say why.',
  }
  await store!.put('outbox', merged ?? { ...now, state: fate, problem: told })
}

/** Sends it once more as it is; on the version that the server has now where somebody else came first. */
export async function keepMine(item: Item) {
  await store?.put('outbox', onVersion(item, item.problem))
  await changed()
  await send()
}

/** Gives it up, with what hangs on it. */
export async function giveUp(item: Item) {
  if (!store) return
  const after = outbox.value.filter(
    (one) => one.visit === item.visit && one.chain === item.chain && one.seq! >= item.seq!,
  )
  for (const one of after) await store.delete('outbox', one.seq!)
  await changed()
  tellPages(item.visit)
  await send()
}

let looking = 0
function goneAway() {
  away.value = true
  looking ||= window.setInterval(() => void lookAgain(), LOOK_AGAIN_MS)
}

/** Whether there is signal again; then what waits is sent. */
export async function lookAgain() {
  const answer = await ways.send(new Request(new URL('/api/session', location.origin))).catch(() => null)
  if (!answer?.ok) return
  away.value = false
  clearInterval(looking)
  looking = 0
  const session = (await answer.json()) as Session
  // Whoever else is signed in by now sends nothing of this person's.
  if (session.viewer?.id === user?.id) await send()
}

if (typeof window !== 'undefined') {
  addEventListener('online', () => void lookAgain())
  addEventListener('offline', () => user && goneAway())
}

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms))

/** Writes down that a visit is taken along; the answers that come from here on are kept. */
export async function keepVisit(row: KeptVisit) {
  await store?.put('visits', row)
  await changed()
  await stampAnew(row.id)
}

export async function weigh(visit: string) {
  const row = await store?.get('visits', visit)
  if (row && store) await keepVisit({ ...row, bytes: await bytesOf(store, visit) })
}

export async function leaveBehind(visit: string) {
  if (store) await dropVisit(store, visit)
  await changed()
}

export async function keepPicture(visit: string, id: string, picture: Blob) {
  await store?.put('pictures', { id, visit, bytes: await picture.arrayBuffer(), type: picture.type })
}

/** A small picture that this device has, kept or waiting to be sent. */
export async function pictureHere(id: string): Promise<Blob | null> {
  await opening
  const waiting = outbox.value.find((one) => one.chain === `photo.${id}` && one.picture)?.picture
  const row = waiting ?? (await store?.get('pictures', id))
  return row ? new Blob([row.bytes], { type: row.type }) : null
}
