import { onBeforeUnmount, onMounted } from 'vue'
import { onBeforeRouteLeave } from 'vue-router'
import { ElMessageBox } from 'element-plus/es/components/message-box/index'
import { say } from '@/words'
import 'element-plus/es/components/message-box/style/css'

/** What is being typed on a page, kept on this device until it is kept for good or given up. */
export function useDraft<T>(name: string) {
  const key = `gorvant.draft.${name}`
  const read = (): T | null => {
    try {
      const text = localStorage.getItem(key)
      return text ? (JSON.parse(text) as T) : null
    } catch {
      return null
    }
  }
  // Where the browser keeps nothing, or no more, all else goes on.
  const where = (act: (store: Storage) => void) => {
    try {
      act(localStorage)
    } catch {
      return
    }
  }
  return {
    read,
    write: (value: T) => where((store) => store.setItem(key, JSON.stringify(value))),
    forget: () => where((store) => store.removeItem(key)),
  }
}

/** Leaving a page with something unkept asks first; `open` says whether there is. What is left stays as a draft. */
export function useLeaving(open: () => boolean, says: string) {
  onBeforeRouteLeave(async () => {
    if (!open()) return true
    try {
      await ElMessageBox.confirm(says, say('useDraft.notKeptYet'), {
        confirmButtonText: say('useDraft.leaveIt'),
        cancelButtonText: say('useDraft.stay'),
        autofocus: true,
      })
      return true
    } catch {
      return false
    }
  })
  const warn = (event: BeforeUnloadEvent) => {
    if (open()) event.preventDefault()
  }
  onMounted(() => addEventListener('beforeunload', warn))
  onBeforeUnmount(() => removeEventListener('beforeunload', warn))
}
