import { beforeEach, describe, expect, it, vi } from 'vitest'
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
