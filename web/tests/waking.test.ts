import { describe, expect, it } from 'vitest'
import type { Scene } from '@/shared/scene/geometry'
import { wakingOf } from '@/shared/scene/waking'

/** A line of links from R on, each live or dead, with a switch in the middle. */
function line(live: boolean[], closed = true): Scene {
  const links = live.map((on, i) => ({
    id: `link${i}`,
    nodes: i < 2 ? [`n${i}`, `n${i + 1}`] : [`n${i + 1}`, `n${i + 2}`],
    parts: [{ d: 'M0 0', state: on ? 'live' : 'dead' }],
  }))
  return { view: 'loops', links, stations: [{ id: 'Y', nodes: ['n2', 'n3'], closed }] } as unknown as Scene
}

describe('a change of call', () => {
  it('wakes what is newly live, from what was live outward, through closed contacts', () => {
    const woken = wakingOf(line([true, false, false, false]), line([true, true, true, true]))
    expect([...woken.keys()]).toEqual(['link1', 'link2', 'link3'])
    const far = [...woken.values()]
    expect(far).toEqual([...far].sort((a, b) => a - b))
    expect(far.at(-1)).toBe(1)
    expect(far[0]).toBeLessThan(0.5)
  })

  it('wakes nothing where nothing comes alive, and everything at once where nothing was', () => {
    expect(wakingOf(line([true, true, true, true]), line([true, false, false, false])).size).toBe(0)
    expect(wakingOf(line([true, true, false, false]), line([true, true, false, false])).size).toBe(0)
    expect([...wakingOf(line([false, false]), line([true, true])).values()]).toEqual([0, 0])
    expect(wakingOf(line([true, true, false], false), line([true, true, true], false)).get('link2')).toBe(0)
  })
})
