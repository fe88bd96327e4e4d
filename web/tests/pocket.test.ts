// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

const VISIT = '0b0e1a52-7a53-4c1b-9d4e-3f7c5a1d2e60'
const HOME = 'http://here'
type Pocket = typeof import('@/shared/kept/pocket')
type Session = Parameters<Pocket['openFor']>[0]
const session = (id: string, name: string) =>
  ({ signed_in: true, viewer: { id, name } }) as unknown as Session
const ANN = session('11111111-1111-4111-8111-111111111111', 'Ann')
const BEN = session('22222222-2222-4222-8222-222222222222', 'Ben')

interface Sent {
  id: string
  taken_at: string
  version: number
  content: Record<string, unknown>
}

/** A server with one visit, which loses requests and answers as it is told to. */
class Server {
  desks: Record<string, { version: number; content: Record<string, unknown> }> = {
    wiring: { version: 0, content: {} },
    defrost: { version: 0, content: {} },
  }
  version = 1
  complaint = ''
  readings: { id: string; taken_at: string }[] = []
  photos: string[] = []
  closings: string[] = []
  who = ANN
  /** How the next request goes: over, lost before it came, or its answer lost. */
  goes: () => 'over' | 'lost' | 'unheard' = () => 'over'
  refuses: (path: string) => number | null = () => null

  visit = () => ({
    id: VISIT,
    version: this.version,
    complaint: this.complaint,
    symptoms: [],
    marks: { wiring: 'agrees', defrost: 'disagrees', find: 'so_far' },
    desks: this.desks,
  })

  send = async (request: Request): Promise<Response> => {
    const way = this.goes()
    if (way === 'lost') throw new TypeError('Failed to fetch')
    const answer = await this.answer(request)
    if (way === 'unheard') throw new TypeError('Failed to fetch')
    return answer
  }

  private json = (value: unknown, status = 200) =>
    new Response(JSON.stringify(value), { status, headers: { 'content-type': 'application/json' } })

  private stale = (current: object, current_version: number) =>
    this.json({ status: 409, title: 'Conflict', detail: 'changed meanwhile', current, current_version }, 409)

  private async answer(request: Request): Promise<Response> {
    const url = new URL(request.url)
    const under = url.pathname.replace(`/api/visits/${VISIT}`, '')
    if (url.pathname === '/api/session') return this.json(this.who)
    const refused = this.refuses(url.pathname)
    if (refused) return this.json({ status: refused, title: 'No', detail: 'not like that' }, refused)
    if (request.method === 'GET' && under === '') return this.json(this.visit())
    if (request.method === 'GET' && under === '/readings') return this.json({ readings: this.readings })
    if (under === '/photos') {
      const id = url.searchParams.get('photo_id')!
      if (!this.photos.includes(id)) this.photos.push(id)
      return this.json({ id }, 201)
    }
    const body = (await request.json()) as Sent
    if (under === '/readings') {
      const known = this.readings.some((one) => one.id === body.id)
      if (!known) this.readings.push(body)
      return this.json(body, known ? 200 : 201)
    }
    if (under === '/closings') return this.json(this.closings.push(body.id) && body, 201)
    const desk = this.desks[under.replace('/desks/', '')]
    if (!desk) return this.json({}, 404)
    const again =
      desk.version === body.version + 1 && JSON.stringify(desk.content) === JSON.stringify(body.content)
    if (!again && desk.version !== body.version) return this.stale(desk.content, desk.version)
    if (!again) Object.assign(desk, { version: desk.version + 1, content: body.content })
    return this.json(this.visit())
  }
}

describe('a visit that was taken along', () => {
  let pocket: Pocket
  let server: Server

  /** The page as it is loaded anew: nothing is remembered but what lies in the browser. */
  async function load(who = ANN) {
    vi.resetModules()
    pocket = await import('@/shared/kept/pocket')
    pocket.wire({ send: (request) => server.send(request) })
    await pocket.openFor(who)
    await pocket.send()
  }
  const row = (id = VISIT) => ({
    id,
    title: 'Ferry house, Attic unit',
    at: Date.now(),
    opened: 0,
    bytes: 0,
    answered: 1,
    asked: 1,
    engine: '',
    build: '',
  })
  async function take() {
    await pocket.keepVisit(row())
    for (const under of ['', '/readings']) {
      const request = new Request(`${HOME}/api/visits/${VISIT}${under}`)
      await pocket.heard(request, await server.send(request.clone()), pocket.askingNow(request))
    }
  }
  /** As a page asks: with the server away it is answered here. */
  async function ask(method: string, under: string, body?: unknown) {
    const picture = body instanceof ArrayBuffer
    const request = new Request(`${HOME}/api/visits/${VISIT}${under}`, {
      method,
      headers: body ? { 'content-type': picture ? 'image/jpeg' : 'application/json' } : {},
      body: picture ? body : body ? JSON.stringify(body) : undefined,
    })
    const answer = (await pocket.first(request)) ?? (await pocket.without(request))
    return { status: answer?.status, body: (await answer?.json()) as Record<string, never> }
  }
  const keep = (desk: string, version: number, content: object) =>
    ask('PUT', `/desks/${desk}`, { version, content })
  const read = (id: string, value: number) =>
    ask('POST', '/readings', {
      id,
      value,
      function: 'volts_ac',
      taken_at: `2026-11-28T10:${id.padStart(2, '0')}:00Z`,
      condition: { call: 'heat' },
    })

  beforeEach(async () => {
    vi.stubGlobal('indexedDB', new IDBFactory())
    vi.stubGlobal('isSecureContext', true)
    vi.stubGlobal('location', new URL(HOME))
    localStorage.clear()
    server = new Server()
    await load()
    await take()
  })
  afterEach(() => vi.unstubAllGlobals())

  it.each([1, 2, 3, 4, 5, 6])(
    'arrives whole, in order and once, whatever is lost on the way (%i)',
    async (seed) => {
      let state = seed * 7919
      const random = () => (state = (state * 48271) % 2147483647) / 2147483647
      server.goes = () => 'lost'
      for (let i = 0; i < 30; i++) {
        expect((await read(String(i), 20 + i)).status).toBe(201)
        if (i === 9 || i === 19) await load() // the page is loaded anew, the browser was killed
        if (i % 3 === 0) {
          const { body } = await ask('GET', '')
          const { version, content } = (body as unknown as ReturnType<Server['visit']>).desks.wiring!
          const landings = [...((content.landings as number[] | undefined) ?? []), i]
          expect((await keep('wiring', version, { landings })).status).toBe(200)
        }
      }
      for (const mark of [1, 2, 3]) {
        const { body } = await ask('GET', '')
        await keep('defrost', (body as unknown as ReturnType<Server['visit']>).desks.defrost!.version, {
          marks: mark,
        })
      }
      for (const id of ['p1', 'p2']) await ask('POST', `/photos?photo_id=${id}&of=splice`, new ArrayBuffer(8))
      expect(pocket.notSent.value).toBe(30 + 1 + 1 + 2) // what was never sent takes later changes of its desk in

      server.goes = () => (random() < 0.35 ? 'lost' : random() < 0.35 ? 'unheard' : 'over')
      for (let i = 0; i < 400 && pocket.notSent.value; i++) {
        await pocket.send()
        if (random() < 0.2) await load()
      }
      expect(pocket.outbox.value).toEqual([])
      expect(server.readings.map((one) => one.id)).toEqual(Array.from({ length: 30 }, (_one, i) => String(i)))
      expect(server.readings[7]!.taken_at).toBe('2026-11-28T10:07:00Z')
      expect(server.desks.wiring!.content).toEqual({ landings: [0, 3, 6, 9, 12, 15, 18, 21, 24, 27] })
      expect(server.desks.defrost!.content).toEqual({ marks: 3 })
      expect(server.photos).toEqual(['p1', 'p2'])
    },
  )

  it('goes on with the rest where one of them meets another change, and that one asks', async () => {
    server.goes = () => 'lost'
    await keep('wiring', 0, { landings: ['mine'] })
    await read('1', 24)
    await keep('defrost', 0, { marks: 1 })
    server.goes = () => 'over'
    server.desks.wiring = { version: 1, content: { landings: ['theirs'] } }
    await pocket.send()
    expect(server.readings.map((one) => one.id)).toEqual(['1'])
    expect(server.desks.defrost!.content).toEqual({ marks: 1 })
    expect(pocket.outbox.value.map((one) => [one.chain, one.state])).toEqual([['desk.wiring', 'asks']])
    expect(server.desks.wiring.content).toEqual({ landings: ['theirs'] })

    await pocket.keepMine(pocket.outbox.value[0]!)
    expect(server.desks.wiring.content).toEqual({ landings: ['mine'] })
    expect(pocket.outbox.value).toEqual([])
  })

  it('is put together by itself where the other change touches another thing', async () => {
    server.goes = () => 'lost'
    await keep('wiring', 0, { mine: 1 })
    server.desks.wiring = { version: 1, content: { theirs: 2 } }
    server.goes = () => 'over'
    await pocket.send()
    expect(server.desks.wiring.content).toEqual({ mine: 1, theirs: 2 })
  })

  it('meets no change of its own: one whose answer was lost before anybody knew is not taken for another person', async () => {
    server.goes = () => 'unheard'
    const request = new Request(`${HOME}/api/visits/${VISIT}/desks/wiring`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ version: 0, content: { landings: [1] } }),
    })
    await server.send(request.clone()).catch(() => undefined) // it came, and nobody heard
    await pocket.without(request)
    await keep('wiring', 1, { landings: [1, 2] })
    server.goes = () => 'over'
    await pocket.send()
    expect([server.desks.wiring, pocket.outbox.value]).toEqual([
      { version: 2, content: { landings: [1, 2] } },
      [],
    ])
  })

  it('loses no change that is made, here or in another tab, while the one before sets out', async () => {
    server.goes = () => 'lost'
    await keep('wiring', 0, { landings: [1] })
    const { hand } = await import('@/shared/kept/state')
    const real = hand.store!
    let once = true
    // Just after what waits was looked at, and before it is sent.
    const getAll = async (table: 'visits' | 'outbox') => {
      const [row] = await real.getAll('outbox')
      if (table === 'visits' && once && row)
        await real.put('outbox', { ...row, body: { version: 0, content: { landings: [1, 2] } } })
      if (table === 'visits') once = false
      return real.getAll(table)
    }
    const rest = {
      put: real.put.bind(real),
      get: real.get.bind(real),
      transaction: real.transaction.bind(real),
    }
    hand.store = { ...rest, getAll } as unknown as typeof real
    server.goes = () => 'over'
    await pocket.send()
    hand.store = real
    await pocket.send()
    expect([server.desks.wiring!.content, pocket.outbox.value]).toEqual([{ landings: [1, 2] }, []])
  })

  it('keeps what was refused, with why, until somebody mends it or gives it up', async () => {
    server.goes = () => 'lost'
    await read('1', 24)
    await read('2', 25)
    await ask('POST', '/closings', { id: 'c', after: 0 })
    server.goes = () => 'over'
    server.refuses = (path) => (path.endsWith('/readings') && !server.readings.length ? 422 : null)
    await pocket.send()
    expect(pocket.outbox.value.map((one) => one.state)).toEqual(['refused', 'refused', 'waits'])
    expect(pocket.outbox.value[0]!.problem?.detail).toBe('not like that')
    expect(server.closings).toEqual([]) // nothing is closed before all of it is there
    server.refuses = () => null
    await pocket.keepMine(pocket.outbox.value[0]!)
    expect(server.readings.map((one) => one.id)).toEqual(['1'])
    await pocket.giveUp(pocket.outbox.value[0]!)
    expect([server.readings.length, server.closings, pocket.notSent.value]).toEqual([1, ['c'], 0])
  })

  it('waits for its own person where the session ended, and sends nothing under another name', async () => {
    server.goes = () => 'lost'
    await read('1', 24)
    server.goes = () => 'over'
    server.refuses = () => 401
    await pocket.send()
    expect(pocket.outbox.value.map((one) => one.state)).toEqual(['waits'])
    expect(pocket.sessionEnded.value).toBe(true) // the door is shown over the page
    server.refuses = () => null
    await load(BEN)
    server.who = BEN
    await pocket.lookAgain()
    expect(server.readings).toEqual([])
    expect(pocket.notSent.value).toBe(0) // another's things are not shown either
    await load(ANN)
    expect(server.readings.map((one) => one.id)).toEqual(['1'])
  })

  it('shows nobody else what one person took along, and nothing after they signed out', async () => {
    pocket.away.value = true
    expect((await ask('GET', '')).body.id).toBe(VISIT)
    await load(BEN)
    pocket.away.value = true
    expect((await ask('GET', '')).status).toBe(503)
    expect(pocket.keptVisits.value).toEqual([])
    await load(ANN)
    localStorage.setItem('gorvant.draft.note', 'x')
    await pocket.wipe()
    await load(ANN)
    pocket.away.value = true
    expect([(await ask('GET', '')).status, localStorage.getItem('gorvant.draft.note')]).toEqual([503, null])
  })

  it('gives an answer of before only while what it leans on stands as it did', async () => {
    const question = () =>
      new Request(`${HOME}/api/visits/${VISIT}/wiring`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: '{}',
      })
    const answer = new Response('{"standing":"all right"}', {
      headers: { 'content-type': 'application/json' },
    })
    await pocket.heard(question(), answer, pocket.askingNow(question()))
    pocket.away.value = true
    expect((await pocket.first(question()))!.status).toBe(200)
    server.goes = () => 'lost'
    await keep('wiring', 0, { landings: ['moved'] })
    // What was all right before the landing was moved may not be any more.
    expect((await pocket.first(question()))!.status).toBe(503)
  })

  it('says of marks that lean on what was changed here that nobody has looked, but lets what is wrong stand', async () => {
    server.goes = () => 'lost'
    await keep('wiring', 0, { landings: [] })
    expect((await ask('GET', '')).body.marks).toEqual({
      wiring: 'untouched',
      defrost: 'disagrees',
      find: 'untouched',
    })
  })

  it('sends what waits as soon as its person has signed in again on the same page', async () => {
    server.goes = () => 'lost'
    await read('1', 24)
    server.goes = () => 'over'
    server.refuses = () => 401
    await pocket.send()
    server.refuses = () => null
    await pocket.openFor(ANN)
    await vi.waitFor(() => expect(server.readings.map((one) => one.id)).toEqual(['1']))
    expect(pocket.sessionEnded.value).toBe(false)
  })

  it('shows on the day sheet that nobody has looked, where something of a visit waits', async () => {
    const list = () => new Request(`${HOME}/api/visits`)
    const rows = { visits: [server.visit(), { ...server.visit(), id: 'another' }] }
    await pocket.heard(
      list(),
      new Response(JSON.stringify(rows), { headers: { 'content-type': 'application/json' } }),
      pocket.askingNow(list()),
    )
    server.goes = () => 'lost'
    await keep('wiring', 0, { landings: [1] })
    const { visits } = (await (await pocket.first(list()))!.json()) as typeof rows
    expect(visits.map((one) => one.marks.wiring)).toEqual(['untouched', 'agrees'])
  })

  it('keeps nothing for one person that another had asked for', async () => {
    const request = new Request(`${HOME}/api/visits/${VISIT}`)
    const asking = pocket.askingNow(request)
    const late = await server.send(request.clone())
    await pocket.openFor(BEN)
    await pocket.keepVisit(row())
    await pocket.heard(request, late, asking)
    pocket.away.value = true
    expect((await ask('GET', '')).status).toBe(503)
  })

  it('is in nobody’s way where the browser keeps nothing, or has no room left', async () => {
    const full = new DOMException('full', 'QuotaExceededError')
    vi.stubGlobal('indexedDB', {
      open() {
        throw full
      },
    })
    await load()
    expect(await pocket.first(new Request(`${HOME}/api/visits/${VISIT}`))).toBeNull()
    expect([pocket.keptVisits.value, pocket.outbox.value]).toEqual([[], []])
  })

  it('opens for the last who came in, however long it takes for the one before', async () => {
    vi.resetModules()
    vi.doMock('@/shared/kept/store', async (original) => {
      const real = await original<typeof import('@/shared/kept/store')>()
      const openStore = async (user: string) => {
        const store = await real.openStore(user)
        if (user === ANN.viewer?.id) await new Promise((done) => setTimeout(done, 60))
        return store
      }
      return { ...real, openStore }
    })
    pocket = await import('@/shared/kept/pocket')
    await Promise.all([pocket.openFor(ANN), pocket.openFor(BEN)])
    vi.doUnmock('@/shared/kept/store')
    await pocket.keepVisit({ ...row(), id: 'of Ben' })
    expect(pocket.keptVisits.value.map((one) => one.id)).toEqual(['of Ben'])
  })

  it('says that it needs signal where nothing here can answer, and leaves a visit that was not taken to the server', async () => {
    pocket.away.value = true
    expect((await ask('POST', '/planner', {})).body).toMatchObject({ type: 'urn:gorvant:problem:no_signal' })
    const other = new Request(`${HOME}/api/visits/${VISIT.replace('0', '9')}/readings`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{}',
    })
    expect(await pocket.first(other)).toBeNull()
    expect(pocket.notSent.value).toBe(0)
  })

  it('leaves behind by itself what was taken long ago, unless something of it waits', async () => {
    await pocket.keepVisit({ ...row(), at: Date.now() - (pocket.KEPT_DAYS + 1) * 86_400_000 })
    server.goes = () => 'lost'
    await read('1', 24)
    await load()
    expect(pocket.keptVisits.value).toHaveLength(1)
    server.goes = () => 'over'
    await pocket.send()
    await load()
    expect(pocket.keptVisits.value).toEqual([])
  })
})
