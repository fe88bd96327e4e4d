import { say } from '@/words'

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
  { key: 'm', action: 'measure', says: say('keys.measure') },
  { key: 'k', action: 'live', says: say('keys.live') },
  { key: 'ArrowRight', action: 'next', says: say('keys.next') },
  { key: 'ArrowLeft', action: 'previous', says: say('keys.previous') },
  { key: 'x', action: 'swap', says: say('keys.swap') },
  { key: 'c', action: 'hop', says: say('keys.hop') },
  { key: 'i', action: 'instrument', says: say('keys.instrument') },
  { key: 'o', action: 'ohms', says: say('keys.ohms') },
  { key: 'v', action: 'view', says: say('keys.view') },
  { key: 'V', action: 'back', says: say('keys.back') },
  { key: 'l', action: 'loop', says: say('keys.loop') },
  { key: 't', action: 'tape', says: say('keys.tape') },
  { key: ' ', action: 'play', says: say('keys.play') },
  { key: ']', action: 'event', says: say('keys.event') },
  { key: '[', action: 'before', says: say('keys.before') },
  { key: 'p', action: 'pin', says: say('keys.pin') },
  { key: 's', action: 'say', says: say('keys.say') },
  { key: '?', action: 'keys', says: say('keys.keys') },
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
