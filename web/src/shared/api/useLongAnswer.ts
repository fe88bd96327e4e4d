import { onBeforeUnmount, ref, shallowRef } from 'vue'
import { api, type Task } from '@/shared/api/client'
import { passes, type Outcome, type Problem } from '@/shared/model/outcome'
import { say } from '@/words'

const ASK_AGAIN_MS = 700
const ASK_EARLY_MS = 250

/** Of an answer that comes first in part: the task that works out the rest of this one, undefined where it is whole; and
 *  whether the rest, once it is there, has to wait for the hand that is at work on what is shown. */
type Early<Answer> = { restOf: (answer: Answer) => Task | undefined; inHand: () => boolean }

/** An answer that may have to be worked out first: asked for, watched while a task is at it, cancelled at will. The
 *  newest asking wins. */
export function useLongAnswer<Answer extends object>(
  ask: () => Promise<Outcome<Answer | Task>>,
  early?: Early<Answer>,
) {
  const answer = shallowRef<Answer | null>(null)
  const task = shallowRef<Task | null>(null)
  const problem = shallowRef<Problem | null>(null)
  const asking = ref(false)
  let timer = 0
  let newest = 0
  let nothingYet = false

  const isTask = (one: Answer | Task): one is Task => 'state' in one && 'total' in one

  async function again() {
    clearTimeout(timer)
    const mine = ++newest
    asking.value = true
    const given = await ask()
    if (mine !== newest) return
    if (given.state === 'failed' && passes(given.problem)) {
      timer = window.setTimeout(again, ASK_AGAIN_MS)
      return
    }
    asking.value = false
    if (given.state === 'failed') problem.value = given.problem
    if (given.state !== 'ready') return
    problem.value = null
    nothingYet = isTask(given.value)
    if (isTask(given.value)) task.value = given.value
    else {
      answer.value = given.value
      task.value = early?.restOf(given.value) ?? null
    }
    if (task.value) timer = window.setTimeout(watchOn, early && nothingYet ? ASK_EARLY_MS : ASK_AGAIN_MS)
  }

  async function watchOn() {
    if (!task.value) return
    const mine = newest
    const given = await api.task(task.value.id)
    if (mine !== newest) return
    if (given.state === 'failed') {
      problem.value = given.problem
      return
    }
    if (given.state !== 'ready') return
    task.value = given.value
    if (given.value.state === 'done' && !early?.inHand()) return again()
    if (given.value.state === 'failed') {
      problem.value = {
        type: 'about:blank',
        title: say('useLongAnswer.notWorkedOut'),
        status: 500,
        detail: given.value.error ?? '',
      }
      task.value = null
    } else if (given.value.state === 'cancelled') task.value = null
    else if (early && nothingYet) return again()
    else timer = window.setTimeout(watchOn, ASK_AGAIN_MS)
  }

  async function cancel() {
    clearTimeout(timer)
    newest += 1
    asking.value = false
    if (task.value) await api.cancelTask(task.value.id)
    task.value = null
  }

  onBeforeUnmount(() => {
    newest += 1
    clearTimeout(timer)
  })
  return { answer, task, problem, asking, again, cancel }
}
