import { ref } from 'vue'

/** The one place where a number becomes what a person reads, and back. Core and API stay in °F and volts. */

export type DegreeUnit = 'F' | 'C'
const DEGREES = 'gorvant.degrees'
/** °F, or °C where somebody chose it. Sentences of the server come in it too: the request says so. */
export const degreeUnit = ref<DegreeUnit>(
  typeof localStorage !== 'undefined' && localStorage.getItem(DEGREES) === 'C' ? 'C' : 'F',
)

export function chooseDegrees(unit: DegreeUnit) {
  degreeUnit.value = unit
  localStorage.setItem(DEGREES, unit)
}

/** "°F" or "°C". */
export const degreeSign = () => `°${degreeUnit.value}`

/** A temperature, or a difference of two, as a number in the chosen unit, to a tenth. */
export function inUnit(value: number, difference = false): number {
  const turned = degreeUnit.value === 'F' ? value : difference ? value / 1.8 : (value - 32) / 1.8
  return Math.round(turned * 10) / 10
}

/** What was typed in the chosen unit, as °F: null for nothing, undefined for what is no number. */
export function readDegrees(text: string, difference = false): number | null | undefined {
  const value = readNumber(text)
  if (value === null || value === undefined || degreeUnit.value === 'F') return value
  return Math.round((value * 1.8 + (difference ? 0 : 32)) * 100) / 100
}

/** What a field shows: the number in the chosen unit, empty for none. */
export const shownDegrees = (value: number | null | undefined, difference = false) =>
  value === null || value === undefined ? '' : String(inUnit(value, difference))

export function volts(value: number | null | undefined): string {
  return value === null || value === undefined ? '–' : value.toFixed(1)
}

export function degrees(value: number | null | undefined): string {
  return value === null || value === undefined ? '' : `${Math.round(inUnit(value))} ${degreeSign()}`
}

/** "23 Nov" from an ISO date; `long` adds the weekday. */
export function day(iso: string, long = false): string {
  const date = new Date(`${iso.slice(0, 10)}T12:00:00`)
  return date.toLocaleDateString('en-US', {
    day: 'numeric',
    month: 'short',
    ...(long ? { weekday: 'long' } : {}),
  })
}

/** "Monday, Nov": what stands beside the day's number. */
export function weekday(iso: string): string {
  const date = new Date(`${iso.slice(0, 10)}T12:00:00`)
  return `${date.toLocaleDateString('en-US', { weekday: 'long' })}, ${date.toLocaleDateString('en-US', { month: 'short' })}`
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

export interface Amount {
  value?: number
  value_high?: number
  about?: boolean
  open?: boolean
}

const RANGE = /^(.+?)\s*(?:–|\.\.|\bto\b|(?<=\d)-(?=-?\d))\s*(.+)$/i
/** A value as a person types it: "24.3", "25 to 30", "about 24", "OL". Null when it is none. Temperatures in the chosen unit. */
export function readAmount(text: string, unit: string | null, mayOpen = false): Amount | null {
  const typed = text.trim()
  if (/^(ol|o\.l\.?|open)$/i.test(typed)) return mayOpen ? { open: true } : null
  const about = /^(about|approx\.?|~|≈|ca\.?)\s*/i.exec(typed)
  const rest = about ? typed.slice(about[0].length) : typed
  const number = (one: string) => (unit === '°F' ? readDegrees(one) : readNumber(one.replace(/\s*k$/i, 'e3')))
  const parts = RANGE.exec(rest)
  const [low, high] = parts ? [number(parts[1]!), number(parts[2]!)] : [number(rest), undefined]
  if (low === null || low === undefined || (parts && (high === null || high === undefined || high < low)))
    return null
  return {
    value: low,
    ...(parts ? { value_high: high as number } : {}),
    ...(about ? { about: true } : {}),
  }
}

/** What a field shows of a kept value, to be corrected. */
export function typedAmount(
  amount: {
    value: number | null
    value_high: number | null
    about: boolean
    open: boolean
  },
  unit: string | null,
): string {
  if (amount.open) return 'OL'
  const shown = (one: number) => (unit === '°F' ? shownDegrees(one) : String(one))
  if (amount.value === null) return ''
  const range = amount.value_high === null ? '' : ` to ${shown(amount.value_high)}`
  return `${amount.about ? 'about ' : ''}${shown(amount.value)}${range}`
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
