import { describe, expect, it } from 'vitest'
import {
  heard,
  instrumentOf,
  keepable,
  place,
  refused,
  STALE_MS,
  stale,
  type Live,
  type Sample,
} from '@/desks/trace/liveMeter'

const PROBES = ['outdoor.C', 'outdoor.Y']
const sample = (part: Partial<Sample> = {}): Sample => ({
  id: 's',
  function: 'volts_ac',
  value: 24.6,
  unit: 'V',
  stable: true,
  device: 'Bench meter',
  device_id: 'd',
  ...part,
})
const after = (...samples: Sample[]) =>
  samples.reduce<Live | null>((live, one, i) => heard(live, one, i * 500), null)!

describe('a live meter', () => {
  it('holds what has settled until another value has', () => {
    expect(after(sample(), sample({ value: 3, stable: false })).held?.value).toBe(24.6)
    expect(after(sample(), sample({ value: 3 })).held?.value).toBe(3)
    expect(after(sample({ stable: false })).held).toBeNull()
  })

  it('holds nothing over to other points, another function or another device', () => {
    for (const part of [
      { probes: ['outdoor.C', 'outdoor.O'] },
      { function: 'ohms', unit: 'Ω' },
      { device_id: 'e' },
    ])
      expect(after(sample({ probes: PROBES }), sample({ ...part, stable: false })).held).toBeNull()
  })

  it('is stale when it has been quiet for three seconds, and keeps nothing then', () => {
    const live = after(sample())
    expect([stale(live, STALE_MS), stale(live, STALE_MS + 1)]).toEqual([false, true])
    expect(keepable(live, STALE_MS, PROBES)?.value).toBe(24.6)
    expect(keepable(live, STALE_MS + 1, PROBES)).toBeNull()
  })

  it('keeps only between the two points that the page has', () => {
    const live = after(sample({ probes: PROBES }))
    expect(keepable(live, 0, PROBES)?.value).toBe(24.6)
    expect(keepable(live, 0, ['outdoor.C', 'outdoor.O'])).toBeNull()
    expect(keepable(live, 0, ['outdoor.C', null])).toBeNull()
    expect(keepable(after(sample()), 0, ['outdoor.C', 'outdoor.C'])).toBeNull()
    expect(keepable(null, 0, PROBES)).toBeNull()
  })

  it.each(['volts_dc', 'hertz', 'amps_dc'])('takes nothing of a meter on %s: no false dead', (of) => {
    const one = sample({ function: of, value: 0 })
    expect(refused(one)).toBe(true)
    expect(keepable(after(one), 0, PROBES)).toBeNull()
  })

  it.each(['amps_ac', 'degrees_f', 'psi'])('shows %s and leaves the keeping to its own place', (of) => {
    expect(refused(sample({ function: of }))).toBe(false)
    expect(keepable(after(sample({ function: of })), 0, PROBES)).toBeNull()
  })

  it('takes an unknown input for high impedance', () => {
    expect(instrumentOf(sample())).toBe('high_impedance')
    expect(instrumentOf(sample({ instrument: 'low_impedance' }))).toBe('low_impedance')
  })

  it.each([
    ['v1', 'd', '', 'show'],
    ['v2', 'd', 'd', 'pass'],
    [null, 'd', 'd', 'show'],
    [null, 'd', 'e', 'offer'],
    [null, 'd', '', 'offer'],
  ])('of visit %s and device %s, with %s in hand: %s', (visit_id, device_id, inHand, is) => {
    expect(place({ visit_id, device_id }, 'v1', inHand)).toBe(is)
  })
})
