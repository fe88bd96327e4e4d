import { ref, shallowReadonly, shallowRef } from 'vue'
import { api, type DeskContents, type DeskId, type Visit, type VisitChange } from '@/shared/api/client'
import { threeWay } from '@/shared/model/threeWay'
import { useUnsent } from '@/shared/ui/unsent'
import type { Outcome, Problem } from '@/shared/model/outcome'

type Fields = Omit<VisitChange, 'version'>
/** What was refused because somebody else came first: fields of the visit, or what one desk holds. */
type Refused = { fields: Fields } | { desk: DeskId; content: DeskContents[DeskId] }

const visit = shallowRef<Visit | null>(null)
const problem = shallowRef<Problem | null>(null)
const saved = ref(false)
const refused = shallowRef<Refused | null>(null)
/** What desks are to hold, ahead of the visit while it is on its way or stands against somebody else's. */
const ahead = shallowRef<Partial<DeskContents>>({})
/** Versions of desks that others have kept since this page showed them: a page that holds more than the visit begins anew. */
const newer = shallowRef<Partial<Record<DeskId, number>>>({})
/** Desks that were just kept together with what another kept first. */
const merged = new Set<DeskId>()
/** What the server took last, by desk. */
const taken = new Map<DeskId, unknown>()
let queue: Promise<unknown> = Promise.resolve()
/** How many changes are on their way or wait for it: "kept" is said when none does. */
let pending = 0

/** The visit in hand: one for the header and the page. Changes go to the server one after the other, each on the version that the one before made. */
export function useVisit() {
  async function load(id: string) {
    const anew = visit.value?.id !== id
    if (anew) {
      visit.value = refused.value = null
      ahead.value = {}
      newer.value = {}
      taken.clear()
    }
    const answer = await api.visit(id)
    problem.value = answer.state === 'failed' ? answer.problem : null
    if (answer.state !== 'ready') return
    visit.value = answer.value
    if (anew) sendLeft(answer.value)
    else useUnsent(id).forgetAll()
  }

  /** What was on its way when the page went: shown at once, and sent now. */
  function sendLeft({ id, desks }: Visit) {
    for (const { desk, content, clash } of useUnsent(id).left((desk) => desks?.[desk].content ?? {})) {
      if (clash) {
        ahead.value = { ...ahead.value, [desk]: content }
        refused.value = { desk, content }
      } else void keepDesk(desk, content)
    }
  }

  /** Sends one thing after what is on its way; false when it was not taken: `problem` says why. */
  function send(ask: (before: Visit) => Promise<Outcome<Visit>>, mine: () => Refused): Promise<boolean> {
    pending++
    saved.value = false
    const sending = queue.then(async () => {
      const before = visit.value
      pending--
      if (!before) return false
      const answer = await ask(before)
      problem.value = answer.state === 'failed' ? answer.problem : null
      if (answer.state === 'failed' && answer.problem.status === 409) refused.value = mine()
      if (answer.state !== 'ready') return false
      refused.value = null
      if (visit.value?.id === before.id) visit.value = answer.value
      saved.value = pending === 0
      return true
    })
    queue = sending.catch(() => undefined)
    return sending
  }

  /** When all that is on its way has been answered. */
  const settled = () => queue

  /** Keeps some of the visit's fields. */
  const change = (fields: Fields) =>
    send(
      (before) => api.changeVisit(before.id, { version: before.version, ...fields }),
      () => ({
        fields: { ...(refused.value && 'fields' in refused.value ? refused.value.fields : {}), ...fields },
      }),
    )

  /** What a desk holds of the visit, with what is on its way. */
  const held = <D extends DeskId>(desk: D): DeskContents[D] =>
    (ahead.value[desk] ?? visit.value?.desks?.[desk].content ?? {}) as DeskContents[D]

  /** Sends the newest of what a desk is to hold; nothing where an earlier turn took it along already. */
  async function sendDesk(before: Visit, desk: DeskId): Promise<Outcome<Visit>> {
    const newest = held(desk)
    if (newest === taken.get(desk)) return { state: 'ready', value: before }
    const answer = await api.keepDesk(before.id, desk, before.desks?.[desk].version ?? 0, newest)
    if (answer.state === 'ready') taken.set(desk, newest)
    const whole = answer.state === 'failed' ? together(before, desk, answer.problem, newest) : null
    if (answer.state !== 'failed' || !whole) return answer
    const again = await api.keepDesk(before.id, desk, answer.problem.current_version ?? 0, whole)
    if (again.state !== 'ready') return answer
    taken.set(desk, newest)
    // What was noted meanwhile goes on top of both.
    const later = ahead.value[desk] === newest ? undefined : threeWay(newest, whole, ahead.value[desk], true)
    ahead.value = { ...ahead.value, [desk]: later ?? undefined }
    merged.add(desk)
    return again
  }

  /** Mine and what another kept first, put together as far as they do not touch; null where they do. */
  function together(before: Visit, desk: DeskId, problem: Problem, mine: DeskContents[DeskId]) {
    if (problem.status !== 409 || !problem.current || problem.current_version === undefined) return null
    return threeWay<DeskContents[DeskId]>(before.desks?.[desk].content ?? {}, problem.current, mine)
  }

  /** Keeps a part of what a desk holds; the rest of it stays. */
  async function keepDesk<D extends DeskId>(desk: D, part: DeskContents[D]): Promise<boolean> {
    const before = held(desk)
    const content = { ...before, ...part }
    const unsent = visit.value && useUnsent(visit.value.id)
    unsent?.note(desk, before, content)
    ahead.value = { ...ahead.value, [desk]: content }
    const kept = await send(
      (before) => sendDesk(before, desk),
      () => ({ desk, content: held(desk) }),
    )
    if (ahead.value[desk] === content && !refused.value) {
      ahead.value = { ...ahead.value, [desk]: undefined }
      unsent?.forget(desk)
    }
    const version = visit.value?.desks?.[desk].version
    if (merged.delete(desk) && version) newer.value = { ...newer.value, [desk]: version }
    return kept
  }

  /** Takes what others kept meanwhile. A desk whose own change is on its way is not begun anew: it wins or is told of a conflict. */
  async function renew(id: string) {
    await queue
    const before = visit.value?.desks
    const answer = await api.visit(id)
    if (answer.state !== 'ready' || visit.value?.id !== id) return
    take(answer.value)
    const now = answer.value.desks
    if (!before || !now) return
    const changed = (Object.keys(now) as DeskId[]).filter(
      (desk) => now[desk].version > before[desk].version && !ahead.value[desk],
    )
    if (changed.length)
      newer.value = {
        ...newer.value,
        ...Object.fromEntries(changed.map((desk) => [desk, now[desk].version])),
      }
  }

  /** Puts what was refused on top of what somebody else kept meanwhile. */
  async function keepMine() {
    const mine = refused.value
    if (!mine || !visit.value) return
    await load(visit.value.id)
    await ('fields' in mine ? change(mine.fields) : keepDesk(mine.desk, mine.content))
  }

  /** Gives up what was refused. */
  function takeTheirs() {
    if (visit.value) useUnsent(visit.value.id).forgetAll()
    location.reload()
  }

  /** Takes the visit as another question's answer has it; what a desk kept meanwhile is newer than that. */
  function take(row: Visit) {
    const had = visit.value?.id === row.id ? visit.value.desks : undefined
    if (!had || !row.desks) return (visit.value = row)
    const newer = (Object.keys(had) as DeskId[]).filter((id) => had[id].version > row.desks![id].version)
    const kept = Object.fromEntries(newer.map((id) => [id, had[id]]))
    return (visit.value = { ...row, desks: { ...row.desks, ...kept } })
  }
  return {
    visit: shallowReadonly(visit),
    problem,
    saved,
    refused: shallowReadonly(refused),
    newer: shallowReadonly(newer),
    renew,
    settled,
    load,
    change,
    held,
    keepDesk,
    keepMine,
    takeTheirs,
    take,
  }
}
