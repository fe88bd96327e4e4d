// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { afterEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import FactField from '@/shared/ui/kit/FactField.vue'
import QuantityField from '@/shared/ui/kit/QuantityField.vue'
import { pairsOf, type FactAsked } from '@/shared/ui/kit/factField'
import { chooseUnit } from '@/shared/model/units'

const ElInput = {
  props: ['modelValue'],
  emits: ['update:modelValue', 'input', 'change', 'blur'],
  template: `<input :value="modelValue"
    @input="$emit('update:modelValue', $event.target.value); $emit('input', $event.target.value)"
    @change="$emit('change', $event.target.value)" @blur="$emit('blur')" />`,
}
const ElButton = { emits: ['click'], template: `<button @click="$emit('click')"><slot /></button>` }
const global = { stubs: { ElInput, ElButton } }
const quantity = (props: object) =>
  mount(QuantityField, {
    props: { modelValue: 70, name: 'Room', unit: '°F', low: -20, high: 130, ...props },
    global,
  })

/** Letters, with the field not left yet. */
function type(field: ReturnType<typeof quantity>, text: string) {
  const input = field.find('input')
  input.element.value = text
  return input.trigger('input')
}

afterEach(() => chooseUnit('temperature', '°F'))

describe('a quantity', () => {
  it.each([
    ['68', [[68]], ''],
    ['68,5', [[68.5]], ''],
    ['-20', [[-20]], ''],
    ['130.1', [], '≠ Room: a number from -20 to 130 °F.'],
    ['warm', [], '≠ Room: a number from -20 to 130 °F.'],
    ['', [], '≠ Room: a number from -20 to 130 °F.'],
    ['70', [], ''],
  ])('typed as “%s” hands on %o and says “%s”', async (typed, told, said) => {
    const field = quantity({})
    await type(field, typed)
    expect(field.emitted('update:modelValue')).toBeUndefined()
    await field.find('input').trigger('change')
    expect(field.emitted('update:modelValue') ?? []).toEqual(told)
    expect(field.find('[role=alert]').exists() ? field.find('[role=alert]').text() : '').toBe(said)
    expect(field.find('input').element.value).toBe(typed)
    expect(field.find('input').attributes('aria-describedby')).toBe(
      said ? field.find('[role=alert]').attributes('id') : undefined,
    )
  })

  it('may be nothing where that is an answer, and is told with each letter where it is live', async () => {
    const field = quantity({ optional: true, live: true })
    await type(field, '')
    expect(field.emitted('update:modelValue')).toEqual([[null]])
  })

  it('is typed and bounded in the chosen unit, and stays in the core’s', async () => {
    chooseUnit('temperature', '°C')
    const field = quantity({ modelValue: 68 })
    expect(field.find('input').element.value).toBe('20')
    await type(field, '60')
    await field.find('input').trigger('change')
    expect(field.find('[role=alert]').text()).toBe('≠ Room: a number from -28.9 to 54.4 °C.')
    await type(field, '25')
    await field.find('input').trigger('change')
    expect(field.emitted('update:modelValue')).toEqual([[77]])
    chooseUnit('temperature', '°F')
    await nextTick()
    expect(field.find('input').element.value).toBe('68')
  })

  it('does not lose what is being typed to an answer that comes meanwhile', async () => {
    const field = quantity({})
    await type(field, '6')
    await field.setProps({ modelValue: 65 })
    expect(field.find('input').element.value).toBe('6')
    await field.find('input').trigger('blur')
    await field.setProps({ modelValue: 61 })
    expect(field.find('input').element.value).toBe('61')
  })
})

const asked = (kind: FactAsked['kind'], more: Partial<FactAsked> = {}): FactAsked => ({
  key: 'k',
  title: 'Safeties',
  kind,
  choices: [
    { value: 'LPS', says: 'LPS' },
    { value: 'HPS', says: 'HPS' },
  ],
  unit: null,
  delta: false,
  low: null,
  high: null,
  ...more,
})
const answers = (field: { emitted: (name: string) => unknown[][] | undefined }) =>
  (field.emitted('update:modelValue') ?? []).map(([value]) => value)

describe('a fact', () => {
  it('of a list keeps the order in which it was tapped, and shows it', async () => {
    const field = mount(FactField, { props: { fact: asked('list'), modelValue: ['HPS'] }, global })
    const [lps, hps] = field.findAll('button')
    await lps!.trigger('click')
    await hps!.trigger('click')
    expect(answers(field)).toEqual([['HPS', 'LPS'], []])
    expect(hps!.text()).toMatch(/^1\s*HPS$/)
    expect(hps!.attributes('aria-pressed')).toBe('true')
  })

  it('of yes and no is spread out, in a row of many too', async () => {
    const field = mount(FactField, {
      props: { fact: asked('flag'), modelValue: false, compact: true },
      global,
    })
    expect(field.findAll('button').map((one) => [one.text(), one.attributes('aria-pressed')])).toEqual([
      ['yes', 'false'],
      ['no', 'true'],
    ])
    await field.findAll('button')[0]!.trigger('click')
    expect(answers(field)).toEqual([true])
  })

  it('that nobody has read is marked as in doubt', () => {
    const shown = (doubt: boolean) =>
      mount(FactField, { props: { fact: asked('choice'), modelValue: 'LPS', doubt }, global }).classes(
        'doubt',
      )
    expect([shown(true), shown(false)]).toEqual([true, false])
  })

  it.each([
    [
      '30 1\n60 2',
      {
        pairs: [
          [30, 1],
          [60, 2],
        ],
      },
    ],
    [
      '30;1,5\n60;2',
      {
        pairs: [
          [30, 1.5],
          [60, 2],
        ],
      },
    ],
    ['30 1\n60', { wrong: 'Line 2: two numbers, °F and minutes.' }],
    ['30 1\n30 2', { wrong: 'Line 2: each line has to be above the one before.' }],
    ['30 1', { wrong: 'At least two lines.' }],
  ])('of a table, %j: %o', (text, read) => expect(pairsOf(text, ['°F', 'minutes'])).toEqual(read))
})
