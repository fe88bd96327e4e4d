import { client, outcome } from '@/shared/api/http'
import type { components } from '@/shared/api/schema'
import type { Scene, Task } from '@/shared/api/client'
import type { PanelView, Said } from '@/pages/practice/bench'

type Schemas = components['schemas']
export type Practice = Schemas['Practice']
export type PracticeSubject = Schemas['Subject']
export type Drill = Schemas['Drill']
export type TryLine = Schemas['TryLine']
export type DrillTry = Schemas['Try']
export type TryEntry = Schemas['TryEntry']
export type TryResult = Schemas['TryResult']
export type Ask = Schemas['Ask']
export type JudgedLine = Schemas['JudgedLine']
export type UnitPlaces = Schemas['Unit']
export type Course = Schemas['Course']
export interface DrillWanted {
  id: string
  rig_id: string
  form: string
  subject: string
  level: number
  fresh?: boolean
}

const at = (id: string) => ({ path: { id } })

export const practiceApi = {
  practice: () => outcome(client.GET('/api/practice')),
  ask: (body: DrillWanted) => outcome<Drill | Task>(client.POST('/api/practice/drills', { body })),
  drawing: (drill: string, view: PanelView) =>
    outcome<Scene>(client.POST('/api/practice/drills/{id}/drawing', { params: at(drill), body: { view } })),
  begin: (id: string, drill: string, course: string | null) =>
    outcome<DrillTry>(
      client.POST('/api/practice/tries', { body: { id, drill_id: drill, course_id: course } }),
    ),
  read: (id: string) => outcome<DrillTry>(client.GET('/api/practice/tries/{id}', { params: at(id) })),
  act: (id: string, version: number, act: Record<string, unknown>) =>
    outcome<DrillTry>(
      client.POST('/api/practice/tries/{id}/acts', { params: at(id), body: { version, act } }),
    ),
  place: (id: string, probes: [string, string]) =>
    outcome(client.POST('/api/practice/tries/{id}/probes', { params: at(id), body: { probes } })),
  decide: (id: string, version: number, decision: Said[]) =>
    outcome<DrillTry>(
      client.POST('/api/practice/tries/{id}/decision', {
        params: at(id),
        body: { version, decision: decision.map((one) => ({ ...one })) },
      }),
    ),
  answer: (id: string, version: number, number: number, answer: Record<string, unknown>) =>
    outcome<DrillTry>(
      client.POST('/api/practice/tries/{id}/answers', {
        params: at(id),
        body: { version, number, answer },
      }),
    ),
  courses: () => outcome(client.GET('/api/practice/courses')),
  makeCourse: (body: { id: string; name: string; drill_ids: string[]; learner_ids: string[] }) =>
    outcome<Course>(client.POST('/api/practice/courses', { body })),
  removeCourse: (id: string) =>
    outcome(client.POST('/api/practice/courses/{id}/removal', { params: at(id) })),
  seal: (id: string, passphrase: string) =>
    outcome<Record<string, unknown>>(
      client.POST('/api/practice/courses/{id}/file', { params: at(id), body: { passphrase } }),
    ),
  open: (id: string, passphrase: string, file: Record<string, unknown>) =>
    outcome<Course>(client.POST('/api/practice/files', { body: { id, passphrase, file } })),
}
