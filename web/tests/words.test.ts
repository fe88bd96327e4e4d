import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { fieldWords } from '@/shared/model/fieldWords'
import {
  allChoices,
  chooseUnit,
  chosenUnits,
  courseShown,
  degrees,
  inUnit,
  readAmount,
  readCourse,
  readDegrees,
  readIn,
  shownDegrees,
  shownIn,
  typedAmount,
  unitShown,
} from '@/shared/model/units'

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
  beforeEach(() => chooseUnit('temperature', '°C'))
  afterEach(() => chooseUnit('temperature', '°F'))

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
    chooseUnit('temperature', '°F')
    expect([degrees(50.4), readDegrees('50,4'), degrees(null)]).toEqual(['50 °F', 50.4, ''])
  })
})

describe('pressures and lengths', () => {
  beforeEach(() => (chooseUnit('pressure', 'kPa'), chooseUnit('length', 'm')))
  afterEach(() => (chooseUnit('pressure', 'psi'), chooseUnit('length', 'ft')))

  it('come back as they were typed, with their unit beside them', () => {
    for (let typed = -100; typed <= 5500; typed += 7)
      expect(shownIn('psi', readIn('psi', String(typed)) as number)).toBe(typed)
    expect([shownIn('psi', 110), unitShown('psi'), shownIn('ft', 42), unitShown('ft')]).toEqual([
      758.4,
      'kPa',
      12.8,
      'm',
    ])
    expect([unitShown('V'), unitShown(null), shownIn('V', 24.35), readIn('V', '24,35')]).toEqual([
      'V',
      null,
      24.35,
      24.35,
    ])
  })

  it('are kept in psi as a range is typed in kPa, and shown in kPa to be corrected', () => {
    const amount = readAmount('about 700 to 760', 'psi')!
    expect([amount.value, amount.value_high, amount.about]).toEqual([101.53, 110.23, true])
    expect(typedAmount({ value: 101.53, value_high: 110.23, about: true, open: false }, 'psi')).toBe(
      'about 700 to 760',
    )
  })

  it('are asked for by name, each by itself, and stay chosen on this device', () => {
    const stored = new Map<string, string>()
    vi.stubGlobal('localStorage', { setItem: (key: string, value: string) => stored.set(key, value) })
    chooseUnit('pressure', 'kPa')
    expect([chosenUnits(), stored.get('gorvant.pressure')]).toEqual(['kPa m', 'kPa'])
    chooseUnit('temperature', '°C')
    chooseUnit('length', 'ft')
    expect([chosenUnits(), stored.get('gorvant.degrees')]).toEqual(['C kPa', 'C'])
    chooseUnit('temperature', '°F')
    vi.unstubAllGlobals()
    expect(allChoices().sort()).toEqual(['', 'C', 'C kPa', 'C kPa m', 'C m', 'kPa', 'kPa m', 'm'])
  })
})

describe('a course of temperatures', () => {
  it('turns by its degrees and never by its minutes, and back', () => {
    const texts = ['0:40, 30:22.5', '30', ' 60: -4', '', 'later']
    expect(texts.map(courseShown)).toEqual(texts)
    chooseUnit('temperature', '°C')
    expect(texts.map(courseShown)).toEqual(['0:4.4, 30:-5.3', '-1.1', ' 60: -20', '', 'later'])
    expect(readCourse('0:4, 30:-5')).toBe('0:39.2, 30:23')
    chooseUnit('temperature', '°F')
  })
})
