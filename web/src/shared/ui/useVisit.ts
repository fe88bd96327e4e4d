import { ref, shallowReadonly, shallowRef } from 'vue'
import { api, type Visit, type VisitChange } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'

const visit = shallowRef<Visit | null>(null)
const problem = shallowRef<Problem | null>(null)
const saved = ref(false)
/** What was refused because somebody else came first, until it is decided whose word stands. */
const refused = shallowRef<Omit<VisitChange, 'version'> | null>(null)
let queue: Promise<unknown> = Promise.resolve()

/** The visit in hand: one for the header and the page. Changes go to the server one after the other, each on the version that the one before made. */
export function useVisit() {
  async function load(id: string) {
    if (visit.value?.id !== id) visit.value = refused.value = null
    const answer = await api.visit(id)
    problem.value = answer.state === 'failed' ? answer.problem : null
    if (answer.state === 'ready') visit.value = answer.value
  }

  /** Keeps some of the visit's fields. False when they were not taken: `problem` says why. */
  function change(fields: Omit<VisitChange, 'version'>): Promise<boolean> {
    const mine = queue.then(async () => {
      const before = visit.value
      if (!before) return false
      saved.value = false
      const answer = await api.changeVisit(before.id, { version: before.version, ...fields })
      problem.value = answer.state === 'failed' ? answer.problem : null
      if (answer.state === 'failed' && answer.problem.status === 409)
        refused.value = { ...refused.value, ...fields }
      if (answer.state !== 'ready') return false
      refused.value = null
      if (visit.value?.id === before.id) visit.value = answer.value
      saved.value = true
      return true
    })
    queue = mine.catch(() => undefined)
    return mine
  }

  /** Puts what was refused on top of what somebody else kept meanwhile. */
  async function keepMine() {
    const mine = refused.value
    if (!mine || !visit.value) return
    await load(visit.value.id)
    await change(mine)
  }

  const take = (row: Visit) => (visit.value = row)
  return {
    visit: shallowReadonly(visit),
    problem,
    saved,
    refused: shallowReadonly(refused),
    load,
    change,
    keepMine,
    take,
  }
}
