import type { Visit } from '@/shared/api/client'
import { say } from '@/words'

export type Mark = Visit['marks'][keyof Visit['marks']]
export const SIGNS: Record<Mark, string> = {
  untouched: '·',
  so_far: '~',
  agrees: '=',
  disagrees: '≠',
}
/** What a mark means, in words. */
export const MEANS: Record<Mark, string> = {
  untouched: say('visitPages.notLookedAt'),
  so_far: say('visitPages.rightSoFar'),
  agrees: say('visitPages.agrees'),
  disagrees: say('visitPages.disagrees'),
}

/** The eight pages of a visit in the order of work; path: null for what is not built yet. */
export const PAGES: { id: keyof Visit['marks']; title: string; path: string | null }[] = [
  { id: 'intake', title: say('visitPages.intake'), path: 'intake' },
  { id: 'fitted', title: say('visitPages.fitted'), path: 'fitted' },
  { id: 'trace', title: say('visitPages.trace'), path: 'trace' },
  { id: 'wiring', title: say('visitPages.wiring'), path: 'wiring' },
  { id: 'thermostat', title: say('visitPages.thermostat'), path: 'thermostat' },
  { id: 'defrost', title: say('visitPages.defrost'), path: 'defrost' },
  { id: 'find', title: say('visitPages.find'), path: 'find' },
  { id: 'close_out', title: say('visitPages.closeOut'), path: 'close-out' },
]
