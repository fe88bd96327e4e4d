import { computed, ref, shallowRef } from 'vue'
import type { Photo, Reading, Visit } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'
import type { Item } from '@/shared/kept/item'
import type { Asked } from '@/shared/kept/question'
import type { KeptVisit, Store } from '@/shared/kept/store'
import { say } from '@/words'

/** What this device has of its user for when there is no signal: kept visits, and what waits to be sent. */

const CHANNEL = 'gorvant.kept'

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
  photos: Photo[]
  along: string
}

/** Answers a question by itself; null where it cannot. At once: only if it is up. */
export type Engine = (question: Asked, inHand: InHand, atOnce: boolean) => Promise<string | null>

export interface Ways {
  send: Send
  engine: Engine
}

/** Whose things lie open here, and how requests go out and are answered without the server. */
export const hand: {
  ways: Ways
  user: { id: string; name: string } | null
  store: Store | null
  opening: Promise<void> | null
} = {
  ways: { send: (request) => fetch(request), engine: () => Promise.resolve(null) },
  user: null,
  store: null,
  opening: null,
}

const sentHandlers = new Set<(visit: string) => void>()

const others = 'BroadcastChannel' in globalThis ? new BroadcastChannel(CHANNEL) : null

// A database that was let go has nothing to look at.
others?.addEventListener('message', () => void look().catch(() => undefined))

/** How requests go out, and who answers without the server. */
export const wire = (given: Partial<Ways>) => (hand.ways = { ...hand.ways, ...given })

/** Tells when things of a visit have arrived, or are known better, until the returned function is called. */
export function onSent(handler: (visit: string) => void) {
  sentHandlers.add(handler)
  return () => sentHandlers.delete(handler)
}

/** Has the pages of a visit ask anew. */
export function tellPages(visit: string) {
  for (const handler of sentHandlers) handler(visit)
}

export async function look() {
  if (!hand.store) return
  outbox.value = await hand.store.getAll('outbox')
  // On the icon of the installed application, where there is one.
  void navigator.setAppBadge?.(outbox.value.length).catch(() => undefined)
  keptVisits.value = await hand.store.getAll('visits')
}

export async function changed() {
  await look()
  others?.postMessage('changed')
}

export const isKept = (visit: string | null) => keptVisits.value.some((one) => one.id === visit)

export const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms))

export const NEEDS_SIGNAL: Problem = {
  type: 'urn:gorvant:problem:no_signal',
  title: say('state.noSignal'),
  status: 0,
  detail: say('state.needsSignal'),
}
