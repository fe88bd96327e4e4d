import { computed, shallowRef } from 'vue'

const MOST = 200

/** A value with undo and redo. Setting what is there already adds no step. */
export function useHistory<T>(first: T) {
  const states = shallowRef<T[]>([first])
  const at = shallowRef(0)
  return {
    current: computed(() => states.value[at.value] as T),
    canUndo: computed(() => at.value > 0),
    canRedo: computed(() => at.value < states.value.length - 1),
    set(value: T) {
      if (value === states.value[at.value]) return
      states.value = [...states.value.slice(0, at.value + 1), value].slice(-MOST)
      at.value = states.value.length - 1
    },
    undo: () => (at.value = Math.max(at.value - 1, 0)),
    redo: () => (at.value = Math.min(at.value + 1, states.value.length - 1)),
    /** Begins anew, with nothing to undo. */
    restart(value: T) {
      states.value = [value]
      at.value = 0
    },
  }
}
