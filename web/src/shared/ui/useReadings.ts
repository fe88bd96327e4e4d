import { computed, ref, shallowRef } from 'vue'
import { api, type NewReading, type Reading } from '@/shared/api/client'
import { deviceAhead } from '@/shared/api/clock'
import { useQuestion } from '@/shared/api/useQuestion'
import type { Problem } from '@/shared/model/outcome'

/** What was read, as a page knows it; the rest of a reading is when and in which call. */
export type Read = Partial<Omit<NewReading, 'id' | 'taken_at' | 'condition'>>

/** A reading with its id, its time by this device, and how far that clock is off. */
function dated(reading: Omit<NewReading, 'id' | 'taken_at'>): NewReading {
  const ahead = deviceAhead()
  return {
    id: crypto.randomUUID(),
    taken_at: new Date().toISOString(),
    ...reading,
    ...(ahead === null ? {} : { moment: { ...reading.moment, device_ahead_seconds: ahead } }),
  }
}

/** The readings of a visit: kept under an id made here, so a retry after a lost answer never keeps two. */
export function useReadings(visit: string | null) {
  const {
    value: kept,
    problem: unread,
    again: load,
  } = useQuestion('readings', visit, api.readings, { follows: false })
  const readings = computed(() => kept.value?.readings ?? [])
  const refusal = shallowRef<Problem | null>(null)
  const problem = computed({
    get: () => refusal.value ?? unread.value,
    set: (one) => (refusal.value = one),
  })
  const busy = ref(false)
  let waiting: NewReading | null = null

  /** The kept reading, or null when it was refused; what was typed is the caller's to hold on to. */
  async function keep(reading: Omit<NewReading, 'id' | 'taken_at'>): Promise<Reading | null> {
    if (!visit || busy.value) return null
    busy.value = true
    problem.value = null
    const same =
      waiting &&
      JSON.stringify({ ...waiting, id: '', taken_at: '', moment: reading.moment }) ===
        JSON.stringify({ id: '', taken_at: '', ...reading, moment: reading.moment })
    const body = same && waiting ? waiting : dated(reading)
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

  return { readings, problem, busy, keep, takeBack }
}
