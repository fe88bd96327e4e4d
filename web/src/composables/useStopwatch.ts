import { ref } from 'vue'

/**
 * Seconds since the epoch on a clock that never goes back while the page lives, and that a reload
 * or a locked screen does not stop.
 */
export const steadyNow = () => (performance.timeOrigin + performance.now()) / 1000

/** A stopwatch that a reload does not stop. `key` names it in this browser. */
export function useStopwatch(key: string) {
  const started = ref<number | null>(read())

  function read(): number | null {
    const text = localStorage.getItem(key)
    const value = text === null ? NaN : Number(text)
    return Number.isFinite(value) && value <= steadyNow() ? value : null
  }

  /** Seconds on the watch, to the hundredth; starts it when it stands. */
  function mark(): number {
    if (started.value === null) {
      started.value = steadyNow()
      localStorage.setItem(key, String(started.value))
    }
    return Math.round((steadyNow() - started.value) * 100) / 100
  }

  function stop() {
    started.value = null
    localStorage.removeItem(key)
  }

  return { started, mark, stop }
}
