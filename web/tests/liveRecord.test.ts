import { describe, expect, it } from 'vitest'
import {
  fromPicture,
  heardNow,
  heardOf,
  quietFor,
  rowsOf,
  withGaps,
  withRows,
  type LiveRows,
} from '@/desks/defrost/recorded/live'
import type { Log } from '@/desks/defrost/recorded/api'
import type { CrewEvent } from '@/shared/api/stream'

const none: LiveRows = { times: [], values: {} }
const came = (...rows: (number | null)[][]) => ({ columns: ['coil', 'fan'], rows })
const log = (live: Log['live']) => ({ live }) as Log

describe('rows of a live record', () => {
  it('keeps each time once, in order, whatever order they come in', () => {
    const late = withRows(
      withRows(none, came([130, 21, 1], [140, 22, 1]), 0),
      came([120, 20, 0], [130, 99, 9]),
      0,
    )
    expect(late).toEqual({ times: [120, 130, 140], values: { coil: [20, 21, 22], fan: [0, 1, 1] } })
  })

  it('leaves out what is older than the stretch, and takes columns by their names', () => {
    const before = withRows(none, came([100, 20, 0], [160, 21, 1]), 0)
    const other = { columns: ['fan', 'coil'], rows: [[220, 1, null]] }
    expect(withRows(before, other, 150)).toEqual({
      times: [160, 220],
      values: { coil: [21, null], fan: [1, 1] },
    })
  })

  it('reads a picture as rows, without pixels in which nothing came', () => {
    const columns = { coil: { least: [1, null, 3], most: [2, null, 4] } }
    expect(fromPicture({ from: 0, to: 30, width: 3, columns })).toEqual({
      times: [5, 25],
      values: { coil: [2, 4] },
    })
  })

  it('draws no line over what did not come', () => {
    const rows = { times: [0, 30, 600], values: { coil: [1, 2, 3] } }
    expect(withGaps(rows, 90)).toEqual({ times: [0, 30, 315, 600], values: { coil: [1, 2, null, 3] } })
    expect(withGaps(rows, 570).times).toEqual([0, 30, 600])
  })

  it('hears its own record alone', () => {
    const event = { kind: 'log_rows', log_id: 'a' } as unknown as CrewEvent
    expect([rowsOf(event, 'a'), rowsOf(event, 'b')]).toEqual([event, null])
    expect(rowsOf({ kind: 'reading', log_id: 'a' } as unknown as CrewEvent, 'a')).toBeNull()
  })

  it('counts as quiet past its own time and not before, and as waiting where nothing ever came', () => {
    const heard = heardOf(log({ from: 'Eave', seconds_ago: 60, quiet_after_seconds: 90 }), 1_000_000)
    expect([1_030_000, 1_031_000].map((now) => quietFor(heard, now))).toEqual([null, 91])
    const event = { by: 'Eave', quiet_after_seconds: 900 } as unknown as Parameters<typeof heardNow>[0]
    expect([900_000, 901_000].map((later) => quietFor(heardNow(event, 5000), 5000 + later))).toEqual([
      null,
      901,
    ])
    expect(
      quietFor(heardOf(log({ from: null, seconds_ago: null, quiet_after_seconds: 20 }), 0), 1e9),
    ).toBeNull()
  })
})
