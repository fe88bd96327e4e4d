import { ref } from 'vue'
import { timed } from '@/shared/api/clock'

/** Seconds to wait before each further try, where the answer does not say. */
const WAITS = [1, 2, 3, 4, 5]
/** How many requests wait for a server that does not answer just now. */
export const waiting = ref(0)

/** Whether the server has been renewed under this page: what it asks may be answered otherwise now. */
export const renewed = ref(false)
let build: string | null = null
function heard(answer: Response) {
  const now = answer.headers.get('x-gorvant-build')
  if (!now) return
  renewed.value ||= build !== null && build !== now
  build ??= now
}

const pause = (seconds: number, signal: AbortSignal) =>
  new Promise<void>((done) => {
    const timer = setTimeout(done, seconds * 1000)
    signal.addEventListener('abort', () => (clearTimeout(timer), done()), { once: true })
  })

/**
 * Asks again by itself while the server is away or says that it will be back: a write carries an id or a version, so that the same
 * one sent again is kept once. Any other answer is handed on as it is.
 */
export async function patientFetch(request: Request): Promise<Response> {
  let counted = false
  try {
    for (let attempt = 0; ; attempt++) {
      const answer = await timed(() => fetch(request.clone())).catch((problem: unknown) => problem)
      const again = answer instanceof Response ? Number(answer.headers.get('retry-after')) : WAITS[attempt]
      const final = answer instanceof Response && (answer.status !== 503 || !again)
      if (final || attempt >= WAITS.length || request.signal.aborted) {
        if (!(answer instanceof Response)) throw answer
        heard(answer)
        return answer
      }
      if (!counted) waiting.value++
      counted = true
      await pause(again || WAITS[attempt]!, request.signal)
    }
  } finally {
    if (counted) waiting.value--
  }
}
