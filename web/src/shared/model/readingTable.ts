import type { components } from '@/shared/api/schema'

export type Trace = components['schemas']['Trace']
export type ExpectedTable = components['schemas']['ExpectedTable']
export type Reading = components['schemas']['Reading']
export type Station = components['schemas']['Station']

/** What the meter should show between two points, with its reason. */
export interface Expected {
  volts_ac: number | null
  low_volts_ac: number | null
  high_volts_ac: number | null
  klass: string
  says: string
}

/** Looks a pair up in the triangle; null when the drawing does not hold both points. */
export function expectedBetween(table: ExpectedTable, first: string, second: string): Expected | null {
  const a = table.nodes.indexOf(first)
  const b = table.nodes.indexOf(second)
  if (a < 0 || b < 0 || a === b) return null
  const index = triangleIndex(Math.min(a, b), Math.max(a, b), table.nodes.length)
  return {
    volts_ac: table.volts_ac[index] ?? null,
    low_volts_ac: table.low_volts_ac[index] ?? null,
    high_volts_ac: table.high_volts_ac[index] ?? null,
    klass: table.classes[table.klass[index] ?? -1] ?? 'undetermined',
    says: table.says[table.says_index[index] ?? -1] ?? '',
  }
}

/** Row by row above the diagonal: (0,1), (0,2) … (1,2) … */
export function triangleIndex(row: number, column: number, size: number): number {
  return (row * (2 * size - row - 1)) / 2 + (column - row - 1)
}

/** Whether a reading still counts: neither taken back nor corrected by a later one. */
export function stands(reading: Reading): boolean {
  return reading.retracted_at === null && reading.superseded_by_id === null
}

/** The common of the place that a point is in: where the black probe rests while hopping. */
export function commonFor(node: string): string {
  const place = node.split('.')[0] ?? 'air_handler'
  return place === 'wall' || place === 'outdoor' ? `${place}.C` : 'air_handler.C'
}

/** Points of a loop worth a probe, in order. */
export function stopsOf(trace: Trace, load: string): string[] {
  const string = trace.strings.find((one) => one.load === load)
  if (!string) return []
  const stops = string.beads.flatMap((bead) => (bead.kind === 'cable' ? [] : bead.nodes))
  return stops.filter((node, i) => stops.indexOf(node) === i)
}

/** The loop to follow from a point: the one in hand if it holds it, else the first that does. */
export function loopThrough(trace: Trace, node: string, current: string | null): string | null {
  const holds = (load: string) => stopsOf(trace, load).includes(node)
  if (current && holds(current)) return current
  return trace.strings.find((one) => holds(one.load))?.load ?? current
}
