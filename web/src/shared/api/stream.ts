import type { Visit } from '@/shared/api/client'
import { CLIENT } from '@/shared/api/client-id'

/** What somebody of the crew, or a device of it, just did. */
export interface CrewEvent {
  kind: (typeof KINDS)[number] | 'reload'
  visit_id: string | null
  /** Who did it, and the page they did it from. */
  by: string
  client?: string
  at: string
  user_id?: string
  desk?: keyof NonNullable<Visit['desks']>
  page?: string
  at_place?: 'wall' | 'air_handler' | 'outdoor' | null
  call?: string | null
  probes?: string[]
  gone?: boolean
  say?: 'asked' | 'clear' | 'not_yet'
}

const KINDS = ['reading', 'desk', 'visit', 'photo', 'here', 'hands', 'device_reading', 'log_rows'] as const
const CHANNEL = 'gorvant.events'
const LOCK = 'gorvant.stream'
const AGAIN_SECONDS = 3

const handlers = new Set<(event: CrewEvent) => void>()
let stop: (() => void) | null = null

/** Tells what happens until the returned function is called. */
export function onCrewEvent(handler: (event: CrewEvent) => void): () => void {
  handlers.add(handler)
  return () => handlers.delete(handler)
}

function tell(event: CrewEvent) {
  if (event.client !== CLIENT) for (const handler of handlers) handler(event)
}

/** One stream a browser: the tab that holds the lock listens and passes on to the others; when it closes the next one does. */
export function listen() {
  if (stop) return
  const others = 'BroadcastChannel' in globalThis ? new BroadcastChannel(CHANNEL) : null
  others?.addEventListener('message', ({ data }) => tell(data as CrewEvent))
  const ending = new AbortController()
  const lead = () =>
    follow((event) => {
      tell(event)
      others?.postMessage(event)
    }, ending.signal)
  // Without a secure context there are no locks: then each tab listens for itself.
  if (navigator.locks && others)
    void navigator.locks.request(LOCK, { signal: ending.signal }, lead).catch(() => undefined)
  else void lead()
  stop = () => {
    ending.abort()
    others?.close()
    stop = null
  }
}

export const stopListening = () => stop?.()

/** Holds the stream until it is ended. What was missed while it was away comes by itself, or the word to load anew. */
function follow(pass: (event: CrewEvent) => void, ending: AbortSignal): Promise<void> {
  return new Promise((done) => {
    let source: EventSource | null = null
    const open = () => {
      if (ending.aborted) return
      source = new EventSource('/api/stream')
      for (const kind of [...KINDS, 'reload'] as const)
        source.addEventListener(kind, (message) =>
          pass({ ...JSON.parse((message as MessageEvent<string>).data), kind } as CrewEvent),
        )
      source.addEventListener('error', () => {
        // The browser comes again by itself, but for an answer that is no stream.
        if (source?.readyState !== EventSource.CLOSED) return
        setTimeout(open, AGAIN_SECONDS * 1000)
      })
    }
    ending.addEventListener('abort', () => {
      source?.close()
      done()
    })
    open()
  })
}
