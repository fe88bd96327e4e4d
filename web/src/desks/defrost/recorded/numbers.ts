import type { Judgement, LogPicture } from '@/desks/defrost/recorded/api'
import { inUnit } from '@/shared/model/units'

/** One of a picture's steps in words: { time, column id: what it was there }. */
export type NumberRow = Record<string, string>

type Rule = Judgement['on_off'][string] | undefined

/** Whether what switches was on, by the threshold that was found in the record. */
export const isOn = (rule: Rule, value: number | null): boolean =>
  value !== null && (rule?.over == null ? (rule?.always ?? false) : value > rule.over)

const SECONDS_UNDER = 60
/** Clock times as the record's own clock had them. step: seconds from one row to the next. */
export function timesOf(zone: string, step: number): (at: number) => string {
  const format = new Intl.DateTimeFormat('en-US', {
    timeZone: zone,
    month: 'short',
    day: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    second: step < SECONDS_UNDER ? '2-digit' : undefined,
    hourCycle: 'h23',
  })
  return (at) => format.format(new Date(at * 1000))
}

const shown = (value: number) => inUnit(value).toFixed(1)

/** A step's degrees: one number, or from its least to its most; a dash where nothing was recorded. */
export function degreesOf(least: number | null | undefined, most: number | null | undefined): string {
  if (least == null || most == null) return '–'
  const [low, high] = [shown(least), shown(most)]
  return low === high ? low : `${low} … ${high}`
}

/** The rows of a picture: lines in degrees, lanes by their words. */
export function rowsOf(
  picture: LogPicture,
  lines: readonly string[],
  lanes: readonly string[],
  rules: Judgement['on_off'],
  words: { zone: string; on: string; off: string },
): NumberRow[] {
  const step = (picture.to - picture.from) / picture.width
  const time = timesOf(words.zone, step)
  return Array.from({ length: picture.width }, (_, i) => {
    const row: NumberRow = { id: String(i), time: time(picture.from + i * step) }
    for (const id of lines) row[id] = degreesOf(picture.columns[id]?.least[i], picture.columns[id]?.most[i])
    for (const id of lanes) {
      const value = picture.columns[id]?.most[i] ?? null
      // What nobody has told apart is not off.
      row[id] = value === null || !rules[id] ? '–' : isOn(rules[id], value) ? words.on : words.off
    }
    return row
  })
}
