import type { Probes } from '@/pages/practice/bench'
import type { DrillTry, TryEntry, UnitPlaces } from '@/pages/practice/api'

/** What a learner did and saw, over the bench's minutes. Nothing here is of the unit but what was read or seen of it. */
export interface Stretch {
  from: number
  to: number
  value: string
}
/** place: of a supply, whose title the lane has. */
export interface TapeLane {
  id: string
  place?: string
  stretches: Stretch[]
}
export type Mark = 'stopped' | 'reading' | 'look' | 'hand'

const READINGS = ['volts', 'ohms', 'degrees']
const LOOKS = ['look', 'settings', 'landings', 'sensor', 'since_stop', 'prove_dead']
const STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 240]
const SHORTEST = 10
const MOST_TICKS = 8

const kind = (entry: TryEntry) => String(entry.act?.act ?? '')
const minutes = (entry: TryEntry) => entry.minutes ?? 0

/** What an act was, by the sign that it has on the tape. */
export function markOf(entry: TryEntry): Mark {
  if (entry.stopped) return 'stopped'
  if (READINGS.includes(kind(entry))) return 'reading'
  return LOOKS.includes(kind(entry)) ? 'look' : 'hand'
}

/** Where the probes were for a reading; nowhere for any other act. */
export function probesOf(entry: TryEntry | undefined): Probes | null {
  const { from, to } = entry?.act ?? {}
  if (!entry || markOf(entry) !== 'reading' || typeof from !== 'string' || typeof to !== 'string') return null
  return { black: from, red: to }
}

/** How long the tape is: as the bench's clock stands, and never so short that minutes look like hours. */
export const lengthOf = (now: number) => Math.max(now, SHORTEST)

export function ticks(length: number): number[] {
  const step = STEPS.find((one) => length / one <= MOST_TICKS) ?? STEPS[STEPS.length - 1]!
  return Array.from({ length: Math.floor(length / step) + 1 }, (_, i) => i * step)
}

/** Stretches of what holds from each change to the next; what holds before the first may not be known. */
function held(changes: { at: number; value: string }[], before: string | null, end: number): Stretch[] {
  const all = before === null ? changes : [{ at: 0, value: before }, ...changes]
  return all
    .map(({ at, value }, i) => ({ from: at, to: all[i + 1]?.at ?? end, value }))
    .filter((one) => one.to > one.from)
}

export function lanesOf(drillTry: Pick<DrillTry, 'log' | 'standing'>, unit: UnitPlaces): TapeLane[] {
  const end = lengthOf(drillTry.standing?.minutes ?? 0)
  const now = Math.min(end, drillTry.standing?.minutes ?? 0)
  const done = drillTry.log.filter((entry) => !entry.stopped)
  const title = (of: { id: string; title: string }[], id: string) =>
    of.find((one) => one.id === id)?.title ?? id
  const calls = done
    .filter((entry) => kind(entry) === 'call')
    .map((entry) => ({ at: minutes(entry), value: title(unit.calls, String(entry.act?.value)) }))
  const began = drillTry.standing?.began
  const places = done.flatMap((entry, i) =>
    entry.place && entry.place !== done[i - 1]?.place
      ? [{ at: minutes(done[i - 1] ?? { minutes: 0 }), value: title(unit.places, entry.place) }]
      : [],
  )
  const supplies = [
    ...new Set(done.filter((one) => kind(one) === 'supply').map((one) => String(one.act?.of))),
  ]
  return [
    { id: 'call', stretches: held(calls, began ? title(unit.calls, began) : null, now) },
    { id: 'place', stretches: held(places, null, now) },
    ...supplies.map((of) => ({
      id: `off.${of}`,
      place: title(unit.places, of),
      stretches: held(
        done
          .filter((one) => kind(one) === 'supply' && one.act?.of === of)
          .map((one) => ({ at: minutes(one), value: String(one.act?.value) })),
        null,
        now,
      ).filter((one) => one.value === 'off'),
    })),
  ]
}
