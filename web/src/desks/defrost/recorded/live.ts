import type { CrewEvent } from '@/shared/api/stream'
import type { Log } from '@/desks/defrost/recorded/api'

/** Rows of a live record as a page has them: times in seconds since 1970, a list of values a column. */
export interface LiveRows {
  times: number[]
  values: Record<string, (number | null)[]>
}
/** What an event says of rows that came; whole: they are all of them. */
export interface RowsEvent extends CrewEvent {
  kind: 'log_rows'
  log_id: string
  columns: string[]
  rows: (number | null)[][]
  whole: boolean
  quiet_after_seconds: number
}
export interface Picture {
  from: number
  to: number
  width: number
  columns: Record<string, { least: (number | null)[]; most: (number | null)[] }>
}

const SAME_SECONDS = 0.05

export const rowsOf = (event: CrewEvent, log: string): RowsEvent | null =>
  event.kind === 'log_rows' && (event as RowsEvent).log_id === log ? (event as RowsEvent) : null

/** What a picture shows, as rows: the middle of each pixel that has any. */
export function fromPicture(picture: Picture): LiveRows {
  const step = (picture.to - picture.from) / picture.width
  const ids = Object.keys(picture.columns)
  const pixels = Array.from({ length: picture.width }, (_, i) => i).filter((i) =>
    ids.some((id) => picture.columns[id]!.most[i] !== null),
  )
  return {
    times: pixels.map((i) => picture.from + (i + 0.5) * step),
    values: Object.fromEntries(ids.map((id) => [id, pixels.map((i) => picture.columns[id]!.most[i]!)])),
  }
}

/** With the rows of an event, in order of time, each time once; what lies before `from` is left out. */
export function withRows(
  before: LiveRows,
  event: Pick<RowsEvent, 'columns' | 'rows'>,
  from: number,
): LiveRows {
  const known = new Set(before.times.map((at) => Math.round(at / SAME_SECONDS)))
  const ids = Object.keys(before.values).length ? Object.keys(before.values) : event.columns
  const all = before.times.map((at, i) => [at, ...ids.map((id) => before.values[id]![i] ?? null)])
  for (const row of event.rows) {
    if (known.has(Math.round(row[0]! / SAME_SECONDS))) continue
    all.push([row[0]!, ...ids.map((id) => row[event.columns.indexOf(id) + 1] ?? null)])
  }
  const kept = all.filter((row) => row[0]! >= from).sort((one, other) => one[0]! - other[0]!)
  return {
    times: kept.map((row) => row[0]!),
    values: Object.fromEntries(ids.map((id, i) => [id, kept.map((row) => row[i + 1]!)])),
  }
}

/** A null between rows that are further apart than they would be: no line goes over what did not come. */
export function withGaps(rows: LiveRows, most: number): LiveRows {
  const times: number[] = []
  const from: (number | null)[] = []
  rows.times.forEach((at, i) => {
    const last = rows.times[i - 1]
    if (last !== undefined && at - last > most) {
      times.push((last + at) / 2)
      from.push(null)
    }
    times.push(at)
    from.push(i)
  })
  return {
    times,
    values: Object.fromEntries(
      Object.entries(rows.values).map(([id, list]) => [id, from.map((i) => (i === null ? null : list[i]!))]),
    ),
  }
}

export interface Heard {
  from: string | null
  /** When the last row came, by this page's clock, in milliseconds; null: none yet. */
  at: number | null
  quietAfter: number
}
export const heardNow = (event: RowsEvent, now: number): Heard => ({
  from: event.by,
  at: now,
  quietAfter: event.quiet_after_seconds,
})
export const heardOf = (log: Log, now: number): Heard => ({
  from: log.live?.from ?? null,
  at: log.live?.seconds_ago == null ? null : now - log.live.seconds_ago * 1000,
  quietAfter: log.live?.quiet_after_seconds ?? 0,
})
/** Seconds since it was last heard where those are too many, else null. */
export function quietFor(heard: Heard, now: number): number | null {
  if (heard.at === null) return null
  const seconds = (now - heard.at) / 1000
  return seconds > heard.quietAfter ? Math.round(seconds) : null
}
