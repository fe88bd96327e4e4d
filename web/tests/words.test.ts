import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { fieldWords } from '@/shared/model/fieldWords'
import { degreeUnit, degrees, inUnit, readDegrees, shownDegrees } from '@/shared/model/units'

describe('a field that a problem points at', () => {
  it.each([
    ['/test/marks/fan_off', 'fan off'],
    ['/landings/3/lands_on', 'lands on, no. 4'],
    ['/cables/0/conductors/2/to', 'cable 1, conductor 3: to'],
    ['/condition/outdoor_degrees_f', 'outdoor'],
    ['/', ''],
    ['', ''],
  ])('%s is called “%s”', (pointer, words) => expect(fieldWords(pointer)).toBe(words))

  it('takes the title of its question where it has one, and is never a path', () => {
    expect(fieldWords('/facts/fuse_amps/value', { fuse_amps: 'Low-voltage fuse' })).toBe('Low-voltage fuse')
    for (const pointer of ['/a/b/c', '/script/moves/4/value', '/facts/x/provenance/source'])
      expect(fieldWords(pointer)).not.toContain('/')
  })
})

describe('temperatures', () => {
  beforeEach(() => (degreeUnit.value = 'C'))
  afterEach(() => (degreeUnit.value = 'F'))

  it.each([
    [32, false, 0],
    [212, false, 100],
    [-40, false, -40],
    [9, true, 5],
    [0, true, 0],
    [70, false, 21.1],
  ])('%s °F, a difference: %s, is %s °C', (value, difference, celsius) => {
    expect(inUnit(value, difference)).toBe(celsius)
  })

  it('come back as they were typed, for every whole degree of either unit', () => {
    for (let typed = -40; typed <= 60; typed++) {
      const kept = readDegrees(String(typed))
      expect(inUnit(kept as number)).toBe(typed)
      const gap = readDegrees(String(typed), true)
      expect(inUnit(gap as number, true)).toBe(typed)
    }
  })

  it('are nothing for nothing, and undefined for what is no number', () => {
    expect([readDegrees(''), readDegrees('  '), readDegrees('warm'), readDegrees('1e999')]).toEqual([
      null,
      null,
      undefined,
      undefined,
    ])
    expect([shownDegrees(null), shownDegrees(undefined), shownDegrees(32)]).toEqual(['', '', '0'])
  })

  it('read with a comma as with a point, and show their unit', () => {
    expect(readDegrees('-1,5')).toBe(readDegrees('-1.5'))
    expect(degrees(50)).toBe('10 °C')
    degreeUnit.value = 'F'
    expect([degrees(50.4), readDegrees('50,4'), degrees(null)]).toEqual(['50 °F', 50.4, ''])
  })
})
