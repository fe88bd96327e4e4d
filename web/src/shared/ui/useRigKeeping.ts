import { ref, type Ref, type ShallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Rig } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'
import { say } from '@/words'

/**
 * Keeps a rig under a name: the first time as a new rig, then as a revision of `rig`. What was
 * said of the keeping outlives the move from the "new" address to the rig's own.
 */
export function useRigKeeping(
  rig: ShallowRef<Rig | null>,
  problem: Ref<Problem | null>,
  address: (id: string) => string,
  /** Whether a new rig moves to its own address at once. */
  moves: () => boolean = () => true,
) {
  const router = useRouter()
  const newId = crypto.randomUUID()
  const busy = ref(false)
  const saved = ref(String(window.history.state?.saved ?? ''))

  /** True when the rig is kept; otherwise `problem` says why not. */
  async function keep(name: string, file: Record<string, unknown>) {
    if (busy.value) return false
    if (!name.trim()) {
      problem.value = {
        type: 'about:blank',
        title: say('useRigKeeping.notYet'),
        status: 422,
        detail: say('useRigKeeping.giveAName'),
      }
      return false
    }
    busy.value = true
    const before = rig.value
    const kept = before
      ? await api.reviseRig(before.id, before.version, file)
      : await api.importRig(newId, file)
    busy.value = false
    problem.value = kept.state === 'failed' ? kept.problem : null
    if (kept.state !== 'ready') return false
    saved.value = say('useRigKeeping.kept', { revision: kept.value.revision })
    rig.value = kept.value as Rig
    if (!before && moves())
      await router.replace({ path: address(kept.value.id), state: { saved: saved.value } })
    return true
  }

  return { busy, saved, keep }
}
