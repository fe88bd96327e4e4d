import type { DeskContents, DeskId } from '@/shared/api/client'
import { same, threeWay } from '@/shared/model/threeWay'
import { useDraft } from '@/shared/ui/useDraft'

type Content = DeskContents[DeskId]
/** What a desk held before, then what it was to hold, one change after the other. */
type Steps = Partial<Record<DeskId, Content[]>>

/** Changes of a visit's desks that are on their way: a page that is loaded anew meanwhile sends them again. */
export function useUnsent(visitId: string) {
  const draft = useDraft<Steps>(`unsent.${visitId}`)
  return {
    note(desk: DeskId, before: Content, content: Content) {
      const steps = draft.read() ?? {}
      draft.write({ ...steps, [desk]: [...(steps[desk] ?? [before]), content] })
    },
    forget(desk: DeskId) {
      const rest = draft.read() ?? {}
      delete rest[desk]
      if (Object.keys(rest).length) draft.write(rest)
      else draft.forget()
    },
    forgetAll: draft.forget,
    /**
     * What was not taken, put together with what the desk holds now; `clash` where another has changed the same
     * meanwhile. Some of it may have arrived: what comes after that goes on top.
     */
    left(now: (desk: DeskId) => Content): { desk: DeskId; content: Content; clash: boolean }[] {
      return (Object.entries(draft.read() ?? {}) as [DeskId, Content[]][]).flatMap(([desk, steps]) => {
        const theirs = now(desk)
        const mine = steps.at(-1)!
        if (same(theirs, mine)) {
          this.forget(desk)
          return []
        }
        const base = steps.find((step) => same(step, theirs)) ?? steps[0]!
        const whole = threeWay(base, theirs, mine)
        return [{ desk, content: whole ?? mine, clash: !whole }]
      })
    },
  }
}
