import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'
import { useSession } from '@/shared/ui/useSession'

/** Calls, instruments, symptoms, components: asked once for the whole application, by who has come in. */
export function useCatalogue() {
  const { viewer } = useSession()
  return useQuestion('catalogue', () => (viewer.value ? true : null), api.catalogue).value
}
