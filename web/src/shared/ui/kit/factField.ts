import { say } from '@/words'

export type FactAnswer = string | number | boolean | string[]
/** What is asked of a fact, as the core's catalogue or a desk's answer has it. */
export interface FactAsked {
  key: string
  title: string
  kind: 'choice' | 'list' | 'number' | 'flag' | 'table'
  choices: { value: string | number | boolean; says: string }[]
  unit: string | null
  delta: boolean
  low: number | null
  high: number | null
  columns?: string[]
}

/** What can be chosen: yes and no of a flag, else what the fact has. */
export function factChoices(fact: FactAsked): { value: FactAnswer; says: string }[] {
  if (fact.kind !== 'flag') return fact.choices
  return [
    { value: true, says: say('factField.yes') },
    { value: false, says: say('factField.no') },
  ]
}

/** The list with the entry at its end, or without it. */
export const toggled = (list: readonly string[], entry: string): string[] =>
  list.includes(entry) ? list.filter((one) => one !== entry) : [...list, entry]

/** A table of lines with two numbers each, the first rising; or the words that say what is wrong with it. */
export function pairsOf(text: string, columns: string[]): { pairs: number[][] } | { wrong: string } {
  const pairs = text
    .trim()
    .split('\n')
    .map((line) =>
      line
        .trim()
        .split(/[\s;]+/)
        .map((one) => Number(one.replace(',', '.'))),
    )
  const bad = pairs.findIndex((pair) => pair.length !== 2 || pair.some((one) => !Number.isFinite(one)))
  if (bad >= 0) {
    const named = columns.join(say('factField.and'))
    return { wrong: say('factField.twoNumbers', { line: bad + 1, columns: named }) }
  }
  const fall = pairs.findIndex((pair, i) => i > 0 && (pair[0] ?? 0) <= (pairs[i - 1]?.[0] ?? 0))
  if (fall >= 0) return { wrong: say('factField.aboveTheOneBefore', { line: fall + 1 }) }
  return pairs.length < 2 ? { wrong: say('factField.atLeastTwoLines') } : { pairs }
}
