// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { expect, it, vi } from 'vitest'
import { api, type Report, type Session, type Visit } from '@/shared/api/client'
import ReportPage from '@/desks/close_out/ReportPage.vue'
import { useSession } from '@/shared/ui/useSession'

const section = (id: string) => ({ id, title: id, always: false, blocks: [] })
const report = {
  title: 'Boathouse library, North unit',
  visit_on: '2026-11-23',
  names: [],
  crew: 'Larkmere crew',
  marked: false,
  draft: true,
  closing: null,
  customer: [],
  sections: [section('readings'), section('photos')],
  leave_out: [],
  addenda: [],
  handover: '',
} as unknown as Report
const visit = (id: string) =>
  ({
    id,
    version: 1,
    desks: { close_out: { version: 0, content: {}, by: null, at: null } },
  }) as unknown as Visit
const ready = <T>(value: T) => Promise.resolve({ state: 'ready' as const, value })

function shown(id: string, number: number | null) {
  return mount(ReportPage, {
    props: { id, number },
    global: {
      stubs: {
        RouterLink: true,
        ElCheckbox: {
          props: ['modelValue'],
          emits: ['change'],
          template: `<input type="checkbox" :checked="modelValue" @change="$emit('change', $event.target.checked)" />`,
        },
      },
    },
  })
}

it.each([
  [
    'kept with an open visit, although it is chosen before the visit has come',
    null,
    [[{ leave_out: ['photos'] }]],
  ],
  ['only chosen for a closing', 1, []],
])('what goes into the paper is %s', async (_, number, kept) => {
  vi.restoreAllMocks()
  useSession().session.value = { viewer: { id: 'p', may_change: true } } as unknown as Session
  let come = (): void => undefined
  vi.spyOn(api, 'visit').mockReturnValue(
    new Promise((done) => {
      come = () => done({ state: 'ready', value: visit(`v${number}`) })
    }),
  )
  vi.spyOn(api, 'report').mockReturnValue(ready({ ...report, draft: !number }))
  const keep = vi.spyOn(api, 'keepDesk').mockReturnValue(ready(visit(`v${number}`)))
  const page = shown(`v${number}`, number)
  await flushPromises()
  await page.find('[data-testid=section-photos]').setValue(false)
  expect(keep).not.toHaveBeenCalled()
  come()
  await flushPromises()
  expect(keep.mock.calls.map((call) => [(call as unknown[]).at(-1)])).toEqual(kept)
})
