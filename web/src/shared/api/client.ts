import { client, outcome, signedOut, type Answer } from '@/shared/api/http'
import type { Outcome } from '@/shared/model/outcome'
import type { components, paths } from '@/shared/api/schema'

export type Visit = components['schemas']['Visit']
export type Rig = components['schemas']['Rig']
export type Session = components['schemas']['Session']
export type OpenSession = components['schemas']['OpenSession']
export type Account = components['schemas']['Account']
export type Person = components['schemas']['Person']
export type Invitation = components['schemas']['Invitation']
export type WayIn = components['schemas']['WayIn']
export type Crew = components['schemas']['Crew']
export type Device = components['schemas']['Device']
export type Binned = components['schemas']['Binned']
export type AuditEntry = components['schemas']['AuditEntry']
export type Site = components['schemas']['Site']
export type Catalogue = components['schemas']['Catalogue']
export type Viewer = components['schemas']['Viewer']
export type Condition = components['schemas']['Condition']
export type NewReading = components['schemas']['NewReading']
export type KnownFault = components['schemas']['KnownFault']
export type Composition = components['schemas']['Composition']
export type Revision = components['schemas']['Revision']
export type Ohms = components['schemas']['Ohms']
export type ExpectedVolts = components['schemas']['Expected']
export type Alike = components['schemas']['Alike']
export type Task = components['schemas']['Task']
export type Find = components['schemas']['Find']
export type FindTest = components['schemas']['FindTest']
export type Suspect = components['schemas']['Suspect']
type SayAsked = NonNullable<
  paths['/api/visits/{id}/saying']['post']['requestBody']
>['content']['application/json']
export type RoadMap = components['schemas']['RoadMap']
export type RoadStop = components['schemas']['RoadStop']
export type Said = components['schemas']['Said']['ways'][number]
type FindAsked = NonNullable<
  paths['/api/visits/{id}/find']['post']['requestBody']
>['content']['application/json']
export type Scene = components['schemas']['Scene']
export type Legend = components['schemas']['Legend']
export type Way = components['schemas']['Way']
export type NotationAnswer = components['schemas']['NotationAnswer']
export type FieldProblem = components['schemas']['FieldProblem']
export type Script = components['schemas']['Script']
export type Move = components['schemas']['Move']
export type Timeline = components['schemas']['Timeline']
export type TimelineEvent = components['schemas']['TimelineEvent']
export type VisitChange = NonNullable<
  paths['/api/visits/{id}']['patch']['requestBody']
>['content']['application/json']
export type AsFound = components['schemas']['AsFound']
export type Wiring = components['schemas']['Wiring']
export type WiringFinding = components['schemas']['WiringFinding']
export type Effect = components['schemas']['Effect']
export type ConductorEnd = components['schemas']['ConductorEnd']
export type LandingsRead = components['schemas']['LandingsRead']
export type Setting = components['schemas']['Setting']
export type SettingsAnswer = components['schemas']['SettingsAnswer']
export type Staging = components['schemas']['Staging']
export type Photo = components['schemas']['Photo']
export type SettingProfile = components['schemas']['SettingProfile']
export type Finding = components['schemas']['Finding']
export type Verdict = components['schemas']['Verdict']
export type DefrostRecord = components['schemas']['DefrostRecord']
export type DefrostOutlook = components['schemas']['DefrostOutlook']
export type DefrostSchools = components['schemas']['DefrostSchools']
export type ForcedTest = components['schemas']['ForcedTest']
export type ForcedTestRecord = components['schemas']['ForcedTestRecord']
export type SensorTable = components['schemas']['SensorTable']
export type SensorTableRead = components['schemas']['SensorTableRead']
export type ThermistorAnswer = components['schemas']['ThermistorAnswer']
type BodyOf<P extends keyof paths> = paths[P] extends {
  post: { requestBody: { content: { 'application/json': infer B } } }
}
  ? B
  : never
export type Why = components['schemas']['Why']
type RunOf = components['requestBodies']['Timeline']['content']['application/json']
type Drawing = components['requestBodies']['Drawing']['content']['application/json']
export type Drawn = components['schemas']['Drawn']
export type ExpectedTable = components['schemas']['ExpectedTable']
export type CloseOutRecord = components['schemas']['CloseOutRecord']
export type CloseOut = components['schemas']['CloseOut']
export type Closing = components['schemas']['Closing']
export type Causes = paths['/api/causes']['get']['responses']['200']['content']['application/json']
export type Searched = paths['/api/search']['post']['responses']['200']['content']['application/json']
export type CrewExport = components['schemas']['Export']
export type TakenIn = components['schemas']['TakenIn']
export type KnownGood = components['schemas']['KnownGood']
export type Recurring = components['schemas']['Recurring']
export type UnitPage = components['schemas']['UnitPage']
export type SitePage = components['schemas']['SitePage']
export type Report = components['schemas']['Report']
export type ReportBlock = components['schemas']['Block']
/** What each desk keeps of a visit. */
export interface DeskContents {
  wiring: components['schemas']['WiringRecord']
  thermostat: components['schemas']['ThermostatRecord']
  defrost: DefrostRecord
  close_out: CloseOutRecord
}
export type DeskId = keyof DeskContents
export { signedOut }
export type RigFile = Record<string, unknown>
export type { Reading, Trace } from '@/shared/model/readingTable'

export type Source = { kind: 'visit' | 'rig'; id: string }

export const api = {
  session: () => outcome(client.GET('/api/session')),
  signIn: (body: BodyOf<'/api/session'>) => outcome(client.POST('/api/session', { body })),
  askForPasskey: () => outcome(client.POST('/api/session/passkey/question')),
  signInByPasskey: (body: BodyOf<'/api/session/passkey'>) =>
    outcome(client.POST('/api/session/passkey', { body })),
  openLocally: (key: string) => outcome(client.POST('/api/session/local', { body: { key } })),
  signOut: () => outcome(client.POST('/api/session/end')),
  signOutEverywhere: () => outcome(client.POST('/api/session/end-everywhere')),
  account: () => outcome(client.GET('/api/account')),
  setPassword: (body: BodyOf<'/api/account/password'>) =>
    outcome(client.POST('/api/account/password', { body })),
  makeCodeSecret: () => outcome(client.POST('/api/account/code/secret')),
  keepCodeSecret: (body: BodyOf<'/api/account/code'>) => outcome(client.POST('/api/account/code', { body })),
  dropCode: (password: string) => outcome(client.POST('/api/account/code/removal', { body: { password } })),
  askToMakePasskey: (password: string) =>
    outcome(client.POST('/api/account/passkeys/question', { body: { password } })),
  keepPasskey: (body: BodyOf<'/api/account/passkeys'>) =>
    outcome(client.POST('/api/account/passkeys', { body })),
  removePasskey: (id: string) =>
    outcome(client.POST('/api/account/passkeys/{id}/removal', { params: { path: { id } } })),
  people: () => outcome(client.GET('/api/people')),
  invite: (role: Person['role']) =>
    outcome(client.POST('/api/people/invitations', { body: { role: role as 'technician' } })),
  revokeInvitation: (id: string) =>
    outcome(client.POST('/api/people/invitations/{id}/revocation', { params: { path: { id } } })),
  giveRole: (id: string, role: Person['role']) =>
    outcome(
      client.POST('/api/people/{id}/role', {
        params: { path: { id } },
        body: { role: role as 'technician' },
      }),
    ),
  makeWayBack: (id: string) =>
    outcome(client.POST('/api/people/{id}/way-back', { params: { path: { id } } })),
  closeAccount: (id: string) =>
    outcome(client.POST('/api/people/{id}/closing', { params: { path: { id } } })),
  lookAtInvitation: (token: string) => outcome(client.POST('/api/invitations/look', { body: { token } })),
  acceptInvitation: (body: BodyOf<'/api/invitations/acceptance'>) =>
    outcome(client.POST('/api/invitations/acceptance', { body })),
  crews: () => outcome(client.GET('/api/crews')),
  makeCrew: (name: string) => outcome(client.POST('/api/crews', { body: { name } })),
  audit: (before?: number) => outcome(client.GET('/api/audit', { params: { query: { before } } })),
  bin: () => outcome(client.GET('/api/bin')),
  throwAway: (kind: Binned['kind'], id: string) =>
    outcome(
      client.POST(
        kind === 'visits'
          ? '/api/visits/{id}/bin'
          : kind === 'units'
            ? '/api/units/{id}/bin'
            : '/api/sites/{id}/bin',
        { params: { path: { id } } },
      ),
    ),
  takeOut: (kind: Binned['kind'], id: string) =>
    outcome(client.POST('/api/bin/{kind}/{id}/restoration', { params: { path: { kind, id } } })),
  deleteForGood: (kind: Binned['kind'], id: string) =>
    outcome(client.POST('/api/bin/{kind}/{id}/deletion', { params: { path: { kind, id } } })),
  devices: () => outcome(client.GET('/api/devices')),
  makeDevice: (id: string, name: string, scope: 'readings' | 'log_rows' | 'stand_in') =>
    outcome(client.POST('/api/devices', { body: { id, name, scope } })),
  revokeDevice: (id: string) =>
    outcome(client.POST('/api/devices/{id}/revocation', { params: { path: { id } } })),
  viewer: () => outcome(client.GET('/api/viewer')),
  catalogue: () => outcome(client.GET('/api/catalogue')),
  visits: (before?: string) => outcome(client.GET('/api/visits', { params: { query: { before } } })),
  visit: (id: string) => outcome(client.GET('/api/visits/{id}', { params: { path: { id } } })),
  createVisit: (body: components['schemas']['NewVisit']) => outcome(client.POST('/api/visits', { body })),
  changeVisit: (id: string, body: VisitChange) =>
    outcome(client.PATCH('/api/visits/{id}', { params: { path: { id } }, body })),
  keepDesk: <D extends DeskId>(id: string, desk: D, version: number, content: DeskContents[D]) =>
    outcome(
      client.PUT('/api/visits/{id}/desks/{desk}', {
        params: { path: { id, desk } },
        body: { version, content },
      }),
    ),
  tellWhere: (id: string, body: BodyOf<'/api/visits/{id}/here'>) =>
    outcome(client.POST('/api/visits/{id}/here', { params: { path: { id } }, body })),
  sayHands: (id: string, body: BodyOf<'/api/visits/{id}/hands'>) =>
    outcome(client.POST('/api/visits/{id}/hands', { params: { path: { id } }, body })),
  history: (id: string) => outcome(client.GET('/api/visits/{id}/history', { params: { path: { id } } })),
  readingsCsv: (id: string) =>
    outcome<string>(
      client.GET('/api/visits/{id}/readings-csv', { params: { path: { id } }, parseAs: 'text' }),
    ),
  readReadings: (id: string, text: string) =>
    outcome(client.POST('/api/visits/{id}/readings-csv', { params: { path: { id } }, body: { text } })),
  knownGood: (id: string) => outcome(client.GET('/api/visits/{id}/known-good', { params: { path: { id } } })),
  keepKnownGood: (id: string) =>
    outcome(client.POST('/api/visits/{id}/known-good', { params: { path: { id } } })),
  keepCrewMark: (picture: Blob) =>
    outcome(
      client.POST('/api/crew/mark', {
        body: picture as unknown as string,
        bodySerializer: (body) => body as unknown as BodyInit,
        headers: { 'Content-Type': picture.type || 'image/jpeg' },
      }),
    ),
  dropCrewMark: () => outcome(client.POST('/api/crew/mark/removal')),
  sendArchivePart: (id: string, number: number, part: Blob) =>
    outcome(
      client.POST('/api/archives/{id}/parts/{number}', {
        params: { path: { id, number } },
        body: part as unknown as string,
        bodySerializer: (body) => body as unknown as BodyInit,
        headers: { 'Content-Type': 'application/octet-stream' },
      }),
    ),
  importArchive: (id: string, parts: number) =>
    outcome(client.POST('/api/archives/{id}/import', { params: { path: { id } }, body: { parts } })),
  lastExport: () => outcome(client.GET('/api/exports')),
  makeExport: (id: string) => outcome<CrewExport | Task>(client.POST('/api/exports', { body: { id } })),
  causes: () => outcome<Causes>(client.GET('/api/causes')),
  recurring: () => outcome(client.GET('/api/recurring')),
  search: (body: BodyOf<'/api/search'>) => outcome<Searched>(client.POST('/api/search', { body })),
  unit: (id: string) => outcome(client.GET('/api/units/{id}', { params: { path: { id } } })),
  changeUnit: (id: string, version: number, change: { notes?: string; installed_year?: number | null }) =>
    outcome(client.PATCH('/api/units/{id}', { params: { path: { id } }, body: { version, ...change } })),
  unitLabel: (id: string, size: string) =>
    outcome<Blob>(
      client.POST('/api/units/{id}/label-pdf', {
        params: { path: { id } },
        body: { size },
        parseAs: 'blob',
      }) as Promise<Answer<Blob>>,
    ),
  site: (id: string) => outcome(client.GET('/api/sites/{id}', { params: { path: { id } } })),
  changeSite: (id: string, version: number, notes: string) =>
    outcome(client.PATCH('/api/sites/{id}', { params: { path: { id } }, body: { version, notes } })),
  unitVisits: (id: string) => outcome(client.GET('/api/units/{id}/visits', { params: { path: { id } } })),
  rigOfVisit: (id: string) => outcome(client.GET('/api/visits/{id}/rig', { params: { path: { id } } })),
  changeFitted: (id: string, version: number, revision: number, rig: RigFile) =>
    outcome(
      client.POST('/api/visits/{id}/fitted', {
        params: { path: { id } },
        body: { version, revision, rig: rig as Record<string, never> },
      }),
    ),
  wiring: (id: string, as_found?: AsFound) =>
    outcome(
      client.POST('/api/visits/{id}/wiring', {
        params: { path: { id } },
        body: as_found ? { as_found } : {},
      }),
    ),
  landingsCsv: (id: string) =>
    outcome<string>(client.GET('/api/visits/{id}/landings', { params: { path: { id } }, parseAs: 'text' })),
  readLandings: (id: string, text: string) =>
    outcome<LandingsRead>(
      client.POST('/api/visits/{id}/landings', { params: { path: { id } }, body: { text } }),
    ),
  settings: (id: string, settings?: Record<string, unknown>) =>
    outcome(
      client.POST('/api/visits/{id}/settings', {
        params: { path: { id } },
        body: settings ? { settings: settings as Record<string, never> } : {},
      }),
    ),
  staging: (
    id: string,
    body: {
      script: Script
      duration_seconds: number
      settings?: Record<string, unknown>
      at_seconds?: number
    },
  ) =>
    outcome(
      client.POST('/api/visits/{id}/staging', {
        params: { path: { id } },
        body: body as typeof body & { settings?: Record<string, never> },
      }),
    ),
  defrostOutlook: (id: string, body: BodyOf<'/api/visits/{id}/defrost/outlook'>) =>
    outcome(client.POST('/api/visits/{id}/defrost/outlook', { params: { path: { id } }, body })),
  defrostSchools: (id: string, body: BodyOf<'/api/visits/{id}/defrost/schools'>) =>
    outcome(client.POST('/api/visits/{id}/defrost/schools', { params: { path: { id } }, body })),
  forcedTest: (id: string, test: ForcedTestRecord) =>
    outcome(
      client.POST('/api/visits/{id}/defrost/forced_test', { params: { path: { id } }, body: { test } }),
    ),
  checkCoilSwitch: (id: string, body: BodyOf<'/api/visits/{id}/defrost/coil_switch'>) =>
    outcome(client.POST('/api/visits/{id}/defrost/coil_switch', { params: { path: { id } }, body })),
  checkThermistor: (id: string, body: BodyOf<'/api/visits/{id}/defrost/thermistor'>) =>
    outcome(client.POST('/api/visits/{id}/defrost/thermistor', { params: { path: { id } }, body })),
  sensorTables: () => outcome(client.GET('/api/sensor_tables')),
  readSensorTable: (body: BodyOf<'/api/sensor_tables'>) =>
    outcome<SensorTableRead>(client.POST('/api/sensor_tables', { body })),
  deleteSensorTable: (id: string) =>
    outcome<Record<string, unknown>>(
      client.POST('/api/sensor_tables/{id}/deletion', { params: { path: { id } } }),
    ),
  photos: (id: string) => outcome(client.GET('/api/visits/{id}/photos', { params: { path: { id } } })),
  keepPhoto: (id: string, photo_id: string, picture: Blob, about: { of: string; fact?: string }) =>
    outcome<Photo>(
      client.POST('/api/visits/{id}/photos', {
        params: { path: { id }, query: { photo_id, ...about } },
        body: picture as unknown as string,
        bodySerializer: (body) => body as unknown as BodyInit,
        headers: { 'Content-Type': picture.type || 'image/jpeg' },
      }),
    ),
  notePhoto: (id: string, note: string) =>
    outcome(client.POST('/api/photos/{id}/note', { params: { path: { id } }, body: { note } })),
  deletePhoto: (id: string) =>
    outcome<Record<string, unknown>>(client.POST('/api/photos/{id}/deletion', { params: { path: { id } } })),
  settingProfiles: () => outcome(client.GET('/api/setting_profiles')),
  keepSettingProfile: (id: string, name: string, labels: Record<string, string>) =>
    outcome(client.POST('/api/setting_profiles', { body: { id, name, labels } })),
  deleteSettingProfile: (id: string) =>
    outcome<Record<string, unknown>>(
      client.POST('/api/setting_profiles/{id}/deletion', { params: { path: { id } } }),
    ),
  sites: () => outcome(client.GET('/api/sites')),
  rigs: () => outcome(client.GET('/api/rigs')),
  rig: (id: string) => outcome(client.GET('/api/rigs/{id}', { params: { path: { id } } })),
  importRig: (id: string, rig: RigFile) =>
    outcome(client.POST('/api/rigs', { body: { id, rig: rig as Record<string, never> } })),
  revisions: (id: string) => outcome(client.GET('/api/rigs/{id}/revisions', { params: { path: { id } } })),
  reviseRig: (id: string, version: number, rig: RigFile) =>
    outcome(
      client.POST('/api/rigs/{id}/revisions', {
        params: { path: { id } },
        body: { version, rig: rig as Record<string, never> },
      }),
    ),
  compose: (name: string, facts: Record<string, unknown>, base: RigFile | null, call: string) =>
    outcome(
      client.POST('/api/compositions', {
        body: {
          name,
          facts: facts as Record<string, never>,
          base: base as Record<string, never> | null,
          call,
        },
      }),
    ),
  faults: (source: Source) =>
    outcome(
      client.GET(source.kind === 'visit' ? '/api/visits/{id}/faults' : '/api/rigs/{id}/faults', {
        params: { path: { id: source.id } },
      }),
    ),
  alike: (source: Source) =>
    outcome<Alike | Task>(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/alike' : '/api/rigs/{id}/alike', {
        params: { path: { id: source.id } },
      }),
    ),
  find: (id: string, body: FindAsked) =>
    outcome<Find | Task>(client.POST('/api/visits/{id}/find', { params: { path: { id } }, body })),
  roadMap: (id: string) =>
    outcome<RoadMap | Task>(client.POST('/api/visits/{id}/road-map', { params: { path: { id } }, body: {} })),
  say: (id: string, body: SayAsked) =>
    outcome(client.POST('/api/visits/{id}/saying', { params: { path: { id } }, body })),
  task: (id: string) => outcome(client.GET('/api/tasks/{id}', { params: { path: { id } } })),
  cancelTask: (id: string) =>
    outcome(client.POST('/api/tasks/{id}/cancellation', { params: { path: { id } } })),
  spice: (source: Source, condition: Condition) =>
    outcome(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/spice' : '/api/rigs/{id}/spice', {
        params: { path: { id: source.id } },
        body: { condition },
        parseAs: 'text',
      }),
    ),
  drawing: (source: Source, body: Drawing) =>
    outcome<Scene>(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/drawing' : '/api/rigs/{id}/drawing', {
        params: { path: { id: source.id } },
        body,
      }),
    ),
  closeOut: (id: string) => outcome(client.GET('/api/visits/{id}/close-out', { params: { path: { id } } })),
  closeVisit: (id: string, body: BodyOf<'/api/visits/{id}/closings'>) =>
    outcome<Closing>(client.POST('/api/visits/{id}/closings', { params: { path: { id } }, body })),
  reopenVisit: (id: string, number: number, why: string) =>
    outcome<Closing>(
      client.POST('/api/visits/{id}/closings/{number}/reopening', {
        params: { path: { id, number } },
        body: { why },
      }),
    ),
  report: (id: string, number: number | null) =>
    outcome<Report>(
      client.POST('/api/visits/{id}/report', {
        params: { path: { id } },
        body: number ? { number } : {},
      }),
    ),
  /** By this device's clock; a long one is drawn by a task. */
  reportPdf: async (
    id: string,
    number: number | null,
    leave_out: string[],
  ): Promise<Outcome<Blob | Task>> => {
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
    const answer = await outcome<Blob>(
      client.POST('/api/visits/{id}/report-pdf', {
        params: { path: { id } },
        body: { ...(number ? { number } : {}), ...(zone ? { zone } : {}), leave_out },
        parseAs: 'blob',
      }) as Promise<Answer<Blob>>,
    )
    if (answer.state !== 'ready' || !answer.value.type.startsWith('application/json')) return answer
    return { state: 'ready', value: JSON.parse(await answer.value.text()) as Task }
  },
  svg: (source: Source, body: Drawing) =>
    outcome<string>(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/svg' : '/api/rigs/{id}/svg', {
        params: { path: { id: source.id } },
        body,
        parseAs: 'text',
      }),
    ),
  legend: (source: Source, condition: Condition) =>
    outcome<Legend>(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/legend' : '/api/rigs/{id}/legend', {
        params: { path: { id: source.id } },
        body: { condition },
      }),
    ),
  way: (source: Source, condition: Condition, to_node: string, from_node: string | null) =>
    outcome<Way>(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/way' : '/api/rigs/{id}/way', {
        params: { path: { id: source.id } },
        body: { condition, to_node, from_node },
      }),
    ),
  timeline: (source: Source, body: RunOf) =>
    outcome<Timeline>(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/timeline' : '/api/rigs/{id}/timeline', {
        params: { path: { id: source.id } },
        body,
      }),
    ),
  why: (source: Source, body: RunOf & { signal: string; at_seconds: number }) =>
    outcome<Why>(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/why' : '/api/rigs/{id}/why', {
        params: { path: { id: source.id } },
        body,
      }),
    ),
  vcd: (source: Source, body: RunOf) =>
    outcome<string>(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/vcd' : '/api/rigs/{id}/vcd', {
        params: { path: { id: source.id } },
        body,
        parseAs: 'text',
      }),
    ),
  eventsCsv: (source: Source, body: RunOf) =>
    outcome<string>(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/events' : '/api/rigs/{id}/events', {
        params: { path: { id: source.id } },
        body,
        parseAs: 'text',
      }),
    ),
  readCourse: (text: string) => outcome(client.POST('/api/courses', { body: { text } })),
  notation: (id: string) => outcome(client.GET('/api/rigs/{id}/notation', { params: { path: { id } } })),
  readNotation: (
    body: NonNullable<paths['/api/notations']['post']['requestBody']>['content']['application/json'],
  ) => outcome<NotationAnswer>(client.POST('/api/notations', { body })),
  /** What is live, and with `drawing` a drawing of it. */
  trace: (source: Source, condition: Condition, drawing?: Drawn) =>
    outcome(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/trace' : '/api/rigs/{id}/trace', {
        params: { path: { id: source.id } },
        body: { condition, drawing },
      }),
    ),
  expected: (source: Source, condition: Condition, instrument: string) =>
    outcome(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/expected' : '/api/rigs/{id}/expected', {
        params: { path: { id: source.id } },
        body: { condition, instrument },
      }),
    ),
  measure: (
    source: Source,
    condition: Condition,
    instrument: string,
    from_node: string,
    to_node: string,
    ohms: { isolated: boolean } | null = null,
  ) =>
    outcome(
      client.POST(source.kind === 'visit' ? '/api/visits/{id}/measurement' : '/api/rigs/{id}/measurement', {
        params: { path: { id: source.id } },
        body: {
          condition,
          instrument,
          from_node,
          to_node,
          ...(ohms ? { function: 'ohms' as const, isolated: ohms.isolated } : {}),
        },
      }),
    ),
  readings: (visit: string) =>
    outcome(client.GET('/api/visits/{id}/readings', { params: { path: { id: visit } } })),
  keepReading: (visit: string, body: NewReading) =>
    outcome(client.POST('/api/visits/{id}/readings', { params: { path: { id: visit } }, body })),
  retractReading: (visit: string, reading_id: string) =>
    outcome(
      client.POST('/api/visits/{id}/readings/{reading_id}/retraction', {
        params: { path: { id: visit, reading_id } },
      }),
    ),
  demo: () => outcome(client.GET('/api/demo')),
  restoreDemo: () => outcome(client.POST('/api/demo/restoration')),
  removeDemo: () => outcome(client.POST('/api/demo/removal')),
}
