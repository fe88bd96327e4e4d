import type { Reading, Visit } from '@/shared/api/client'

/** Sorts the keys of objects, so that the same question has the same name whoever asks it. */
function plain(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(plain)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, one]) => one !== undefined)
      .sort(([one], [other]) => (one < other ? -1 : 1))
      .map(([key, one]) => [key, plain(one)]),
  )
}

/** A request as the kept side looks at it. */
export interface Asked {
  method: string
  /** Without its query. */
  path: string
  query: string
  /** Those in which it is to be answered, as "C kPa". */
  units: string
  body: unknown
  /** Of a visit's own address. */
  visit: string | null
}

const VISIT = /^\/api\/visits\/([0-9a-f-]{36})(?:\/|$)/

export async function asked(request: Request): Promise<Asked> {
  const url = new URL(request.url)
  const json = request.headers.get('content-type')?.includes('json')
  const text = json ? await request.clone().text() : ''
  return {
    method: request.method,
    path: url.pathname,
    query: url.search,
    units: request.headers.get('x-units') ?? '',
    body: text ? JSON.parse(text) : null,
    visit: VISIT.exec(url.pathname)?.[1] ?? null,
  }
}

/** The name under which its answer is kept. */
export const nameOf = (one: Asked) =>
  [
    one.method,
    one.path + one.query,
    one.units,
    one.body === null ? '' : JSON.stringify(plain(one.body)),
  ].join(' ')

/** What every page asks, whatever the visit. */
const GENERAL = new Set([
  '/api/catalogue',
  '/api/sensor_tables',
  '/api/setting_profiles',
  '/api/viewer',
  '/api/account',
  '/api/visits',
])
/** What a visit is asked that changes nothing. */
const QUESTIONS =
  /^\/api\/visits\/[^/]+\/(trace|expected|measurement|drawing|legend|way|timeline|why|alike|wiring|settings|staging|find|road-map|report|saying|defrost\/\w+|planner)$/

/** Whether the answer of a question may be kept: it changes nothing, and is nobody's way in. */
export const mayKeep = (one: Asked) =>
  one.method === 'GET'
    ? GENERAL.has(one.path) || one.visit !== null
    : one.method === 'POST' && QUESTIONS.test(one.path)

/** What an answer follows from: nothing that is done on a visit, the circuit and its weather, what the desks hold, or all of it. */
export type LeansOn = 'nothing' | 'circuit' | 'desks' | 'whole'
const CIRCUIT =
  /\/(trace|expected|measurement|drawing|legend|way|timeline|why|alike|faults|rig|defrost\/(schools|forced_test|coil_switch|thermistor))$/
const DESKS = /\/(wiring|settings|staging|saying|defrost\/outlook)$/
const OWN = /^\/api\/visits\/[^/]+(\/readings|\/photos|\/history|\/logs|\/along)?$/
export function leansOn(one: Asked): LeansOn {
  if (one.visit === null || (one.method === 'GET' && OWN.test(one.path))) return 'nothing'
  if (CIRCUIT.test(one.path)) return 'circuit'
  // The wiring as it is being entered brings along all that it is about.
  const brings = one.path.endsWith('/wiring') && (one.body as { as_found?: object } | null)?.as_found
  if (brings) return 'circuit'
  return DESKS.test(one.path) ? 'desks' : 'whole'
}

/** How a visit stands, in short: an answer that was kept is given again only while this is still the same. */
export function stampOf(visit: Visit, readings: Reading[]): Record<LeansOn, string> {
  const circuit = [visit.rig_revision_id, visit.outdoor_degrees_f, visit.set_point_degrees_f]
  const desks = Object.entries(visit.desks ?? {}).map(([id, desk]) => [id, desk.version])
  const read = readings.map((one) => [one.id, one.retracted_at !== null])
  const told = [visit.complaint, visit.symptoms, visit.safety, visit.closed_number]
  return {
    nothing: '',
    circuit: JSON.stringify(circuit),
    desks: JSON.stringify([circuit, desks.sort()]),
    whole: JSON.stringify([circuit, desks.sort(), read, told]),
  }
}

/** A trace that was asked for with a drawing, as the two questions that it is; null for any other. */
export function inTwo(one: Asked): { trace: Asked; drawing: Asked } | null {
  const { drawing, ...rest } = (one.body ?? {}) as Record<string, unknown>
  if (!one.path.endsWith('/trace') || typeof drawing !== 'object' || drawing === null) return null
  return {
    trace: { ...one, body: rest },
    drawing: { ...one, path: one.path.replace(/trace$/, 'drawing'), body: { ...rest, ...drawing } },
  }
}
