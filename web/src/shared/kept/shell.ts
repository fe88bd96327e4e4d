import { ref } from 'vue'

/** Whether a newer build of the pages lies ready; it is offered, never put under a page that is open. */
export const newVersion = ref(false)
let worker: ServiceWorkerRegistration | null = null

/** Has the browser keep the application's own files, so that it opens without signal. Only a built application has them. */
export function keepShell() {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return
  addEventListener('load', async () => {
    worker = await navigator.serviceWorker.register('/sw.js').catch(() => null)
    worker?.addEventListener('updatefound', () => {
      const coming = worker?.installing
      coming?.addEventListener('statechange', () => {
        // The very first one is no newer version of anything.
        if (coming.state === 'installed' && navigator.serviceWorker.controller) newVersion.value = true
      })
    })
    if (worker?.waiting && navigator.serviceWorker.controller) newVersion.value = true
  })
}

const WAIT_MS = 8_000

/** Loads the newest build: what the browser keeps of the last one is let go first. */
export async function reloadAnew() {
  await worker?.update().catch(() => undefined)
  const coming = worker?.waiting ?? worker?.installing
  if (coming) {
    const taken = new Promise<void>((done) =>
      navigator.serviceWorker.addEventListener('controllerchange', () => done(), { once: true }),
    )
    const go = () => coming.postMessage({ type: 'SKIP_WAITING' })
    if (coming.state === 'installed') go()
    else coming.addEventListener('statechange', () => coming.state === 'installed' && go())
    await Promise.race([taken, new Promise((done) => setTimeout(done, WAIT_MS))])
  }
  location.reload()
}
