import { client, outcome } from '@/shared/api/http'
import type { components } from '@/shared/api/schema'
import type { Task } from '@/shared/api/client'

type Schemas = components['schemas']
export type Log = Schemas['Log']
export type LogHead = Schemas['LogHead']
export type LogMapping = Schemas['LogMapping']
export type LogPicture = Schemas['LogPicture']
export type Judgement = Schemas['Judgement']
export type RecordedDefrost = Schemas['RecordedDefrost']
export type Plan = Schemas['Plan']
export type PlannedSums = Schemas['PlannedSums']
export interface ClimateWanted {
  kind?: string
  text?: string
  wind_mph?: number
}

const at = (id: string) => ({ path: { id } })

export const recordedApi = {
  ofVisit: (id: string) => outcome(client.GET('/api/visits/{id}/logs', { params: at(id) })),
  create: (visit: string, id: string, name: string) =>
    outcome<Log>(client.POST('/api/visits/{id}/logs', { params: at(visit), body: { id, name } })),
  /** A record onto which a logger sends its rows while it measures; its times are shown in this zone. */
  listen: (visit: string, id: string, name: string, zone: string) =>
    outcome<Log>(
      client.POST('/api/visits/{id}/logs', { params: at(visit), body: { id, name, live: { zone } } }),
    ),
  close: (id: string) => outcome<Task>(client.POST('/api/logs/{id}/closing', { params: at(id) })),
  log: (id: string) => outcome(client.GET('/api/logs/{id}', { params: at(id) })),
  parts: (id: string) => outcome(client.GET('/api/logs/{id}/parts', { params: at(id) })),
  sendPart: (id: string, file: number, number: number, part: Blob) =>
    outcome(
      client.POST('/api/logs/{id}/files/{file}/parts/{number}', {
        params: { path: { id, file, number } },
        body: part as unknown as string,
        bodySerializer: (body) => body as unknown as BodyInit,
        headers: { 'Content-Type': 'application/octet-stream' },
      }),
    ),
  look: (id: string, zone: string) =>
    outcome(client.POST('/api/logs/{id}/look', { params: at(id), body: { zone } })),
  read: (id: string, mapping: LogMapping, parts: number[]) =>
    outcome<Task>(
      client.POST('/api/logs/{id}/reading', {
        params: at(id),
        body: { mapping: mapping as unknown as Record<string, never>, parts },
      }),
    ),
  remove: (id: string) => outcome(client.POST('/api/logs/{id}/deletion', { params: at(id) })),
  picture: (id: string, from: number, to: number, width: number, columns: string[]) =>
    outcome(client.POST('/api/logs/{id}/picture', { params: at(id), body: { from, to, width, columns } })),
  judge: (visit: string, log: string) =>
    outcome<Judgement | Task>(
      client.POST('/api/visits/{id}/logs/{log}/judgement', { params: { path: { id: visit, log } } }),
    ),
  plan: (visit: string, climate: ClimateWanted, log: string | null) =>
    outcome<Plan | Task>(
      client.POST('/api/visits/{id}/planner', {
        params: at(visit),
        body: { climate: climate as never, ...(log ? { log_id: log } : {}) },
      }),
    ),
}
