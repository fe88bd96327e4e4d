// @vitest-environment happy-dom
import { expect, it, vi } from 'vitest'
import { flushPromises, shallowMount } from '@vue/test-utils'
import { defineComponent, ref, shallowRef } from 'vue'

const test = { id: 'ohms|CC', function: 'ohms', place: 'CC', condition: { call: 'heat' }, others: [] }
const answer = shallowRef({
  next: test,
  mark: null,
  outcome: { key: 'open' },
  changed: [],
  suspects: [],
  evidence: [],
})
const keep = vi.fn<() => Promise<boolean>>()
vi.mock('@/shared/api/client', () => ({ api: {} }))
vi.mock('@/shared/api/useQuestion', () => ({ useQuestion: () => ({ value: ref(null) }) }))
vi.mock('@/shared/ui/useCatalogue', () => ({ useCatalogue: () => ref(null) }))
vi.mock('@/shared/ui/useVisit', () => ({
  useVisit: () => ({ visit: ref(null), load: vi.fn(), renew: vi.fn() }),
}))
vi.mock('@/shared/ui/useReadings', () => ({
  useReadings: () => ({ readings: ref([]), problem: ref(null), busy: ref(false), keep, takeBack: vi.fn() }),
}))
vi.mock('@/desks/find/useFind', () => ({
  useFind: () => ({
    ...{ answer, task: ref(null), problem: ref(null), asking: ref(false), settling: ref(false) },
    ...{ again: vi.fn(), cancel: vi.fn(), stands: ref(null), mode: ref('cheapest'), skipped: ref([]) },
    ...{ suspect: ref(null), skip: vi.fn() },
  }),
}))

it.each([
  ['kept: the same test may be asked for once more', true, 1],
  ['refused', false, 0],
])(
  'leaves nothing in the field of a reading that was %s',
  async (_what, kept, cleared) => {
    const clear = vi.fn()
    const NextTest = defineComponent({
      emits: ['keep'],
      setup: (_props, { expose }) => expose({ clear, typing: () => false }),
      template: '<i />',
    })
    keep.mockReset().mockResolvedValue(kept)
    const { default: FindPage } = await import('@/desks/find/FindPage.vue')
    const page = shallowMount(FindPage, {
      props: { id: 'one' },
      global: { stubs: { NextTest, RouterLink: true } },
    })
    page.findComponent(NextTest).vm.$emit('keep', { function: 'ohms', value: null })
    await flushPromises()
    expect(keep).toHaveBeenCalledTimes(1)
    expect(clear).toHaveBeenCalledTimes(cleared)
  },
  60_000,
)
