import { canKeep, tellPages, wire } from '@/shared/kept/pocket'

/** Lets the pocket ask the engine, which is loaded when it is wanted first. */
export function bringEngine() {
  if (!canKeep) return
  let looked = false
  wire({
    async engine(one, inHand, atOnce) {
      const engine = await import('@/shared/kept/engine')
      if (!looked) await engine.lookForEngine()
      looked = true
      if (atOnce && engine.engineState.value !== 'ready') {
        // What was shown meanwhile could not be held against the circuit: it is asked anew.
        void engine.wakeEngine().then((up) => up && tellPages(inHand.visit.id))
        return null
      }
      return engine.askEngine(one, inHand)
    },
  })
}
