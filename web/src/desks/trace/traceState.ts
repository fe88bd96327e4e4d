import type { LocationQuery, LocationQueryRaw } from 'vue-router'
import type { components } from '@/shared/api/schema'

export type Fault = components['schemas']['Fault']

export type Script = components['schemas']['Script']
export const SPAN_SECONDS = 2 * 3600

export const VIEWS = ['loops', 'ladder', 'connections', 'focus', 'legend'] as const
export type View = (typeof VIEWS)[number]
/** What the API is asked to draw. */
export interface Drawn {
  view: Exclude<View, 'legend'>
  opened?: string[]
  at_rest?: boolean
  panel?: boolean
  load?: string
}

/** All that decides what Trace shows. It lives in the address, so that a link or a reload brings it back. */
export interface TraceState {
  call: string
  black: string | null
  red: string | null
  instrument: string
  hop: boolean
  loop: string | null
  /** Switches supposed to stand otherwise than at rest: { code: 'open' | 'closed' }. */
  supposed: Record<string, string>
  /** What-if faults, as the API takes them. */
  faults: Fault[]
  /** Supplies switched off. */
  off: string[]
  /** What the meter is on: a function of the catalogue. */
  function: string
  view: View
  /** What is lit in every view: a code, a branch or a point. */
  part: string | null
  /** Folded functions that are to be drawn all the same. */
  opened: string[]
  /** Ladder: contacts as the panel shows them. */
  atRest: boolean
  /** Ladder: what the panel shows and this unit lacks, struck out. */
  panel: boolean
  /** The tape: what happens over time, null while it is away. */
  tape: Script | null
  span: number
  /** The instant that all drawings show. */
  at: number
}

function readFaults(text: string | null): Fault[] {
  if (!text) return []
  try {
    const parsed: unknown = JSON.parse(text)
    return Array.isArray(parsed)
      ? parsed.filter((one): one is Fault => typeof one?.kind === 'string' && 'at' in one).slice(0, 80)
      : []
  } catch {
    return []
  }
}

function readScript(text: string | null): Script | null {
  if (!text) return null
  try {
    const parsed: unknown = JSON.parse(text)
    return typeof parsed === 'object' && parsed !== null ? (parsed as Script) : null
  } catch {
    return null
  }
}

function positive(text: string | null, fallback: number): number {
  const value = Number(text)
  return text !== null && Number.isFinite(value) && value >= 0 ? value : fallback
}

export function readState(query: LocationQuery): TraceState {
  const text = (key: string) => (typeof query[key] === 'string' ? (query[key] as string) : null)
  return {
    call: text('call') ?? 'off',
    black: text('black'),
    red: text('red'),
    instrument: text('meter') ?? 'high_impedance',
    hop: text('hop') !== 'no',
    loop: text('loop'),
    supposed: Object.fromEntries(
      (text('supposed') ?? '')
        .split(',')
        .map((entry) => entry.split(':'))
        .filter(
          (pair): pair is [string, string] =>
            pair.length === 2 && pair[0] !== '' && /^(open|closed)$/.test(pair[1] ?? ''),
        ),
    ),
    faults: readFaults(text('faults')),
    off: (text('off') ?? '').split(',').filter(Boolean),
    function: text('function') ?? 'volts_ac',
    view: VIEWS.find((one) => one === text('view')) ?? 'loops',
    part: text('part'),
    opened: (text('opened') ?? '').split(',').filter(Boolean),
    atRest: text('contacts') === 'rest',
    panel: text('panel') === 'yes',
    tape: readScript(text('tape')),
    span: positive(text('span'), SPAN_SECONDS) || SPAN_SECONDS,
    at: positive(text('at'), 0),
  }
}

export function writeState(state: TraceState): LocationQueryRaw {
  const supposed = Object.entries(state.supposed)
    .map(([code, position]) => `${code}:${position}`)
    .join(',')
  return {
    call: state.call === 'off' ? undefined : state.call,
    black: state.black ?? undefined,
    red: state.red ?? undefined,
    meter: state.instrument === 'high_impedance' ? undefined : state.instrument,
    hop: state.hop ? undefined : 'no',
    loop: state.loop ?? undefined,
    supposed: supposed || undefined,
    faults: state.faults.length ? JSON.stringify(state.faults) : undefined,
    off: state.off.join(',') || undefined,
    function: state.function === 'volts_ac' ? undefined : state.function,
    view: state.view === 'loops' ? undefined : state.view,
    part: state.part ?? undefined,
    opened: state.opened.join(',') || undefined,
    contacts: state.atRest ? 'rest' : undefined,
    panel: state.panel ? 'yes' : undefined,
    tape: state.tape ? JSON.stringify(state.tape) : undefined,
    span: state.tape && state.span !== SPAN_SECONDS ? String(state.span) : undefined,
    at: state.tape && state.at ? String(state.at) : undefined,
  }
}
