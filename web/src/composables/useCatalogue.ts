import { shallowRef } from 'vue'
import { api, type Catalogue } from '@/api/client'

const catalogue = shallowRef<Catalogue | null>(null)
let asked: Promise<unknown> | null = null

/** Calls, instruments, symptoms, components: asked once for the whole application. */
export function useCatalogue() {
  asked ??= api.catalogue().then((answer) => {
    if (answer.state === 'ready') catalogue.value = answer.value
    else asked = null
  })
  return catalogue
}
