// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { afterEach, describe, expect, it } from 'vitest'
import PlaceEntry from '@/desks/trace/PlaceEntry.vue'
import ReadingEntry from '@/desks/trace/ReadingEntry.vue'
import { chooseUnit } from '@/shared/model/units'
import PickButtons from '@/shared/ui/kit/PickButtons.vue'
import PickOne from '@/shared/ui/kit/PickOne.vue'

const base = { busy: false, last: null, correcting: null, docked: false }
const about = (id: string, more = {}) =>
  ({
    id,
    title: id,
    unit: null,
    at: 'place',
    open: false,
    instruments: [],
    cautions: [],
    places: [],
    ...more,
  }) as never
const typed = (field: ReturnType<typeof mount>, testid: string) => field.find(`[data-testid=${testid}]`)

const of = (field: ReturnType<typeof mount>, part: typeof PickOne | typeof PickButtons) =>
  (field.findComponent(part as never) as unknown as ReturnType<typeof mount>).props() as Record<
    string,
    unknown
  >

describe('a reading that is typed', () => {
  afterEach(() => chooseUnit('temperature', '°F'))
  const entry = (id: string, unit: string, more = {}) =>
    mount(ReadingEntry, { props: { ...base, ready: true, about: about(id, { unit, ...more }) } })

  it('is handed on as value, range or open, and what is none stays in the field with what would be right', async () => {
    const field = entry('ohms', 'Ω', { open: true })
    for (const [text, read] of [
      ['11 to 13', { value: 11, value_high: 13 }],
      ['OL', { open: true }],
    ] as const) {
      await typed(field, 'measured').setValue(text)
      await field.find('form').trigger('submit')
      expect(field.emitted('keep')?.at(-1)).toEqual([read])
    }
    await typed(field, 'measured').setValue('lots')
    await field.find('form').trigger('submit')
    expect(field.emitted('keep')).toHaveLength(2)
    expect(field.find('[role=alert]').text()).toContain('a range such as 25 to 30, or OL')
    expect((typed(field, 'measured').element as HTMLInputElement).value).toBe('lots')
  })

  it('has its moment beside it, which is no negative time', async () => {
    const field = entry('degrees_f', '°F')
    chooseUnit('temperature', '°C')
    await typed(field, 'measured').setValue('20')
    await typed(field, 'stopped').setValue('-3')
    await field.find('form').trigger('submit')
    expect(field.find('[role=alert]').text()).toContain('Minutes since the compressor stopped')
    await typed(field, 'stopped').setValue('4')
    await field.find('form').trigger('submit')
    expect(field.emitted('keep')).toEqual([[{ value: 68, moment: { compressor_stopped_minutes: 4 } }]])
  })

  it('comes back to be corrected, and is emptied only when it was kept', async () => {
    const field = entry('psi', 'psi')
    const old = {
      id: 'a',
      value: 310,
      value_high: 330,
      about: true,
      open: false,
      reads: 'about 310 to 330 psi',
    }
    await field.setProps({ correcting: old as never })
    expect((typed(field, 'measured').element as HTMLInputElement).value).toBe('about 310 to 330')
    expect(field.text()).toContain('Replaces about 310 to 330 psi')
    await field.setProps({ last: { id: 'b' } as never })
    expect((typed(field, 'measured').element as HTMLInputElement).value).toBe('')
  })
})

describe('what is seen or looked up', () => {
  const seen = about('seen', {
    title: 'Seen',
    places: [
      {
        id: 'fan',
        title: 'outdoor fan',
        note: false,
        choices: [
          { id: 'turns', title: 'turns' },
          { id: 'stands', title: 'stands' },
        ],
      },
      { id: 'lamp', title: 'lamp', note: true, choices: [{ id: 'code', title: 'a code' }] },
    ],
  })
  const facts = [
    { key: 'interval', title: 'Interval', asks: 'set to', kind: 'number', unit: 'min', choices: [] },
    {
      key: 'valve',
      title: 'Valve',
      asks: 'energized',
      kind: 'choice',
      unit: null,
      choices: [{ value: 'O', says: 'cooling' }],
    },
    { key: 'hidden', title: 'Not here', asks: '', kind: 'flag', unit: null, choices: [] },
  ]
  const place = (of: never) =>
    mount(PlaceEntry, {
      props: {
        ...base,
        canKeep: true,
        loop: null,
        about: of,
        facts,
        trace: { loads: [], readable: ['interval', 'valve'] },
      } as never,
    })

  it('is kept only when something was chosen, and another place forgets what was chosen for the one before', async () => {
    const field = place(seen)
    await field.find('form').trigger('submit')
    expect(field.find('[role=alert]').text()).toContain('Choose what it was')
    field.findComponent(PickButtons).vm.$emit('update:modelValue', 'stands')
    await field.find('form').trigger('submit')
    expect(field.emitted('keep')).toEqual([[{ place: 'fan', choice: 'stands' }]])
    field.findComponent(PickOne).vm.$emit('update:modelValue', 'lamp')
    await field.vm.$nextTick()
    expect(of(field, PickButtons).modelValue).toBeNull()
    expect(of(field, PickButtons).options).toEqual([{ id: 'code', title: 'a code' }])
    field.findComponent(PickButtons).vm.$emit('update:modelValue', 'code')
    await typed(field, 'reading-note').setValue(' 3 long ')
    await field.find('form').trigger('submit')
    expect(field.emitted('keep')?.at(-1)).toEqual([{ place: 'lamp', choice: 'code', note: '3 long' }])
  })

  it('offers the facts of this rig alone, each with “could not tell”, a number as it stands there', async () => {
    const field = place(about('looked_up', { title: 'Looked up', at: 'fact' }))
    expect(of(field, PickOne).options).toEqual([
      { id: 'interval', title: 'Interval' },
      { id: 'valve', title: 'Valve' },
    ])
    await typed(field, 'looked-up').setValue('ninety')
    await field.find('form').trigger('submit')
    expect(field.emitted('keep')).toBeUndefined()
    await typed(field, 'looked-up').setValue('90')
    await field.find('form').trigger('submit')
    expect(field.emitted('keep')).toEqual([[{ place: 'interval', choice: 90 }]])
    field.findComponent(PickOne).vm.$emit('update:modelValue', 'valve')
    await field.vm.$nextTick()
    expect(of(field, PickButtons).options).toEqual([
      { id: 'O', title: 'cooling' },
      { id: 'could_not_tell', title: 'could not tell' },
    ])
  })
})
