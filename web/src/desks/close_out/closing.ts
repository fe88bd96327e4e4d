import type { CloseOut, CloseOutRecord } from '@/shared/api/client'
import { say } from '@/words'

export type Line = CloseOut['put_back'][number]
export type CallLine = CloseOut['calls'][number]
export type Said = NonNullable<CloseOutRecord['calls']>[string]
export type Steps = 'found' | 'done' | 'calls' | 'put_back' | 'customer'

/** How a call came out, as one choice: how it was run and what was seen. */
export type OutcomeId = `${'run' | 'low_voltage'}-${'expected' | 'otherwise'}` | 'not_run'
export const outcomes = (): { id: OutcomeId; title: string }[] => [
  { id: 'run-expected', title: say('closing.ranAsExpected') },
  { id: 'run-otherwise', title: say('closing.ranOtherwise') },
  { id: 'low_voltage-expected', title: say('closing.lowVoltageAsExpected') },
  { id: 'low_voltage-otherwise', title: say('closing.lowVoltageOtherwise') },
  { id: 'not_run', title: say('closing.notRun') },
]

export const outcomeOf = (said: Said | null | undefined): OutcomeId | null =>
  said ? (said.how === 'not_run' ? 'not_run' : `${said.how}-${said.as ?? 'expected'}`) : null

/** The call as it is kept, with the note that it had. */
export function saidOf(id: OutcomeId, note: string): Said {
  if (id === 'not_run') return { how: 'not_run', note }
  const [how, as] = id.split('-') as ['run' | 'low_voltage', 'expected' | 'otherwise']
  return { how, as, note }
}

/** How a line stands by what is being kept, ahead of the server's word. */
export function stateOf(line: Line, kept: CloseOutRecord): Line['state'] {
  const said = kept.put_back?.[line.id]
  if (said && typeof said === 'object') return 'left'
  return said === 'back' || line.by_record ? 'back' : 'open'
}

const STEP_OF: Record<string, Steps> = {
  cause: 'found',
  finding: 'found',
  done: 'done',
  not_repeated: 'done',
  natural_defrost: 'done',
  calls: 'calls',
  put_back: 'put_back',
  plain: 'customer',
  answered: 'customer',
}

/** The part of the page on which what is missing is to be said. */
export const stepOf = (field: string): Steps => STEP_OF[field.split('/')[1] ?? ''] ?? 'found'

/** Terminal letters and part codes in words for a customer, who knows none: "W2", "R–C", "DFT". */
export function codesIn(text: string): string[] {
  const found =
    text.match(
      /\b(?:[RCYGWOBE]\d?(?:\/[A-Z])?(?:[–-][RCYGWOBE]\d?)+|[RCYGWOBE]\/[RCYGWOBE]|[YW]\d|[A-Z]{2,4}\d?)\b/g,
    ) ?? []
  return [...new Set(found)].filter((one) => !['OK', 'US', 'USA', 'AC', 'DC', 'OFF', 'ON'].includes(one))
}
