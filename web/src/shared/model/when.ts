import { say } from '@/words'

const MINUTE = 60
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR
type Three = [number, number, number]

/** "just now", "12 minutes ago", "3 hours ago", then the day. */
export function ago(iso: string, now: number = Date.now()): string {
  const seconds = (now - Date.parse(iso)) / 1000
  if (seconds < MINUTE) return say('when.justNow')
  const [minutes, hours, days] = [MINUTE, HOUR, DAY].map((one) => Math.floor(seconds / one)) as Three
  if (seconds < HOUR) return say('when.minutesAgo', { count: minutes }, minutes)
  if (seconds < DAY) return say('when.hoursAgo', { count: hours }, hours)
  if (days <= 30) return say('when.daysAgo', { count: days }, days)
  return say('when.on', { day: new Date(iso).toLocaleDateString('en-US', { dateStyle: 'medium' }) })
}

/** Hour and minute of this device's zone. */
export const clockTime = (iso: string): string =>
  new Date(iso).toLocaleTimeString('en-US', { hour: 'numeric', minute: '2-digit' })

/** Day and time of this device's zone. */
export const moment = (iso: string): string =>
  new Date(iso).toLocaleString('en-US', {
    month: 'short',
    day: 'numeric',
    hour: 'numeric',
    minute: '2-digit',
  })

const TOLD_SECONDS = 60

/** "clock 3 min ahead", of the device that dated something; nothing where it was right to a minute, or nobody knows. */
export function clockOff(aheadSeconds: number | undefined): string {
  if (aheadSeconds === undefined || Math.abs(aheadSeconds) < TOLD_SECONDS) return ''
  const minutes = Math.round(Math.abs(aheadSeconds) / MINUTE)
  const size =
    minutes < 120 ? say('when.min', { n: minutes }) : say('when.hours', { n: Math.round(minutes / 60) })
  return aheadSeconds > 0 ? say('when.clockAhead', { size }) : say('when.clockBehind', { size })
}
