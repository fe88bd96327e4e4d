import type { Script } from '@/api/client'

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
  /** Room over time where it is typed: "12:00 69.5" a line. */
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

/** The script of a form, or the words that say what is wrong with it. */
export function scriptOf(form: StagingForm): { script: Script } | { wrong: string } {
  const away = form.mode === 'cool' ? form.error : -form.error
  const moves: NonNullable<Script['moves']> = [{ at_seconds: 0, what: 'mode', value: form.mode }]
  if (form.room === 'course') {
    let before: { at: number; value: number } | null = null
    for (const line of form.course.split('\n').filter((one) => one.trim())) {
      const [time, value] = line.trim().split(/[\s,;]+/)
      const at = secondsOf(time ?? '')
      const degrees = Number(value)
      if (at === null || !value || !Number.isFinite(degrees))
        return { wrong: `“${line.trim()}”: a time and the room in °F, such as 12:00 69.5.` }
      if (before && at <= before.at) return { wrong: `“${line.trim()}” goes back in time.` }
      moves.push({
        at_seconds: before?.at ?? at,
        what: 'room',
        value: degrees,
        over_seconds: before ? at - before.at : 0,
      })
      before = { at, value: degrees }
    }
  }
  if (form.pushAt.trim()) {
    const at = secondsOf(form.pushAt)
    if (at === null) return { wrong: 'Set point moved at: a time such as 5:00.' }
    moves.push({ at_seconds: at, what: 'set_point', value: form.pushTo })
  }
  moves.sort((a, b) => a.at_seconds - b.at_seconds)
  return {
    script: {
      start: {
        set_point_degrees_f: form.set,
        room_degrees_f: form.set + away,
        outdoor_degrees_f: form.outdoor,
        coil_degrees_f: 60,
        house: form.room === 'house',
      },
      moves,
    },
  }
}
