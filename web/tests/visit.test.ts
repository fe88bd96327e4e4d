import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type Visit } from '@/shared/api/client'
import { useVisit } from '@/shared/ui/useVisit'

const desks = (wiring: number, thermostat = 0) => ({
  wiring: { version: wiring, content: { landings: [{ n: wiring }] }, by: null, at: null },
  thermostat: { version: thermostat, content: {}, by: null, at: null },
  defrost: { version: 0, content: {}, by: null, at: null },
})
const visit = (wiring: number, thermostat = 0) =>
  ({ id: 'v', version: 1, desks: desks(wiring, thermostat) }) as unknown as Visit
const ready = (value: Visit) => Promise.resolve({ state: 'ready' as const, value })

describe('a visit that others change too', () => {
  beforeEach(async () => {
    vi.restoreAllMocks()
    const { load } = useVisit()
    vi.spyOn(api, 'visit').mockReturnValueOnce(ready({ ...visit(0), id: 'other' }))
    await load('other')
    vi.spyOn(api, 'visit').mockReturnValueOnce(ready(visit(1)))
    await load('v')
  })

  it('says which desk is newer than what a page shows, and no other', async () => {
    const { renew, newer, visit: held } = useVisit()
    vi.spyOn(api, 'visit').mockReturnValueOnce(ready(visit(2)))
    await renew('v')
    expect(newer.value).toEqual({ wiring: 2 })
    expect(held.value?.desks?.wiring.version).toBe(2)
    vi.spyOn(api, 'visit').mockReturnValueOnce(ready(visit(2, 1)))
    await renew('v')
    expect(newer.value).toEqual({ wiring: 2, thermostat: 1 })
  })

  it('says nothing of what this page kept itself', async () => {
    const { renew, newer, keepDesk } = useVisit()
    vi.spyOn(api, 'keepDesk').mockReturnValueOnce(ready(visit(2)))
    await keepDesk('wiring', { landings: [] })
    vi.spyOn(api, 'visit').mockReturnValueOnce(ready(visit(2)))
    await renew('v')
    expect(newer.value).toEqual({})
  })

  it('leaves alone a desk whose own change stands against another: the conflict is told there', async () => {
    const { renew, newer, keepDesk, held, refused } = useVisit()
    const problem = { type: 'x', title: 'Conflict', status: 409, detail: 'changed meanwhile' }
    vi.spyOn(api, 'keepDesk').mockReturnValueOnce(Promise.resolve({ state: 'failed', problem }))
    await keepDesk('wiring', { landings: [] })
    vi.spyOn(api, 'visit').mockReturnValueOnce(ready(visit(2)))
    await renew('v')
    expect(newer.value).toEqual({})
    expect(held('wiring')).toEqual({ landings: [] })
    expect(refused.value).not.toBeNull()
  })

  it('puts together what two kept of one desk where they do not touch, and shows both', async () => {
    const { newer, keepDesk, held, refused } = useVisit()
    const theirs = { landings: [{ n: 1 }], jumpers: [{ theirs: true }] }
    const problem = {
      type: 'x',
      title: 'Conflict',
      status: 409,
      detail: '',
      current_version: 2,
      current: theirs,
    }
    const mine = { landings: [{ n: 1 }, { n: 2 }] } as never
    const whole = { ...theirs, landings: [{ n: 1 }, { n: 2 }] }
    const kept = vi
      .spyOn(api, 'keepDesk')
      .mockReturnValueOnce(Promise.resolve({ state: 'failed', problem: problem as never }))
      .mockImplementationOnce(((_id: string, _desk: string, version: number, content: never) => {
        const now = visit(version + 1)
        return ready({ ...now, desks: { ...now.desks!, wiring: { ...now.desks!.wiring, content } } })
      }) as never)
    expect(await keepDesk('wiring', mine)).toBe(true)
    expect(kept.mock.calls[1]!.slice(2)).toEqual([2, whole])
    expect([held('wiring'), newer.value, refused.value]).toEqual([whole, { wiring: 3 }, null])
  })

  it('takes no answer of a visit that was left meanwhile', async () => {
    const { renew, visit: held } = useVisit()
    vi.spyOn(api, 'visit').mockReturnValueOnce(ready({ ...visit(9), id: 'elsewhere' }))
    await renew('elsewhere')
    expect(held.value?.id).toBe('v')
  })
})
