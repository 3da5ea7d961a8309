/**
 * Makes the planning problem of the bar at a moment: running brews fixed at their real times, waiting cups to be placed.
 */
import {
  brewAt,
  nextBrewId,
  planDrawdownS,
  holdsStation,
  hostOf,
  isPlainToSee,
  remadeOf,
  timelineAt,
  urgedOf,
  type BarState,
  type BrewState,
  type CupAsk,
  type CupState,
  type OrderState,
} from '../../brew';
import type { BrewCard, CardStep, RecipeBook } from '../../recipe';
import { coolingTimeS } from '../../water';
import { EDGE_S, NARROW_S, TAP_MARGIN_S } from './margins';
import { agenda, type AgendaItem } from './agenda';
import { pairOf } from './hands';
import { PROMISE_S, byTurn, dueMsOf, notBeforeMsOf, sinceMsOf, waysInTurn, weightOf } from './turn';
import { bedKey, kindOf, type Bench } from './bench';
import { keepFlames } from './flames';
import {
  type Plan,
  type PlanBrew,
  type PlanOrder,
  type PlanProblem,
  type PlanStep,
  PROBLEM_FORMAT,
  stepKey,
} from '../solver';

/** The cups of an order should be out within this of each other, seconds. */
const TOGETHER_S = 60;
/** Planned starts within the next seconds stay as they are unless they cannot. */
export const FROZEN_S = 45;

/** A busy bar's next hour: what waits behind it is only estimated (`rough.ts`). */
const PLANNED_CUPS = 40;
/**
 * The greatest lateness that counts, seconds: an order that was left open over a weekend does not cost more every day,
 * and the costs stay small enough to be exact.
 */
const LONGEST_S = 4 * 3600;

export type BarProblem = {
  problem: PlanProblem;
  unplannable: { cupId: string; reason: string }[];
  /** Orders that wait behind those that are planned, in their turn, with the brews that they ask for. */
  later: { orderId: string; brews: number }[];
};

/**
 * @param nowS whole seconds of bar time
 * @param before the plan until now, whose next steps are kept if they can be
 * @param mostCups how many waiting cups are planned to the second; the cups behind them are only estimated (`rough.ts`)
 */
export function buildProblem(
  state: BarState,
  bench: Bench,
  book: RecipeBook,
  nowS: number,
  before?: Plan,
  mostCups = PLANNED_CUPS,
): BarProblem {
  const problem: PlanProblem = {
    format: PROBLEM_FORMAT,
    now: nowS,
    hands: bench.hands,
    tools: toolsOf(bench, state),
    orders: [],
    brews: [],
    started: {},
    ended: {},
    frozen: {},
  };
  const unplannable: BarProblem['unplannable'] = [];
  const byOrder = new Map<string, PlanBrew[]>();
  const stepsOf = new Map<string, readonly CardStep[]>();
  const { near, later } = selectOrders(state, mostCups);
  const ways = waysInTurn(state, bench, book);
  for (const order of near) {
    const brews: PlanBrew[] = [];
    for (const cup of order.cups) {
      for (const brew of cup.brewIds.map((id) => state.brews[id]!).filter(holdsStation)) {
        const planned = pinBrew(problem, brew, bench, nowS);
        stepsOf.set(planned.id, brew.card.steps);
        if (brew.abandoned) addCleaning(problem, planned, brew);
        else brews.push(planned);
      }
      // A cup that shares a brew has none of its own.
      if (cup.status !== 'waiting' || cup.with) continue;
      const way = ways.get(cup.cupId)!;
      if ('card' in way) {
        brews.push(waitingBrew(cup, order, way.card, bench, way.kind, nowS));
        stepsOf.set(nextBrewId(cup), way.card.steps);
      } else unplannable.push({ cupId: cup.cupId, reason: way.reason });
    }
    problem.brews.push(...brews);
    byOrder.set(order.id, brews);
  }
  for (const order of near) {
    const brews = [...byOrder.get(order.id)!, ...sharedBrews(problem, state, order)];
    if (brews.length > 0) problem.orders.push(planOrder(order, brews, nowS));
  }
  for (const order of problem.orders) order.weight *= 1 + AGE_SHARE * laterThan(order, problem.orders);
  keepFlames(problem, stepsOf);
  const away = awayFrom(state, nowS);
  if (away.length > 0) problem.away = away;
  if (before) {
    pinCurrentSteps(problem, state, bench, book, before);
    freeze(problem, before);
  }
  return { problem, unplannable, later };
}

/**
 * The orders whose cups are planned: those under way, and of the rest the next ones, whole, until there are enough. In
 * the log's order, so that a plan of few orders does not depend on their promises.
 */
function selectOrders(state: BarState, mostCups: number): { near: OrderState[]; later: BarProblem['later'] } {
  const orders = Object.values(state.orders);
  const asks = (order: OrderState) =>
    order.cups.filter(({ status, with: host }) => status === 'waiting' && !host).length;
  const isUnderWay = (order: OrderState) =>
    order.cups.some((cup) => cup.brewIds.some((id) => holdsStation(state.brews[id]!)));
  const near = new Set(orders.filter((order) => isUnderWay(order) || asks(order) === 0));
  let cups = [...near].reduce((sum, order) => sum + asks(order), 0);
  const later: BarProblem['later'] = [];
  const waiting = orders.filter((order) => !near.has(order)).sort(byTurn);
  for (const order of waiting) {
    if (later.length === 0 && cups + asks(order) <= mostCups) {
      near.add(order);
      cups += asks(order);
    } else later.push({ orderId: order.id, brews: asks(order) });
  }
  return { near: later.length === 0 ? orders : orders.filter((order) => near.has(order)), later };
}

/** Brews of other orders that cups of this one are poured out of: they belong to both. */
function sharedBrews(problem: PlanProblem, state: BarState, order: OrderState): PlanBrew[] {
  return order.cups.flatMap((cup) => {
    const host = hostOf(state, cup);
    if (!host || (cup.status !== 'waiting' && cup.status !== 'brewing')) return [];
    const brewId = host.status === 'waiting' ? nextBrewId(host) : host.brewIds.at(-1);
    const brew = problem.brews.find(({ id }) => id === brewId);
    if (!brew || brew.orders.includes(order.id)) return [];
    brew.orders.push(order.id);
    return [brew];
  });
}

function toolsOf(bench: Bench, state: BarState): Record<string, number> {
  const tools: Record<string, number> = {
    grinder: bench.grinders.length,
    kettle: bench.kettles.length,
    burner: bench.burners,
  };
  // A station that is out of use finishes what it brews.
  for (const station of bench.stations.filter(({ id, out }) => !out || brewAt(state, id)))
    tools[kindOf(station)] = (tools[kindOf(station)] ?? 0) + 1;
  return tools;
}

/** Breaks that are not over. Of several at once one counts, so that with two pairs one stays; who works alone may be called away too. */
function awayFrom(state: BarState, nowS: number): NonNullable<PlanProblem['away']> {
  return (state.away ?? [])
    .map(({ fromMs, toMs }) => ({
      from: Math.floor(fromMs / 1000),
      to: Math.ceil(toMs / 1000),
      hands: 1,
    }))
    .filter(({ to }) => to > nowS)
    .filter(
      (gap, index, all) => !all.slice(0, index).some((other) => other.from < gap.to && gap.from < other.to),
    );
}

/** What a card counts down from here on stays with its pair, milliseconds. */
const COUNTED_MS = 10_000;

/**
 * The step that a pair's hands card asks for now counts as begun by that pair, although nobody has tapped it: a plan that moved
 * it would take it out of somebody's hands. What the card counts down stays with its pair too.
 */
function pinCurrentSteps(
  problem: PlanProblem,
  state: BarState,
  bench: Bench,
  book: RecipeBook,
  before: Plan,
): void {
  const nowMs = problem.now * 1000;
  const items = agenda(state, bench, book, before, nowMs);
  const startedHands: Record<string, number> = {};
  const countedHands: Record<string, number> = {};
  const handOf = (item: AgendaItem) => Math.min(pairOf(item, before), bench.hands - 1);
  const isGone = (pair: number) =>
    (problem.away ?? []).some(
      ({ from, to, hands }) => from <= problem.now && problem.now < to && pair >= bench.hands - hands,
    );
  const canBegin = (item: AgendaItem): boolean => {
    if (item.brew === null && !item.station.free) return false;
    const brew = problem.brews.find(({ id }) => id === item.brewId);
    const index = brew?.steps.findIndex(({ id }) => id === item.step.id) ?? -1;
    return (
      index >= 0 &&
      brew!.steps.every(({ id }, n) => n < index === stepKey(item.brewId, id) in problem.started)
    );
  };
  const busy = new Set<number>();
  for (const item of items) {
    const pair = handOf(item);
    if (item.begunMs !== null) {
      busy.add(pair);
      startedHands[item.key] = pair;
      continue;
    }
    if (!item.inHand || busy.has(pair) || isGone(pair) || !canBegin(item)) continue;
    busy.add(pair);
    if (item.goesBefore) (problem.goesBefore ??= {})[item.key] = item.goesBefore;
    const begunS = Math.floor(Math.min(nowMs, item.fromMs) / 1000);
    problem.started[item.key] = begunS;
    startedHands[item.key] = pair;
  }
  for (const item of items) {
    const pair = handOf(item);
    if (item.key in problem.started || item.dueMs > nowMs + COUNTED_MS) continue;
    if (Object.values(countedHands).includes(pair) || isGone(pair) || item.asks === 'cue') continue;
    countedHands[item.key] = pair;
  }
  problem.startedHands = startedHands;
  problem.countedHands = countedHands;
}

/**
 * How much more an order counts for each one that was taken after it. Of two that are alike neither would otherwise be the
 * first, and a plan could let the younger overtake.
 */
const AGE_SHARE = 0.01;

const laterThan = ({ placedAt }: PlanOrder, orders: readonly PlanOrder[]): number =>
  orders.filter((other) => other.placedAt > placedAt).length;

const planOrder = (order: OrderState, brews: PlanBrew[], nowS: number): PlanOrder => ({
  id: order.id,
  // A log that a wrong clock wrote may contain any time.
  placedAt: between(nowS - LONGEST_S, Math.floor(sinceMsOf(order) / 1000), nowS),
  dueAt: between(nowS - LONGEST_S, Math.floor(dueMsOf(order) / 1000), nowS + LONGEST_S),
  ...promisedAtOf(order, nowS),
  weight: weightOf(order),
  serveWithin: TOGETHER_S,
  brews: brews.map(({ id }) => id),
});

/** What a guest was told holds, until a person puts the order elsewhere, or a cup of it comes back. */
function promisedAtOf(order: OrderState, nowS: number): Pick<PlanOrder, 'promisedAt'> {
  if (order.promisedMs === undefined || urgedOf(order) || remadeOf(order)) return {};
  return {
    promisedAt: between(nowS - LONGEST_S, Math.floor(order.promisedMs / 1000), nowS + LONGEST_S),
  };
}

const between = (least: number, value: number, most: number): number =>
  Math.min(most, Math.max(least, value));

function waitingBrew(
  cup: CupState,
  order: OrderState,
  card: BrewCard,
  bench: Bench,
  kind: string,
  nowS: number,
): PlanBrew {
  const steps = card.steps.map((step) => planStep(step, bench, cup, card));
  return {
    id: nextBrewId(cup),
    orders: [order.id],
    steps: notTooSoon(steps, order, nowS),
    holds: holdsOf(card, card.steps, kind),
    ...coolsFor(cup, card, bench),
  };
}

/** A cup can be drunk, and judged, near this; and what is taken for the room's where nobody says it, degrees Celsius. */
const DRINKABLE_C = 60;
const ROOM_C = 21;

/** Recipes that are compared are tasted together: what comes hotter from its brewer is out so much sooner. */
function coolsFor(
  { sample }: CupAsk,
  { servedC, perCupG }: BrewCard,
  { roomC = ROOM_C }: Bench,
): Pick<PlanBrew, 'coolS'> {
  if (!sample || !isPlainToSee(sample) || servedC <= DRINKABLE_C) return {};
  return { coolS: Math.round(coolingTimeS({ fromC: servedC, roomC, massG: perCupG[0]! }, DRINKABLE_C)) };
}

/** The steps of a brew that is fetched at a time: it begins so late that its cup does not stand and cool. */
function notTooSoon(steps: PlanStep[], order: OrderState, nowS: number): PlanStep[] {
  const notBeforeMs = notBeforeMsOf(order);
  const [first, ...rest] = steps;
  if (notBeforeMs === null || !first) return steps;
  const serve = steps.findIndex((step) => step.serve);
  const lastsS = steps
    .slice(0, serve + 1)
    .reduce((sum, { duration, lag }, index) => sum + duration + (index === 0 ? 0 : lag.min), 0);
  const min = between(first.lag.min, Math.floor(notBeforeMs / 1000) - lastsS - nowS, LONGEST_S);
  return [{ ...first, lag: { ...first.lag, min, ideal: Math.max(first.lag.ideal, min) } }, ...rest];
}

/** A brew with its real times. Of an abandoned one only what is left to do counts. */
function pinBrew(problem: PlanProblem, brew: BrewState, bench: Bench, nowS: number): PlanBrew {
  const times = timelineAt(brew, nowS * 1000).filter((time) => time.status !== 'skipped');
  for (const { step, status, startMs, endMs } of times) {
    const key = stepKey(brew.id, step.id);
    if (status === 'waiting') continue;
    const since = nowS - LONGEST_S;
    problem.started[key] = between(since, Math.round(startMs / 1000), nowS);
    if (status === 'done')
      problem.ended[key] = between(problem.started[key]!, Math.round(endMs / 1000), nowS);
  }
  const steps = times.map((time) => time.step);
  const kind = kindOf(bench.stations.find(({ id }) => id === brew.stationId) ?? brew);
  return {
    id: brew.id,
    orders: [brew.orderId],
    steps: steps.map((step) => planStep(step, bench, brew.ask, brew.card)),
    holds: holdsOf(brew.card, steps, kind),
    ...coolsFor(brew.ask, brew.card, bench),
  };
}

/** The cleaning of an abandoned brew is a job of its own: it needs hands and frees a station, but serves nobody. */
function addCleaning(problem: PlanProblem, brew: PlanBrew, { id, abandoned }: BrewState): void {
  const placedAt = between(problem.now - LONGEST_S, Math.floor(abandoned!.atMs / 1000), problem.now);
  const steps = brew.steps.map((step) => ({ ...step, serve: undefined }));
  steps.at(-1)!.lag = { min: 0, ideal: 0, max: null, penalty: 0.05 };
  problem.brews.push({
    ...brew,
    orders: [id],
    steps: steps.map((step, index) => (index === steps.length - 1 ? { ...step, serve: true } : step)),
  });
  problem.orders.push({
    id,
    placedAt,
    dueAt: placedAt + PROMISE_S,
    weight: 0,
    serveWithin: TOGETHER_S,
    brews: [brew.id],
  });
}

/**
 * How much dearer than the open format's second of waiting it is to bend a recipe by a second: dear enough that no
 * pour comes early only for one order to be out sooner, cheap enough that it gives way to a whole queue.
 */
const RECIPE_PENALTY = 6;

const withinEdge = ({ maxS, idealS }: CardStep['lag']): number | null =>
  maxS === null || maxS - idealS < NARROW_S ? maxS : maxS - EDGE_S;

/**
 * @param bench whose hands' own pace, and whose beds' own drawdowns, are taken where they are known
 * @param card that it is a step of
 */
function planStep(
  step: CardStep,
  { pace, beds }: Bench,
  { recipeId, coffee }: CupAsk,
  card: BrewCard,
): PlanStep {
  const handS = step.attended && step.end !== 'clock' ? TAP_MARGIN_S : 0;
  const bedLevel = beds?.[bedKey(recipeId, coffee)]?.drawdownLevel ?? 1;
  // The level is that of the whole drawdown, of which a swirl may have taken the first seconds.
  const lasts =
    step.kind === 'drawdown'
      ? step.durationS + (bedLevel - 1) * Math.max(step.durationS, planDrawdownS(card))
      : step.durationS * (pace?.[step.kind] ?? 1);
  const duration = Math.max(1, Math.round(lasts) + handS);
  return {
    id: step.id,
    attended: step.attended,
    duration,
    lag: {
      min: step.lag.minS,
      ideal: step.lag.idealS,
      max: withinEdge(step.lag),
      penalty: RECIPE_PENALTY * step.lag.penalty,
    },
    ...(step.kind === 'serve' ? { serve: true } : {}),
  };
}

/** Holds as the bench counts them (stations of one kind are a tool); those whose steps are left out end at the last one there is. */
function holdsOf(card: BrewCard, steps: CardStep[], kind: string) {
  const has = (id: string) => steps.some((step) => step.id === id);
  return card.holds
    .filter((hold) => has(hold.from) && has(hold.to))
    .map((hold) => ({ ...hold, tool: hold.tool === 'brewer' ? kind : hold.tool }));
}

function freeze(problem: PlanProblem, before: Plan): void {
  for (const brew of problem.brews) {
    for (const step of brew.steps) {
      const key = stepKey(brew.id, step.id);
      const planned = before.starts[key];
      if (planned === undefined || key in problem.started) continue;
      if (planned >= problem.now && planned <= problem.now + FROZEN_S) problem.frozen[key] = planned;
    }
  }
}
