import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { InHand } from '@/shared/kept/pocket'

const NAMES = { engine: 'e1', pack: 'core-e1.gz', ruby: 'ruby-1.gz', bytes: 9 }
type Said = { kind: string; id?: number }

/** A worker that comes up, or breaks, and answers what it is asked. */
class FakeWorker extends EventTarget {
  static made: FakeWorker[] = []
  static breaks = false
  said: Said[] = []
  constructor() {
    super()
    FakeWorker.made.push(this)
  }
  postMessage(what: Said) {
    this.said.push(what)
    const tell = (data: object) =>
      queueMicrotask(() => this.dispatchEvent(new MessageEvent('message', { data })))
    if (what.kind === 'start')
      tell(FakeWorker.breaks ? { kind: 'broke', says: 'no memory' } : { kind: 'ready', ms: 1, bytes: 2 })
    if (what.kind === 'ask') tell({ kind: 'answer', id: what.id, text: '"here"', ms: 1 })
  }
  terminate() {}
}

describe('the engine on a device', () => {
  let engine: typeof import('@/shared/kept/engine')
  const shelf = new Map<string, Response>()
  const question = {
    method: 'POST',
    path: '/api/visits/v/trace',
    query: '',
    units: '',
    body: {},
    visit: 'v',
  }
  const inHand = (name: string, complaint = ''): InHand =>
    ({
      visit: { id: 'v', complaint },
      readings: [],
      photos: [],
      along: `{"engine":"${name}"}`,
    }) as unknown as InHand
  const ask = (name = 'e1', complaint = '') => engine.askEngine(question, inHand(name, complaint))

  beforeEach(async () => {
    shelf.clear()
    Object.assign(FakeWorker, { made: [], breaks: false })
    const one = {
      match: async (name: string) => shelf.get(name)?.clone(),
      put: async (name: string, what: Response) => void shelf.set(name, what),
      add: async (name: string) => void shelf.set(name, new Response('packed')),
      keys: async () => [],
    }
    vi.stubGlobal('caches', { open: async () => one, delete: async () => shelf.clear() })
    vi.stubGlobal('Worker', FakeWorker)
    const json = { headers: { 'content-type': 'application/json' } }
    vi.stubGlobal('fetch', async () => new Response(JSON.stringify(NAMES), json))
    vi.resetModules()
    engine = await import('@/shared/kept/engine')
  })
  afterEach(() => vi.unstubAllGlobals())

  it('answers a visit that came along with it, which it is handed only when that has changed', async () => {
    await engine.fetchEngine()
    expect([await ask(), await ask(), await ask('e1', 'It hums')]).toEqual(['"here"', '"here"', '"here"'])
    expect(FakeWorker.made.map((one) => one.said.map((what) => what.kind))).toEqual([
      ['start', 'hold', 'ask', 'ask', 'hold', 'ask'],
    ])
  })

  it('answers nothing of a visit that came along from a server with another engine, or with none', async () => {
    await engine.fetchEngine()
    const [other, none] = [
      await ask('e0'),
      await engine.askEngine(question, { ...inHand(''), along: '{"engine":null}' }),
    ]
    expect([other, none, FakeWorker.made]).toEqual([null, null, []])
  })

  it('answers nothing where none lies here', async () => {
    expect([await ask(), engine.engineState.value]).toEqual([null, 'none'])
  })

  it('is tried once where the device cannot bear it, and once more when it is fetched anew', async () => {
    await engine.fetchEngine()
    FakeWorker.breaks = true
    expect([await ask(), await ask(), engine.engineState.value]).toEqual([null, null, 'broke'])
    expect(FakeWorker.made).toHaveLength(1)
    FakeWorker.breaks = false
    await engine.fetchEngine()
    expect([await ask(), engine.engineState.value]).toEqual(['"here"', 'ready'])
  })
})
