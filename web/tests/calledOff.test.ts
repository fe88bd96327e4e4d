// @vitest-environment happy-dom
import { afterEach, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'

const settle = () => new Promise((resolve) => setTimeout(resolve, 20))
afterEach(() => vi.unstubAllGlobals())

it('calls a question off where another has taken its place, and where nobody looks any more', async () => {
  ;(window as unknown as { happyDOM: { setURL: (url: string) => void } }).happyDOM.setURL('http://here/')
  const sent: Request[] = []
  vi.stubGlobal('fetch', (request: Request) => (sent.push(request), new Promise<Response>(() => undefined)))
  const aborted = () => sent.map((one) => one.signal.aborted)
  const question = ref('a')
  const page = effectScope()
  page.run(() => useQuestion('sites', question, (id: string) => api.site(id)))
  await settle()
  expect(aborted()).toEqual([false])
  question.value = 'b'
  await settle()
  expect(aborted()).toEqual([true, false])
  page.stop()
  await settle()
  expect(aborted()).toEqual([true, true])
})
