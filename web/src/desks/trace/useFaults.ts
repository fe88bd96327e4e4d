import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { api, type Source } from '@/shared/api/client'
import { useQuestion } from '@/shared/api/useQuestion'

/** Every fault that a rig can have, asked for when somebody wants one. */
export function useFaults(source: Source, wanted: MaybeRefOrGetter<boolean>) {
  const { value } = useQuestion(
    `faults.${source.kind}.${source.id}`,
    () => toValue(wanted) || null,
    () => api.faults(source),
  )
  return computed(() => value.value?.faults ?? [])
}
