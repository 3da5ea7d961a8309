export { SOON_MS, agenda, behindOf } from './agenda';
export type { AgendaItem } from './agenda';
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
} from './bench';
export type { Bench, BenchKettle, LearntBed, RecipeChange, Station, StationScale } from './bench';
export { freeKettleFor, stillPours } from './kettles';
export { startEvent, tapEvents } from './tap';
export type { NewId, TapFacts } from './tap';
export { buildProblem } from './build';
export type { BarProblem } from './build';
export { roughFinish } from './rough';
export { checkPlan } from './check';
export { planCost } from './cost';
export { solve, startSolving } from './solve';
export type { Solving, SolveOptions } from './solve';
export { ImpossibleProblem, stepKey } from './problem';
export type { Plan, PlanBrew, PlanProblem } from './problem';
export { PROMISE_S } from './turn';
export { PLAN_FORMAT, PROBLEM_FORMAT } from './problem';
export { byHands, forHands, pairOf, reasonOf } from './hands';
export type { CardReason, Hands } from './hands';
export { forgivenessOf, latenessOf } from './late';
export type { Forgiveness, Lateness } from './late';
export { planGreedily, planOneAtATime } from './baselines';
export { seededRandom } from './random';
export { movesBetween, worthTaking } from './moves';
export type { PlanMove } from './moves';
export {
  CAREFUL_MOVES,
  MARGIN_S,
  USUAL_SHARE,
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
} from './quote';
export type { Help, Link, Quote, OrderDelay, Standing, Urging } from './quote';
export { isFlameKeeper } from './flames';
export { FEW_DOSES, menuNow } from './menu';
export type { MenuLine, OnMenu } from './menu';
export { LOADS, QUEUE_PROMISES, asInQueue, loadOf, shareNow, timesOf } from './queues';
export type { Load, PromiseShares } from './queues';
export type { Queue } from './queues';
export { effectOf } from './effect';
export { overdueBrews, overdueFor } from './overdue';
export type { Overdue } from './overdue';
export type { Effect, OrderTimes } from './effect';
