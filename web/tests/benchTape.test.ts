// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { ElButton } from 'element-plus'
import { nextTick } from 'vue'
import { describe, expect, it } from 'vitest'
import type { DrillTry, TryEntry, UnitPlaces } from '@/pages/practice/api'
import BenchTape from '@/pages/practice/BenchTape.vue'
import { lanesOf, lengthOf, markOf, probesOf, ticks } from '@/pages/practice/benchTape'

const place = (id: string, title: string) => ({ id, title })
const UNIT = {
  calls: [place('heat', 'Heat'), place('off', 'Off')],
  places: [place('wall', 'wall'), place('outdoor', 'outdoor')],
} as UnitPlaces
const entry = (act: Record<string, unknown>, minutes: number, at: string, more = {}): TryEntry => ({
  act,
  minutes,
  place: at,
  title: String(act.act),
  says: 'seen',
  ...more,
})
const volts = { act: 'volts', from: 'outdoor.C', to: 'outdoor.Y' }
const stop = { code: 'live', says: 'live', caution: 'dead' }
const LOG = [
  entry(volts, 3, 'outdoor'),
  entry({ act: 'call', value: 'off' }, 9, 'wall'),
  entry({ act: 'supply', of: 'outdoor', value: 'off' }, 14, 'outdoor'),
  entry({ act: 'ohms', from: 'outdoor.C', to: 'outdoor.Y' }, 15, 'outdoor', { stopped: stop }),
  entry({ act: 'supply', of: 'outdoor', value: 'on' }, 20, 'outdoor'),
]
const at = (log: TryEntry[], minutes: number, began: string | null = 'heat') =>
  ({ log, standing: { minutes, began } }) as unknown as DrillTry
const lane = (id: string, of = at(LOG, 24)) => lanesOf(of, UNIT).find((one) => one.id === id)?.stretches

describe('the tape of a bench', () => {
  it('has what held from each change to the next, up to now', () => {
    expect(lane('call')).toEqual([
      { from: 0, to: 9, value: 'Heat' },
      { from: 9, to: 24, value: 'Off' },
    ])
    expect(lane('place')).toEqual([
      { from: 0, to: 3, value: 'outdoor' },
      { from: 3, to: 9, value: 'wall' },
      { from: 9, to: 24, value: 'outdoor' },
    ])
    expect(lane('off.outdoor')).toEqual([{ from: 14, to: 20, value: 'off' }])
    expect(lane('off.air_handler')).toBeUndefined()
  })

  it('says nothing of a call that nobody told, and nothing of what was stopped', () => {
    expect(lane('call', at(LOG, 24, null))).toEqual([{ from: 9, to: 24, value: 'Off' }])
    const held = [entry({ act: 'supply', of: 'outdoor', value: 'off' }, 4, 'outdoor', { stopped: stop })]
    expect(lanesOf(at(held, 4), UNIT).map((one) => one.id)).toEqual(['call', 'place'])
    expect(lanesOf(at(held, 4), UNIT)[0]!.stretches).toEqual([{ from: 0, to: 4, value: 'Heat' }])
  })

  it('knows a reading, a look, a hand and a stop, and where probes were of readings alone', () => {
    expect(LOG.map(markOf)).toEqual(['reading', 'hand', 'hand', 'stopped', 'hand'])
    expect(markOf(entry({ act: 'look', place: 'ice' }, 1, 'outdoor'))).toBe('look')
    expect(probesOf(LOG[0])).toEqual({ black: 'outdoor.C', red: 'outdoor.Y' })
    expect(probesOf(LOG[3])).toBeNull()
    expect(probesOf(entry({ act: 'jumper', from: 'a', to: 'b' }, 1, 'outdoor'))).toBeNull()
    expect(probesOf(undefined)).toBeNull()
  })

  it('is ruled by whole minutes, few enough to read', () => {
    expect([lengthOf(0), lengthOf(10), lengthOf(61)]).toEqual([10, 10, 61])
    expect(ticks(10)).toEqual([0, 2, 4, 6, 8, 10])
    expect(ticks(61)).toEqual([0, 10, 20, 30, 40, 50, 60])
    for (const length of [10, 33, 95, 480, 1900]) expect(ticks(length).length).toBeLessThanOrEqual(9)
  })

  it('stands at the newest act, goes to any other, and shows where its probes were', async () => {
    const page = mount(BenchTape, {
      props: { drillTry: at(LOG, 24), unit: UNIT },
      global: { components: { ElButton } },
    })
    const says = () => page.find('[data-testid=bench-tape-says]').text()
    expect(says()).toContain('0:20 supply')
    await page.find('[data-testid=bench-tape-before]').trigger('click')
    expect(says()).toContain('0:15 ohms')
    const key = (name: string) => dispatchEvent(new KeyboardEvent('keydown', { key: name }))
    for (let i = 0; i < 5; i += 1) key('[')
    await nextTick()
    expect(says()).toContain('0:03 volts')
    expect(page.emitted('at')!.at(-1)).toEqual([{ black: 'outdoor.C', red: 'outdoor.Y' }])
    key(']')
    await nextTick()
    expect(says()).toContain('0:09 call')
    expect(page.emitted('at')!.at(-1)).toEqual([null])
    await page.setProps({ drillTry: at([...LOG, entry(volts, 31, 'outdoor')], 31), unit: UNIT })
    expect(says()).toContain('0:31 volts')
  })
})
