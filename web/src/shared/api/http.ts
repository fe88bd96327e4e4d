import createClient from 'openapi-fetch'
import { ref } from 'vue'
import { CLIENT } from '@/shared/api/client-id'
import { patientFetch } from '@/shared/api/patient'
import * as pocket from '@/shared/kept/pocket'
import { chosenUnits } from '@/shared/model/units'
import { unreachable, type Outcome, type Problem } from '@/shared/model/outcome'
import type { paths } from '@/shared/api/schema'

/** Whether an answer said that nobody is signed in any more. */
export const signedOut = ref(false)
/** Other refusals of that kind are about what was typed: a password, a code, a passkey. */
const NOBODY = 'urn:gorvant:problem:not_signed_in'

let wanted: { readonly signal: AbortSignal } | null = null
/** Whatever the block asks at once is called off with the signal: nobody wants its answer any more. */
export function whileWanted<T>(by: { readonly signal: AbortSignal }, ask: () => T): T {
  wanted = by
  try {
    return ask()
  } finally {
    wanted = null
  }
}

export const client = createClient<paths>({ baseUrl: '/', fetch: patientFetch })
client.use({
  onRequest({ request }) {
    request.headers.set('X-Client', CLIENT)
    const units = chosenUnits()
    if (units) request.headers.set('X-Units', units)
    // What is answered here costs nobody else, and may be wanted again.
    const signal = pocket.away.value ? null : wanted?.signal
    return signal ? new Request(request, { signal }) : request
  },
  async onResponse({ response }) {
    if (response.status !== 401) return
    const problem = (await response
      .clone()
      .json()
      .catch(() => null)) as Problem | null
    // A session that ended while a page is open: the page stays, the door is shown over it.
    if (problem?.type === NOBODY) signedOut.value = true
  },
})

export type Answer<T> = { data?: T; error?: unknown; response: Response }

/** Turns an answer of the client into an Outcome; a refused request keeps its problem details. */
export async function outcome<T>(asking: Promise<Answer<T>>): Promise<Outcome<T>> {
  try {
    const { data, error, response } = await asking
    if (data !== undefined && response.ok) return { state: 'ready', value: data }
    const problem = error as Problem | undefined
    return {
      state: 'failed',
      problem: problem?.detail ? problem : { ...unreachable(), status: response.status },
    }
  } catch {
    return { state: 'failed', problem: unreachable() }
  }
}
