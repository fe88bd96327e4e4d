// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import type { Visit } from '@/shared/api/client'
import VisitMarks from '@/pages/visits/VisitMarks.vue'
import { PAGES } from '@/shared/model/visitPages'

const ElTooltip = {
  props: ['disabled'],
  template: `<div><slot /><p v-if="!disabled"><slot name="content" /></p></div>`,
}
function shown(looked: Partial<Visit['marks']>, readings = { agree: 0, disagree: 0 }) {
  const marks = Object.fromEntries(PAGES.map(({ id }) => [id, looked[id] ?? 'untouched'])) as Visit['marks']
  return mount(VisitMarks, { props: { marks, readings }, global: { stubs: { ElTooltip } } })
}

it('says to a reader how each page stands that somebody has looked at, and shows the same when pointed at', () => {
  const sheet = shown({ intake: 'so_far', trace: 'disagrees', find: 'agrees' }, { agree: 4, disagree: 1 })
  const told = ['Intake: right so far, not all looked at', 'Trace: disagrees', 'Find: agrees']
  expect(sheet.find('[role=img]').attributes('aria-label')).toBe(
    ['4 readings agree, 1 disagree', ...told].join('; '),
  )
  expect(sheet.findAll('.told').map((one) => one.text())).toEqual(told)
  expect(sheet.findAll('.mark').map((one) => one.text())).toEqual(['~', '·', '≠', '·', '·', '·', '=', '·'])
})

it('claims nothing of a visit that nobody has looked at, and opens nothing', () => {
  const sheet = shown({})
  expect(sheet.find('[role=img]').attributes('aria-label')).toBe('no readings yet')
  expect(sheet.find('p').exists()).toBe(false)
})
