import type { Session } from '@/shared/api/client'
import { dropVisit, openStore, wipeStore, type Store } from '@/shared/kept/store'
import { canKeep, hand, keptVisits, look, outbox, sessionEnded } from '@/shared/kept/state'
import { stampAnew, stamps } from '@/shared/kept/answers'
import { send } from '@/shared/kept/outbox'

/** Who is at this device: what lies here is theirs alone. */

const WHO = 'gorvant.who'

/** A visit that was taken along longer ago is left behind by itself. */
export const KEPT_DAYS = 14

const DAY_MS = 86_400_000

/** Opens what this person has here. Who it is comes from the server's own word, or, without signal, from its last one. */
export async function openFor(session: Session) {
  const viewer = session.viewer
  if (!canKeep || !viewer) return
  sessionEnded.value = false
  localStorage.setItem(WHO, JSON.stringify(session))
  if (hand.user?.id === viewer.id) return void send()
  close()
  hand.user = { id: viewer.id, name: viewer.name }
  // Where the browser keeps nothing (in a private window), everything goes on as with no visit taken along.
  hand.opening = openStore(viewer.id)
    .then((opened) => layOut(opened, viewer.id))
    .catch(() => undefined)
  await hand.opening
  void send()
}

async function layOut(opened: Store, whose: string) {
  // Somebody else came in while it was being opened.
  if (hand.user?.id !== whose) return opened.close()
  hand.store = opened
  await look()
  for (const { id, at } of keptVisits.value) {
    const waits = outbox.value.some((one) => one.visit === id)
    if (Date.now() - at > KEPT_DAYS * DAY_MS && !waits) await dropVisit(opened, id)
    else await stampAnew(id)
  }
  await look()
}

function close() {
  hand.store?.close()
  hand.store = null
  hand.user = null
  stamps.clear()
  outbox.value = []
  keptVisits.value = []
}

/** Takes everything of this person off this device: kept visits, pictures, drafts, and what was not sent. */
export async function wipe() {
  const gone = hand.user
  close()
  localStorage.removeItem(WHO)
  for (const key of Object.keys(localStorage))
    if (key.startsWith('gorvant.draft.')) localStorage.removeItem(key)
  if (gone) await wipeStore(gone.id)
}

/** Who was signed in here last, where nobody signed out. */
export function lastSession(): Session | null {
  try {
    return JSON.parse(localStorage.getItem(WHO) ?? 'null') as Session | null
  } catch {
    return null
  }
}
