import { computed, ref } from 'vue'

/**
 * Seconds since the epoch on a clock that never goes back while the page lives, and that a reload
 * or a locked screen does not stop.
 */
export const steadyNow = () => (performance.timeOrigin + performance.now()) / 1000

/** A watch that began longer ago than this was left running. */
const LONGEST_SECONDS = 12 * 3600

/**
 * A stopwatch that a reload does not stop. `key` names it in this browser; `kept` is when it was
 * started as the record has it, so that another device can go on.
 */
export function useStopwatch(key: string, kept: () => number | null | undefined = () => null) {
  const sane = (value: number | null | undefined) =>
    typeof value === 'number' && value <= steadyNow() && steadyNow() - value < LONGEST_SECONDS ? value : null
  const here = ref<number | null>(sane(Number(localStorage.getItem(key) ?? NaN)))
  const started = computed(() => here.value ?? sane(kept()))

  /** Seconds on the watch, to the hundredth; starts it when it stands. */
  function mark(): number {
    if (started.value === null) {
      here.value = steadyNow()
      localStorage.setItem(key, String(here.value))
    }
    return Math.round((steadyNow() - (started.value ?? steadyNow())) * 100) / 100
  }

  function stop() {
    here.value = null
    localStorage.removeItem(key)
  }

  return { started, mark, stop }
}
