import { shallowReadonly, shallowRef, toValue, watch, type MaybeRefOrGetter } from 'vue'
import { LOADING, type Outcome } from '@/shared/model/outcome'

/** A question whose answer follows from it alone: asked once, kept; `ahead` are questions to ask beforehand. A null question
 *  is not asked. */
export function useKept<Question, Answer>(
  question: MaybeRefOrGetter<Question | null>,
  ask: (question: Question) => Promise<Outcome<Answer>>,
  ahead: MaybeRefOrGetter<Question[]> = [],
) {
  const outcome = shallowRef<Outcome<Answer>>(LOADING)
  const seen = new Map<string, Promise<Outcome<Answer>>>()

  function once(one: Question): Promise<Outcome<Answer>> {
    const key = JSON.stringify(one)
    const known = seen.get(key)
    if (known) return known
    const asking = ask(one)
    seen.set(key, asking)
    void asking.then((answer) => answer.state === 'failed' && seen.delete(key))
    return asking
  }

  watch(
    () => JSON.stringify(toValue(question)),
    async (_now, before, onCleanup) => {
      let current = true
      onCleanup(() => (current = false))
      const one = toValue(question)
      if (one === null) return
      if (before === undefined) outcome.value = LOADING
      const answer = await once(one)
      if (!current) return
      outcome.value = answer
      if (answer.state !== 'ready') return
      for (const next of toValue(ahead)) {
        if (!current) return
        await once(next)
      }
    },
    { immediate: true },
  )
  /** Asks again what an action may have changed. */
  function forget() {
    seen.clear()
  }
  return { outcome: shallowReadonly(outcome), forget }
}
