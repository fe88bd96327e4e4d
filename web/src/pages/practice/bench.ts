import { say } from '@/words'

/** What a bench page reckons by itself: where the probes are, what a decision still lacks, words of a mark. */

export type PanelView = 'loops' | 'ladder' | 'connections'
export const panelViews = (): { id: PanelView; title: string }[] => [
  { id: 'loops', title: say('bench.loom') },
  { id: 'ladder', title: say('bench.ladder') },
  { id: 'connections', title: say('bench.connections') },
]

export interface Probes {
  black: string | null
  red: string | null
}

/** A tap on what has one point moves red, black first; on what has two, both go across it. */
export function tapped(probes: Probes, nodes: readonly string[]): Probes {
  const [first, second] = nodes
  if (!first) return probes
  if (second) return { black: first, red: second }
  if (!probes.black || probes.black === first) return { ...probes, black: first }
  return { ...probes, red: first }
}

export const swapped = (probes: Probes): Probes => ({ black: probes.red, red: probes.black })
export const placed = (probes: Probes): boolean =>
  probes.black !== null && probes.red !== null && probes.black !== probes.red

/** What is said of one thing that is wrong, as the server takes it. */
export interface Said {
  kind: string
  at?: string | string[]
  value?: string
}

/** Fields that a kind asks for, by what has to be named beside it. */
export interface Wanted {
  at: 'none' | 'link' | 'joint' | 'joints' | 'points' | 'point' | 'fact' | 'design'
  value: 'none' | 'point' | 'position' | 'drift' | 'fact'
}
const WANTED: Record<string, Wanted> = {
  link: { at: 'link', value: 'none' },
  joint: { at: 'joint', value: 'none' },
  joint_to: { at: 'joint', value: 'point' },
  joints: { at: 'joints', value: 'none' },
  points: { at: 'points', value: 'none' },
  point: { at: 'point', value: 'none' },
  setting: { at: 'fact', value: 'fact' },
  position: { at: 'none', value: 'position' },
  drift: { at: 'link', value: 'drift' },
  design: { at: 'design', value: 'none' },
}
export const wantedBy = (at: string): Wanted => WANTED[at] ?? { at: 'link', value: 'none' }

/** Whether all that a kind asks for is said. */
export function whole(said: Partial<Said>, at: string): boolean {
  if (!said.kind) return false
  const wanted = wantedBy(at)
  const ats = Array.isArray(said.at) ? said.at : said.at ? [said.at] : []
  const count = { none: 0, joints: 2, points: 2 }[wanted.at as 'none' | 'joints' | 'points'] ?? 1
  if (ats.filter(Boolean).length !== count || new Set(ats).size !== ats.length) return false
  return wanted.value === 'none' || !!said.value
}

/** Bench minutes as a clock: 0:00 is when one came. */
export function benchClock(minutes: number): string {
  const whole = Math.floor(minutes)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}

/** How many answers were right, in words. */
export const rightOf = (lines: readonly { right: boolean }[]): string =>
  say('bench.rightOf', { right: lines.filter((line) => line.right).length, all: lines.length })

/** When a subject is due, in days from a moment; 0 for now. */
export function dueIn(due: string | null, now: number): number {
  if (!due) return 0
  return Math.max(0, Math.ceil((Date.parse(due) - now) / 86_400_000))
}

/** How somebody stands in a subject, in words. */
export const standings = () => ({
  new: say('bench.standsNew'),
  shaky: say('bench.standsShaky'),
  sure: say('bench.standsSure'),
})
