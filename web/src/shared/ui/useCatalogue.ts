import { shallowRef } from 'vue'
import { api, type Catalogue } from '@/shared/api/client'
import { degreeUnit } from '@/shared/model/units'

const catalogue = shallowRef<Catalogue | null>(null)
let asked: Promise<unknown> | null = null
let unit = degreeUnit.value

/** Calls, instruments, symptoms, components: asked once for the whole application, and again in another unit of temperature. */
export function useCatalogue() {
  if (unit !== degreeUnit.value) asked = null
  unit = degreeUnit.value
  asked ??= api.catalogue().then((answer) => {
    if (answer.state === 'ready') catalogue.value = answer.value
    else asked = null
  })
  return catalogue
}
