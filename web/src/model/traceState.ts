import type { LocationQuery, LocationQueryRaw } from 'vue-router'

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
  }
}
