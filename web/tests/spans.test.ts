import { describe, expect, it } from 'vitest'
import { covers, painted, readSpans, writeSpans, type Span } from '@/desks/defrost/spans'

describe('stretches of minutes', () => {
  it.each(['0-25, 40-62, 75-', 'always', 'never', '12.5-13'])('reads and writes %s', (text) => {
    expect(writeSpans(readSpans(text))).toBe(text)
  })

  it('paints and wipes, joins what touches, and runs on where the ruler ends', () => {
    const spans = readSpans('0-25, 40-62')
    expect(writeSpans(painted(spans, 20, 45, true, 180))).toBe('0-62')
    expect(writeSpans(painted(spans, 10, 50, false, 180))).toBe('0-10, 50-62')
    expect(writeSpans(painted(spans, 100, 180, true, 180))).toBe('0-25, 40-62, 100-')
    expect(writeSpans(painted(readSpans('always'), 30, 60, false, 180))).toBe('0-30, 60-')
    expect(painted(spans, 30, 30, true, 180)).toBe(spans)
  })

  it('keeps its word minute by minute, whatever is painted on what', () => {
    let spans: Span[] = []
    const minutes = Array.from({ length: 60 }, (_, i) => i)
    const truth = new Set<number>()
    for (let step = 0; step < 200; step += 1) {
      const from = (step * 37) % 60
      const to = Math.min(from + ((step * 13) % 17), 59)
      const on = step % 3 !== 0
      spans = painted(spans, from, to, on, 60)
      for (let at = from; at < to; at += 1) {
        if (on) truth.add(at)
        else truth.delete(at)
      }
      expect(minutes.filter((at) => covers(spans, at))).toEqual(minutes.filter((at) => truth.has(at)))
    }
  })
})
