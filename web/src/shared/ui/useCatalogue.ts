import { api } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'

/** Calls, instruments, symptoms, components: asked once for the whole application. */
export const useCatalogue = () => useQuestion('catalogue', true, api.catalogue).value
