import { onBeforeUnmount, ref, watch } from 'vue'
import { refAutoReset } from '@vueuse/core'
import { api, type Find, type FindTest } from '@/shared/api/client'
import { useLongAnswer } from '@/shared/api/useLongAnswer'

export type Place = NonNullable<Find['stands']>
export type Way = Find['mode']
const TICK_MS = 20_000
const SETTLE_MS = 600

/** Find of one visit: where one stands, how the next test is chosen, what cannot be done here, whom it is about. A hold
 *  runs on while one looks, so it is asked again while one is on. inHand: whether a reading is being typed in: what is
 *  worked out meanwhile does not take the test away from under it. */
export function useFind(id: string, inHand: () => boolean) {
  const stands = ref<Place | null>(null)
  const mode = ref<Way>('cheapest')
  const skipped = ref<string[]>([])
  const suspect = ref<string | null>(null)
  const { answer, task, problem, asking, again, cancel } = useLongAnswer<Find>(
    () =>
      api.find(id, {
        early: true,
        mode: mode.value,
        ...(stands.value ? { stands: stands.value } : {}),
        ...(skipped.value.length ? { skip: skipped.value } : {}),
        ...(suspect.value ? { about: suspect.value } : {}),
      }),
    { restOf: (found) => found.task, inHand },
  )
  // The whole may bring another test than the first look had: a tap that was meant for that one is of neither.
  const settling = refAutoReset(false, SETTLE_MS)
  watch(
    answer,
    (now, before) => {
      if (before?.first_look && !now?.first_look && before.next?.id !== now?.next?.id) settling.value = true
    },
    { flush: 'sync' },
  )
  watch([stands, mode, skipped, suspect], again, { immediate: true })
  const ticking = window.setInterval(() => {
    if (answer.value?.hold?.state === 'in_force') void again()
  }, TICK_MS)
  onBeforeUnmount(() => clearInterval(ticking))

  const skip = (test: FindTest) => (skipped.value = [...skipped.value, test.id])
  return { answer, task, problem, asking, settling, again, cancel, stands, mode, skipped, suspect, skip }
}

export type Lane = { id: string; title: string; raw: string | number | boolean; suspects: Find['suspects'] }

/** The answers of a test as lanes, each with the suspects that would give it; what nobody predicts comes last. */
export function lanesOf(answer: Find): Lane[] {
  const test = answer.next
  if (!test) return []
  const titles = new Map<string, { title: string; raw: string | number | boolean }>()
  for (const one of test.splits) titles.set(one.answer, { title: one.title, raw: one.answer })
  for (const one of test.answers) titles.set(String(one.id), { title: one.title, raw: one.id })
  const lanes = [...titles].map(([id, { title, raw }]) => ({
    id,
    title,
    raw,
    suspects: answer.suspects.filter((one) => one.predicts?.answer === id),
  }))
  const weight = (lane: Lane) => lane.suspects.reduce((sum, one) => sum + one.belief, 0)
  return lanes.sort((a, b) => weight(b) - weight(a))
}

export const percent = (belief: number) =>
  belief >= 0.995 ? '>99%' : belief < 0.01 ? '<1%' : `${Math.round(belief * 100)}%`

/** How a share of belief is drawn, 0 to 100. */
export const width = (belief: number) => `${Math.max(belief * 100, 1)}%`
