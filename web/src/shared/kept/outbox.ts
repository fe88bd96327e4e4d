import type { Session, Visit } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'
import { fateOf, nextToSend, onVersion, shifted, together, withItem, type Item } from '@/shared/kept/item'
import {
  NEEDS_SIGNAL,
  away,
  changed,
  hand,
  look,
  outbox,
  pause,
  sending,
  sessionEnded,
  tellPages,
} from '@/shared/kept/state'
import { keepAnswer, questionOf } from '@/shared/kept/answers'
import { say } from '@/words'

/** What was done without signal, on its way to the server. */

const LOCK = 'gorvant.outbox'

const LOOK_AGAIN_MS = 5_000

const RETRY_SECONDS = 2

export async function put(item: Item) {
  if (!hand.store) return
  const work = hand.store.transaction('outbox', 'readwrite')
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
  if (!hand.store || !hand.user || !outbox.value.length) return
  sending.value = true
  try {
    for (let item = nextToSend(outbox.value); item && (await sendOne(item)); item = nextToSend(outbox.value));
  } finally {
    sending.value = false
  }
}

/** Takes an item up as it stands now: a later change may have gone into it, and from here on none does. Null where it is gone. */
async function takeUp(seq: number): Promise<Item | null> {
  const work = hand.store!.transaction('outbox', 'readwrite')
  const row = await work.store.get(seq)
  const item = row ? { ...row, tries: row.tries + 1 } : null
  if (item) await work.store.put(item)
  await work.done
  return item
}

/** Whether the next may follow. */
async function sendOne({ seq }: Item): Promise<boolean> {
  const whose = hand.user
  if (!hand.store || !whose || seq === undefined) return false
  const item = await takeUp(seq)
  if (!item) {
    await look()
    return true
  }
  const answer = await hand.ways.send(requestOf(item)).catch(() => null)
  if (hand.user !== whose || !hand.store) return false
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
    sessionEnded.value = answer?.status === 401
    await look()
    return false
  }
  if (fate === 'sent') await arrived(item, (await answer!.json().catch(() => null)) as Visit | null)
  else await kickedBack(item, fate, problem)
  await changed()
  return true
}

function requestOf(item: Item): Request {
  const headers = new Headers({ 'X-Person': hand.user?.id ?? '' })
  if (item.body) headers.set('content-type', 'application/json')
  if (item.picture) headers.set('content-type', item.picture.type)
  return new Request(new URL(item.path, location.origin), {
    method: item.method,
    headers,
    body: item.picture?.bytes ?? (item.body ? JSON.stringify(item.body) : undefined),
  })
}

async function arrived(item: Item, answer: Visit | null) {
  const work = hand.store!.transaction(['outbox'], 'readwrite')
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
  const now = (await hand.store!.get('outbox', item.seq!)) ?? item
  const merged = fate === 'asks' && problem ? together(now, problem) : null
  const told = problem ?? {
    ...NEEDS_SIGNAL,
    title: say('outbox.notTaken'),
    detail: say('outbox.didNotSayWhy'),
  }
  await hand.store!.put('outbox', merged ?? { ...now, state: fate, problem: told })
}

/** Sends it once more as it is; on the version that the server has now where somebody else came first. */
export async function keepMine(item: Item) {
  await hand.store?.put('outbox', onVersion(item, item.problem))
  await changed()
  await send()
}

/** Gives it up, with what hangs on it. */
export async function giveUp(item: Item) {
  if (!hand.store) return
  const after = outbox.value.filter(
    (one) => one.visit === item.visit && one.chain === item.chain && one.seq! >= item.seq!,
  )
  for (const one of after) await hand.store.delete('outbox', one.seq!)
  await changed()
  tellPages(item.visit)
  await send()
}

let looking = 0

export function goneAway() {
  away.value = true
  looking ||= window.setInterval(() => void lookAgain(), LOOK_AGAIN_MS)
}

/** Whether there is signal again; then what waits is sent. */
export async function lookAgain() {
  const answer = await hand.ways.send(new Request(new URL('/api/session', location.origin))).catch(() => null)
  if (!answer?.ok) return
  away.value = false
  clearInterval(looking)
  looking = 0
  const session = (await answer.json()) as Session
  // Whoever else is signed in by now sends nothing of this person's.
  if (session.viewer?.id === hand.user?.id) await send()
}

if (typeof window !== 'undefined') {
  addEventListener('online', () => void lookAgain())
  addEventListener('offline', () => hand.user && goneAway())
}
