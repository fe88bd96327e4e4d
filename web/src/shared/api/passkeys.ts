import {
  startAuthentication,
  startRegistration,
  WebAuthnError,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser'
import type { Problem } from '@/shared/model/outcome'
import { say } from '@/words'

type Given = { credential: Record<string, unknown> } | { problem: Problem }

/** What the device's authenticator says to the server's question: at the door. */
export const answered = (question: object) =>
  given(() => startAuthentication({ optionsJSON: question as PublicKeyCredentialRequestOptionsJSON }))

/** A new passkey on this device, for the account that asked. */
export const made = (question: object) =>
  given(() => startRegistration({ optionsJSON: question as PublicKeyCredentialCreationOptionsJSON }))

async function given(ask: () => Promise<object>): Promise<Given> {
  try {
    return { credential: (await ask()) as Record<string, unknown> }
  } catch (error) {
    return {
      problem: { type: 'about:blank', title: say('passkeys.title'), status: 0, detail: reason(error) },
    }
  }
}

/** Browsers tell little on purpose: whoever let it be is told so, and nothing is blamed. */
function reason(error: unknown): string {
  if (error instanceof WebAuthnError && error.code === 'ERROR_AUTHENTICATOR_PREVIOUSLY_REGISTERED') {
    return say('passkeys.known')
  }
  const { name, message } = error as Error
  return name === 'NotAllowedError' || name === 'AbortError'
    ? say('passkeys.letBe')
    : say('passkeys.failed', { reason: message })
}
