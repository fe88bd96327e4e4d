interface AtUnit {
  client: string
  by: string
}
type Reply = 'clear' | 'not_yet'

/**
 * What those at the unit have said to "hands clear?". It is clear only when every one of them has said so: one who says
 * not yet, or has not answered, or came after the question, keeps the call as it is.
 */
export function handsOf(atUnit: readonly AtUnit[], replies: ReadonlyMap<string, Reply>) {
  const said = (reply: Reply | undefined) => atUnit.filter((one) => replies.get(one.client) === reply)
  const names = (people: readonly AtUnit[]) => people.map((one) => one.by).join(', ')
  if (said('not_yet').length) return { state: 'not_yet' as const, who: names(said('not_yet')) }
  const open = said(undefined)
  if (open.length || !atUnit.length) return { state: 'waiting' as const, who: names(open) }
  return { state: 'clear' as const, who: names(atUnit) }
}
