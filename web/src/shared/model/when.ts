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
