// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest'
import type { RoadStop } from '../src/shared/api/client'
import { roadSvg } from '../src/desks/find/roadSvg'

const test = (says: string) => ({ says, first: null, at_title: null, minutes: 1, cautions: ['Steam'] })
const leaf = (title: string, sure = true): RoadStop => ({
  title,
  share: '97%',
  proof: 'Look at it.',
  sure,
  also: [],
})
const long = 'V AC, outdoor C to outdoor Y, with Heat called '.repeat(8).trim()
const tree: RoadStop = {
  test: test(long),
  branches: [
    { answer: '< 2 V', share: 0.4, then: leaf('Yellow & "blue" open') },
    {
      answer: 'about 24 V',
      share: 0.6,
      then: {
        test: test('Contactor?'),
        branches: [
          { answer: 'in', share: 0.5, then: leaf('Nothing') },
          { answer: 'out', share: 0.5, then: leaf('Coil', false) },
        ],
      },
    },
  ],
}
const drawn = (title = 'Road map', of = tree) => {
  const text = roadSvg(title, of)
  return { text, svg: new DOMParser().parseFromString(text, 'image/svg+xml').documentElement }
}

describe('roadSvg', () => {
  it('has every station, answer, caution and leaf, each below the one before, and all of it on the page', () => {
    const { svg } = drawn()
    expect(svg.getElementsByTagName('parsererror').length).toBe(0)
    const rows = [...svg.querySelectorAll('text[class]')]
    const says = rows.map((row) => [...row.children].map((line) => line.textContent).join(' '))
    expect(says[0]).toBe(`${long} ⚠ Steam`)
    expect(says.slice(1)).toEqual([
      '< 2 V: = Yellow & "blue" open 97%: Look at it.',
      'about 24 V: Contactor? ⚠ Steam',
      'in: = Nothing 97%: Look at it.',
      'out: ? Coil 97%: Look at it.',
    ])
    const bottoms = rows.map((row) => Number(row.getAttribute('y')) + (row.children.length - 1) * 15)
    rows.slice(1).forEach((row, i) => expect(Number(row.getAttribute('y'))).toBeGreaterThan(bottoms[i]!))
    expect(bottoms.at(-1)).toBeLessThan(Number(svg.getAttribute('height')))
  })

  it('breaks a line before it runs over the edge, and grows with what is on it', () => {
    const lines = [...drawn().svg.querySelectorAll('text[class] > tspan')]
    const width = (line: Element) => Number(line.getAttribute('x')) + line.textContent!.length * 11 * 0.58
    expect(Math.max(...lines.map(width))).toBeLessThanOrEqual(816 - 36 + 1)
    const many: RoadStop = {
      test: test('Which?'),
      branches: Array.from({ length: 90 }, (_, i) => ({ answer: `a${i}`, share: 0, then: leaf('x') })),
    }
    expect(Number(drawn('t', many).svg.getAttribute('height'))).toBeGreaterThan(1056)
  })

  it('takes names as they are, and makes no markup of them', () => {
    const { svg } = drawn('<script>alert(1)</script> & "Larkmere"')
    expect(svg.getElementsByTagName('script').length).toBe(0)
    expect(svg.getElementsByTagName('title')[0]!.textContent).toBe('<script>alert(1)</script> & "Larkmere"')
  })
})
