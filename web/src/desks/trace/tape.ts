import type { components } from '@/shared/api/schema'

export type Timeline = components['schemas']['Timeline']
export type Signal = Timeline['signals'][number]
export type Curve = Timeline['curves'][number]
export type Move = components['schemas']['Move']
export type Script = components['schemas']['Script']
type Value = components['schemas']['SignalValue']

/** "1:02:03", "12:30", with tenths where they matter. */
export function clock(seconds: number): string {
  const tenths = Math.round(seconds * 10) / 10
  const whole = Math.floor(tenths)
  const two = (value: number) => String(value).padStart(2, '0')
  const fraction = tenths % 1 >= 0.05 ? `.${Math.round((tenths % 1) * 10)}` : ''
  const hours = Math.floor(whole / 3600)
  const minutes = Math.floor(whole / 60) % 60
  return `${hours ? `${hours}:${two(minutes)}` : minutes}:${two(whole % 60)}${fraction}`
}

/** "2:41", "90", "1:30:00" as seconds; null when it is no time. */
export function parseClock(text: string): number | null {
  const parts = text.trim().split(':')
  if (!parts.length || parts.length > 3 || parts.some((part) => !/^\d+(\.\d+)?$/.test(part))) return null
  return parts.reduce((sum, part) => sum * 60 + Number(part), 0)
}

/** What a signal is at a time: the last step up to it. */
export function valueAt(signal: Signal | undefined, seconds: number): Value | undefined {
  let found: Value | undefined
  for (const [at, value] of signal?.steps ?? []) {
    if ((at as number) > seconds) break
    found = value
  }
  return found
}

/** A temperature or a pressure between its points. */
export function levelAt(curve: Curve | undefined, seconds: number): number | null {
  const points = curve?.points ?? []
  const after = points.findIndex(([at]) => (at ?? 0) >= seconds)
  if (after < 0) return points[points.length - 1]?.[1] ?? null
  const [t1 = 0, v1 = 0] = points[after] ?? []
  const [t0 = t1, v0 = v1] = points[Math.max(after - 1, 0)] ?? []
  return t1 === t0 ? v1 : v0 + ((v1 - v0) * (seconds - t0)) / (t1 - t0)
}

/** The place in `instants` that holds at a time. */
export function instantAt(timeline: Timeline, seconds: number): number {
  let low = 0
  let high = timeline.instants.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((timeline.instants[middle]?.[0] ?? 0) <= seconds) low = middle + 1
    else high = middle
  }
  return Math.max(low - 1, 0)
}

export function conditionAt(timeline: Timeline, seconds: number) {
  const [, index = 0] = timeline.instants[instantAt(timeline, seconds)] ?? []
  return timeline.conditions[index]
}

/** Times at which something happens, each once. */
export function eventTimes(timeline: Timeline): number[] {
  return [...new Set(timeline.events.map((event) => event.seconds))]
}

/** A script with a move put in at its time; one of the same kind at the same time gives way. */
export function withMove(script: Script, move: Move): Script {
  const same = (one: Move) =>
    one.at_seconds === move.at_seconds &&
    one.what === move.what &&
    JSON.stringify(one.of ?? null) === JSON.stringify(move.of ?? null)
  const moves = [...(script.moves ?? []).filter((one) => !same(one)), move]
  moves.sort((a, b) => a.at_seconds - b.at_seconds)
  return { ...script, moves }
}

export function withoutMove(script: Script, index: number): Script {
  return { ...script, moves: (script.moves ?? []).filter((_one, i) => i !== index) }
}

/** What differs between two instants. */
export function differences(timeline: Timeline, a: number, b: number) {
  return timeline.signals.flatMap((signal) => {
    const [before, after] = [valueAt(signal, a), valueAt(signal, b)]
    return before === after ? [] : [{ id: signal.id, title: signal.title, before, after }]
  })
}

export function shown(value: Value | undefined): string {
  return value === true ? 'on' : value === false ? 'off' : String(value ?? '–')
}
