import { useElementSize, type MaybeComputedElementRef } from '@vueuse/core'
import { computed } from 'vue'

/** How wide a drawing stands on the page, in px: drawn in as many units, its type keeps its size on a phone too. `usual`
 *  until it is there. */
export function useDrawnWidth(drawing: MaybeComputedElementRef, usual: number) {
  const { width } = useElementSize(drawing)
  return computed(() => Math.round(width.value) || usual)
}
