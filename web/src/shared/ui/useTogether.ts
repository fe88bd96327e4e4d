import {
  computed,
  onScopeDispose,
  reactive,
  ref,
  shallowRef,
  toValue,
  watch,
  type MaybeRefOrGetter,
} from 'vue'
import { useIntervalFn, useLocalStorage } from '@vueuse/core'
import { useRoute } from 'vue-router'
import { api } from '@/shared/api/client'
import { CLIENT } from '@/shared/api/client-id'
import { csrf } from '@/shared/api/patient'
import { onSent } from '@/shared/kept/pocket'
import { onCrewEvent, type CrewEvent } from '@/shared/api/stream'
import { answers } from '@/shared/api/useQuestion'
import { useVisit } from '@/shared/ui/useVisit'
import { say } from '@/words'

export type Place = 'wall' | 'air_handler' | 'outdoor'
export const PLACES: { id: Place; title: string }[] = [
  { id: 'wall', title: say('useTogether.wall') },
  { id: 'air_handler', title: say('useTogether.airHandler') },
  { id: 'outdoor', title: say('useTogether.outdoor') },
]

/** Somebody else who looks at the same visit. */
export interface Other {
  client: string
  by: string
  page: string
  at: Place | null
  call: string | null
  probes: string[]
  heard: number
}

const TELL_SECONDS = 25
/** After this long without a word somebody is taken to have gone. */
const QUIET_SECONDS = 70

const others = reactive(new Map<string, Other>())
/** Where this person stands: told to the others, kept on this device. */
const mine = useLocalStorage<Place | ''>('gorvant.stands', '')
/** What was asked of this person, by whom; and what each of those asked has said to this person's question. */
const asked = shallowRef<{ by: string; call: string | null } | null>(null)
const replies = reactive(new Map<string, 'clear' | 'not_yet'>())
const waits = ref(false)

/** Who else is in this visit. */
export const useOthers = () => ({
  others: computed(() => [...others.values()]),
  mine,
  asked,
  replies,
  waits,
})

/** Keeps a visit in step with what others keep of it, and tells them where this person is. Once for each page of a visit. */
export function useTogether(id: MaybeRefOrGetter<string | null>) {
  const route = useRoute()
  const { visit, renew: renewVisit } = useVisit()

  async function renew(names: string[]) {
    const now = toValue(id)
    await Promise.all(names.map((name) => answers.invalidateQueries({ queryKey: [name] })))
    if (now && visit.value?.id === now) await renewVisit(now)
  }

  function heard(event: CrewEvent) {
    const now = toValue(id)
    if (!now) return
    if (event.kind === 'reload') return void renew(['readings', 'photos', 'history', 'close_out'])
    if (event.visit_id !== now) return
    if (event.kind === 'reading') return void renew(['readings', 'close_out'])
    if (event.kind === 'photo') return void renew(['photos'])
    if (event.kind === 'desk' || event.kind === 'visit') return void renew(['visit_rig', 'close_out'])
    if (event.kind === 'here') return here(event)
    if (event.kind === 'hands') hands(event)
  }

  function here(event: CrewEvent) {
    const client = event.client
    if (!client) return
    const known = others.has(client)
    if (event.gone) return void others.delete(client)
    others.set(client, {
      client,
      by: event.by,
      page: event.page ?? '',
      at: event.at_place ?? null,
      call: event.call ?? null,
      probes: event.probes ?? [],
      heard: Date.now(),
    })
    if (!known) tell() // so that who came sees who is here
  }

  function hands(event: CrewEvent) {
    if (event.say === 'asked' && (mine.value === 'outdoor' || mine.value === 'air_handler'))
      asked.value = { by: event.by, call: event.call ?? null }
    if (event.say && event.say !== 'asked' && event.client && waits.value)
      replies.set(event.client, event.say)
  }

  const word = () => ({
    page: route.path.split('/')[3] ?? 'trace',
    at_place: mine.value || null,
    call: typeof route.query.call === 'string' ? route.query.call : null,
    probes: [route.query.black, route.query.red].filter((one): one is string => typeof one === 'string'),
  })

  function tell() {
    const now = toValue(id)
    if (now) void api.tellWhere(now, word())
  }

  const off = onCrewEvent(heard)
  // What waited here has arrived: the pages show the server's word on it.
  const offSent = onSent((visit) => {
    if (visit === toValue(id)) void renew(['readings', 'photos', 'close_out', 'visit_rig'])
  })
  useIntervalFn(() => {
    for (const [client, one] of others)
      if (Date.now() - one.heard > QUIET_SECONDS * 1000) others.delete(client)
    tell()
  }, TELL_SECONDS * 1000)
  watch(
    () =>
      [toValue(id), route.path, route.query.call, route.query.black, route.query.red, mine.value].join('|'),
    (_now, before) => {
      if (before?.split('|')[0] !== toValue(id)) {
        others.clear()
        asked.value = null
        replies.clear()
        waits.value = false
        leave(before?.split('|')[0])
      }
      tell()
    },
    { immediate: true },
  )

  function leave(visitId: string | undefined) {
    if (visitId && visitId !== 'null') void api.tellWhere(visitId, { ...word(), gone: true })
  }
  const leaves = () => {
    const now = toValue(id)
    // Also while the page goes away.
    if (now)
      void fetch(`/api/visits/${now}/here`, {
        method: 'POST',
        keepalive: true,
        headers: { 'Content-Type': 'application/json', 'X-Client': CLIENT, 'X-CSRF-Token': csrf.token },
        body: JSON.stringify({ ...word(), gone: true }),
      })
  }
  addEventListener('pagehide', leaves)
  onScopeDispose(() => {
    off()
    offSent()
    removeEventListener('pagehide', leaves)
  })
}
