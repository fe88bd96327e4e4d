import { nextTick, onBeforeUnmount, shallowRef, watch } from 'vue'
import type { Scene } from '@/shared/scene/geometry'

/** How long a change of call takes to run from the sources outward, milliseconds. */
export const WAKING_MS = 150

const liveLinks = (scene: Scene) =>
  scene.links.filter((link) => link.parts.some((part) => part.state === 'live')).map((link) => link.id)

/** Points that touch: by a link, or by a station that is not open. */
function neighbors(scene: Scene): Map<string, Set<string>> {
  const all = new Map<string, Set<string>>()
  const join = (nodes: string[]) => {
    for (const node of nodes) {
      const known = all.get(node) ?? new Set()
      for (const other of nodes) if (other !== node) known.add(other)
      all.set(node, known)
    }
  }
  scene.links.forEach((link) => join(link.nodes))
  scene.stations.filter((station) => station.closed !== false).forEach((station) => join(station.nodes))
  return all
}

/** { link => 0 at the sources to 1 where it is farthest } of the links that are live and were not. */
export function wakingOf(before: Scene, now: Scene): Map<string, number> {
  const old = new Set(liveLinks(before))
  const woken = new Set(liveLinks(now).filter((id) => !old.has(id)))
  if (!woken.size) return new Map()

  const touching = neighbors(now)
  const hops = new Map<string, number>()
  let front = now.links.filter((link) => old.has(link.id)).flatMap((link) => link.nodes)
  for (let far = 0; front.length; far++) {
    const next = new Set<string>()
    for (const node of front) {
      if (hops.has(node)) continue
      hops.set(node, far)
      touching.get(node)?.forEach((other) => next.add(other))
    }
    front = [...next].filter((node) => !hops.has(node))
  }
  const reach = now.links
    .filter((link) => woken.has(link.id))
    .map((link) => [link.id, Math.min(...link.nodes.map((node) => hops.get(node) ?? 0))] as const)
  const farthest = Math.max(...reach.map(([, far]) => far), 1)
  return new Map(reach.map(([id, far]) => [id, far / farthest]))
}

/** The links that have just come alive, for as long as it takes to show it. */
export function useWaking(scene: () => Scene) {
  const waking = shallowRef<Map<string, number>>(new Map())
  let timer = 0
  const rest = () => {
    window.clearTimeout(timer)
    waking.value = new Map()
  }
  watch(scene, async (now, before) => {
    rest()
    if (now.view !== before.view) return
    await nextTick()
    waking.value = wakingOf(before, now)
    timer = window.setTimeout(rest, WAKING_MS)
  })
  onBeforeUnmount(rest)
  return waking
}
