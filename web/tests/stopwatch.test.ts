import { beforeEach, describe, expect, it, vi } from 'vitest'
import { sawServerTime, serverNow, serverWithin } from '@/shared/api/clock'
import { steadyNow, useStopwatch } from '@/desks/defrost/useStopwatch'

/** What a browser keeps between two pages. */
const stored = new Map<string, string>()

describe('the stopwatch of a forced test', () => {
  beforeEach(() => {
    stored.clear()
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => stored.get(key) ?? null,
      setItem: (key: string, value: string) => stored.set(key, value),
      removeItem: (key: string) => stored.delete(key),
    })
    vi.useFakeTimers({ toFake: ['performance'] })
  })

  it('starts with the first mark and tells each by the hundredth', () => {
    const watch = useStopwatch('one')
    expect(watch.started.value).toBeNull()
    expect(watch.mark()).toBe(0)
    vi.advanceTimersByTime(14_060)
    expect(watch.mark()).toBe(14.06)
  })

  it('goes on after a reload, and on another device by what the record has', () => {
    const watch = useStopwatch('one')
    watch.mark()
    vi.advanceTimersByTime(5_000)
    expect(useStopwatch('one').mark()).toBe(5)
    expect(useStopwatch('two', () => watch.started.value).mark()).toBe(5)
    expect(useStopwatch('two').started.value).toBeNull()
  })

  it('stands when it is stopped, and forgets what cannot be', () => {
    const watch = useStopwatch('one')
    watch.mark()
    watch.stop()
    expect([watch.started.value, stored.size]).toEqual([null, 0])
    for (const odd of ['soon', '', String(steadyNow() + 60), String(steadyNow() - 13 * 3600)]) {
      stored.set('odd', odd)
      expect(useStopwatch('odd').started.value, odd).toBeNull()
      expect(useStopwatch('none', () => Number(odd || NaN)).started.value, odd).toBeNull()
    }
  })
})

describe('the clock that devices share', () => {
  it('knows the server within half of the time that the quickest answer took', () => {
    sawServerTime(1_000_500, 400_000, 400_800)
    const first = serverWithin()
    sawServerTime(1_000_500, 400_100, 400_200)
    expect([first, serverWithin()]).toEqual([0.4, 0.05])
    sawServerTime(9_999_999, 400_300, 402_300) // a slow one tells less
    expect(serverWithin()).toBe(0.05)
    sawServerTime(1_301_000, 801_000, 802_000) // but an old one is not for ever
    expect(serverWithin()).toBe(0.5)
  })

  it('gives two devices one time, whatever their own clocks say', () => {
    vi.useFakeTimers({ toFake: ['performance'] })
    const now = performance.timeOrigin + performance.now()
    sawServerTime(now + 90_000, now - 1, now + 1)
    expect(serverNow()).toBeCloseTo((now + 90_000) / 1000, 2)
    expect(useStopwatch('three', () => (now + 89_000) / 1000).mark()).toBeCloseTo(1, 1)
    expect(useStopwatch('three', () => (now + 90_900) / 1000).mark()).toBe(0) // begun a moment from now
  })
})
