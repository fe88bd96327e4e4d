/** The one place where a number becomes what a person reads. Core and API stay in °F and volts. */

export function volts(value: number | null | undefined): string {
  return value === null || value === undefined ? '–' : value.toFixed(1)
}

export function degrees(value: number | null | undefined): string {
  return value === null || value === undefined ? '' : `${Math.round(value)} °F`
}

/** "23 Nov" from an ISO date; `long` adds the weekday. */
export function day(iso: string, long = false): string {
  const date = new Date(`${iso.slice(0, 10)}T12:00:00`)
  return date.toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    ...(long ? { weekday: 'long' } : {}),
  })
}

/** "Monday, Nov": what stands beside the day's number. */
export function weekday(iso: string): string {
  const date = new Date(`${iso.slice(0, 10)}T12:00:00`)
  return `${date.toLocaleDateString('en-GB', { weekday: 'long' })}, ${date.toLocaleDateString('en-GB', { month: 'short' })}`
}

export function clock(iso: string): string {
  return new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
}

/** What was typed at the meter, as volts: comma or point, nothing else. Null when it is no number of volts. */
export function parseVolts(text: string): number | null {
  const cleaned = text.trim().replace(',', '.')
  if (!/^\d{1,4}(\.\d{1,3})?$/.test(cleaned)) return null
  const value = Number(cleaned)
  return value <= 1000 ? value : null
}

/** Local date as the API wants it. */
export function today(): string {
  const now = new Date()
  const two = (value: number) => String(value).padStart(2, '0')
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}

/** A number with a point or a comma; null for nothing, undefined for what is no number. */
export function readNumber(text: string): number | null | undefined {
  const cleaned = text.trim().replace(',', '.')
  if (cleaned === '') return null
  const value = Number(cleaned)
  return Number.isFinite(value) ? value : undefined
}
