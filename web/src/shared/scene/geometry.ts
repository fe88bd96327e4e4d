import type { components } from '@/shared/api/schema'
import { stands, type Reading } from '@/shared/model/readingTable'

export type Scene = components['schemas']['Scene']
export type Station = components['schemas']['Station']
export type SceneLink = components['schemas']['Link']
export type Label = components['schemas']['Label']

/** Where a probe touches a point, and how wide its ring is there. */
export interface Spot {
  x: number
  y: number
  ringX: number
  ringY: number
}

/** How far outside a device a probe stands, so that it covers no name. */
const BESIDE = 9

/** A spot for each node: at its terminal if one is drawn, else beside the end of a device. */
export function spotsOf(scene: Scene): Map<string, Spot> {
  const found = new Map<string, Spot>()
  for (const station of scene.stations) {
    if (station.kind !== 'terminal') continue
    const [node] = station.nodes
    if (!node || found.has(node)) continue
    const round = station.width < 30
    found.set(node, {
      x: station.x,
      y: station.y,
      ringX: round ? 14 : station.width / 2 + 4,
      ringY: round ? 14 : station.height / 2 + 4,
    })
  }
  for (const station of scene.stations) {
    if (station.kind === 'terminal') continue
    station.nodes.forEach((node, i) => {
      const [x, y] = station.ends[i] ?? []
      if (x === undefined || y === undefined || found.has(node)) return
      const dx = Math.sign(x - station.x) * BESIDE
      const dy = Math.sign(y - station.y) * BESIDE
      found.set(node, { x: x + dx, y: y + dy, ringX: 9, ringY: 9 })
    })
  }
  return found
}

/** Readings that stand, by the point they were taken at. */
export function marksOf(
  spots: Map<string, Spot>,
  readings: Reading[],
): (Spot & { node: string; verdict: string })[] {
  const found = new Map<string, string>()
  for (const { to_node, verdict } of readings.filter((one) => one.function === 'volts_ac' && stands(one)))
    if (to_node) found.set(to_node, verdict)
  return [...found].flatMap(([node, verdict]) => {
    const spot = spots.get(node)
    return spot && verdict !== 'undetermined' ? [{ node, ...spot, verdict }] : []
  })
}

/** Whether a station is of what is lit: the same component, branch or point. */
export function isLit(lit: Set<string>, station: Station): boolean {
  return (
    lit.has(station.part) ||
    lit.has(station.id.split('/').pop() ?? '') ||
    (station.component !== null && lit.has(station.component)) ||
    (station.kind === 'terminal' && station.nodes.some((node) => lit.has(node)))
  )
}
