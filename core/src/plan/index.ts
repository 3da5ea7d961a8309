export { boardOf, followedOrder } from './bar/board';
export type { Board, BoardOrder, FollowedOrder, Outlook } from './bar/board';
export { SOON_MS, agenda, behindOf } from './bar/agenda';
export type { AgendaItem } from './bar/agenda';
export {
  STATION_SCALES,
  allBrewers,
  stationOfNoBrewer,
  brewerOf,
  brewersOn,
  cardFor,
  bedKey,
  grindOffsetFor,
  learntBed,
  tuningFor,
  placeOf,
  kindOf,
} from './bar/bench';
export type { Bench, BenchKettle, LearntBed, RecipeChange, Station, StationScale } from './bar/bench';
export { freeKettleFor, stillPours } from './bar/kettles';
export { startEvent, tapEvents } from './bar/tap';
export type { NewId, TapFacts } from './bar/tap';
export { buildProblem } from './bar/build';
export type { BarProblem } from './bar/build';
export { roughFinish } from './bar/rough';
export { PROMISE_S } from './bar/turn';
export { byHands, forHands, pairOf, reasonOf } from './bar/hands';
export type { CardReason, Hands } from './bar/hands';
export { forgivenessOf, latenessOf } from './bar/late';
export type { Forgiveness, Lateness } from './bar/late';
export { movesBetween, worthTaking } from './bar/moves';
export type { PlanMove } from './bar/moves';
export {
  CAREFUL_MOVES,
  QUOTE_MOVES,
  chainOf,
  quoteOrder,
  urgeOrder,
  standingPlan,
  startQuoting,
  startStanding,
  urgePast,
  wavesOf,
  whatHelps,
} from './bar/quote';
export type { Help, Link, Quote, OrderDelay, Standing, Urging } from './bar/quote';
export { isFlameKeeper } from './bar/flames';
export { FEW_DOSES, menuNow } from './bar/menu';
export type { MenuLine, OnMenu } from './bar/menu';
export {
  LOADS,
  MARGIN_S,
  QUEUE_PROMISES,
  USUAL_SHARES,
  asInQueue,
  loadOf,
  shareNow,
  timesOf,
} from './bar/queues';
export type { Load, PromiseShares } from './bar/queues';
export type { Queue } from './bar/queues';
export { effectOf } from './bar/effect';
export { overdueBrews, overdueFor } from './bar/overdue';
export type { Overdue } from './bar/overdue';
export type { Effect, OrderTimes } from './bar/effect';
export {
  ImpossibleProblem,
  PLAN_FORMAT,
  PROBLEM_FORMAT,
  checkPlan,
  planCost,
  planGreedily,
  planOneAtATime,
  seededRandom,
  solve,
  startSolving,
  stepKey,
} from './solver';
export type { Plan, PlanBrew, PlanProblem, SolveOptions, Solving } from './solver';
