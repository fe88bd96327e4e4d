// @vitest-environment happy-dom
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { ElButton } from 'element-plus'
import { describe, expect, it } from 'vitest'
import type { Ask, DrillTry, JudgedLine, PracticeSubject, UnitPlaces } from '@/pages/practice/api'
import ActRail from '@/pages/practice/ActRail.vue'
import BenchLog from '@/pages/practice/BenchLog.vue'
import JudgedLines from '@/pages/practice/JudgedLines.vue'
import QuizAsk from '@/pages/practice/QuizAsk.vue'
import SubjectRows from '@/pages/practice/SubjectRows.vue'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'

const global = { components: { ElButton } }
const by = (page: VueWrapper, testid: string) => page.find(`[data-testid=${testid}]`)
const place = (id: string, title = id, more = {}) => ({ id, title, ...more })
const UNIT: UnitPlaces = {
  calls: [place('heat', 'Heat'), place('off', 'Off')],
  points: [
    place('outdoor.C', 'outdoor C', { place: 'outdoor' }),
    place('outdoor.Y', 'outdoor Y', { place: 'outdoor' }),
  ],
  looks: [place('contactor')],
  degrees: [],
  facts: [],
  joints: [place('cable_a.red@wall')],
  links: [],
  parts: [place('CC')],
  sensors: [],
  places: [place('wall'), place('air_handler'), place('outdoor')],
}
const STANDING: NonNullable<DrillTry['standing']> = {
  minutes: 3,
  place: 'wall',
  call: 'heat',
  off: [],
  proved: false,
  lifted: [],
  jumpers: [],
  opened: [],
  walks: 0,
  acts: 1,
  parts: [],
}
const PROBES = { black: 'outdoor.C', red: 'outdoor.Y' }

describe('the rail of a bench', () => {
  const rail = (probes: { black: string | null; red: string | null }, standing = {}, busy = false) =>
    mount(ActRail, { global, props: { unit: UNIT, standing: { ...STANDING, ...standing }, busy, probes } })
  const acts = (page: VueWrapper) => (page.emitted('act') ?? []).map(([given]) => given)
  const hand = async (page: VueWrapper, id: string) => {
    page.findComponent(PickButtons).vm.$emit('update:modelValue', id)
    await flushPromises()
  }

  it('reads between two points by the meter in the hand, and by nothing less', async () => {
    const none = rail({ black: 'outdoor.C', red: null })
    expect(by(none, 'read').attributes('disabled')).toBeDefined()
    const page = rail(PROBES)
    await by(page, 'read').trigger('click')
    page.findAllComponents(PickButtons)[1]!.vm.$emit('update:modelValue', 'ohms')
    await flushPromises()
    await by(page, 'read').trigger('click')
    expect(acts(page)).toEqual([
      { act: 'volts', from: 'outdoor.C', to: 'outdoor.Y', instrument: 'high_impedance' },
      { act: 'ohms', from: 'outdoor.C', to: 'outdoor.Y', isolated: true },
    ])
  })

  it('sets calls, looks, and cuts a supply that is on, or gives it back', async () => {
    const page = rail(PROBES, { off: ['outdoor'] })
    await hand(page, 'call')
    await by(page, 'call-off').trigger('click')
    await by(page, 'force').trigger('click')
    await hand(page, 'look')
    await by(page, 'look-contactor').trigger('click')
    await by(page, 'landings-wall').trigger('click')
    await hand(page, 'power')
    await by(page, 'supply-outdoor').trigger('click')
    await by(page, 'supply-air_handler').trigger('click')
    await by(page, 'prove').trigger('click')
    expect(acts(page)).toEqual([
      { act: 'call', value: 'off' },
      { act: 'force' },
      { act: 'look', place: 'contactor' },
      { act: 'landings', place: 'wall' },
      { act: 'supply', of: 'outdoor', value: 'on' },
      { act: 'supply', of: 'air_handler', value: 'off' },
      { act: 'prove_dead' },
    ])
  })

  it('takes off the jumper that is on between the probes, whichever way round', async () => {
    const page = rail(PROBES, { jumpers: [['outdoor.Y', 'outdoor.C']] })
    await hand(page, 'wires')
    expect(by(page, 'jumper').text()).toBe('Jumper off')
    await by(page, 'jumper').trigger('click')
    expect(acts(page)).toEqual([{ act: 'unjumper', from: 'outdoor.C', to: 'outdoor.Y' }])
  })

  it('does nothing while an act is on its way, and has its keys', async () => {
    const busy = rail(PROBES, {}, true)
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'r', bubbles: true }))
    expect(acts(busy)).toEqual([])
    busy.unmount()
    const page = rail(PROBES)
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'r' }))
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'x' }))
    expect(acts(page)).toHaveLength(1)
    expect(page.emitted('update:probes')?.at(-1)).toEqual([{ black: 'outdoor.Y', red: 'outdoor.C' }])
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'r', ctrlKey: true }))
    expect(acts(page)).toHaveLength(1)
    page.unmount()
  })
})

describe('the log of a bench', () => {
  it('has the newest first, wires by their screws, and what was stopped in its own words', () => {
    const page = mount(BenchLog, {
      props: {
        log: [
          { title: 'V AC outdoor C – outdoor Y', says: '24.6 V', minutes: 2.2, stopped: null, data: {} },
          {
            title: 'wires at the wall',
            says: 'otherwise',
            minutes: 5,
            stopped: null,
            data: { rows: [{ joint: 'cable_a.red@wall', on: null }], touching: [['wall Y', 'wall G']] },
          },
          {
            title: 'jumper',
            says: 'R to C is a dead short.',
            minutes: 61,
            stopped: { code: 'r_to_c', says: '', caution: 'dead_short' },
            data: {},
          },
        ],
      },
    })
    const lines = page.findAll('li').map((one) => one.text())
    expect(lines[0]).toBe('1:01jumperStopped. R to C is a dead short.')
    expect(lines[1]).toContain('red → no screw')
    expect(lines[1]).toContain('wall Y touches wall G')
    expect(lines[2]).toContain('24.6 V')
    expect(mount(BenchLog, { props: { log: [] } }).text()).toContain('Nothing done yet')
  })
})

describe('a question', () => {
  const asked = (ask: Partial<Ask>, form: string, more = {}) =>
    mount(QuizAsk, { global, props: { ask: { number: 0, ...ask } as Ask, form, busy: false, ...more } })
  const said = (page: VueWrapper) => page.emitted('answer')?.at(-1)?.[0]
  const blocked = (page: VueWrapper) => by(page, 'answer').attributes('disabled') !== undefined
  const send = (page: VueWrapper) => page.find('form').trigger('submit')

  it('is not answered by halves: predict', async () => {
    const page = asked(
      {
        title: 'Heat',
        loads: [{ code: 'CC', title: 'contactor' }],
        points: [{ from: 'a', to: 'b', says: 'a – b' }],
        answers: [{ id: 'about_24', title: 'about 24' }],
      },
      'predict',
    )
    page.findComponent(PickButtons).vm.$emit('update:modelValue', 'no')
    await flushPromises()
    expect(blocked(page)).toBe(true)
    page.findComponent(PickOne).vm.$emit('update:modelValue', 'about_24')
    await flushPromises()
    expect(blocked(page)).toBe(false)
    await send(page)
    expect(said(page)).toEqual({ loads: { CC: false }, points: ['about_24'] })
  })

  it('takes stations in the order of the taps, and gives one back', async () => {
    const page = asked(
      { part: 'order', stations: ['R', 'FU', 'C'].map((id) => ({ id, label: id })) },
      'trace',
    )
    for (let i = 0; i < 3; i++) await page.find('[data-testid=station]').trigger('click')
    await page.find('[data-testid=order] button').trigger('click')
    expect(blocked(page)).toBe(true)
    await page.find('[data-testid=station]').trigger('click')
    await send(page)
    expect(said(page)).toEqual({ order: ['FU', 'C', 'R'] })
  })

  it('strikes out on the diagram as in the list, and only what is asked about', async () => {
    const page = asked({ part: 'strike', plate: [], codes: [{ code: 'CCH' }, { code: 'CC' }] }, 'panel')
    for (const code of ['CCH', 'CC', 'CC', 'LPS'])
      await page.setProps({ touched: { code, at: Math.random() } })
    await send(page)
    expect(said(page)).toEqual({ struck: ['CCH'] })
  })

  it.each([
    ['names', { codes: [{ code: 'CC' }], titles: ['contactor'] }, { names: { CC: 'contactor' } }],
    ['wires', { terminals: ['Y'], colors: ['contactor'] }, { wires: { Y: 'contactor' } }],
  ])('matches %s', async (part, ask, answer) => {
    const page = asked({ part, ...ask }, 'panel')
    expect(blocked(page)).toBe(true)
    page.findComponent(PickOne).vm.$emit('update:modelValue', 'contactor')
    await flushPromises()
    await send(page)
    expect(said(page)).toEqual(answer)
  })

  it('names the first missing link', async () => {
    const page = asked(
      { part: 'missing', readings: [], links: [{ id: 'cable_a.red', label: 'red' }] },
      'trace',
    )
    expect(blocked(page)).toBe(true)
    page.findComponent(PickOne).vm.$emit('update:modelValue', 'cable_a.red')
    await flushPromises()
    await send(page)
    expect(said(page)).toEqual({ link: 'cable_a.red' })
  })
})

describe('what was judged', () => {
  it('tells a misconception once, however often it showed', () => {
    const trap = { id: 't', title: 'Contacts are drawn at rest', says: 'In defrost it is open.' }
    const line = (what: string, right: boolean): JudgedLine => ({
      what,
      said: 'works',
      is: 'stands',
      right,
      ...(right ? {} : { trap }),
    })
    const page = mount(JudgedLines, {
      props: { lines: [line('fan', false), line('blower', false), line('valve', true)] },
    })
    expect(page.findAll('[data-testid=trap]')).toHaveLength(1)
    expect(page.findAll('li.wrong').map((one) => one.text())).toEqual([
      '≠fanstandsyou: works',
      '≠blowerstandsyou: works',
    ])
    expect(page.find('li.right').text()).toBe('=valvestands')
  })
})

describe('the subjects', () => {
  const subject = (id: string, more: Partial<PracticeSubject>): PracticeSubject => ({
    id,
    title: id,
    forms: ['find'],
    standing: 'new',
    done: 0,
    last_marks: null,
    due_at: null,
    due: true,
    ...more,
  })

  it('say how they stand and when they are due, and open the ways that they have', async () => {
    const soon = new Date(Date.now() + 5.5 * 86_400_000).toISOString()
    const page = mount(SubjectRows, {
      global,
      props: {
        busy: false,
        forms: [
          { id: 'find', title: 'Find it', says: '' },
          { id: 'timing', title: 'Time it', says: '' },
        ],
        subjects: [
          subject('power', {}),
          subject('safeties', { standing: 'sure', done: 2, last_marks: 92, due_at: soon, due: false }),
          subject('staging', { standing: 'shaky', done: 1, last_marks: 40, due_at: '2026-01-01T00:00:00Z' }),
        ],
      },
    })
    const rows = page.findAll('li').map((one) => one.text())
    expect(rows[0]).not.toContain('due')
    expect(rows[1]).toContain('sure92again in 6 d')
    expect(rows[2]).toContain('shaky40due')
    await by(page, 'subject-safeties').trigger('click')
    expect(by(page, 'form-timing').exists()).toBe(false)
    await by(page, 'form-find').trigger('click')
    expect(page.emitted('begin')).toEqual([['safeties', 'find']])
  })
})
