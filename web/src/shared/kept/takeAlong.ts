import { api, type Photo, type Visit } from '@/shared/api/client'
import type { Outcome } from '@/shared/model/outcome'
import { alongOf, engineHere, fetchEngine, wakeEngine } from '@/shared/kept/engine'
import { keepPicture, keepVisit, weigh } from '@/shared/kept/pocket'
import { outcome } from '@/shared/api/http'

const FIND_TRIES = 60
const FIND_AGAIN_MS = 1000

/** What the defrost page asks as it opens. */
function outlookOf(visit: Visit): Parameters<typeof api.defrostOutlook>[1] {
  const moment = visit.desks?.defrost.content.moment ?? {}
  return {
    call: 'heat',
    outdoor_degrees_f: visit.outdoor_degrees_f,
    coil_degrees_f: null,
    counted_minutes: null,
    humidity_percent: null,
    as_found: false,
    ...moment,
  }
}

/** The questions that the pages of a visit ask as they open, and the circuit in each call by each view and instrument. */
export async function questionsOf(visit: Visit): Promise<(() => Promise<Outcome<unknown>>)[]> {
  const source = { kind: 'visit' as const, id: visit.id }
  const begun = await api.trace(source, { call: 'off', switches: {} })
  const calls = begun.state === 'ready' ? begun.value.calls : ['off', 'heat']
  const loops = begun.state === 'ready' ? begun.value.strings.map((one) => one.load) : []
  const ofCall = calls.flatMap((call) => {
    const condition = { call, switches: {} }
    return [
      () => api.trace(source, condition, { view: 'loops', opened: [] }),
      () => api.drawing(source, { condition, view: 'ladder', at_rest: false, panel: false }),
      () => api.drawing(source, { condition, view: 'connections' }),
      () => api.legend(source, condition),
      () => api.expected(source, condition, 'high_impedance'),
      () => api.expected(source, condition, 'low_impedance'),
      ...loops.map((load) => () => api.drawing(source, { condition, view: 'focus' as const, load })),
    ]
  })
  const settings = (visit.desks?.thermostat.content.settings ?? {}) as Record<string, unknown>
  return [
    () => api.catalogue(),
    () => api.visits(),
    () => api.rigOfVisit(visit.id),
    () => api.readings(visit.id),
    () => api.history(visit.id),
    () => api.faults(source),
    () => api.wiring(visit.id),
    () => api.settings(visit.id, settings),
    () => api.settingProfiles(),
    () => api.sensorTables(),
    () => api.defrostOutlook(visit.id, outlookOf(visit)),
    () => api.forcedTest(visit.id, { ...visit.desks?.defrost.content.test, closed: false }),
    () => api.closeOut(visit.id),
    () => api.knownGood(visit.id),
    () => found(visit.id),
    ...ofCall,
  ]
}

/** Whether it is still being worked out: then there is nothing to keep yet. */
const isTask = (value: unknown) =>
  typeof value === 'object' && value !== null && 'state' in value && 'total' in value

/** Find's answer, once its signatures are worked out. */
async function found(visit: string): Promise<Outcome<unknown>> {
  for (let i = 0; ; i++) {
    const answer = await api.find(visit, { mode: 'cheapest' })
    if (answer.state !== 'ready' || !isTask(answer.value) || i >= FIND_TRIES) return answer
    await new Promise((done) => setTimeout(done, FIND_AGAIN_MS))
  }
}

/** Makes a visit ready for no signal. `told` hears how far it is; ends early when `stop` says so. */
export async function takeAlong(
  visit: Visit,
  build: string,
  told: (done: number, of: number) => void,
  stop: AbortSignal,
) {
  const row = {
    id: visit.id,
    title: `${visit.site}, ${visit.unit}`,
    at: Date.now(),
    opened: Date.now(),
    bytes: 0,
    answered: 0,
    asked: 0,
    engine: '',
    build,
  }
  // First the visit itself: what follows is kept because it is there.
  await keepVisit(row)
  await api.visit(visit.id)
  await api.readings(visit.id)
  const questions = [...(await questionsOf(visit)), () => outcome(alongOf(visit.id))]
  const pictures = await api.photos(visit.id)
  const photos = pictures.state === 'ready' ? pictures.value.photos : []
  const of = questions.length + photos.length
  let answered = 0
  for (const [i, ask] of questions.entries()) {
    if (stop.aborted) return
    const answer = await ask()
    if (answer.state === 'ready' && !isTask(answer.value)) answered += 1
    told(i + 1, of)
  }
  for (const [i, photo] of photos.entries()) {
    if (await keepSmall(visit.id, photo)) answered += 1
    told(questions.length + i + 1, of)
  }
  const came = await fetchEngine().catch(() => false)
  if (came) void wakeEngine()
  const engine = (came && engineHere.value?.engine) || ''
  await keepVisit({ ...row, answered, asked: of, engine })
  await weigh(visit.id)
}

async function keepSmall(visit: string, photo: Photo): Promise<boolean> {
  const answer = await fetch(`/api/photos/${photo.id}/small`).catch(() => null)
  if (!answer?.ok) return false
  await keepPicture(visit, photo.id, await answer.blob())
  return true
}
