import { deleteDB, openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Item } from '@/shared/kept/item'

/** An answer of the server as it was, to be given again without it. */
export interface KeptAnswer {
  key: string
  /** Whose it is; '' for what every visit asks (the catalogue, who is signed in). */
  visit: string
  body: string
  /** How the visit stood, as far as the answer leans on it. */
  stamp: string
  at: number
}
/** A visit that was taken along. */
export interface KeptVisit {
  id: string
  title: string
  at: number
  opened: number
  bytes: number
  /** How many of its questions were answered when it was taken along, of how many. */
  answered: number
  asked: number
  /** Which engine came along with it; '' for none. */
  engine: string
  build: string
}
/** A small picture of a kept visit. */
export interface KeptPicture {
  id: string
  visit: string
  bytes: ArrayBuffer
  type: string
}
interface Shape extends DBSchema {
  answers: { key: string; value: KeptAnswer; indexes: { visit: string } }
  visits: { key: string; value: KeptVisit }
  pictures: { key: string; value: KeptPicture; indexes: { visit: string } }
  outbox: { key: number; value: Item }
}
export type Store = IDBPDatabase<Shape>

const VERSION = 1
const nameOf = (user: string) => `gorvant.kept.${user}`

/** What one person has on this device: a database of their own, so that nobody else's page ever opens it. */
export async function openStore(user: string): Promise<Store> {
  return openDB<Shape>(nameOf(user), VERSION, {
    upgrade(db) {
      db.createObjectStore('answers', { keyPath: 'key' }).createIndex('visit', 'visit')
      db.createObjectStore('visits', { keyPath: 'id' })
      db.createObjectStore('pictures', { keyPath: 'id' }).createIndex('visit', 'visit')
      db.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true })
    },
    // A newer page wants it in another shape: this one lets go.
    blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
  })
}

/** Takes all that a person has on this device away. */
export const wipeStore = (user: string) => deleteDB(nameOf(user))

/** Takes a visit's kept answers and pictures away; what is not sent yet stays. */
export async function dropVisit(store: Store, visit: string) {
  const work = store.transaction(['answers', 'pictures', 'visits'], 'readwrite')
  for (const name of ['answers', 'pictures'] as const) {
    const rows = work.objectStore(name)
    for (const key of await rows.index('visit').getAllKeys(visit)) await rows.delete(key as never)
  }
  await work.objectStore('visits').delete(visit)
  await work.done
}

/** How many bytes a visit takes here. */
export async function bytesOf(store: Store, visit: string): Promise<number> {
  const answers = await store.getAllFromIndex('answers', 'visit', visit)
  const pictures = await store.getAllFromIndex('pictures', 'visit', visit)
  return (
    answers.reduce((sum, one) => sum + one.body.length, 0) +
    pictures.reduce((sum, one) => sum + one.bytes.byteLength, 0)
  )
}
