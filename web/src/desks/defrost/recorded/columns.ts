import type { LogHead, LogMapping } from '@/desks/defrost/recorded/api'

/** What a logger's column can be, in the order of the form. */
export const COLUMNS = [
  { id: 'outdoor', title: 'Outdoor air', units: ['°F', '°C', 'K'] },
  { id: 'coil', title: 'Coil', units: ['°F', '°C', 'K'] },
  { id: 'vapor', title: 'Vapor line', units: ['°F', '°C', 'K'] },
  { id: 'supply', title: 'Supply air', units: ['°F', '°C', 'K'] },
  { id: 'humidity', title: 'Humidity', units: ['%'] },
  { id: 'amps', title: 'Compressor', units: ['A', 'mA', 'on/off'] },
  { id: 'fan', title: 'Outdoor fan', units: ['A', 'mA', 'on/off'] },
  { id: 'ob', title: 'O/B', units: ['V', 'mV', 'on/off'] },
  { id: 'w2', title: 'W2', units: ['V', 'mV', 'on/off'] },
  { id: 'y', title: 'Y', units: ['V', 'mV', 'on/off'] },
] as const
export type ColumnId = (typeof COLUMNS)[number]['id']
export const columnTitle = (id: string) => COLUMNS.find((one) => one.id === id)?.title ?? id

/** The mapping with a column put elsewhere, or left out; what sat there before goes. */
export function mapped(mapping: LogMapping, id: string, at: number | null, unit: string): LogMapping {
  const others = Object.entries(mapping.columns).filter(([one, where]) => one !== id && where.at !== at)
  const columns = Object.fromEntries(others)
  return {
    ...mapping,
    columns: at === null ? columns : { ...columns, [id]: { at, unit } },
    time: at === null ? mapping.time : mapping.time.filter((one) => one !== at),
  }
}

/** The first values of a column, as the file has them. */
export const firstOf = (head: LogHead, at: number) =>
  head.rows
    .slice(0, 3)
    .map((row) => row[at] || '–')
    .join(' · ')
