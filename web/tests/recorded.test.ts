import { describe, expect, it, vi } from 'vitest'
import { degreesOf, isOn, rowsOf, timesOf } from '@/desks/defrost/recorded/numbers'
import { firstOf, mapped } from '@/desks/defrost/recorded/columns'
import { PART_BYTES, partsOf, sendUp } from '@/desks/defrost/recorded/sendUp'
import { recordedApi, type LogHead, type LogMapping } from '@/desks/defrost/recorded/api'

const MAPPING: LogMapping = {
  columns: { outdoor: { at: 1, unit: '°F' }, coil: { at: 2, unit: '°F' } },
  time: [0],
  order: 'ymd',
  zone: 'UTC',
  daylight_saving: true,
  start: null,
  separator: ',',
  decimal_comma: false,
  skip: 1,
  encoding: 'UTF-8',
  names: ['Time', 'Outdoor', 'Coil', 'Fan'],
}

describe('which column is what', () => {
  it('puts a column in one place only, and takes it out of the time', () => {
    const swapped = mapped(MAPPING, 'coil', 1, '°C')
    expect(swapped.columns).toEqual({ coil: { at: 1, unit: '°C' } })
    expect(mapped(MAPPING, 'fan', 0, 'A').time).toEqual([])
    expect(mapped(MAPPING, 'coil', null, '°F').columns).toEqual({ outdoor: { at: 1, unit: '°F' } })
    expect(MAPPING.columns.coil).toEqual({ at: 2, unit: '°F' })
  })

  it('shows the first values of a column, an empty cell as a dash', () => {
    const head = {
      rows: [
        ['1', ''],
        ['2', '5'],
        ['3', '6'],
        ['4', '7'],
      ],
    } as unknown as LogHead
    expect(firstOf(head, 1)).toBe('– · 5 · 6')
  })
})

describe('files on their way up', () => {
  const ready = <T>(value: T) => Promise.resolve({ state: 'ready' as const, value })

  it('counts parts, one at least', () => {
    expect([0, 1, PART_BYTES, PART_BYTES + 1].map(partsOf)).toEqual([1, 1, 1, 2])
  })

  it('sends what has not arrived yet, packed, and stops at what is refused', async () => {
    const sent: [number, number, number][] = []
    vi.spyOn(recordedApi, 'parts').mockReturnValue(ready({ files: [{ file: 1, numbers: [1] }] }))
    const send = vi.spyOn(recordedApi, 'sendPart').mockImplementation((_id, file, number, part) => {
      sent.push([file, number, part.size])
      return ready({ kept: number })
    })
    const files = [new File(['a'.repeat(PART_BYTES + 10)], 'one.csv'), new File(['b'], 'two.csv')]
    const shares: number[] = []
    expect(await sendUp('log', files, (share) => shares.push(share))).toEqual([2, 1])
    expect(sent.map(([file, number]) => [file, number])).toEqual([
      [1, 2],
      [2, 1],
    ])
    expect(shares.at(-1)).toBe(1)

    const problem = { type: 'about:blank', title: 'Too large', status: 413, detail: 'over the limit' }
    send.mockReturnValue(Promise.resolve({ state: 'failed' as const, problem }))
    expect(await sendUp('log', files, () => undefined)).toEqual(problem)
  })
})

describe('a record as numbers', () => {
  const picture = {
    from: 1_772_431_200, // 2026-03-02 06:00 UTC
    to: 1_772_431_200 + 3 * 300,
    width: 3,
    columns: {
      coil: { least: [28.04, 20, null], most: [28.04, 31.5, null] },
      fan: { least: [0, 0, null], most: [0, 1.4, null] },
      w2: { least: [0, 0, 0], most: [0, 0, 0] },
      y: { least: [24, 24, 0], most: [24, 24, 0] },
    },
  }
  const rules = { fan: { over: 0.7, always: false }, w2: { over: null, always: true } }

  it('has a row a step: a value, from least to most, or a gap that is filled by nothing', () => {
    expect(
      rowsOf(picture, ['coil'], ['fan', 'w2', 'y'], rules, { zone: 'UTC', on: 'on', off: 'off' }),
    ).toEqual([
      { id: '0', time: 'Mar 2, 06:00', coil: '28.0', fan: 'off', w2: 'on', y: '–' },
      { id: '1', time: 'Mar 2, 06:05', coil: '20.0 … 31.5', fan: 'on', w2: 'on', y: '–' },
      { id: '2', time: 'Mar 2, 06:10', coil: '–', fan: '–', w2: 'on', y: '–' },
    ])
  })

  it('is on above what the record itself tells apart, never at a gap', () => {
    expect([isOn(rules.fan, 0.7), isOn(rules.fan, 0.71), isOn(rules.fan, null)]).toEqual([false, true, false])
    expect([isOn(rules.w2, 0), isOn(rules.w2, null), isOn(undefined, 5)]).toEqual([true, false, false])
  })

  it("tells the time by the record's own clock, seconds where rows are nearer than a minute", () => {
    expect(timesOf('America/New_York', 60)(picture.from)).toBe('Mar 2, 01:00')
    expect(timesOf('UTC', 59)(picture.from)).toBe('Mar 2, 06:00:00')
    expect(degreesOf(undefined, 3)).toBe('–')
  })
})
