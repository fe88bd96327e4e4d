import { ref, shallowRef } from 'vue'
import { api, type NewReading, type Reading } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'

/** The readings of a visit: kept under an id made here, so a retry after a lost answer never keeps two. */
export function useReadings(visit: string | null) {
  const readings = shallowRef<Reading[]>([])
  const problem = shallowRef<Problem | null>(null)
  const busy = ref(false)
  let waiting: NewReading | null = null

  async function load() {
    if (!visit) return
    const answer = await api.readings(visit)
    if (answer.state === 'ready') readings.value = answer.value.readings
    else if (answer.state === 'failed') problem.value = answer.problem
  }

  /** The kept reading, or null when it was refused; what was typed is the caller's to hold on to. */
  async function keep(reading: Omit<NewReading, 'id' | 'taken_at'>): Promise<Reading | null> {
    if (!visit || busy.value) return null
    busy.value = true
    problem.value = null
    const same =
      waiting &&
      JSON.stringify({ ...waiting, id: '', taken_at: '' }) ===
        JSON.stringify({ id: '', taken_at: '', ...reading })
    const body =
      same && waiting ? waiting : { id: crypto.randomUUID(), taken_at: new Date().toISOString(), ...reading }
    waiting = body
    const answer = await api.keepReading(visit, body)
    busy.value = false
    if (answer.state !== 'ready') {
      if (answer.state === 'failed') problem.value = answer.problem
      return null
    }
    waiting = null
    await load()
    return answer.value
  }

  async function takeBack(id: string) {
    if (!visit) return
    const answer = await api.retractReading(visit, id)
    if (answer.state === 'failed') problem.value = answer.problem
    await load()
  }

  void load()
  return { readings, problem, busy, keep, takeBack }
}
