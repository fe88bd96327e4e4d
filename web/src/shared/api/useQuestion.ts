import { keepPreviousData, QueryClient, useQuery, type QueryFunctionContext } from '@tanstack/vue-query'
import { computed, toValue, watch, type MaybeRefOrGetter } from 'vue'
import { whileWanted } from '@/shared/api/http'
import { LOADING, passes, type Outcome, type Problem } from '@/shared/model/outcome'
import { chosenUnits } from '@/shared/model/units'

/** A refused or lost question, as vue-query wants it. */
class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}
const AGAIN_MS = 1000

/** Answers of this tab. Asking again is patientFetch's; here only what was refused because of another long answer, for as
 *  long as somebody looks: it says that it is asked again. */
export const answers = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (_times, refusal) => refusal instanceof Refused && passes(refusal.problem),
      retryDelay: AGAIN_MS,
      networkMode: 'always',
      refetchOnWindowFocus: false,
      refetchOnReconnect: false,
      structuralSharing: false,
    },
  },
})

interface Ways<Question> {
  /** The answer follows from the question alone (the default): asked once, kept. Else a page that opens asks anew. */
  follows?: boolean
  /** While the next answer is on its way the last one stays (the default), or nothing is shown. */
  stays?: boolean
  /** Questions to ask beforehand, one after another. */
  ahead?: MaybeRefOrGetter<Question[]>
}

/** A read of the server. A null question is not asked; the newest question's answer wins. `name` and the question tell
 *  one answer from another. */
export function useQuestion<Question, Answer>(
  name: string,
  question: MaybeRefOrGetter<Question | null>,
  ask: (question: Question) => Promise<Outcome<Answer>>,
  { follows = true, stays = true, ahead = [] }: Ways<Question> = {},
) {
  const key = (one: Question | null) => [name, chosenUnits(), one]
  const lasts = follows ? { staleTime: Infinity } : { staleTime: 0, gcTime: 0 }
  const asking =
    (one: Question) =>
    async (by: QueryFunctionContext): Promise<Answer> => {
      const answer = await whileWanted(by, () => ask(one))
      if (answer.state === 'ready') return answer.value
      throw new Refused((answer as { problem: Problem }).problem)
    }
  const query = useQuery(
    computed(() => {
      const one = toValue(question)
      return {
        queryKey: key(one),
        queryFn: asking(one as Question),
        enabled: one !== null,
        ...lasts,
        placeholderData: stays ? keepPreviousData : undefined,
      }
    }),
    answers,
  )

  /** The last answer; the newest question's unless it is on its way or was refused. */
  const value = computed<Answer | null>(() => (query.data.value as Answer | undefined) ?? null)
  const problem = computed<Problem | null>(() => (query.error.value as Refused | null)?.problem ?? null)
  const outcome = computed<Outcome<Answer>>(() => {
    if (problem.value) return { state: 'failed', problem: problem.value }
    return value.value === null ? LOADING : { state: 'ready', value: value.value }
  })

  watch(query.isFetching, async (fetching) => {
    if (fetching || query.data.value === undefined) return
    const from = toValue(question)
    for (const next of toValue(ahead)) {
      if (toValue(question) !== from) return
      await answers.prefetchQuery({ queryKey: key(next), queryFn: asking(next), ...lasts })
    }
  })

  /** Asks again what something else may have changed. */
  const again = () => answers.invalidateQueries({ queryKey: [name] })
  return { value, problem, outcome, again, waiting: query.isFetching }
}
