import { computed, ref } from 'vue'
import { serverNow } from '@/shared/api/clock'

/**
 * Seconds since the epoch on a clock that never goes back while the page lives, and that a reload
 * or a locked screen does not stop: the server's, so that two devices read one watch.
 */
export const steadyNow = serverNow

/** A watch that began longer ago than this was left running. */
const LONGEST_SECONDS = 12 * 3600
/** Two devices know the server's clock only so well: a start that lies this far ahead is now. */
const SLACK_SECONDS = 2

/**
 * A stopwatch that a reload does not stop. `key` names it in this browser; `kept` is when it was
 * started as the record has it, so that another device can go on.
 */
export function useStopwatch(key: string, kept: () => number | null | undefined = () => null) {
  const sane = (value: number | null | undefined) =>
    typeof value === 'number' && value <= steadyNow() + SLACK_SECONDS && steadyNow() - value < LONGEST_SECONDS
      ? value
      : null
  const here = ref<number | null>(sane(Number(localStorage.getItem(key) ?? NaN)))
  const started = computed(() => here.value ?? sane(kept()))

  /** Seconds on the watch, to the hundredth; starts it when it stands. */
  function mark(): number {
    if (started.value === null) {
      here.value = steadyNow()
      localStorage.setItem(key, String(here.value))
    }
    return Math.max(0, Math.round((steadyNow() - (started.value ?? steadyNow())) * 100) / 100)
  }

  function stop() {
    here.value = null
    localStorage.removeItem(key)
  }

  /** Whether this device started it. */
  const own = computed(() => here.value !== null)

  return { started, own, mark, stop }
}
