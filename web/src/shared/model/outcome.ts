import type { components } from '@/shared/api/schema'
import { say } from '@/words'

export type Problem = components['schemas']['Problem']

/** What came of asking the server. */
export type Outcome<T> =
  { state: 'loading' } | { state: 'ready'; value: T } | { state: 'failed'; problem: Problem }

export const LOADING = { state: 'loading' } as const

/** A problem for when no server answered at all. */
export function unreachable(): Problem {
  return {
    type: 'about:blank',
    title: say('outcome.noAnswer'),
    status: 0,
    detail: say('outcome.didNotAnswer'),
  }
}

/** Refusals that pass by themselves: this person's long answer before, or those of others, are worked out just now. */
const PASSING = new Set(['urn:gorvant:problem:one_by_one', 'urn:gorvant:problem:busy'])
export const passes = (problem: Problem) => PASSING.has(problem.type)
