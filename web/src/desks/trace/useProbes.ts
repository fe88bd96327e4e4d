import { computed, type Ref } from 'vue'
import type { Trace } from '@/shared/api/client'
import type { components } from '@/shared/api/schema'
import { commonFor, loopThrough } from '@/shared/model/readingTable'
import type { TraceState } from '@/desks/trace/traceState'

type Bead = components['schemas']['Bead']

/** What can be tapped: a station of any drawing, or a bead of a string. */
export interface Touched {
  id: string
  kind: string
  nodes: string[]
  part?: string
}

const sameIsland = (first: string, second: string) => first.split('.')[0] === second.split('.')[0]
const LOADS = ['coil', 'load', 'source', 'capacitor']

/** Where the two probes go when something is touched, and along the loop in hand. */
export function useProbes(
  trace: Ref<Trace | null>,
  state: Ref<TraceState>,
  change: (part: Partial<TraceState>) => void,
) {
  const loop = computed(() => {
    const { loop: chosen, red } = state.value
    if (chosen || !trace.value) return chosen
    return (red && loopThrough(trace.value, red, null)) || (trace.value.strings[0]?.load ?? null)
  })
  const stations = computed(
    () =>
      trace.value?.strings
        .find((one) => one.load === loop.value)
        ?.beads.filter((bead) => bead.kind !== 'cable') ?? [],
  )

  /** A terminal takes one probe; a switch or a load takes both, or in hopping its far side. */
  function tap(station: Touched, load: string | null = null) {
    const part = station.part ?? station.id
    const [near, far] = station.nodes
    if (!near || !trace.value) return change({ part })
    if (!far) return touchPoint(near, load, part)
    if (state.value.hop && !LOADS.includes(station.kind)) {
      return touchPoint(state.value.red === far ? near : far, load, part)
    }
    change({ part, black: far, red: near, loop: load ?? loopThrough(trace.value, near, state.value.loop) })
  }

  function touchPoint(node: string, load: string | null, part: string) {
    const through = load ?? (trace.value ? loopThrough(trace.value, node, state.value.loop) : null)
    if (!state.value.hop)
      return change({ part, black: state.value.red ?? commonFor(node), red: node, loop: through })
    if (node.endsWith('.C')) return change({ part, black: node, loop: through })
    const held = state.value.black
    const black = held?.endsWith('.C') && sameIsland(held, node) ? held : commonFor(node)
    change({ part, black, red: node, loop: through })
  }

  /** Goes along the loop in hand, station by station; `on` past those where the red probe would stay where it is. */
  function step(by: number, on = false) {
    const { part, red } = state.value
    const at = stations.value.findIndex((bead) => bead.id === part)
    const here = at < 0 ? stations.value.findIndex((bead) => bead.nodes.includes(red ?? '')) : at
    // Kept at a point that lies on no station of this loop, the probe stays where it is.
    if (on && here < 0) return
    let next = here + by
    while (on && stations.value[next] && probesAt(stations.value[next]!).red === red) next += by
    const bead = on
      ? stations.value[next]
      : stations.value[Math.min(Math.max(next, 0), stations.value.length - 1)]
    if (bead) change({ ...probesAt(bead), loop: loop.value, part: bead.id })
  }

  /** Hopping, the red probe stands at a point or past a device; else the two stand across it. */
  function probesAt(bead: Bead): { black: string; red: string } {
    const [near = '', far = near] = bead.nodes
    const { black, hop } = state.value
    if (!hop && far !== near) return { black: far, red: near }
    const red = bead.kind === 'load' ? near : far
    return { black: black?.endsWith('.C') && black !== red ? black : commonFor(red), red }
  }

  return { loop, tap, step }
}
