import { shallowReadonly, shallowRef, toValue, watch, type MaybeRefOrGetter } from 'vue'
import { api, type Condition, type Source, type Trace } from '@/api/client'
import { LOADING, type Outcome } from '@/model/outcome'

/** The trace of a visit or rig under a condition. Those seen before come back at once; `ahead` are asked for beforehand. */
export function useTrace(
  source: MaybeRefOrGetter<Source>,
  condition: MaybeRefOrGetter<Condition>,
  instrument: MaybeRefOrGetter<string>,
  ahead: MaybeRefOrGetter<Condition[]>,
) {
  const outcome = shallowRef<Outcome<Trace>>(LOADING)
  const seen = new Map<string, Promise<Outcome<Trace>>>()

  function ask(one: Condition): Promise<Outcome<Trace>> {
    const key = JSON.stringify([toValue(source), one, toValue(instrument)])
    const known = seen.get(key)
    if (known) return known
    const asking = api.trace(toValue(source), one, toValue(instrument))
    seen.set(key, asking)
    void asking.then((answer) => answer.state === 'failed' && seen.delete(key))
    return asking
  }

  watch(
    () => JSON.stringify([toValue(source), toValue(condition), toValue(instrument)]),
    async (_now, before, onCleanup) => {
      let current = true
      onCleanup(() => (current = false))
      if (before === undefined) outcome.value = LOADING
      const answer = await ask(toValue(condition))
      if (!current) return
      outcome.value = answer
      if (answer.state !== 'ready') return
      for (const next of toValue(ahead)) {
        if (!current) return
        await ask(next)
      }
    },
    { immediate: true },
  )
  return { outcome: shallowReadonly(outcome) }
}
