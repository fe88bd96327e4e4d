import { afterEach, describe, expect, it } from 'vitest'
import type { Reading } from '@/shared/model/readingTable'
import { scriptOf, type StagingForm } from '@/shared/model/staging'
import { chooseUnit } from '@/shared/model/units'
import { marksOf, spotsOf, type Scene } from '@/shared/scene/geometry'

const station = (id: string, kind: string, nodes: string[], more = {}) => ({
  id,
  kind,
  nodes,
  x: 100,
  y: 50,
  width: 20,
  height: 20,
  ends: [],
  ...more,
})
const scene = {
  stations: [
    station('outdoor.Y', 'terminal', ['outdoor.Y']),
    station('HPS', 'device', ['outdoor.HPS.1', 'outdoor.HPS.2'], {
      x: 200,
      ends: [
        [170, 50],
        [230, 50],
      ],
    }),
    station('twice', 'device', ['outdoor.Y', 'outdoor.far'], {
      x: 300,
      ends: [
        [290, 50],
        [310, 50],
      ],
    }),
  ],
} as unknown as Scene
const reading = (to_node: string, verdict: string, more: Partial<Reading> = {}) =>
  ({
    function: 'volts_ac',
    to_node,
    verdict,
    retracted_at: null,
    superseded_by_id: null,
    ...more,
  }) as unknown as Reading

describe('where a probe touches', () => {
  it('is the terminal of a point where one is drawn, else just outside the device’s end', () => {
    const spots = spotsOf(scene)
    expect(spots.get('outdoor.Y')).toMatchObject({ x: 100, y: 50 })
    expect(spots.get('outdoor.HPS.1')).toMatchObject({ x: 161 })
    expect(spots.get('outdoor.HPS.2')).toMatchObject({ x: 239 })
    expect(spots.get('nowhere')).toBeUndefined()
  })
})

describe('marks of readings', () => {
  const marks = (...readings: Reading[]) =>
    marksOf(spotsOf(scene), readings).map((one) => [one.node, one.verdict])

  it('are of those that stand: neither corrected nor taken back', () => {
    expect(
      marks(
        reading('outdoor.Y', 'disagrees', { superseded_by_id: 'later' } as Partial<Reading>),
        reading('outdoor.Y', 'agrees'),
      ),
    ).toEqual([['outdoor.Y', 'agrees']])
    expect(marks(reading('outdoor.Y', 'agrees', { retracted_at: '2026-11-28' } as Partial<Reading>))).toEqual(
      [],
    )
  })

  it('are the last at each point, none for what proves nothing, none off the drawing', () => {
    expect(marks(reading('outdoor.Y', 'agrees'), reading('outdoor.Y', 'disagrees'))).toEqual([
      ['outdoor.Y', 'disagrees'],
    ])
    expect(marks(reading('outdoor.Y', 'undetermined'), reading('nowhere', 'agrees'))).toEqual([])
  })
})

describe('a staging run typed in °C', () => {
  afterEach(() => chooseUnit('temperature', '°F'))
  const form: StagingForm = {
    mode: 'heat',
    set: 70,
    error: 4,
    outdoor: 35,
    room: 'course',
    outdoorEnd: '',
    course: '0:00 20 5\n20:00 21',
    pushAt: '',
    pushTo: 74,
    hours: 1,
  }

  it('goes to the server in °F, line by line', () => {
    chooseUnit('temperature', '°C')
    const made = scriptOf(form)
    expect('script' in made && made.script.start).toMatchObject({ room_degrees_f: 68, outdoor_degrees_f: 41 })
    const rooms = 'script' in made ? (made.script.moves ?? []).filter((move) => move.what === 'room') : []
    expect(rooms.map((move) => move.value)).toEqual([68, 69.8])
  })

  it('asks for the unit that is chosen when a line is no such thing', () => {
    chooseUnit('temperature', '°C')
    expect(scriptOf({ ...form, course: 'soon' })).toMatchObject({ wrong: expect.stringContaining('°C') })
    chooseUnit('temperature', '°F')
    expect(scriptOf({ ...form, course: 'soon' })).toMatchObject({ wrong: expect.stringContaining('°F') })
    expect(scriptOf({ ...form, course: '10:00 68\n10:00 69' })).toMatchObject({
      wrong: expect.stringContaining('goes back'),
    })
    expect(scriptOf({ ...form, room: 'held', outdoorEnd: 'cold' })).toMatchObject({
      wrong: expect.stringContaining('cold'),
    })
  })
})
