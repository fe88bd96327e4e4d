import { say } from '@/words'

/**
 * What a person calls the field that a problem points at: "/test/marks/fan_off" is "fan off", "/facts/fuse_amps/value" the
 * question's own title, "/landings/3/lands_on" "lands on, no. 4".
 */
export function fieldWords(pointer: string, titles: Record<string, string> = {}): string {
  const parts = pointer
    .split('/')
    .filter((part) => part && !['value', 'condition', 'test', 'script'].includes(part))
  const last = [...parts].reverse().find((part) => !/^\d+$/.test(part))
  if (!last) return ''
  const number = [...parts].reverse().find((part) => /^\d+$/.test(part))
  const words = titles[last] ?? last.replace(/_degrees_f$/, '').replace(/_/g, ' ')
  const places = inside(parts)
  if (places.length > 1) return `${places.join(', ')}: ${words}`
  return number ? say('fieldWords.numbered', { words, number: Number(number) + 1 }) : words
}

/** Of lists within lists: "cables/0/conductors/2/to" lies in "cable 1" and "conductor 3". */
function inside(parts: string[]): string[] {
  return parts.flatMap((part, i) =>
    i > 0 && /^\d+$/.test(part) ? [`${parts[i - 1]?.replace(/s$/, '')} ${Number(part) + 1}`] : [],
  )
}
