import type { Visit } from '@/shared/api/client'

export type Mark = Visit['marks'][keyof Visit['marks']]
export const SIGNS: Record<Mark, string> = {
  untouched: '·',
  so_far: '~',
  agrees: '=',
  disagrees: '≠',
}
/** What a mark means, in words. */
export const MEANS: Record<Mark, string> = {
  untouched: 'not looked at',
  so_far: 'right so far, not all looked at',
  agrees: 'agrees',
  disagrees: 'disagrees',
}

/** The eight pages of a visit in the order of work; path: null for what is not built yet. */
export const PAGES: { id: keyof Visit['marks']; title: string; path: string | null }[] = [
  { id: 'intake', title: 'Intake', path: 'intake' },
  { id: 'fitted', title: 'Fitted', path: 'fitted' },
  { id: 'trace', title: 'Trace', path: 'trace' },
  { id: 'wiring', title: 'Wiring', path: 'wiring' },
  { id: 'thermostat', title: 'Thermostat', path: 'thermostat' },
  { id: 'defrost', title: 'Defrost', path: 'defrost' },
  { id: 'find', title: 'Find', path: 'find' },
  { id: 'close_out', title: 'Close out', path: 'close-out' },
]
