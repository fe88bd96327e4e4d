/** What a meter that sends by itself shows, as a page may take it: plain rules, no Vue. */

export interface Sample {
  id: string
  function: string
  value: number
  unit: string
  stable: boolean
  device: string
  device_id: string
  /** Of a meter that says it; one that does not is taken for high impedance: what it shows may be a ghost. */
  instrument?: string
  /** Of a stand-in: the two points that it was held to. */
  probes?: string[]
}

export interface Live {
  sample: Sample
  /** The last settled value of these probes; it stands until the probes move or another settles. */
  held: Sample | null
  heardAt: number
}

export const STALE_MS = 3000
/** Kept between two points by a key; the others that a person reads are shown, and kept where they are typed. */
const KEPT = ['volts_ac', 'ohms']
const READ = [...KEPT, 'amps_ac', 'degrees_f', 'psi']

/** What a meter on DC, or on Hz, shows is nothing that a person reads here. */
export const refused = (sample: Sample): boolean => !READ.includes(sample.function)

/** After one more sample. */
export function heard(before: Live | null, sample: Sample, now: number): Live {
  const same =
    before?.sample.function === sample.function &&
    before.sample.device_id === sample.device_id &&
    JSON.stringify(before.sample.probes) === JSON.stringify(sample.probes)
  return { sample, held: sample.stable ? sample : same ? before.held : null, heardAt: now }
}

export const stale = (live: Live, now: number): boolean => now - live.heardAt > STALE_MS

/** The sample that a keep would keep: settled, fresh, of a function that is kept, on the points that the page has. */
export function keepable(live: Live | null, now: number, probes: (string | null)[]): Sample | null {
  if (!live?.held || stale(live, now) || !KEPT.includes(live.held.function)) return null
  if (!probes[0] || !probes[1] || probes[0] === probes[1]) return null
  const at = live.held.probes
  return at && (at[0] !== probes[0] || at[1] !== probes[1]) ? null : live.held
}

export const instrumentOf = (sample: Sample): string => sample.instrument ?? 'high_impedance'

/** What a page does with a sample: one for its visit is shown; one of a meter of the crew only where this browser has
 *  that meter in hand, since another's may be clipped to another unit. */
export function place(
  sent: { visit_id: string | null; device_id: string },
  visit: string,
  inHand: string,
): 'show' | 'offer' | 'pass' {
  if (sent.visit_id) return sent.visit_id === visit ? 'show' : 'pass'
  return sent.device_id === inHand ? 'show' : 'offer'
}
