import { computed, shallowRef, watch } from 'vue'
import { api, signedOut, type Session } from '@/shared/api/client'
import { person } from '@/shared/api/patient'
import { listen, stopListening } from '@/shared/api/stream'
import { openFor, wipe } from '@/shared/kept/pocket'
import { answers } from '@/shared/api/useQuestion'
import type { Outcome, Problem } from '@/shared/model/outcome'

const session = shallowRef<Session | null>(null)
const problem = shallowRef<Problem | null>(null)
/** Who was signed in when the page was opened: a session that ends asks for the same person first. */
let before: string | null = null

function take(answer: Outcome<Session>): Problem | null {
  if (answer.state !== 'ready') return answer.state === 'failed' ? answer.problem : null
  const now = answer.value.viewer?.id ?? null
  // Somebody else sees nothing of what the one before had open.
  if (before && now && now !== before) location.assign('/')
  before ??= now
  session.value = answer.value
  person.id = now ?? ''
  signedOut.value = answer.value.viewer === null && before !== null
  if (now) void openFor(answer.value)
  if (now) listen()
  else stopListening()
  return null
}

/** Who is signed in by this browser. */
export function useSession() {
  const viewer = computed(() => session.value?.viewer ?? null)
  return {
    session,
    viewer,
    problem,
    /** Whether this person may change what the crew keeps. */
    mayChange: computed(() => viewer.value?.may_change ?? false),
    load: async () => (problem.value = take(await api.session())),
    signIn: async (name: string, password: string, code: string | null) =>
      take(await api.signIn({ name, password, code: code || undefined })),
    /** By an authenticator of this device; null too where its person let it be. */
    async signInByPasskey(): Promise<Problem | null> {
      const asked = await api.askForPasskey()
      if (asked.state !== 'ready') return asked.state === 'failed' ? asked.problem : null
      const { answered } = await import('@/shared/api/passkeys')
      const given = await answered(asked.value)
      if ('problem' in given) return given.problem
      return take(await api.signInByPasskey({ challenge: asked.value.challenge, ...given }))
    },
    openLocally: async (key: string) => take(await api.openLocally(key)),
    accept: async (body: Parameters<typeof api.acceptInvitation>[0]) =>
      take(await api.acceptInvitation(body)),
    /** Ends it here, and takes away what this device keeps of the person; says why where that needs signal. */
    async signOut(): Promise<Problem | null> {
      const ended = await api.signOut()
      if (ended.state === 'failed') return ended.problem
      before = null
      answers.clear()
      await wipe()
      take(ended)
      location.assign('/')
      return null
    },
  }
}

watch(signedOut, (gone) => gone && session.value?.viewer && void api.session().then(take))
