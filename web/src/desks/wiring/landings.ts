import type { AsFound, ConductorEnd, Wiring } from '@/shared/api/client'
import { say } from '@/words'

export type Landing = NonNullable<AsFound['landings']>[number]
export type Jumper = NonNullable<AsFound['jumpers']>[number]
/** What a line of quick entry says, or what is wrong with it. */
export type Entry =
  | { kind: 'landing'; landing: Landing; end: ConductorEnd | null }
  | { kind: 'jumper'; jumper: Jumper }
  | { kind: 'wrong'; says: string }

const LOOSE = ['capped', 'cap', 'bare', 'off']
const plain = (text: string) => text.toLowerCase().replace(/[\s_/.-]/g, '')

/** The terminal of a place that a person means: "y", "w2 out", "O/B". */
export function terminalOf(wiring: Wiring, place: string, text: string): string | null {
  const strip = wiring.strips.find((one) => one.place === place)
  const found = strip?.terminals.find(({ id, letter }) =>
    [id, letter].some((name) => plain(name) === plain(text)),
  )
  return found?.id ?? null
}

/** Ends of a place in the order in which they are gone through. */
export function endsAt(wiring: Wiring, place: string): ConductorEnd[] {
  return wiring.ends.filter((end) => end.place === place)
}

export const nameOf = (end: ConductorEnd) => end.conductor.replace(/_/g, ' ')
export const cableLetter = (cable: string) => cable.slice(-1).toUpperCase()

/**
 * One line typed at a strip. For the end in hand: a terminal, "capped" or "bare"; nothing: as drawn.
 * With a conductor before it, for that one: "orange B", "b white W2 out". A color that nobody drew
 * is an extra conductor. "as brown": this end comes out of a splice in brown. "jumper W2 E",
 * "no jumper W2 E".
 */
export function readEntry(wiring: Wiring, place: string, current: ConductorEnd | null, text: string): Entry {
  const words = text.trim().split(/\s+/).filter(Boolean)
  const strip = wiring.strips.find((one) => one.place === place)
  if (!strip) return wrong(say('landings.noSuchPlace'))
  if (/^(no\s+)?jumper\b/i.test(text.trim())) return jumper(wiring, place, text)
  if (words.some((word) => word.toLowerCase() === 'as')) return spliced(wiring, place, current, words)
  if (!words.length)
    return current
      ? landed(current, current.drawn, current.drawn ? 'landed' : 'capped')
      : wrong(say('landings.nothingLeft'))
  const whole = target(wiring, place, words)
  if (whole && current) return landed(current, whole.terminal, whole.lies)
  return named(wiring, place, words)
}

function wrong(says: string): Entry {
  return { kind: 'wrong', says }
}

function target(wiring: Wiring, place: string, words: string[]) {
  const last = words.join(' ').toLowerCase()
  if (LOOSE.includes(last))
    return { terminal: null, lies: last === 'bare' ? ('bare' as const) : ('capped' as const) }
  const terminal = terminalOf(wiring, place, words.join(''))
  return terminal ? { terminal, lies: 'landed' as const } : null
}

function landed(end: ConductorEnd, terminal: string | null, lies: Landing['lies']): Entry {
  const { cable, conductor, place } = end
  const color = end.known ? {} : { color: end.color }
  return { kind: 'landing', end, landing: { cable, conductor, place, lands_on: terminal, lies, ...color } }
}

/** "as brown", "yellow as brown", "yellow as brown G": what goes before "as" is the conductor, after it its color here. */
function spliced(wiring: Wiring, place: string, current: ConductorEnd | null, words: string[]): Entry {
  const at = words.findIndex((word) => word.toLowerCase() === 'as')
  const [before, after] = [words.slice(0, at), words.slice(at + 1)]
  const tail = after.length > 1 ? target(wiring, place, after.slice(-1)) : null
  const color = (tail ? after.slice(0, -1) : after).join(' ').toLowerCase()
  if (!/^[a-z][a-z ]{1,28}$/.test(color)) return wrong(say('landings.asBeforeColor'))
  const ends = endsAt(wiring, place).filter((end) =>
    [nameOf(end), end.color].includes(before.join(' ').toLowerCase()),
  )
  if (before.length && ends.length !== 1) return wrong(say('landings.nameOne', { typed: before.join(' ') }))
  const end = before.length ? (ends[0] ?? null) : current
  if (!end) return wrong(say('landings.which'))
  const stands = tail ?? { terminal: end.lands_on, lies: end.lies }
  const entry = landed(end, stands.terminal, stands.lies)
  return entry.kind === 'landing' ? { ...entry, landing: { ...entry.landing, color } } : entry
}

/** "orange B": the longest tail that is a terminal, before it the conductor, before that the cable's letter. */
function named(wiring: Wiring, place: string, words: string[]): Entry {
  const strip = wiring.strips.find((one) => one.place === place)!
  for (let cut = 1; cut < words.length; cut += 1) {
    const goal = target(wiring, place, words.slice(cut))
    if (goal) return conductor(wiring, place, words.slice(0, cut), goal)
  }
  const known = strip.terminals.map((one) => one.letter).join(', ')
  return wrong(say('landings.endWith', { typed: words.join(' '), known }))
}

function conductor(
  wiring: Wiring,
  place: string,
  words: string[],
  goal: { terminal: string | null; lies: NonNullable<Landing['lies']> },
): Entry {
  const strip = wiring.strips.find((one) => one.place === place)!
  const letter = words.length > 1 && words[0]!.length === 1 ? words[0]!.toUpperCase() : null
  const color = words
    .slice(letter ? 1 : 0)
    .join(' ')
    .toLowerCase()
  const cables = strip.cables.filter((one) => !letter || cableLetter(one.id) === letter)
  if (!cables.length)
    return wrong(
      say('landings.noCable', { letter, cables: strip.cables.map((one) => cableLetter(one.id)).join(', ') }),
    )
  const ends = endsAt(wiring, place).filter(
    (end) => cables.some((one) => one.id === end.cable) && [nameOf(end), end.color].includes(color),
  )
  if (ends.length > 1) {
    const letters = ends.map((end) => cableLetter(end.cable))
    return wrong(
      say('landings.twoOfColor', {
        color,
        cables: letters.join(say('landings.and')),
        letter: letters[0]!.toLowerCase(),
      }),
    )
  }
  if (ends[0]) return landed(ends[0], goal.terminal, goal.lies)
  if (!/^[a-z][a-z ]{1,28}$/.test(color)) return wrong(say('landings.noColor', { color }))
  if (cables.length > 1)
    return wrong(say('landings.notDrawn', { color, letter: cableLetter(cables[0]!.id).toLowerCase() }))
  const landing = {
    cable: cables[0]!.id,
    conductor: color.replace(/ /g, '_'),
    place,
    lands_on: goal.terminal,
    lies: goal.lies,
    color,
  }
  return { kind: 'landing', end: null, landing }
}

function jumper(wiring: Wiring, place: string, text: string): Entry {
  const found = !/^no\s/i.test(text.trim())
  const words = text
    .trim()
    .replace(/^(no\s+)?jumper\s*/i, '')
    .split(/[\s–-]+/)
    .filter(Boolean)
  const ends = words.map(
    (word) => terminalOf(wiring, place, word) ?? (/^R[CH]$/i.test(word) ? word.toUpperCase() : null),
  )
  if (ends.length !== 2 || ends.includes(null)) return wrong(say('landings.jumper'))
  return { kind: 'jumper', jumper: { place, from: ends[0]!, to: ends[1]!, found } }
}

/** The record with one more entry; an end, or a jumper, stands in it once. */
export function withEntry(record: AsFound, entry: Entry): AsFound {
  if (entry.kind === 'wrong') return record
  if (entry.kind === 'jumper') {
    const pair = (one: Jumper) => [one.place, ...[one.from, one.to].sort()].join(' ')
    const others = (record.jumpers ?? []).filter((one) => pair(one) !== pair(entry.jumper))
    return { ...record, jumpers: [...others, entry.jumper] }
  }
  const same = (one: Landing) =>
    one.cable === entry.landing.cable &&
    one.conductor === entry.landing.conductor &&
    one.place === entry.landing.place
  return { ...record, landings: [...(record.landings ?? []).filter((one) => !same(one)), entry.landing] }
}

/** The end after this one that nobody has looked at yet, round and round; null when all are seen. */
export function nextUnseen(wiring: Wiring, place: string, after: ConductorEnd | null): ConductorEnd | null {
  const ends = endsAt(wiring, place)
  const at = after
    ? ends.findIndex((one) => one.cable === after.cable && one.conductor === after.conductor)
    : -1
  const round = [...ends.slice(at + 1), ...ends.slice(0, at + 1)]
  return round.find((one) => !one.seen && !(after && one === after)) ?? null
}

/** The wiring as it will stand with one more landing, until the server has solved it: a fast hand must not wait. */
export function noted(wiring: Wiring, entry: Entry): Wiring {
  if (entry.kind !== 'landing') return wiring
  const { cable, conductor, place, lands_on, lies, color } = entry.landing
  const now = { lands_on, lies: lies ?? 'landed', seen: true }
  const same = (one: ConductorEnd) =>
    one.cable === cable && one.conductor === conductor && one.place === place
  if (wiring.ends.some(same))
    return { ...wiring, ends: wiring.ends.map((one) => (same(one) ? { ...one, ...now } : one)) }
  const extra = {
    cable,
    conductor,
    place,
    color: color ?? conductor,
    sheath: conductor,
    drawn: null,
    known: false,
  }
  return { ...wiring, ends: [...wiring.ends, { ...extra, ...now }] }
}
