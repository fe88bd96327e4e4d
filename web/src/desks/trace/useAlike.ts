import { api, type Alike, type Source } from '@/shared/api/client'
import { useLongAnswer } from '@/shared/api/useLongAnswer'

/** Which faults of a rig no voltage tells apart. */
export function useAlike(source: Source) {
  const { answer: alike, task, problem, again: ask, cancel } = useLongAnswer<Alike>(() => api.alike(source))
  return { alike, task, problem, ask, cancel }
}
