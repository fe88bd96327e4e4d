import { readonly, ref, shallowRef, type Ref } from 'vue'
import { LOADING, type Outcome } from '@/shared/model/outcome'

/** Asks once, and again on `again()`; the newest question wins. */
export function useAsked<T>(ask: () => Promise<Outcome<T>>) {
  const outcome = shallowRef<Outcome<T>>(LOADING)
  const asking = ref(0)
  async function again() {
    const mine = ++asking.value
    const answer = await ask()
    if (mine === asking.value) outcome.value = answer
  }
  void again()
  return { outcome: readonly(outcome) as Readonly<Ref<Outcome<T>>>, again }
}
