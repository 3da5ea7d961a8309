export { apply, applyLogged, reduce } from './reduce';
export { GUEST_EVENTS, namesGuest, withoutGuest } from './forget-guests';
export { everyBrew, forgetGuests } from './settled';
export type { Applied, Refusal, RefusalCode } from './applied';
export {
  CUP_FIELDS,
  EMPTY_BAR,
  ORDER_FIELDS,
  brewAt,
  forgetClosed,
  holdsStation,
  hostOf,
  isOpen,
  latestBrew,
  nextBrewId,
  openOrders,
  shownState,
  urgedOf,
} from './state';
export type { BarState, BrewState, BrewStatus, CupState, CupStatus, OrderState, StepMark } from './state';
export { anchorMs, brewTimeMs, brewTimeOf, pouredG, timelineAt } from './timeline';
export type { StepStatus, StepTime } from './timeline';
export { STROKES, badgeOf } from './badge';
export type { Badge, RingStroke } from './badge';
export {
  DAY_LISTS,
  EVENT_KINDS,
  READY_THINGS,
  brewIdOf,
  isRemark,
  kettleForStart,
  movesThePlan,
} from './events';
export { hasTin, readyNow, tasksDone } from './ready';
export type { Ready as ReadyAhead } from './ready';
export {
  MILKS,
  MOST_CUPS_OF_A_BREW,
  MOST_CUPS_OF_AN_ORDER,
  areAlike,
  askOf,
  brewAlike,
  isPlainToSee,
  servedAlike,
} from './order-events';
export type { CupAsk, CupService, InQueue, Milk, OrderTaken, Sample, Trial } from './order-events';
export { SURELY_GONE_MS, asksOf, hasLeft, isFetched, queueOf, readyOrders, shownNameOf } from './order-fold';
export type { Ready } from './order-fold';
export type {
  BarEvent,
  BarEventType,
  BrewStarted,
  ChangeTried,
  CupTasted,
  DayList,
  HandsAway,
  EventKind,
  EventOf,
  HouseEvent,
  ReadyThing,
} from './events';
export { NOT_HANDED_OVER } from './refusals';
export { factsOf } from './fold';
export { pourOutcome } from './retarget';
export type { PourOutcome } from './retarget';
export { NOTES, noteWords, notesFor } from './notes';
export type { Note } from './notes';
export { bedOfCard, bedShowsMs, brewBed, levelOf, planDrawdownS } from './level';
export type { Level } from './level';
export { flameBurns, forgottenMs, remakeS, rescueOf, rinseLeft } from './rescue';
export type { Remedy, Rescue } from './rescue';
export { paceOf, pathsOf } from './pace';
export type { Pace } from './pace';
export {
  rebase,
  confirm,
  drop,
  freshReplica,
  receiveLogged,
  applyLocally,
  unsent,
  optimisticState,
} from './replica';
export type { Replica } from './replica';
export { isOut, roundsOf, sampleBefore } from './round';
export type { Round } from './round';
export {
  BALANCE_WORDS,
  BODY_WORDS,
  OWN_TASTE_WORDS,
  SEEN,
  SEEN_WORDS,
  STRENGTH_WORDS,
  TASTES,
  tasteInWords,
} from './taste';
export type { Notch, Seen, Taste } from './taste';
export { PAIRS, isPair } from './pair';
export type { Pair } from './pair';
export { guestsOf, remadeOf } from './guests';
export type { GuestShare } from './guests';
