import { computed, onBeforeUnmount, ref, shallowRef, watch, type Ref } from 'vue'
import { api, type Condition, type Source, type Timeline } from '@/shared/api/client'
import { useHistory } from '@/shared/ui/useHistory'
import { useQuestion } from '@/shared/api/useQuestion'
import { conditionAt, eventTimes, withMove, withoutMove, type Move, type Script } from '@/desks/trace/tape'
import type { TraceState } from '@/desks/trace/traceState'

export const SPEEDS = [1, 10, 60, 600]
const SETTLES_MS = 400

/** The run over time beside the drawings: its script, its answer, the instant in hand, and playing it. */
export function useTape(source: Source, state: Ref<TraceState>, change: (part: Partial<TraceState>) => void) {
  const cursor = ref(state.value.at)
  const speed = ref(60)
  const playing = ref(false)
  const window = shallowRef<{ from: number; to: number } | null>(null)
  const pins = ref<number[]>([])
  const history = useHistory<Script | null>(state.value.tape)

  type Question = {
    script: Script
    duration_seconds: number
    from_seconds?: number
    to_seconds?: number
    width: number
  }
  const whole = computed<Question | null>(() =>
    state.value.tape ? { script: state.value.tape, duration_seconds: state.value.span, width: 1600 } : null,
  )
  const name = `timeline.${source.kind}.${source.id}`
  const { value: ran, outcome } = useQuestion<Question, Timeline>(name, whole, (one) =>
    api.timeline(source, one),
  )
  const timeline = computed(() => (state.value.tape ? ran.value : null))
  const { value: close } = useQuestion<Question, Timeline>(
    name,
    () =>
      whole.value && window.value
        ? { ...whole.value, from_seconds: window.value.from, to_seconds: window.value.to }
        : null,
    (one) => api.timeline(source, one),
  )
  /** What is drawn: the stretch in hand, once it is there in its own resolution. */
  const shown = computed(() =>
    window.value && close.value?.from_seconds === window.value.from ? close.value : timeline.value,
  )
  const condition = computed<Condition | null>(() =>
    timeline.value ? (conditionAt(timeline.value, cursor.value) ?? null) : null,
  )

  function go(seconds: number) {
    cursor.value = Math.min(Math.max(seconds, 0), state.value.span)
  }

  function event(by: number) {
    if (!timeline.value) return
    playing.value = false
    const times = eventTimes(timeline.value)
    const next =
      by > 0
        ? times.find((at) => at > cursor.value + 1e-6)
        : times.reverse().find((at) => at < cursor.value - 1e-6)
    if (next !== undefined) go(next)
  }

  function set(script: Script | null, more: Partial<TraceState> = {}) {
    history.set(script)
    change({ tape: script, ...more })
  }

  const put = (move: Omit<Move, 'at_seconds'>, at = cursor.value) =>
    set(withMove(state.value.tape ?? {}, { ...move, at_seconds: Math.round(at * 10) / 10 }))
  const take = (index: number) => state.value.tape && set(withoutMove(state.value.tape, index))

  function walk(undo: boolean) {
    if (undo) history.undo()
    else history.redo()
    change({ tape: history.current.value })
  }

  let last = 0
  let frame = 0
  function tick(now: number) {
    if (!playing.value) return
    const passed = Math.min((now - last) / 1000, 0.25)
    last = now
    go(cursor.value + passed * speed.value)
    if (cursor.value >= state.value.span) playing.value = false
    frame = requestAnimationFrame(tick)
  }
  function play() {
    if (!timeline.value) return
    playing.value = !playing.value
    if (!playing.value) return
    if (cursor.value >= state.value.span) go(0)
    last = performance.now()
    frame = requestAnimationFrame(tick)
  }

  function pin() {
    pins.value = pins.value.length >= 2 ? [cursor.value] : [...pins.value, cursor.value]
  }

  let settling = 0
  watch(cursor, (at) => {
    clearTimeout(settling)
    settling = globalThis.setTimeout(() => {
      if (state.value.tape && !playing.value) change({ at: Math.round(at * 10) / 10 })
    }, SETTLES_MS) as unknown as number
  })
  watch(
    () => [state.value.span, state.value.tape !== null],
    () => {
      window.value = null
      go(cursor.value)
      if (!state.value.tape) playing.value = false
    },
  )
  onBeforeUnmount(() => {
    cancelAnimationFrame(frame)
    clearTimeout(settling)
  })

  return {
    outcome,
    timeline,
    shown,
    condition,
    cursor,
    window,
    playing,
    speed,
    pins,
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    go,
    event,
    set,
    put,
    take,
    walk,
    play,
    pin,
  }
}
