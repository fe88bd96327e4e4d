/** Every key of the product, in one place. Digits choose the call and come with the catalogue. */
export type Action =
  | 'measure'
  | 'live'
  | 'next'
  | 'previous'
  | 'swap'
  | 'hop'
  | 'instrument'
  | 'ohms'
  | 'view'
  | 'back'
  | 'loop'
  | 'tape'
  | 'play'
  | 'event'
  | 'before'
  | 'pin'
  | 'say'
  | 'keys'

/** Keys that mean nothing while the tape is away. */
export const TAPE_ACTIONS: Action[] = ['play', 'event', 'before', 'pin']

export const KEYS: { key: string; action: Action; says: string }[] = [
  { key: 'm', action: 'measure', says: 'type the reading' },
  { key: 'k', action: 'live', says: 'keep what the live meter shows' },
  { key: 'ArrowRight', action: 'next', says: 'red probe to the next point of the loop' },
  { key: 'ArrowLeft', action: 'previous', says: 'red probe to the point before' },
  { key: 'x', action: 'swap', says: 'swap the probes' },
  { key: 'c', action: 'hop', says: 'hop from C, or measure across' },
  { key: 'i', action: 'instrument', says: 'change the meter' },
  { key: 'o', action: 'ohms', says: 'volts or ohms' },
  { key: 'v', action: 'view', says: 'next view' },
  { key: 'V', action: 'back', says: 'view before' },
  { key: 'l', action: 'loop', says: 'next loop' },
  { key: 't', action: 'tape', says: 'tape out, or away' },
  { key: ' ', action: 'play', says: 'tape: play, stop' },
  { key: ']', action: 'event', says: 'tape: next event' },
  { key: '[', action: 'before', says: 'tape: event before' },
  { key: 'p', action: 'pin', says: 'tape: pin this instant' },
  { key: 's', action: 'say', says: 'say a reading, on every page of a visit' },
  { key: '?', action: 'keys', says: 'show the keys' },
]

/** Controls that arrows move, whoever made them. */
const ARROWS_ARE_OWN = '[role=tab], [role=radiogroup], [role=listbox], [role=slider]'
const takesArrows = (event: KeyboardEvent) =>
  event.key.startsWith('Arrow') && !!(event.target as Element | null)?.closest?.(ARROWS_ARE_OWN)

/** Keys belong to the page only when nobody is typing, no control took them, and no modifier is held. */
export function actionFor(event: KeyboardEvent): Action | null {
  if (
    event.defaultPrevented ||
    takesArrows(event) ||
    isTyping(event) ||
    event.ctrlKey ||
    event.metaKey ||
    event.altKey
  )
    return null
  return KEYS.find((entry) => entry.key === event.key)?.action ?? null
}

/** A field that takes text takes every key; one that is chosen or ticked, only those that move or tick it. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null
  if (!target) return false
  const kind = target.tagName === 'INPUT' ? (target as HTMLInputElement).type : ''
  if (kind === 'radio' || kind === 'checkbox') return event.key === ' ' || event.key.startsWith('Arrow')
  return target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)
}
