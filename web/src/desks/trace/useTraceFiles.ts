import type { Ref } from 'vue'
import { api, type Condition, type Source } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'
import { saveFile } from '@/shared/model/saveFile'
import type { TraceState } from '@/desks/trace/traceState'

/** What a trace can be saved as: the deck for ngspice, the drawing as it is shown. */
export function useTraceFiles(
  source: Source,
  condition: Ref<Condition>,
  state: Ref<TraceState>,
  loop: Ref<string | null>,
  failed: (problem: Problem) => void,
) {
  const call = () => condition.value.call ?? 'off'

  async function saveDeck() {
    const answer = await api.spice(source, condition.value)
    if (answer.state === 'failed') failed(answer.problem)
    else if (answer.state === 'ready') saveFile(`gorvant-${call()}.cir`, answer.value)
  }

  async function saveSvg() {
    const { view, opened, atRest, panel } = state.value
    if (view === 'legend') return
    const answer = await api.svg(source, {
      condition: condition.value,
      view,
      ...(view === 'loops' ? { opened } : {}),
      ...(view === 'ladder' ? { at_rest: atRest, panel } : {}),
      ...(view === 'focus' && loop.value ? { load: loop.value } : {}),
    })
    if (answer.state === 'failed') failed(answer.problem)
    else if (answer.state === 'ready')
      saveFile(`gorvant-${view}-${call()}.svg`, answer.value, 'image/svg+xml')
  }

  return { saveDeck, saveSvg }
}
