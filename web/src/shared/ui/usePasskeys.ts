import { computed } from 'vue'
import { useSession } from '@/shared/ui/useSession'

/** Passkeys belong to a server's name with TLS: elsewhere no word of them is shown. */
export function usePasskeys() {
  const { session } = useSession()
  const possible = computed(() => session.value?.passkeys ?? false)
  /** Whether this browser knows them at all. */
  const known = typeof window.PublicKeyCredential === 'function'
  return { possible, known }
}
