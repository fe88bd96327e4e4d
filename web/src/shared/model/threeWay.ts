type Json = unknown
const isObject = (value: Json): value is Record<string, Json> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
/** Whether two things say the same, whatever the order of their fields. */
export const same = (one: Json, other: Json): boolean => {
  if (isObject(one) && isObject(other)) {
    const keys = new Set([...Object.keys(one), ...Object.keys(other)])
    return [...keys].every((key) => same(one[key], other[key]))
  }
  if (Array.isArray(one) && Array.isArray(other))
    return one.length === other.length && one.every((value, i) => same(value, other[i]))
  return one === other
}

/** Stands for two changes of one thing. */
const CLASH = Symbol('clash')

/**
 * What two people made of one record, put together: null where both changed the same thing otherwise, unless mine is to
 * stand there. Lists are one thing each.
 */
export function threeWay<T>(base: T, theirs: T, mine: T, mineStands = false): T | null {
  const merged = merge(base, theirs, mine, mineStands)
  return merged === CLASH ? null : (merged as T)
}

function merge(base: Json, theirs: Json, mine: Json, mineStands: boolean): Json {
  if (same(theirs, mine) || same(base, theirs)) return mine
  if (same(base, mine)) return theirs
  if (!isObject(theirs) || !isObject(mine)) return mineStands ? mine : CLASH
  const before = isObject(base) ? base : {}
  const whole: Record<string, Json> = {}
  for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const part = merge(before[key], theirs[key], mine[key], mineStands)
    if (part === CLASH) return CLASH
    if (part !== undefined) whole[key] = part
  }
  return whole
}
