/**
 * The server's clock as this device knows it. Each answer says when it was written, which was between asking and hearing; the answer
 * that took least time is the best of the last few minutes.
 */
const KEPT_MS = 5 * 60_000

interface Sighting {
  offset: number
  within: number
  at: number
}
let best: Sighting | null = null

/** Milliseconds since the epoch on a clock that never goes back while the page lives. */
const steady = () => performance.timeOrigin + performance.now()

/** What this device knew of it when a page was open last: without signal there is nothing newer. */
const LAST = 'gorvant.clock'

export function sawServerTime(serverMs: number, askedAt: number, heardAt: number) {
  const seen = { offset: serverMs - (askedAt + heardAt) / 2, within: (heardAt - askedAt) / 2, at: heardAt }
  if (!best || seen.within <= best.within || seen.at - best.at > KEPT_MS) {
    best = seen
    globalThis.localStorage?.setItem(LAST, String(Math.round(-seen.offset / 100) / 10))
  }
}

/** Seconds by which this device's clock is ahead of the server's, to a tenth; null where it never heard of it. */
export function deviceAhead(): number | null {
  if (best) return Math.round(-best.offset / 100) / 10
  const last = globalThis.localStorage?.getItem(LAST) ?? null
  return last === null ? null : Number(last)
}

/** Seconds since the epoch by the server's clock; by this device's own where no answer has come yet. */
export const serverNow = () => (steady() + (best?.offset ?? 0)) / 1000

/** How far from it that may be at most, in seconds. */
export const serverWithin = () => (best?.within ?? 0) / 1000

/** Asks by `asking` and remembers what its answer says of the time. */
export async function timed(asking: () => Promise<Response>): Promise<Response> {
  const askedAt = steady()
  const answer = await asking()
  const serverMs = Number(answer.headers.get('x-gorvant-time'))
  if (serverMs > 0) sawServerTime(serverMs, askedAt, steady())
  return answer
}
