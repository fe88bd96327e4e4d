import { onBeforeUnmount, shallowRef } from 'vue'
import { api, type Alike, type Source, type Task } from '@/shared/api/client'
import type { Problem } from '@/shared/model/outcome'

const ASK_AGAIN_MS = 700

/** Which faults of a rig no voltage tells apart: asked for, watched while it is worked out, cancelled at will. */
export function useAlike(source: Source) {
  const alike = shallowRef<Alike | null>(null)
  const task = shallowRef<Task | null>(null)
  const problem = shallowRef<Problem | null>(null)
  let timer = 0

  async function ask() {
    clearTimeout(timer)
    problem.value = null
    const answer = await api.alike(source)
    if (answer.state === 'failed') problem.value = answer.problem
    else if (answer.state === 'ready' && 'classes' in answer.value) {
      alike.value = answer.value
      task.value = null
    } else if (answer.state === 'ready') {
      task.value = answer.value as Task
      timer = window.setTimeout(watchOn, ASK_AGAIN_MS)
    }
  }

  async function watchOn() {
    if (!task.value) return
    const answer = await api.task(task.value.id)
    if (answer.state === 'failed') {
      problem.value = answer.problem
      return
    }
    if (answer.state !== 'ready') return
    task.value = answer.value
    if (answer.value.state === 'done') return ask()
    if (answer.value.state === 'failed') {
      problem.value = {
        type: 'about:blank',
        title: 'Not worked out',
        status: 500,
        detail: answer.value.error ?? '',
      }
      task.value = null
    } else if (answer.value.state === 'cancelled') task.value = null
    else timer = window.setTimeout(watchOn, ASK_AGAIN_MS)
  }

  async function cancel() {
    clearTimeout(timer)
    if (task.value) await api.cancelTask(task.value.id)
    task.value = null
  }

  onBeforeUnmount(() => clearTimeout(timer))
  return { alike, task, problem, ask, cancel }
}
