import { beforeEach, describe, expect, it, vi } from 'vitest'

/** A server that keeps desks by version, slowly, and can be told that somebody else came first. */
const held: Record<string, { version: number; content: Record<string, unknown> }> = {}
const sent: [string, number, unknown][] = []
const visit = () => ({ id: 'v1', version: 1, desks: JSON.parse(JSON.stringify(held)) })
const pause = () => new Promise((resolve) => setTimeout(resolve, 2))

vi.mock('@/shared/api/client', () => ({
  api: {
    visit: async () => ({ state: 'ready', value: visit() }),
    changeVisit: async () => ({ state: 'ready', value: visit() }),
    keepDesk: async (_id: string, desk: string, version: number, content: Record<string, unknown>) => {
      await pause()
      sent.push([desk, version, content])
      const now = held[desk]!
      if (now.version !== version)
        return { state: 'failed', problem: { type: '', title: 'Stale', status: 409, detail: 'changed' } }
      if ('refused' in content)
        return { state: 'failed', problem: { type: '', title: 'No', status: 422, detail: 'no' } }
      held[desk] = { version: version + 1, content }
      return { state: 'ready', value: visit() }
    },
  },
}))

async function opened() {
  vi.resetModules()
  const { useVisit } = await import('@/shared/ui/useVisit')
  const one = useVisit()
  await one.load('v1')
  return one
}

describe('what a desk holds', () => {
  beforeEach(() => {
    for (const desk of ['wiring', 'thermostat', 'defrost']) held[desk] = { version: 0, content: {} }
    sent.length = 0
  })

  it('takes parts noted at once together, and one noted meanwhile on the version that they made', async () => {
    const { keepDesk, held: shown, saved } = await opened()
    const both = [
      keepDesk('thermostat', { settings: { a: 1 } }),
      keepDesk('thermostat', { bench: { fan: ['G'] } }),
    ]
    expect(shown('thermostat')).toEqual({ settings: { a: 1 }, bench: { fan: ['G'] } })
    await new Promise((resolve) => setTimeout(resolve, 1))
    both.push(keepDesk('thermostat', { labels: { a: '7' } }))
    expect(await Promise.all(both)).toEqual([true, true, true])
    expect(sent.map(([, version]) => version)).toEqual([0, 1])
    expect(saved.value).toBe(true)
    expect(held.thermostat).toEqual({
      version: 2,
      content: { settings: { a: 1 }, bench: { fan: ['G'] }, labels: { a: '7' } },
    })
  })

  it('knows nothing of what another desk holds', async () => {
    const { keepDesk } = await opened()
    held.wiring = { version: 7, content: { landings: [] } }
    expect(await keepDesk('defrost', { seen: [60] })).toBe(true)
    expect(held.defrost!.version).toBe(1)
  })

  it('stays in sight where somebody else came first, and goes on top of theirs when that is wanted', async () => {
    const { keepDesk, keepMine, refused, held: shown } = await opened()
    held.defrost = { version: 4, content: { seen: [30] } }
    expect(await keepDesk('defrost', { seen: [60] })).toBe(false)
    expect([refused.value, shown('defrost')]).toEqual([
      { desk: 'defrost', content: { seen: [60] } },
      { seen: [60] },
    ])
    await keepMine()
    expect([refused.value, held.defrost]).toEqual([null, { version: 5, content: { seen: [60] } }])
  })

  it('that is refused goes, with its reason, and what is kept stands', async () => {
    const { keepDesk, problem, held: shown } = await opened()
    await keepDesk('wiring', { landings: [] })
    expect(await keepDesk('wiring', { refused: true } as never)).toBe(false)
    expect([problem.value?.status, shown('wiring')]).toEqual([422, { landings: [] }])
  })

  it('is never older than what was kept meanwhile, whatever another answer says', async () => {
    const { keepDesk, take, held: shown, visit: now } = await opened()
    const before = now.value!
    await keepDesk('defrost', { seen: [60] })
    take({ ...before, rig_revision: 9 } as never)
    expect([shown('defrost'), (now.value as unknown as { rig_revision: number }).rig_revision]).toEqual([
      { seen: [60] },
      9,
    ])
  })
})
