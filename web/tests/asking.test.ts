import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref, type EffectScope, type Ref } from 'vue'
import { answers, useQuestion } from '@/shared/api/useQuestion'
import { actionFor, KEYS } from '@/shared/model/keys'
import type { Outcome } from '@/shared/model/outcome'
import { chooseUnit, degreeSign } from '@/shared/model/units'
import { MEANS, PAGES, SIGNS } from '@/shared/model/visitPages'

const ready = <T>(value: T): Outcome<T> => ({ state: 'ready', value })
const failed = { state: 'failed', problem: { type: '', title: 'No', status: 500, detail: 'no' } } as const
const settle = () => new Promise((resolve) => setTimeout(resolve, 5))

/** Asks as a page would, within a scope of its own. */
function asking<Question, Answer>(...how: Parameters<typeof useQuestion<Question, Answer>>) {
  const scope = effectScope()
  scopes.push(scope)
  return scope.run(() => useQuestion(...how))!
}
const scopes: EffectScope[] = []
afterEach(() => {
  while (scopes.length) scopes.pop()!.stop()
  answers.clear()
})

describe('a question that is kept', () => {
  it('is asked once, however often it comes back, and its neighbors are asked ahead', async () => {
    const asked: number[] = []
    const question: Ref<number | null> = ref(1)
    const ask = async (one: number) => (asked.push(one), ready(one * 10))
    const { outcome } = asking('tens', question, ask, { ahead: [2] })
    await settle()
    expect([asked, outcome.value]).toEqual([[1, 2], ready(10)])
    question.value = 2
    await settle()
    question.value = 1
    await settle()
    expect([asked, outcome.value]).toEqual([[1, 2], ready(10)])
  })

  it('that failed is asked again, and one that nobody asks any more does not answer late', async () => {
    const late = new Map<number, (answer: Outcome<string>) => void>()
    const question = ref(1)
    let asked = 0
    const { outcome, value, again } = asking('late', question, (one: number) => {
      asked++
      return new Promise<Outcome<string>>((resolve) => late.set(one, resolve))
    })
    await settle()
    question.value = 2
    await settle()
    late.get(2)?.(ready('two'))
    late.get(1)?.(ready('one, late'))
    await settle()
    expect(outcome.value).toEqual(ready('two'))
    question.value = 3
    await settle()
    expect(outcome.value).toEqual(ready('two'))
    late.get(3)?.(failed)
    await settle()
    expect([outcome.value.state, value.value]).toEqual(['failed', null])
    question.value = 2
    await settle()
    question.value = 3
    await settle()
    expect(asked).toBe(4)
    late.get(3)?.(ready('three'))
    await settle()
    void again()
    await settle()
    expect(asked).toBe(5)
  })

  it.each([
    ['one_by_one', true],
    ['busy', true],
    ['too_often', false],
  ])('that is refused as %s is asked again by itself, beside the answer before: %s', async (code, again) => {
    vi.useFakeTimers()
    const problem = { type: `urn:gorvant:problem:${code}`, title: 'Wait', status: 429, detail: 'later' }
    const question = ref(1)
    let refusals = 30
    const ask = async (one: number) =>
      one === 2 && refusals-- > 0 ? ({ state: 'failed', problem } as const) : ready(one)
    const { value, problem: told } = asking(code, question, ask)
    await vi.advanceTimersByTimeAsync(10)
    question.value = 2
    await vi.advanceTimersByTimeAsync(20_000)
    expect([value.value, told.value]).toEqual(again ? [1, null] : [null, problem])
    await vi.advanceTimersByTimeAsync(20_000)
    expect(value.value).toBe(again ? 2 : null)
    vi.useRealTimers()
  })

  it('shows no other answer meanwhile where none may stand in', async () => {
    const late = new Map<number, (answer: Outcome<string>) => void>()
    const question = ref(1)
    const ask = (one: number) => new Promise<Outcome<string>>((resolve) => late.set(one, resolve))
    const { value } = asking('alone', question, ask, { stays: false })
    await settle()
    late.get(1)?.(ready('one'))
    await settle()
    question.value = 2
    await settle()
    expect(value.value).toBeNull()
    late.get(2)?.(ready('two'))
    await settle()
    expect(value.value).toBe('two')
  })

  it('that is none is not asked', async () => {
    const ask = vi.fn(async () => ready(1))
    asking('none', ref(null), ask)
    await settle()
    expect(ask).not.toHaveBeenCalled()
  })

  it('in another unit of temperature is another question', async () => {
    const ask = vi.fn(async () => ready(degreeSign()))
    const { value } = asking('units', true, ask)
    await settle()
    chooseUnit('temperature', '°C')
    await settle()
    chooseUnit('temperature', '°F')
    await settle()
    expect([ask.mock.calls.length, value.value]).toEqual([2, '°F'])
  })

  it('of a row is asked by every page that opens anew', async () => {
    const ask = vi.fn(async () => ready(1))
    asking('rows', true, ask, { follows: false })
    await settle()
    scopes.pop()!.stop()
    asking('rows', true, ask, { follows: false })
    await settle()
    expect(ask).toHaveBeenCalledTimes(2)
  })
})

describe('the server’s answers', () => {
  const sent: Request[] = []
  const answer = (status: number, body: unknown) => {
    vi.stubGlobal('location', { href: 'http://here/', origin: 'http://here' })
    vi.stubGlobal('fetch', async (request: Request) => {
      sent.push(request)
      if (status === 0) throw new TypeError('no network')
      return new Response(typeof body === 'string' ? body : JSON.stringify(body), {
        status,
        headers: { 'content-type': status < 400 ? 'application/json' : 'application/problem+json' },
      })
    })
  }
  const ask = async () => {
    vi.resetModules()
    const RealRequest = globalThis.Request
    vi.stubGlobal(
      'Request',
      class extends RealRequest {
        constructor(input: RequestInfo | URL, init?: RequestInit) {
          super(typeof input === 'string' ? new URL(input, 'http://here/') : input, init)
        }
      },
    )
    const { api } = await import('@/shared/api/client')
    return api.visits()
  }
  beforeEach(() => void (sent.length = 0))
  afterEach(() => vi.unstubAllGlobals())

  it('come as values, as the problem they are, or as none at all, and never as an exception', async () => {
    answer(200, { visits: [] })
    expect(await ask()).toEqual(ready({ visits: [] }))
    vi.unstubAllGlobals()
    answer(422, { type: 'x', title: 'Not acceptable', status: 422, detail: 'the site is missing' })
    expect(await ask()).toMatchObject({ state: 'failed', problem: { detail: 'the site is missing' } })
    vi.unstubAllGlobals()
    answer(502, '<html>')
    expect(await ask()).toMatchObject({ state: 'failed' })
    vi.unstubAllGlobals()
    answer(0, '')
    vi.stubGlobal('setTimeout', (then: () => void) => queueMicrotask(then))
    expect(await ask()).toMatchObject({ state: 'failed', problem: { status: 0, title: 'No answer' } })
  })

  it('are asked in °C only where that was chosen', async () => {
    answer(200, { visits: [] })
    await ask()
    expect(sent[0]?.headers.get('X-Units')).toBeNull()
    const { chooseUnit: choose } = await import('@/shared/model/units')
    choose('temperature', '°C')
    const { api } = await import('@/shared/api/client')
    await api.visits()
    expect(sent[1]?.headers.get('X-Units')).toBe('C')
    choose('temperature', '°F')
  })
})

describe('keys', () => {
  const press = (key: string, more: Partial<KeyboardEvent> = {}) =>
    actionFor({ key, target: null, ctrlKey: false, metaKey: false, altKey: false, ...more } as KeyboardEvent)

  it('each do one thing, and no two the same', () => {
    expect(new Set(KEYS.map((one) => one.key)).size).toBe(KEYS.length)
    for (const one of KEYS) expect(press(one.key)).toBe(one.action)
    expect(press('q')).toBeNull()
  })

  it('belong to who is typing, and to the browser with a modifier', () => {
    for (const tagName of ['INPUT', 'TEXTAREA', 'SELECT'])
      expect(press('m', { target: { tagName } as unknown as EventTarget })).toBeNull()
    expect(
      press('m', { target: { tagName: 'DIV', isContentEditable: true } as unknown as EventTarget }),
    ).toBeNull()
    const radio = { tagName: 'INPUT', type: 'radio' } as unknown as EventTarget
    expect([press('m', { target: radio }), press('ArrowRight', { target: radio })]).toEqual(['measure', null])
    expect(press('ArrowRight', { defaultPrevented: true })).toBeNull()
    const tab = { tagName: 'DIV', closest: () => ({}) } as unknown as EventTarget
    expect([press('ArrowRight', { target: tab }), press('m', { target: tab })]).toEqual([null, 'measure'])
    expect(press('m', { ctrlKey: true })).toBeNull()
    expect(press('m', { target: { tagName: 'BUTTON' } as unknown as EventTarget })).toBe('measure')
  })
})

describe('marks', () => {
  it('have each a sign and words of their own, so that none is told by color alone', () => {
    expect(new Set(Object.values(SIGNS)).size).toBe(4)
    expect(new Set(Object.values(MEANS)).size).toBe(4)
    expect(Object.keys(SIGNS)).toEqual(Object.keys(MEANS))
    expect(PAGES.map((page) => page.title).every((title) => /^[A-Z]/.test(title))).toBe(true)
    expect(PAGES).toHaveLength(8)
  })
})
