// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { mount } from '@vue/test-utils'
import { defineComponent } from 'vue'
import type { Task } from '@/shared/api/client'
import type { Outcome } from '@/shared/model/outcome'
import { useLongAnswer } from '@/shared/api/useLongAnswer'

const task = (state: Task['state'], done = 0): Task => ({
  id: 'one',
  kind: 'signatures',
  state,
  done,
  total: 10,
  error: state === 'failed' ? 'no room' : null,
})
type Answer = { says: string; task?: Task }
const asked = vi.fn<() => Promise<Outcome<Answer | Task>>>()
const watched = vi.fn<() => Promise<{ state: 'ready'; value: Task }>>()
vi.mock('@/shared/api/client', () => ({ api: { task: () => watched(), cancelTask: () => watched() } }))

const ready = <T>(value: T) => Promise.resolve({ state: 'ready' as const, value })

describe('an answer that is worked out in two parts', () => {
  let inHand = false
  const begin = () =>
    mount(
      defineComponent({
        setup: () => useLongAnswer<Answer>(asked, { restOf: (answer) => answer.task, inHand: () => inHand }),
        template: '<p />',
      }),
    ).vm
  beforeEach(() => {
    vi.useFakeTimers()
    inHand = false
    asked.mockReset()
    watched.mockReset()
  })
  afterEach(() => {
    vi.useRealTimers()
  })

  it('shows the first part as soon as it is there, and the whole when that is', async () => {
    const long = begin()
    asked.mockImplementation(() => ready(task('waiting')))
    watched.mockImplementation(() => ready(task('running', 3)))
    await long.again()
    expect([long.answer, long.task?.state]).toEqual([null, 'waiting'])
    asked.mockImplementation(() => ready({ says: 'first', task: task('running', 5) }))
    await vi.advanceTimersByTimeAsync(300)
    expect([long.answer?.says, long.task?.done]).toEqual(['first', 5])

    asked.mockImplementation(() => ready({ says: 'whole' }))
    await vi.advanceTimersByTimeAsync(800)
    expect(long.answer?.says).toBe('first') // the task is still at it
    watched.mockImplementation(() => ready(task('done', 10)))
    await vi.advanceTimersByTimeAsync(800)
    expect([long.answer?.says, long.task]).toEqual(['whole', null])
  })

  it('is asked for again where a long answer before it was still at work, without a word of refusal', async () => {
    const long = begin()
    const problem = { type: 'urn:gorvant:problem:one_by_one', title: 'Wait', status: 429, detail: 'later' }
    asked.mockImplementation(() => Promise.resolve({ state: 'failed' as const, problem }))
    await long.again()
    await vi.advanceTimersByTimeAsync(5000)
    expect([long.problem, long.answer, long.asking]).toEqual([null, null, true])
    asked.mockImplementation(() => ready({ says: 'whole' }))
    await vi.advanceTimersByTimeAsync(800)
    expect([long.answer?.says, long.asking]).toEqual(['whole', false])
  })

  it('does not take the first part away from under a hand that is at work on it', async () => {
    const long = begin()
    asked.mockImplementation(() => ready({ says: 'first', task: task('running', 5) }))
    await long.again()
    inHand = true
    asked.mockImplementation(() => ready({ says: 'whole' }))
    watched.mockImplementation(() => ready(task('done', 10)))
    await vi.advanceTimersByTimeAsync(5000)
    expect(long.answer?.says).toBe('first')
    inHand = false
    await vi.advanceTimersByTimeAsync(800)
    expect(long.answer?.says).toBe('whole')
  })

  it.each(['failed', 'cancelled'] as const)('asks no more once the work has %s', async (state) => {
    const long = begin()
    asked.mockImplementation(() => ready(task('waiting')))
    watched.mockImplementation(() => ready(task(state)))
    await long.again()
    await vi.advanceTimersByTimeAsync(5000)
    expect([asked.mock.calls.length, long.task, long.problem?.detail]).toEqual([
      1,
      null,
      state === 'failed' ? 'no room' : undefined,
    ])
  })
})
