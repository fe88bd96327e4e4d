/** What pages and requests see of it; how it works stands beside this file. */
export {
  asks,
  away,
  canKeep,
  keptVisits,
  notSent,
  onSent,
  outbox,
  sending,
  sessionEnded,
  tellPages,
  wire,
  type Engine,
  type InHand,
} from '@/shared/kept/state'
export {
  askingNow,
  keepPicture,
  keepVisit,
  leaveBehind,
  pictureHere,
  weigh,
  type Asking,
} from '@/shared/kept/answers'
export { giveUp, keepMine, lookAgain, send } from '@/shared/kept/outbox'
export { KEPT_DAYS, openFor, wipe } from '@/shared/kept/person'
export { first, heard, without } from '@/shared/kept/here'
