import { onBeforeUnmount, onMounted } from 'vue'
import { actionFor, isTyping, type Action } from '@/shared/model/keys'

/**
 * The keys of a page: one for each action, and digits that choose a call. Where a button has the
 * focus, space presses it. asleep: actions that mean nothing just now.
 */
export function useActionKeys(
  acts: Record<Action, () => void>,
  calls: () => { id: string; key: string }[],
  choose: (call: string) => void,
  asleep: (action: Action) => boolean,
) {
  function onKey(event: KeyboardEvent) {
    const plain = !isTyping(event) && !event.ctrlKey && !event.metaKey && !event.altKey
    const chosen = plain ? calls().find((one) => one.key === event.key) : undefined
    if (chosen) return choose(chosen.id)
    const action = actionFor(event)
    if (!action || asleep(action)) return
    const pressed = (event.target as Element | null)?.closest('button, a, summary, [role=button]')
    if (event.key === ' ' && pressed) return
    event.preventDefault()
    acts[action]()
  }
  onMounted(() => addEventListener('keydown', onKey))
  onBeforeUnmount(() => removeEventListener('keydown', onKey))
}
