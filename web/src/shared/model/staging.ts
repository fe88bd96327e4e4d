import type { Script } from '@/shared/api/client'
import { degreeSign, readDegrees } from '@/shared/model/units'
import { say } from '@/words'

/** "12:00" of seconds, "1:05:00" past the hour. */
export function minutes(seconds: number): string {
  const whole = Math.floor(seconds)
  const parts = [Math.floor(whole / 60) % 60, whole % 60].map((part) => String(part).padStart(2, '0'))
  const hours = Math.floor(whole / 3600)
  return hours ? `${hours}:${parts.join(':')}` : `${Math.floor(whole / 60)}:${parts[1]}`
}

/** What a staging run is asked with. error: how far the room is from the set point at the beginning. */
export interface StagingForm {
  mode: 'heat' | 'cool' | 'emergency'
  set: number
  error: number
  outdoor: number
  room: 'held' | 'house' | 'course'
  /** Where outside goes over the run, in a straight line; empty for steady. */
  outdoorEnd: string
  /** Room, outside and set point over time where they are typed: "12:00 69.5 30 72" a line. */
  course: string
  pushAt: string
  pushTo: number
  hours: number
}

/** Seconds of "12:00", "1:05:00" or "12" (minutes); null for anything else. */
export function secondsOf(text: string): number | null {
  const match = /^(?:(\d{1,2}):)?(\d{1,3})(?::(\d{2}))?$/.exec(text.trim())
  if (!match) return null
  const [, a, b, c] = match
  if (c !== undefined) return Number(a ?? 0) * 3600 + Number(b) * 60 + Number(c)
  return a === undefined ? Number(b) * 60 : Number(a) * 60 + Number(b)
}

type Moves = NonNullable<Script['moves']>
/** One line of a typed course; what it leaves out is null. */
interface Point {
  at: number
  room: number
  outdoor: number | null
  set: number | null
}

/** "12:00 69.5", "12:00 69.5 30" or "12:00 69.5 30 72": a time, the room, outside, the set point. */
function pointOf(line: string): Point | null {
  const [time, ...values] = line.trim().split(/[\s;]+/)
  const at = secondsOf(time ?? '')
  const numbers = values.map((value) => (value === '-' || value === '–' ? null : (readDegrees(value) ?? NaN)))
  const [room, outdoor = null, set = null] = numbers
  const fine = numbers.length <= 3 && numbers.every((value) => value === null || Number.isFinite(value))
  return at === null || typeof room !== 'number' || !fine ? null : { at, room, outdoor, set }
}

/** Straight from point to point, beginning at the first. */
function along(what: 'room' | 'outdoor', points: [number, number][]): Moves {
  return points.map(([at, value], i) => {
    const before = points[i - 1]
    return before
      ? { at_seconds: before[0], what, value, over_seconds: at - before[0] }
      : { at_seconds: at, what, value, over_seconds: 0 }
  })
}

/** Moves of a typed course, or the words that say what is wrong with it. */
function course(text: string): Moves | string {
  const points: Point[] = []
  for (const line of text.split('\n').filter((one) => one.trim())) {
    const point = pointOf(line)
    if (!point) return say('staging.course', { line: line.trim(), unit: degreeSign() })
    if (point.at <= (points.at(-1)?.at ?? -1)) return say('staging.goesBack', { line: line.trim() })
    points.push(point)
  }
  return [
    ...along(
      'room',
      points.map(({ at, room }) => [at, room]),
    ),
    ...along(
      'outdoor',
      points.flatMap(({ at, outdoor }) => (outdoor === null ? [] : [[at, outdoor] as [number, number]])),
    ),
    ...points.flatMap(({ at, set }) =>
      set === null ? [] : [{ at_seconds: at, what: 'set_point' as const, value: set }],
    ),
  ]
}

/** The script of a form, or the words that say what is wrong with it. */
export function scriptOf(form: StagingForm): { script: Script } | { wrong: string } {
  const away = form.mode === 'cool' ? form.error : -form.error
  const typed = form.room === 'course' ? course(form.course) : []
  if (typeof typed === 'string') return { wrong: typed }
  const moves: Moves = [{ at_seconds: 0, what: 'mode', value: form.mode }, ...typed]
  if (form.outdoorEnd.trim() && !moves.some((move) => move.what === 'outdoor')) {
    const end = readDegrees(form.outdoorEnd)
    if (typeof end !== 'number')
      return { wrong: say('staging.outsideAtTheEnd', { typed: form.outdoorEnd.trim() }) }
    moves.push({ at_seconds: 0, what: 'outdoor', value: end, over_seconds: form.hours * 3600 })
  }
  if (form.pushAt.trim()) {
    const at = secondsOf(form.pushAt)
    if (at === null) return { wrong: say('staging.movedAt') }
    moves.push({ at_seconds: at, what: 'set_point', value: form.pushTo })
  }
  moves.sort((a, b) => a.at_seconds - b.at_seconds)
  /** A typed course holds from the beginning on. */
  const first = (what: string, usual: number) => {
    const value = typed.find((move) => move.what === what)?.value
    return typeof value === 'number' ? value : usual
  }
  return {
    script: {
      start: {
        set_point_degrees_f: form.set,
        room_degrees_f: first('room', form.set + away),
        outdoor_degrees_f: first('outdoor', form.outdoor),
        coil_degrees_f: 60,
        house: form.room === 'house',
      },
      moves,
    },
  }
}
