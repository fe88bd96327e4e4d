import type { Catalogue, Reading, Visit } from '@/shared/api/client'
import { allChoices, chosenUnits } from '@/shared/model/units'
import type { Item } from '@/shared/kept/item'
import { readingsNow, visitNow } from '@/shared/kept/overlay'
import { inTwo, leansOn, nameOf, stampOf, type Asked, type LeansOn } from '@/shared/kept/question'
import { bytesOf, dropVisit, type KeptVisit } from '@/shared/kept/store'
import { changed, hand, outbox } from '@/shared/kept/state'

/** Answers of the server as they were, each with a stamp of what it leans on. */

/** How the visits that were taken along stand, by the server's last word. */
export const stamps = new Map<string, Record<LeansOn, string>>()

/** Looks anew how a visit stands. */
export async function stampAnew(id: string) {
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
  whose: hand.user?.id ?? null,
  stands: stamps.get(/[0-9a-f-]{36}/.exec(request.url)?.[0] ?? ''),
})

/** The question for a visit, or for what lies under it. */
export const questionOf = (visit: string, under: string): Asked => ({
  method: 'GET',
  path: `/api/visits/${visit}${under}`,
  query: '',
  units: chosenUnits(),
  body: null,
  visit,
})

export async function keepAnswer(one: Asked, body: string, stood?: Record<LeansOn, string>): Promise<void> {
  const two = inTwo(one)
  if (two) {
    const { scene, ...trace } = JSON.parse(body) as { scene?: unknown }
    if (scene) await keepAnswer(two.drawing, JSON.stringify(scene), stood)
    return keepAnswer(two.trace, JSON.stringify(trace), stood)
  }
  const leans = leansOn(one)
  const stamp = leans === 'nothing' ? '' : stood?.[leans]
  if (stamp === undefined) return
  await hand.store?.put('answers', { key: nameOf(one), visit: one.visit ?? '', body, stamp, at: Date.now() })
  if (one.visit && leans === 'nothing') await stampAnew(one.visit)
}

/** An answer from before as it was, in whichever units it was asked for. */
export async function keptText(method: string, path: string): Promise<string | null> {
  for (const units of [chosenUnits(), ...allChoices()]) {
    const row = await hand.store?.get('answers', `${method} ${path} ${units} `)
    if (row) return row.body
  }
  return null
}

export async function kept<T>(method: string, path: string): Promise<T | null> {
  const text = await keptText(method, path)
  return text === null ? null : (JSON.parse(text) as T)
}

export const visitOf = (id: string) => kept<Visit>('GET', `/api/visits/${id}`)

export const catalogue = () => kept<Catalogue>('GET', '/api/catalogue')

/** An answer from before, as long as what it leans on stands as it did. */
export async function keptAnswer(one: Asked): Promise<string | null> {
  const two = inTwo(one)
  if (two) {
    const [trace, scene] = [await keptAnswer(two.trace), await keptAnswer(two.drawing)]
    return trace && scene && JSON.stringify({ ...JSON.parse(trace), scene: JSON.parse(scene) })
  }
  const row = await hand.store?.get('answers', nameOf(one))
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

export async function readingsHere(id: string, mine: Item[], words: Catalogue | null) {
  const had = await kept<{ readings: Reading[] }>('GET', `/api/visits/${id}/readings`)
  return readingsNow(had?.readings ?? [], mine, hand.user?.name ?? '', words)
}

/** Writes down that a visit is taken along; the answers that come from here on are kept. */
export async function keepVisit(row: KeptVisit) {
  await hand.store?.put('visits', row)
  await changed()
  await stampAnew(row.id)
}

export async function weigh(visit: string) {
  const row = await hand.store?.get('visits', visit)
  if (row && hand.store) await keepVisit({ ...row, bytes: await bytesOf(hand.store, visit) })
}

export async function leaveBehind(visit: string) {
  if (hand.store) await dropVisit(hand.store, visit)
  await changed()
}

export async function keepPicture(visit: string, id: string, picture: Blob) {
  await hand.store?.put('pictures', { id, visit, bytes: await picture.arrayBuffer(), type: picture.type })
}

/** A small picture that this device has, kept or waiting to be sent. */
export async function pictureHere(id: string): Promise<Blob | null> {
  await hand.opening
  const waiting = outbox.value.find((one) => one.chain === `photo.${id}` && one.picture)?.picture
  const row = waiting ?? (await hand.store?.get('pictures', id))
  return row ? new Blob([row.bytes], { type: row.type }) : null
}
