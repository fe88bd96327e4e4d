import { api, type RigFile, type Visit } from '@/shared/api/client'

/**
 * Keeps what is fitted, as a change of `revision`. Where somebody else changed the rig meanwhile and the two changes do not
 * touch, both are kept together; where they do, the problem tells both and it is for a person to decide.
 */
export async function keepFitted(visit: Visit, revision: number, rig: RigFile) {
  const kept = await api.changeFitted(visit.id, visit.version, revision, rig)
  if (kept.state !== 'failed' || !kept.problem.merged) return kept
  return api.changeFitted(
    visit.id,
    visit.version,
    kept.problem.current_version ?? revision,
    kept.problem.merged,
  )
}
