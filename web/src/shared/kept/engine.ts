import { ref, shallowRef } from 'vue'
import { client } from '@/shared/api/http'
import type { InHand } from '@/shared/kept/pocket'
import type { Asked } from '@/shared/kept/question'
import type { Ask, Hold, Start, Told } from '@/shared/kept/engine.worker'

interface Packed {
  engine: string
  pack: string
  ruby: string
  bytes: number
}

const SHELF = 'gorvant.engine'
const NAMES = '/engine/engine.json'
/** Longer nobody waits for an engine that does not come up, or for an answer of it. */
const START_MS = 60_000
const ANSWER_MS = 30_000

/** none: not on this device; resting: there, not started; starting; ready; broke: this device cannot run it. */
export const engineState = ref<'none' | 'resting' | 'starting' | 'ready' | 'broke'>('none')
/** Which engine lies here, and how many bytes it took to fetch. */
export const engineHere = shallowRef<Packed | null>(null)
export const engineTook = shallowRef<{ startMs: number; memoryBytes: number } | null>(null)

let worker: Worker | null = null
let coming: Promise<boolean> | null = null
const waiting = new Map<number, (text: string | null) => void>()
let asked = 0

const shelf = () => caches.open(SHELF)
const canRun = () =>
  typeof Worker !== 'undefined' && typeof WebAssembly !== 'undefined' && 'caches' in globalThis

/** Looks whether an engine lies here. */
export async function lookForEngine() {
  if (!canRun()) return
  const names = await (await shelf()).match(NAMES)
  engineHere.value = names ? ((await names.json()) as Packed) : null
  if (engineState.value === 'none' && engineHere.value) engineState.value = 'resting'
}

/** Fetches the engine that the server has; what lies here already is not fetched again. False where it has none. */
export async function fetchEngine(): Promise<boolean> {
  if (!canRun()) return false
  const names = await fetch(NAMES, { cache: 'no-store' })
  if (!names.ok || !names.headers.get('content-type')?.includes('json')) return false
  const packed = (await names.clone().json()) as Packed
  const here = await shelf()
  const wanted = [packed.pack, packed.ruby].map((file) => `/engine/${file}`)
  for (const file of wanted) if (!(await here.match(file))) await here.add(file)
  await here.put(NAMES, names)
  for (const { url } of await here.keys())
    if (![NAMES, ...wanted].includes(new URL(url).pathname)) await here.delete(url)
  if (engineHere.value?.engine !== packed.engine) rest()
  engineHere.value = packed
  if (engineState.value === 'none' || engineState.value === 'broke') engineState.value = 'resting'
  return true
}

function rest() {
  worker?.terminate()
  worker = null
  inHand = ''
  coming = null
  for (const done of waiting.values()) done(null)
  waiting.clear()
  if (engineState.value !== 'none') engineState.value = 'resting'
}

/** Takes the engine off this device. */
export async function dropEngine() {
  rest()
  await caches.delete(SHELF)
  engineHere.value = null
  engineState.value = 'none'
}

/** Brings the engine up; whether it is. */
export function wakeEngine(): Promise<boolean> {
  // A device that could not bear it is not asked again at each question; fetching it anew tries once more.
  if (engineState.value === 'broke') return Promise.resolve(false)
  return (coming ??= wake().catch(() => broke()))
}

function broke(): boolean {
  rest()
  engineState.value = 'broke'
  return false
}

async function wake(): Promise<boolean> {
  const names = engineHere.value
  if (!names) return false
  engineState.value = 'starting'
  const here = await shelf()
  const [ruby, pack] = await Promise.all(
    [names.ruby, names.pack].map(async (file) => (await here.match(`/engine/${file}`))!.arrayBuffer()),
  )
  worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' })
  return new Promise((done) => {
    const late = setTimeout(() => done(broke()), START_MS)
    worker!.addEventListener('error', () => done(broke()))
    worker!.addEventListener('message', ({ data }: MessageEvent<Told>) => {
      if (data.kind === 'answer') {
        waiting.get(data.id)?.(data.text)
        waiting.delete(data.id)
        return
      }
      clearTimeout(late)
      if (data.kind === 'broke') return done(broke())
      engineTook.value = { startMs: data.ms, memoryBytes: data.bytes }
      engineState.value = 'ready'
      done(true)
    })
    const start: Start = { kind: 'start', ruby: ruby!, pack: pack! }
    worker!.postMessage(start, [ruby!, pack!])
  })
}

/** Which visit the engine has in hand, and how that stood. */
let inHand = ''
function hold({ visit, readings, photos, along }: InHand) {
  const stands = JSON.stringify({ visit, readings, photos })
  const name = `${along.length} ${stands}`
  if (name === inHand) return
  inHand = name
  const held: Hold = { kind: 'hold', text: `${stands.slice(0, -1)},"along":${along}}` }
  worker!.postMessage(held)
}

/** What the engine says to a question of a visit, as the server would; null where it cannot: not here, or another one's visit. */
export async function askEngine(one: Asked, held: InHand): Promise<string | null> {
  const wants = /"engine":"(\w+)"/.exec(held.along.slice(0, 200))?.[1]
  if (!wants || wants !== engineHere.value?.engine || !(await wakeEngine()) || !worker) return null
  const under = one.path.replace(`/api/visits/${held.visit.id}`, '').replace(/^\//, '')
  hold(held)
  const id = ++asked
  const question = { method: one.method, under, body: one.body, units: one.units }
  const ask: Ask = { kind: 'ask', id, text: JSON.stringify(question) }
  return new Promise((done) => {
    const late = setTimeout(() => waiting.delete(id) && done(null), ANSWER_MS)
    waiting.set(id, (text) => (clearTimeout(late), done(text)))
    worker!.postMessage(ask)
  })
}

export const alongOf = (id: string) => client.GET('/api/visits/{id}/along', { params: { path: { id } } })
