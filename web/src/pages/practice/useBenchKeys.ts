import { onBeforeUnmount, onMounted } from 'vue'
import { isTyping } from '@/shared/model/keys'

/** Keys of a page by themselves: nobody is typing, no list is open, no modifier is held. */
export function useBenchKeys(acts: Record<string, () => void>) {
  function press(event: KeyboardEvent) {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return
    const act = acts[event.key]
    if (!act) return
    event.preventDefault()
    act()
  }
  onMounted(() => addEventListener('keydown', press))
  onBeforeUnmount(() => removeEventListener('keydown', press))
}
