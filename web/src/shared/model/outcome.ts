import type { components } from '@/shared/api/schema'

export type Problem = components['schemas']['Problem']

/** What came of asking the server. */
export type Outcome<T> =
  { state: 'loading' } | { state: 'ready'; value: T } | { state: 'failed'; problem: Problem }

export const LOADING = { state: 'loading' } as const

/** A problem for when no server answered at all. */
export function unreachable(): Problem {
  return {
    type: 'about:blank',
    title: 'No answer',
    status: 0,
    detail: 'The server did not answer. What you typed is still here; try again.',
  }
}
