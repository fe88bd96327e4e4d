import type { Asked } from '@/shared/kept/question'
import type { Item, Json } from '@/shared/kept/item'
import { shownIn, unitShown } from '@/shared/model/units'
import { say } from '@/words'

const DESK = /^\/api\/visits\/[^/]+\/desks\/(\w+)$/
const RETRACTION = /^\/api\/visits\/[^/]+\/readings\/([^/]+)\/retraction$/
const PHOTO = /^\/api\/photos\/([^/]+)\/(note|deletion)$/

const DESK_SAYS: Record<string, string> = {
  wiring: say('writes.wiring'),
  thermostat: say('writes.thermostat'),
  defrost: say('writes.defrost'),
  close_out: say('writes.closeOut'),
}

type Draft = Pick<Item, 'kind' | 'chain' | 'says'> & { visit: string | null }

/** What a write is, where it is one that can wait for signal; null for any other. A photo's visit is for the caller to find. */
export function writeOf(one: Asked): Draft | null {
  const body = (one.body ?? {}) as Json
  const visit = one.visit
  const desk = DESK.exec(one.path)?.[1]
  if (one.method === 'PUT' && desk)
    return { kind: 'desk', chain: `desk.${desk}`, says: DESK_SAYS[desk] ?? desk, visit }
  if (one.method === 'PATCH' && one.path === `/api/visits/${visit}`)
    return { kind: 'visit', chain: 'visit', says: say('writes.intake', { fields: fieldsIn(body) }), visit }
  if (one.method !== 'POST') return null
  if (one.path === `/api/visits/${visit}/readings`) {
    const about = String(body.supersedes_id ?? body.id)
    return { kind: 'reading', chain: `reading.${about}`, says: readingSays(body), visit }
  }
  const taken = RETRACTION.exec(one.path)?.[1]
  if (taken) return { kind: 'retraction', chain: `reading.${taken}`, says: say('writes.takenBack'), visit }
  if (one.path === `/api/visits/${visit}/photos`) {
    const id = new URLSearchParams(one.query).get('photo_id') ?? ''
    return { kind: 'photo', chain: `photo.${id}`, says: say('writes.photo'), visit }
  }
  const [, photo, act] = PHOTO.exec(one.path) ?? []
  if (photo)
    return {
      kind: act === 'note' ? 'photo_note' : 'photo_deletion',
      chain: `photo.${photo}`,
      says:
        act === 'note'
          ? say('writes.photoShows', { note: String(body.note ?? '') })
          : say('writes.photoDeleted'),
      visit,
    }
  if (one.path === `/api/visits/${visit}/closings`)
    return { kind: 'closing', chain: 'closing', says: say('writes.closed'), visit }
  return null
}

const FIELD_SAYS: Record<string, string> = {
  complaint: say('writes.complaint'),
  symptoms: say('writes.symptoms'),
  outdoor_degrees_f: say('writes.outside'),
  set_point_degrees_f: say('writes.setPoint'),
  room_degrees_f: say('writes.room'),
  safety: say('writes.safety'),
}
const fieldsIn = (body: Json) =>
  Object.keys(body)
    .filter((field) => field !== 'version')
    .map((field) => FIELD_SAYS[field] ?? field)
    .join(', ')

const UNIT: Record<string, string> = {
  volts_ac: 'V',
  ohms: 'Ω',
  amps_ac: 'A',
  microfarads: 'µF',
  degrees_f: '°F',
  psi: 'psi',
  minutes: 'min',
}

/** What was read, as far as it can be said without the unit: "24.3 V". */
export function amountSays(body: Json): string {
  if (body.open) return 'OL'
  if (body.choice !== null && body.choice !== undefined) return String(body.choice)
  if (body.value === null || body.value === undefined) return ''
  const unit = UNIT[String(body.function)]
  const shown = (value: unknown) => (unit ? String(shownIn(unit, Number(value))) : String(value))
  const range = body.value_high === null || body.value_high === undefined ? '' : `–${shown(body.value_high)}`
  return `${shown(body.value)}${range} ${unitShown(unit) ?? ''}`.trim()
}

const letters = (node: unknown) => String(node ?? '').replace(/^\w+\./, '')

/** Where, by the points' own letters. */
export function whereSays(body: Json): string {
  if (body.from_node)
    return say('writes.between', { from: letters(body.from_node), to: letters(body.to_node) })
  return String(body.place ?? '').replace(/_/g, ' ')
}

const readingSays = (body: Json) => `${amountSays(body)}, ${whereSays(body)}`
