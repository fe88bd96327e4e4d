// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Visit } from '@/shared/api/client'

type Content = Record<string, unknown>
const ZERO = { bench: { a: ['x'] } }
const ONE = { bench: { a: ['x', 'y'] } }
const TWO = { bench: { a: ['x', 'y', 'z'] }, labels: { W2: 'aux' } }

const visit = (content: Content, version: number) =>
  ({
    id: 'v',
    version: 1,
    desks: { thermostat: { version, content, by: null, at: null } },
  }) as unknown as Visit

/** A page as a browser loads it: nothing of the one before is left but what the device keeps. */
async function page(content: Content, version: number) {
  vi.resetModules()
  const { api } = await import('@/shared/api/client')
  const { useVisit } = await import('@/shared/ui/useVisit')
  vi.spyOn(api, 'visit').mockResolvedValue({ state: 'ready', value: visit(content, version) })
  const sent = vi.spyOn(api, 'keepDesk')
  const answered = (answer: unknown) => sent.mockImplementation((() => answer) as never)
  answered(new Promise(() => undefined))
  const { load, keepDesk, held, refused, settled, takeTheirs } = useVisit()
  const begun = () => load('v')
  return { begun, sent, answered, keepDesk, held, refused, settled, takeTheirs }
}
const kept = (content: Content, version: number) =>
  Promise.resolve({ state: 'ready', value: visit(content, version) })

describe('a tap that was on its way when the page was loaded anew', () => {
  beforeEach(async () => {
    localStorage.clear()
    const gone = await page(ZERO, 1)
    await gone.begun()
    void gone.keepDesk('thermostat', ONE)
    void gone.keepDesk('thermostat', TWO)
  })

  const cases: [string, Content, Content | null][] = [
    ['none of it arrived', ZERO, TWO],
    ['the first arrived and the second did not', ONE, TWO],
    ['all of it arrived', { labels: TWO.labels, bench: TWO.bench }, null],
    [
      'another noted something else meanwhile',
      { bench: { a: ['x'], b: ['q'] } },
      { bench: { a: ['x', 'y', 'z'], b: ['q'] }, labels: TWO.labels },
    ],
  ]
  it.each(cases)('%s', async (_when, now, whole) => {
    const anew = await page(now, 2)
    anew.answered(kept(TWO, 3))
    await anew.begun()
    expect(anew.held('thermostat')).toEqual(whole ?? now)
    await anew.settled()
    expect(anew.sent.mock.calls.map((call) => call.slice(2))).toEqual(whole ? [[2, whole]] : [])
    expect(anew.refused.value).toBeNull()
    await vi.waitFor(() => expect(localStorage.length).toBe(0))
  })

  it('stands against what another noted of the same, until one of both is chosen', async () => {
    const now = { bench: { a: ['other'] } }
    for (let round = 0; round < 2; round++) {
      const anew = await page(now, 2)
      await anew.begun()
      expect([anew.held('thermostat'), anew.sent.mock.calls.length]).toEqual([TWO, 0])
      expect(anew.refused.value).toEqual({ desk: 'thermostat', content: TWO })
      if (round) anew.takeTheirs()
    }
    const last = await page(now, 2)
    await last.begun()
    expect([last.held('thermostat'), last.refused.value]).toEqual([now, null])
  })

  it('is not sent again once it was refused for what it says', async () => {
    const anew = await page(ZERO, 1)
    const problem = { type: 'x', title: 'No', status: 422, detail: 'no such label' }
    anew.answered(Promise.resolve({ state: 'failed', problem }))
    await anew.begun()
    await vi.waitFor(() => expect(localStorage.length).toBe(0))
    expect(anew.held('thermostat')).toEqual(ZERO)
  })
})
