import { ref } from 'vue'
import { timed } from '@/shared/api/clock'
import * as pocket from '@/shared/kept/pocket'

/** Seconds to wait before each further try, where the answer does not say. */
const WAITS = [1, 2, 3, 4, 5]
/** Longer nobody is kept waiting without a word. */
const MOST_SECONDS = 10
/** Where each try counts: sent again by a person only. */
const ATTEMPTS = /^\/api\/(session|account|invitations)/
/** What a proxy says of a server that it does not reach. */
const NO_SERVER = new Set([502, 504])
/** How many requests wait for a server that does not answer just now. */
export const waiting = ref(0)

/** Whether the server has been renewed under this page: what it asks may be answered otherwise now. */
export const renewed = ref(false)
let build: string | null = null
/** Which build of the pages this server speaks for. */
export const buildNow = () => build ?? ''
function heard(answer: Response) {
  const now = answer.headers.get('x-gorvant-build')
  if (!now) return
  renewed.value ||= build !== null && build !== now
  build ??= now
}

/** What a write has to say beside the cookie; the server tells it anew where it has become another. */
export const csrf = { token: '' }
/** Whom this page takes for signed in; the server says where that is somebody else by now. */
export const person = { id: '' }
export const somebodyElse = ref(false)
const SOMEBODY_ELSE = 'urn:gorvant:problem:somebody_else'

/** The request as it is sent now. */
function spoken(request: Request): Request {
  const sent = request.clone()
  if (request.method !== 'GET' && csrf.token) sent.headers.set('X-CSRF-Token', csrf.token)
  if (person.id && !sent.headers.has('X-Person')) sent.headers.set('X-Person', person.id)
  return sent
}

/** Seconds after which an answer wants to be asked again; 0 where it is one to hand on. */
function again(answer: Response, path: string): number {
  const passes = answer.status === 503 || (answer.status === 429 && !ATTEMPTS.test(path))
  return passes ? Number(answer.headers.get('retry-after')) : 0
}

const pause = (seconds: number, signal: AbortSignal) =>
  new Promise<void>((done) => {
    const timer = setTimeout(done, seconds * 1000)
    signal.addEventListener('abort', () => (clearTimeout(timer), done()), { once: true })
  })

async function lookWho(refusal: Response) {
  const problem = (await refusal.json().catch(() => null)) as { type?: string } | null
  if (problem?.type === SOMEBODY_ELSE) somebodyElse.value = true
}

/** Asks once; once more with the new token where that is all that is wrong. */
async function askOnce(request: Request): Promise<Response> {
  for (let toldAnew = false; ; toldAnew = true) {
    const answer = await timed(() => fetch(spoken(request)))
    const token = answer.headers.get('x-csrf-token')
    if (token) csrf.token = token
    if (answer.status === 403 && !token) await lookWho(answer.clone())
    if (answer.status !== 403 || !token || toldAnew) return answer
  }
}
pocket.wire({ send: askOnce })

/**
 * Asks again by itself while the server is away, says that it will be back, or that it has this page's last question in hand: a
 * write carries an id or a version, so that the same one sent again is kept once. Any other answer is handed on as it is.
 */
export async function patientFetch(request: Request): Promise<Response> {
  // What goes wrong with what lies here keeps nobody from the server.
  const early = await pocket.first(request).catch(() => null)
  if (early) return early
  const asking = pocket.askingNow(request)
  let counted = false
  try {
    for (let attempt = 0; ; attempt++) {
      const answer = await askOnce(request).catch((problem: unknown) => problem)
      request.signal.throwIfAborted()
      const here =
        answer instanceof Response && !NO_SERVER.has(answer.status)
          ? null
          : await pocket.without(request).catch(() => null)
      if (here) return here
      const seconds =
        answer instanceof Response ? again(answer, new URL(request.url).pathname) : WAITS[attempt]
      if (!seconds || seconds > MOST_SECONDS || attempt >= WAITS.length) {
        if (!(answer instanceof Response)) throw answer
        heard(answer)
        void pocket.heard(request, answer, asking).catch(() => undefined)
        return answer
      }
      if (!counted) waiting.value++
      counted = true
      await pause(seconds, request.signal)
    }
  } finally {
    if (counted) waiting.value--
  }
}
