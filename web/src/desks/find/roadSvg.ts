import type { RoadStop } from '@/shared/api/client'

// A letter page at 96 px an inch; type of 11 px is a little over 8 pt.
const PAGE = { width: 816, height: 1056, edge: 36 }
const TYPE = 11
const LINE = 15
const STEP = 18
const HEAD = 30
/** A letter's mean width, in parts of its size: on the wide side, so that no line runs over. */
const WIDE = 0.58

type Row = { depth: number; x: number; y: number; lines: string[]; answer: string; kind: string }

/** A road map as one drawing: a row a station or leaf, the way to it on its left, as tall as it takes. */
export function roadSvg(title: string, tree: RoadStop): string {
  const rows: Row[] = []
  const ways: string[] = []
  let y = PAGE.edge + HEAD

  function put(stop: RoadStop, depth: number, answer: string): number {
    const x = PAGE.edge + depth * STEP
    const lines = wrapped(
      `${answer ? `${answer}: ` : ''}${says(stop)}`,
      (PAGE.width - PAGE.edge - x) / (TYPE * WIDE),
    )
    const kind = stop.test ? 'test' : stop.sure ? 'sure' : 'open'
    const top = y
    rows.push({ depth, x, y, lines, answer, kind })
    y += lines.length * LINE + 4
    let last = top
    for (const one of stop.branches ?? []) {
      last = y
      put(one.then, depth + 1, one.answer)
      ways.push(`M${x + 5} ${last}h${STEP - 9}`)
    }
    if (last > top) ways.push(`M${x + 5} ${top + 6}V${last}`)
    return top
  }
  put(tree, 0, '')

  const height = Math.max(PAGE.height, y + PAGE.edge)
  const text = rows
    .map(({ x, y: top, lines, answer, kind }) => {
      const spans = lines.map((line, i) => {
        const told = i === 0 && answer ? `<tspan font-weight="700">${escaped(answer)}</tspan>` : ''
        const rest = told ? line.slice(answer.length) : line
        return `<tspan x="${x}" dy="${i ? LINE : 0}">${told}${escaped(rest)}</tspan>`
      })
      return `<text class="${kind}" y="${top + 4}"${kind === 'test' ? '' : ' font-style="italic"'}>${spans.join('')}</text>`
    })
    .join('')
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${PAGE.width} ${height}" width="${PAGE.width}" height="${height}" ` +
    `font-family="sans-serif" font-size="${TYPE}"><title>${escaped(title)}</title>` +
    `<rect width="100%" height="100%" fill="#fff"/>` +
    `<text x="${PAGE.edge}" y="${PAGE.edge + 8}" font-size="16" font-weight="700">${escaped(title)}</text>` +
    `<path d="${ways.join('')}" fill="none" stroke="#000" stroke-width="1.2"/>${text}</svg>\n`
  )
}

function says(stop: RoadStop): string {
  if (stop.test)
    return [stop.test.says, stop.test.first, ...stop.test.cautions.map((one) => `⚠ ${one}`)]
      .filter(Boolean)
      .join(' ')
  const also = stop.also?.length ? `; ${stop.also.join('; ')}` : ''
  return `${stop.sure ? '= ' : '? '}${stop.title} ${stop.share}${also}: ${stop.proof}`
}

/** Words in lines of so many letters at most; a word that is longer than a line has one of its own. */
function wrapped(text: string, most: number): string[] {
  const lines = ['']
  for (const word of text.split(/\s+/)) {
    const now = lines[lines.length - 1]!
    if (now && now.length + 1 + word.length > most) lines.push(word)
    else lines[lines.length - 1] = now ? `${now} ${word}` : word
  }
  return lines
}

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (one) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[one]!)
