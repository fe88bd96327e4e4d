/** Stretches of minutes as they are typed: "0-25, 40-62, 75-". Infinity where one has no end. */
export type Span = [number, number]

export function readSpans(text: string): Span[] {
  const cleaned = text.trim().toLowerCase()
  if (cleaned === 'always') return [[0, Infinity]]
  if (cleaned === '' || cleaned === 'never') return []
  return cleaned.split(',').flatMap((part) => {
    const match = /^(\d+(?:\.\d+)?)\s*[-–]\s*(\d+(?:\.\d+)?)?$/.exec(part.trim())
    if (!match) return []
    const to = match[2] === undefined ? Infinity : Number(match[2])
    return to > Number(match[1]) ? [[Number(match[1]), to] as Span] : []
  })
}

export function writeSpans(spans: Span[]): string {
  if (!spans.length) return 'never'
  if (spans.length === 1 && spans[0]?.[0] === 0 && spans[0][1] === Infinity) return 'always'
  return spans.map(([from, to]) => `${from}-${to === Infinity ? '' : to}`).join(', ')
}

export const covers = (spans: Span[], minute: number) =>
  spans.some(([from, to]) => minute >= from && minute < to)

/** With one stretch painted on, or wiped off; what touches becomes one. end: where the ruler ends. */
export function painted(spans: Span[], from: number, to: number, on: boolean, end: number): Span[] {
  if (to <= from) return spans
  const open = to >= end ? Infinity : to
  if (!on)
    return spans.flatMap(([a, b]) => {
      const parts: Span[] = [
        [a, Math.min(b, from)],
        [Math.max(a, open), b],
      ]
      return parts.filter(([x, y]) => y > x)
    })
  const all = [...spans, [from, open] as Span].sort((x, y) => x[0] - y[0])
  return all.reduce<Span[]>((merged, [a, b]) => {
    const last = merged[merged.length - 1]
    if (last && a <= last[1]) return [...merged.slice(0, -1), [last[0], Math.max(last[1], b)]]
    return [...merged, [a, b]]
  }, [])
}
