import type { LogHead, LogMapping } from '@/desks/defrost/recorded/api'
import { say } from '@/words'

/** What a logger's column can be, in the order of the form. */
export const COLUMNS = [
  { id: 'outdoor', units: ['°F', '°C', 'K'] },
  { id: 'coil', units: ['°F', '°C', 'K'] },
  { id: 'vapor', units: ['°F', '°C', 'K'] },
  { id: 'supply', units: ['°F', '°C', 'K'] },
  { id: 'humidity', units: ['%'] },
  { id: 'amps', units: ['A', 'mA', 'on/off'] },
  { id: 'fan', units: ['A', 'mA', 'on/off'] },
  { id: 'ob', units: ['V', 'mV', 'on/off'] },
  { id: 'w2', units: ['V', 'mV', 'on/off'] },
  { id: 'y', units: ['V', 'mV', 'on/off'] },
] as const
export type ColumnId = (typeof COLUMNS)[number]['id']

const TITLES: Record<ColumnId, () => string> = {
  outdoor: () => say('columns.outdoor'),
  coil: () => say('columns.coil'),
  vapor: () => say('columns.vapor'),
  supply: () => say('columns.supply'),
  humidity: () => say('columns.humidity'),
  amps: () => say('columns.amps'),
  fan: () => say('columns.fan'),
  ob: () => 'O/B',
  w2: () => 'W2',
  y: () => 'Y',
}
export const columnTitle = (id: string): string => TITLES[id as ColumnId]?.() ?? id

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
