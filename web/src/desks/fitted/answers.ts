import type { Catalogue } from '@/shared/api/client'
import { say } from '@/words'

export type Question = Catalogue['facts'][number]
export type Answer = string | number | boolean | string[]
/** A fact as a rig file holds it. */
export interface Fact {
  value: Answer
  provenance: { source: string; by?: string; at?: string; note?: string; photo_id?: string }
}
/** One state of the composer; undo and redo walk over these. */
export interface Draft {
  name: string
  facts: Record<string, Fact>
}

export const groups = () => [
  { id: 'wall', title: say('answers.wall') },
  { id: 'indoor', title: say('answers.airHandler') },
  { id: 'outdoor', title: say('answers.outdoorUnit') },
  { id: 'board', title: say('answers.board') },
  { id: 'settings', title: say('answers.settings') },
]

/** The draft with another answer; the same answer from the same source leaves it as it was. */
export function answered(draft: Draft, key: string, value: Answer, source: string): Draft {
  const old = draft.facts[key]
  if (old && JSON.stringify(old.value) === JSON.stringify(value) && old.provenance.source === source)
    return draft
  return { ...draft, facts: { ...draft.facts, [key]: { value, provenance: { source } } } }
}

/** The draft without an answer: the board or the default speaks again. */
export function unanswered(draft: Draft, key: string): Draft {
  return { ...draft, facts: Object.fromEntries(Object.entries(draft.facts).filter(([one]) => one !== key)) }
}

/** What was answered since a draft was sent, on top of what came back of it: neither is lost. */
export function onTop(now: Draft, sent: Draft, back: Draft): Draft {
  const text = (fact?: Fact) => JSON.stringify(fact ?? null)
  const keys = [...new Set([...Object.keys(now.facts), ...Object.keys(sent.facts)])]
  const changed = keys.filter((key) => text(now.facts[key]) !== text(sent.facts[key]))
  const kept = changed.reduce(unanswered, back)
  const mine = Object.fromEntries(Object.entries(now.facts).filter(([key]) => changed.includes(key)))
  const facts = { ...kept.facts, ...mine }
  return { name: now.name === sent.name ? back.name : now.name, facts }
}
