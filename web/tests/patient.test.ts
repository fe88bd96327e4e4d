import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { csrf, patientFetch, waiting } from '@/shared/api/patient'

const answer = (status: number, headers: Record<string, string> = {}) =>
  new Response(JSON.stringify({ status }), { status, headers })
const away = () => answer(503, { 'retry-after': '2' })

describe('a request that has patience', () => {
  const asked = vi.fn<(request: Request) => Promise<Response>>()
  const ask = (signal?: AbortSignal) =>
    patientFetch(new Request('http://here/api/visits', { method: 'POST', body: '{"id":1}', signal }))
  beforeEach(() => {
    vi.useFakeTimers()
    asked.mockReset()
    vi.stubGlobal('fetch', asked)
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })

  it.each([200, 201, 404, 409, 422, 500, 503])('hands on a %i at once, and asks once', async (status) => {
    asked.mockResolvedValue(answer(status))
    expect((await ask()).status).toBe(status)
    expect(asked).toHaveBeenCalledTimes(1)
    expect(waiting.value).toBe(0)
  })

  it('says for whom it asks, and sees that somebody else has signed in by now', async () => {
    const { person, somebodyElse } = await import('@/shared/api/patient')
    person.id = 'ann'
    const whose: (string | null)[] = []
    const refusal = (type: string) => new Response(JSON.stringify({ type }), { status: 403 })
    for (const [type, told] of [
      ['urn:gorvant:problem:not_allowed', false],
      ['urn:gorvant:problem:somebody_else', true],
    ] as const) {
      asked.mockImplementation(
        async (request) => (whose.push(request.headers.get('x-person')), refusal(type)),
      )
      const answer = await ask()
      expect([answer.status, await answer.json(), somebodyElse.value]).toEqual([403, { type }, told])
    }
    expect(whose).toEqual(['ann', 'ann'])
    person.id = ''
  })

  it('notices that the server was renewed under it, and once only for good', async () => {
    const { renewed } = await import('@/shared/api/patient')
    for (const [build, told] of [
      [null, false],
      ['a', false],
      ['a', false],
      ['b', true],
      ['a', true],
    ] as const) {
      asked.mockResolvedValue(answer(200, build ? { 'x-gorvant-build': build } : {}))
      await ask()
      expect(renewed.value).toBe(told)
    }
  })

  it('asks again with the same body after the time that the server said, and tells that it waits', async () => {
    const bodies: string[] = []
    asked.mockImplementation(async (request) => {
      bodies.push(await request.text())
      return bodies.length < 3 ? away() : answer(201)
    })
    const asking = ask()
    await vi.advanceTimersByTimeAsync(1900)
    expect([bodies.length, waiting.value]).toEqual([1, 1])
    await vi.advanceTimersByTimeAsync(200)
    expect(bodies.length).toBe(2)
    await vi.advanceTimersByTimeAsync(2000)
    expect((await asking).status).toBe(201)
    expect(bodies).toEqual(['{"id":1}', '{"id":1}', '{"id":1}'])
    expect(waiting.value).toBe(0)
  })

  it('asks again, ever later, where nobody answers; and gives the failure up after six', async () => {
    asked.mockRejectedValue(new TypeError('no network'))
    const asking = ask().catch((problem: unknown) => problem)
    await vi.advanceTimersByTimeAsync(14_900)
    expect([asked.mock.calls.length, waiting.value]).toEqual([5, 1])
    await vi.advanceTimersByTimeAsync(200)
    expect(await asking).toBeInstanceOf(TypeError)
    expect([asked.mock.calls.length, waiting.value]).toEqual([6, 0])
  })

  it('counts every request that waits, and lets go of one that is not wanted any more', async () => {
    asked.mockImplementation(async () => away())
    const leaving = new AbortController()
    const both = [ask(leaving.signal), ask()]
    await vi.advanceTimersByTimeAsync(100)
    expect(waiting.value).toBe(2)
    leaving.abort()
    await expect(both[0]).rejects.toThrow('aborted')
    expect(waiting.value).toBe(1)
    asked.mockImplementation(async () => answer(200))
    await vi.advanceTimersByTimeAsync(2000)
    expect((await both[1]!).status).toBe(200)
    expect(waiting.value).toBe(0)
  })

  describe('and the token of its session', () => {
    const sent: (string | null)[] = []
    const told = (status: number, token?: string) => answer(status, token ? { 'x-csrf-token': token } : {})
    beforeEach(() => {
      sent.length = 0
      csrf.token = ''
    })
    const answers = (...given: Response[]) =>
      asked.mockImplementation(async (request) => {
        sent.push(request.headers.get('x-csrf-token'))
        return given[sent.length - 1]!
      })

    it('says with a write what the last answer told, and nothing with what only reads', async () => {
      answers(told(200, 'one'), told(201), told(200))
      await ask()
      await ask()
      await patientFetch(new Request('http://here/api/visits'))
      expect(sent).toEqual([null, 'one', null])
    })

    it('sends the same again where the session is another by now, once', async () => {
      answers(told(403, 'two'), told(201))
      expect((await ask()).status).toBe(201)
      answers(told(403), told(403, 'three'), told(403, 'four'))
      sent.length = 0
      expect((await ask()).status).toBe(403)
      expect(sent).toEqual(['two'])
      expect((await ask()).status).toBe(403)
      expect(sent).toEqual(['two', 'two', 'three'])
    })
  })

  it.each([
    ['/api/visits/1/wiring', '1', 2],
    ['/api/visits/1/wiring', '50', 1], // nobody waits a minute without a word
    ['/api/session', '1', 1], // each try counts: a person's to make
    ['/api/invitations/acceptance', '1', 1],
  ])('too often: %s, to be asked again in %s s, is asked %i times', async (path, seconds, times) => {
    asked.mockResolvedValueOnce(answer(429, { 'retry-after': seconds })).mockResolvedValue(answer(200))
    const asking = patientFetch(new Request(`http://here${path}`, { method: 'POST' }))
    await vi.advanceTimersByTimeAsync(5000)
    expect((await asking).status).toBe(times === 2 ? 200 : 429)
    expect(asked).toHaveBeenCalledTimes(times)
  })
})
