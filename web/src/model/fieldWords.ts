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
  return number ? `${words}, no. ${Number(number) + 1}` : words
}
