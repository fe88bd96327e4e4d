import { describe, expect, it } from 'vitest'
import { ago, clockOff } from '@/shared/model/when'

const NOW = Date.parse('2026-11-29T12:00:00Z')
const before = (seconds: number) => ago(new Date(NOW - seconds * 1000).toISOString(), NOW)

describe('ago', () => {
  it.each([
    [0, 'just now'],
    [59, 'just now'],
    [60, '1 minute ago'],
    [3599, '59 minutes ago'],
    [3600, '1 hour ago'],
    [86_399, '23 hours ago'],
    [86_400, '1 day ago'],
    [30 * 86_400, '30 days ago'],
  ])('%i s', (seconds, says) => expect(before(seconds)).toBe(says))

  it('names the day of what is long gone', () => expect(before(400 * 86_400)).toBe('on Oct 25, 2025'))
})

describe('a clock that is off', () => {
  it.each([
    [undefined, ''],
    [59.9, ''],
    [-59.9, ''],
    [60, 'clock 1 min ahead'],
    [-200, 'clock 3 min behind'],
    [7300, 'clock 2 h ahead'],
  ])('by %s s says “%s”', (seconds, says) => expect(clockOff(seconds)).toBe(says))
})
