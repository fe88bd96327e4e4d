// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { mount } from '@vue/test-utils'
import { defineComponent } from 'vue'
import { useFind } from '@/desks/find/useFind'

const asked = vi.fn()
vi.mock('@/shared/api/client', () => ({ api: { find: () => asked() as unknown } }))
const answers = (next: string, first_look?: string): unknown =>
  asked.mockResolvedValueOnce({ state: 'ready', value: { next: { id: next }, first_look } })

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

it.each([
  ['another test comes with the whole', ['volts', 'first'], ['ohms'], true],
  ['the same test comes with the whole', ['volts', 'first'], ['volts'], false],
  ['the whole was there: it was asked for by a hand', ['volts'], ['ohms'], false],
] as const)('lets a tap pass where %s, and only for a moment', async (_what, first, then, settles) => {
  answers(first[0], first[1])
  const find = mount(defineComponent({ setup: () => useFind('one', () => false), template: '<p />' })).vm
  await vi.advanceTimersByTimeAsync(0)
  expect([find.answer?.next?.id, find.settling]).toEqual([first[0], false])
  answers(then[0])
  await find.again()
  expect([find.answer?.next?.id, find.settling]).toEqual([then[0], settles])
  await vi.advanceTimersByTimeAsync(700)
  expect(find.settling).toBe(false)
})
