/** Words of a rung while it is typed: what is being written, and what may be meant. */
export interface Word {
  id: string
  title: string
}

export interface Typing {
  /** Where the word in hand begins in the text. */
  from: number
  to: number
  text: string
}

/** The word under the cursor, or null where a color or a remark is written. */
export function wordAt(text: string, cursor: number): Typing | null {
  const lineStart = text.lastIndexOf('\n', cursor - 1) + 1
  const before = text.slice(lineStart, cursor)
  if (before.includes('#') || before.lastIndexOf('[') > before.lastIndexOf(']')) return null
  const start = Math.max(before.lastIndexOf('>'), before.lastIndexOf('|')) + 1
  const lead = before.slice(start).match(/^\s*/)?.[0].length ?? 0
  const from = lineStart + start + lead
  const rest = text.slice(cursor).match(/^[^\s>|[\]#]*/)?.[0].length ?? 0
  return { from, to: cursor + rest, text: text.slice(from, cursor) }
}

/** Known words for what is typed: those that begin so first, then those that hold it. */
export function offered(words: Word[], typed: string, most = 8): Word[] {
  const low = typed.toLowerCase()
  if (!low) return []
  const bare = (word: Word) => word.id.toLowerCase().replace(/[()]/g, '')
  const begins = words.filter(
    (word) => bare(word).startsWith(low.replace('(', '')) || word.id.toLowerCase().startsWith(low),
  )
  const holds = words.filter((word) => !begins.includes(word) && word.id.toLowerCase().includes(low))
  const all = [...begins, ...holds]
  return all.length === 1 && all[0]?.id === typed ? [] : all.slice(0, most)
}

/** The text with a word put in place of the one in hand, and where the cursor goes. */
export function completed(text: string, typing: Typing, word: string): { text: string; cursor: number } {
  const after = text.slice(typing.to)
  const ending = word === 'C' || /^\s*[>[]/.test(after) ? '' : ' > '
  return {
    text: text.slice(0, typing.from) + word + ending + after.replace(/^ +/, ending ? '' : ' '),
    cursor: typing.from + word.length + ending.length,
  }
}

/** Sets a fact that no rung shows, as a line of its own. */
export function withFact(text: string, key: string, value: string): string {
  const lines = text.replace(/\n+$/, '').split('\n')
  const kept = lines.filter((line) => !new RegExp(`^\\s*with\\s+${key}\\b`, 'i').test(line))
  return `${[...kept, `with ${key} ${value}`].join('\n')}\n`
}
