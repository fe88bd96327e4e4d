import { reactive } from 'vue'
import scales from '../../../../core/data/measures.json'
import { say } from '@/words'

/** The one place where a number becomes what a person reads, and back. Core and API stay in °F, psi, feet and volts;
 *  how a unit turns into its other one is in the core's own data. */

export type Quantity = keyof typeof scales
export const QUANTITIES = Object.keys(scales) as Quantity[]
const chosenIn = (quantity: Quantity) => `gorvant.${quantity === 'temperature' ? 'degrees' : quantity}`
const storage = () => (typeof localStorage === 'undefined' ? null : localStorage)
const isOther = (quantity: Quantity) => storage()?.getItem(chosenIn(quantity)) === scales[quantity].chosen_by

/** Which quantities are shown in their other unit: °C, kPa, meters. */
const other = reactive(
  Object.fromEntries(QUANTITIES.map((quantity) => [quantity, isOther(quantity)])) as Record<
    Quantity,
    boolean
  >,
)

/** The two units of a quantity, the core's first. */
export const unitsOf = (quantity: Quantity) => [scales[quantity].stays, scales[quantity].other]
export const unitChosen = (quantity: Quantity) => scales[quantity][other[quantity] ? 'other' : 'stays']

/** Sentences of the server come in the chosen units too: each request says so. */
export function chooseUnit(quantity: Quantity, unit: string) {
  other[quantity] = unit === scales[quantity].other
  storage()?.setItem(
    chosenIn(quantity),
    other[quantity] ? scales[quantity].chosen_by : scales[quantity].stays,
  )
}

/** "C kPa m": the units that are chosen otherwise than the core has them. */
export const chosenUnits = () =>
  QUANTITIES.filter((quantity) => other[quantity])
    .map((quantity) => scales[quantity].chosen_by)
    .join(' ')

/** Every list of units that can be chosen. */
export const allChoices = () =>
  QUANTITIES.reduce(
    (lists, quantity) => lists.flatMap((list) => [list, [...list, scales[quantity].chosen_by]]),
    [[]] as string[][],
  ).map((list) => list.join(' '))

const quantityOf = (unit: string | null | undefined) => QUANTITIES.find((one) => scales[one].stays === unit)

/** How a unit of the core is shown otherwise just now; undefined where it is not. */
const scaleOf = (unit: string | null | undefined) => {
  const quantity = quantityOf(unit)
  return quantity && other[quantity] ? scales[quantity] : undefined
}

/** A unit of the core, "°F", as it is shown: "°C" where that was chosen; others as they are. */
export const unitShown = <T extends string | null | undefined>(unit: T): T | string =>
  scaleOf(unit)?.other ?? unit

/** A number in a unit of the core, or a difference of two temperatures, as it is shown: to a tenth where the unit has
 *  another one, as it is where it has none. */
export function shownIn(unit: string | null | undefined, value: number, difference = false): number {
  if (!quantityOf(unit)) return value
  const scale = scaleOf(unit)
  const turned = scale ? (value - (difference ? 0 : scale.zero)) / scale.per_other : value
  return Math.round(turned * 10) / 10
}

/** What was typed as it is shown, in the unit of the core: null for nothing, undefined for what is no number. */
export function readIn(
  unit: string | null | undefined,
  text: string,
  difference = false,
): number | null | undefined {
  const [value, scale] = [readNumber(text), scaleOf(unit)]
  if (value === null || value === undefined || !scale) return value
  return Math.round((value * scale.per_other + (difference ? 0 : scale.zero)) * 100) / 100
}

/** "°F" or "°C". */
export const degreeSign = () => unitShown('°F')

/** A temperature, or a difference of two, as a number in the chosen unit, to a tenth. */
export const inUnit = (value: number, difference = false): number => shownIn('°F', value, difference)

export const readDegrees = (text: string, difference = false) => readIn('°F', text, difference)

/** What a field shows: the number in the chosen unit, empty for none. */
export const shownDegrees = (value: number | null | undefined, difference = false) =>
  value === null || value === undefined ? '' : String(inUnit(value, difference))

const OF_COURSE = /(?<=:\s*)[-+]?\d+(?:\.\d+)?|^\s*[-+]?\d+(?:\.\d+)?\s*$/g
/** A course of temperatures, "0:40, 30:22" by minutes or one number for all of it, as it is shown, and back. */
export const courseShown = (text: string) =>
  text.replace(OF_COURSE, (number) => String(inUnit(Number(number))))
export const readCourse = (text: string) => text.replace(OF_COURSE, (number) => String(readDegrees(number)))

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
/** A value as a person types it: "24.3", "25 to 30", "about 24", "OL". Null when it is none. In the chosen unit. */
export function readAmount(text: string, unit: string | null, mayOpen = false): Amount | null {
  const typed = text.trim()
  if (/^(ol|o\.l\.?|open)$/i.test(typed)) return mayOpen ? { open: true } : null
  const about = /^(about|approx\.?|~|≈|ca\.?)\s*/i.exec(typed)
  const rest = about ? typed.slice(about[0].length) : typed
  const number = (one: string) => readIn(unit, one.replace(/\s*k$/i, 'e3'))
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
  const shown = (one: number) => String(shownIn(unit, one))
  if (amount.value === null) return ''
  const range = amount.value_high === null ? '' : say('units.upTo', { high: shown(amount.value_high) })
  return `${amount.about ? say('units.about') : ''}${shown(amount.value)}${range}`
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
