// @vitest-environment happy-dom
import { afterEach, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { away } from '@/shared/kept/pocket'

const settle = () => new Promise((resolve) => setTimeout(resolve, 20))
afterEach(() => vi.unstubAllGlobals())

it.each([
  ['calls a question off where another has taken its place, and where nobody looks any more', false],
  ['lets a question be where there is no signal: what is answered here may be wanted again', true],
])('%s', async (_what, noSignal) => {
  away.value = noSignal
  ;(window as unknown as { happyDOM: { setURL: (url: string) => void } }).happyDOM.setURL('http://here/')
  const sent: Request[] = []
  vi.stubGlobal('fetch', (request: Request) => (sent.push(request), new Promise<Response>(() => undefined)))
  const aborted = () => sent.map((one) => one.signal.aborted)
  const question = ref('a')
  const page = effectScope()
  page.run(() => useQuestion(`sites ${noSignal}`, question, (id: string) => api.site(id)))
  await settle()
  expect(aborted()).toEqual([false])
  question.value = 'b'
  await settle()
  expect(aborted()).toEqual([!noSignal, false])
  page.stop()
  await settle()
  expect(aborted()).toEqual([!noSignal, !noSignal])
})
