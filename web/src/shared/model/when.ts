const MINUTE = 60
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR

/** "just now", "12 minutes ago", "3 hours ago", then the day. */
export function ago(iso: string, now: number = Date.now()): string {
  const seconds = (now - Date.parse(iso)) / 1000
  if (seconds < MINUTE) return 'just now'
  const [count, unit] =
    seconds < HOUR
      ? [Math.floor(seconds / MINUTE), 'minute']
      : seconds < DAY
        ? [Math.floor(seconds / HOUR), 'hour']
        : [Math.floor(seconds / DAY), 'day']
  if (unit === 'day' && count > 30)
    return `on ${new Date(iso).toLocaleDateString('en-US', { dateStyle: 'medium' })}`
  return `${count} ${unit}${count === 1 ? '' : 's'} ago`
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
  const size = minutes < 120 ? `${minutes} min` : `${Math.round(minutes / 60)} h`
  return `clock ${size} ${aheadSeconds > 0 ? 'ahead' : 'behind'}`
}
