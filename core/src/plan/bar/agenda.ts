/**
 * What the bar asks of its hands, in order: the hands card shows the first item, "up next" the following ones.
 * It is made from the state, which is always true, and the plan, which may be a moment old.
 */
import {
  brewAt,
  hasTin,
  holdsStation,
  nextBrewId,
  sampleBefore,
  timelineAt,
  type BarState,
  type BrewState,
  type CupState,
  type OrderState,
  type Pair,
  type StepTime,
} from '../../brew';
import type { BrewCard, CardStep, RecipeBook } from '../../recipe';
import type { Bench, BenchKettle, Station } from './bench';
import { pairOf } from './hands';
import { inHandOf, spoils, type InHand } from './in-hand';
import { withKettles } from './kettles';
import { type Plan, stepKey } from '../solver';
import { waysInTurn } from './turn';

export type AgendaItem = {
  /** `brewId/stepId`. */
  key: string;
  brewId: string;
  order: OrderState;
  cup: CupState;
  card: BrewCard;
  /** Where it is, or will be, brewed; not `free` while another brew holds the place. */
  station: Station & { free: boolean };
  /** The kettle that its water is in; undefined if it needs none, or if an old log does not say. */
  kettle?: BenchKettle | undefined;
  /** A good tin with its dose stands ready. */
  fromTin?: true;
  /** The running brew; null for a cup whose brewing this step would start. */
  brew: BrewState | null;
  /** What the hands do. */
  step: CardStep;
  /**
   * What the card asks for: `start`, that it begins: the first water, or a pour that waits for what is seen; `finish` the step with a tap, say that the `cue`
   * of the passive step before has come, or nothing (`runs`: it ends by the clock).
   */
  asks: 'start' | 'finish' | 'cue' | 'runs';
  /** The passive step whose cue is waited for. */
  awaited: CardStep | null;
  /** When the step should begin, bar milliseconds. */
  dueMs: number;
  /** The latest start that the recipe forgives; null where it does not matter. */
  latestMs: number | null;
  /** Begun and not over. */
  begunMs: number | null;
  /** Since when a pair of hands can work on it: it has begun, or it is due and they have nothing else to do, bar milliseconds. */
  fromMs: number;
  /** A pair is at it: it stays on that pair's card until it is done. */
  inHand?: true;
  /** The step that it goes before, though the card asked for that one, since it spoils sooner. */
  goesBefore?: string;
};

/** An item before it is known when hands are free for it. */
type Ahead = Omit<AgendaItem, 'fromMs' | 'inHand' | 'goesBefore'>;

/** Within this before it is due, a step is "soon", milliseconds. */
export const SOON_MS = 15_000;

/** A brew that nobody has touched for this long cannot be what kept the hands, milliseconds. */
const HANDS_LOOK_BACK_MS = 600_000;

/**
 * All attended steps ahead, soonest first. Steps that have begun come before those that are due, and those before steps
 * that only wait for a cue.
 */
export function agenda(
  state: BarState,
  bench: Bench,
  book: RecipeBook,
  plan: Plan | null,
  nowMs: number,
): AgendaItem[] {
  const items: Ahead[] = [];
  const waiting: { order: OrderState; cup: CupState }[] = [];
  for (const order of Object.values(state.orders)) {
    for (const cup of order.cups) {
      for (const brew of cup.brewIds.map((id) => state.brews[id]!).filter(holdsStation))
        items.push(...ofBrew(brew, bench, order, cup, plan, nowMs));
      // Samples are begun in the order of their letters.
      if (cup.status === 'waiting' && !sampleBefore(order, cup)) waiting.push({ order, cup });
    }
  }
  items.push(...ofWaiting(waiting, state, bench, book, plan, nowMs));
  // First what has begun; then what is due and spoils; then what is due and can wait; then what comes later.
  const rank = (item: Ahead) => {
    if (item.begunMs !== null) return 0;
    if (item.asks === 'cue' || item.dueMs > nowMs || (item.brew === null && !item.station.free)) return 3;
    return spoils(item) ? 1 : 2;
  };
  const turn = (a: Ahead, b: Ahead) =>
    rank(a) === 1 ? sooner(a, b, nowMs) || a.latestMs! - b.latestMs! : a.dueMs - b.dueMs;
  items.sort((a, b) => rank(a) - rank(b) || turn(a, b) || a.order.takenMs - b.order.takenMs);
  const freeMs = handsFree(state, bench, plan, nowMs);
  const timed = withKettles(items, state, bench, book).map((item) => ({
    ...item,
    fromMs: item.begunMs ?? Math.max(item.dueMs, freeMs(pairOf(item, plan))),
  }));
  return inHandFirst(timed, inHandOf(timed, plan, freeMs, nowMs));
}

/** What has begun stays before everything; then comes what the pairs are at. */
function inHandFirst(items: AgendaItem[], hands: readonly InHand[]): AgendaItem[] {
  const at = hands.map(({ item, before, waits }): AgendaItem => ({
    ...item,
    ...(waits ? {} : { inHand: true }),
    ...(before ? { goesBefore: before.key } : {}),
  }));
  const keys = new Set(at.map(({ key }) => key));
  const rest = items.filter(({ key }) => !keys.has(key));
  const begun = rest.findLastIndex(({ begunMs }) => begunMs !== null) + 1;
  return [...rest.slice(0, begun), ...at, ...rest.slice(begun)];
}

/**
 * Compares two steps that spoil: negative if the first should come first, because less is spoilt then. A long step does
 * not begin if a short one that is due would be far too late after it.
 */
function sooner(a: Ahead, b: Ahead, nowMs: number): number {
  const lateness = (item: Ahead, atMs: number) =>
    Math.max(0, atMs - item.latestMs!) * (1 + item.step.lag.penalty);
  const first = (one: Ahead, other: Ahead) =>
    lateness(one, nowMs) + lateness(other, nowMs + one.step.durationS * 1000);
  return first(a, b) - first(b, a);
}

/** A plan is behind when a step that it wanted over is not, by more than this, milliseconds. */
const BEHIND_MS = 30_000;

/** Steps with which the bar has fallen behind its plan, so that it should be planned again although nothing was tapped. */
export const behindOf = (items: readonly AgendaItem[], plan: Plan, nowMs: number): string[] =>
  items
    .filter(
      ({ key, step, begunMs }) =>
        begunMs === null && ((plan.starts[key] ?? Infinity) + step.durationS) * 1000 < nowMs - BEHIND_MS,
    )
    .map(({ key }) => key);

/**
 * When a pair of hands finished the last thing that it did. With two pairs it is the pair that took the step over, or that
 * the plan had it fall to: what one of them taps says nothing of the other.
 */
function handsFree(
  state: BarState,
  { hands }: Pick<Bench, 'hands'>,
  plan: Plan | null,
  nowMs: number,
): (pair: Pair) => number {
  const freeMs = new Map<Pair, number>();
  for (const brew of Object.values(state.brews)) {
    if (brew.lastMs + HANDS_LOOK_BACK_MS < nowMs) continue;
    for (const { step, status, endMs } of timelineAt(brew, nowMs)) {
      if (!step.attended || status !== 'done') continue;
      const pair = hands === 1 ? 0 : pairOf({ key: stepKey(brew.id, step.id), brew, step }, plan);
      freeMs.set(pair, Math.max(freeMs.get(pair) ?? 0, endMs));
    }
  }
  return (pair) => freeMs.get(hands === 1 ? 0 : pair) ?? 0;
}

/** The attended steps ahead of a running brew; only its next one asks for anything yet. */
function ofBrew(
  brew: BrewState,
  bench: Bench,
  order: OrderState,
  cup: CupState,
  plan: Plan | null,
  nowMs: number,
): Ahead[] {
  const times = timelineAt(brew, nowMs);
  const { scale } = bench.stations.find(({ id }) => id === brew.stationId) ?? {};
  const station = {
    id: brew.stationId,
    name: brew.stationName,
    brewerId: brew.brewerId,
    scale,
    free: true,
  };
  const ahead = times.filter((time) => time.status === 'running' || time.status === 'waiting');
  const awaited = ahead[0]?.step.attended === false && ahead[0].step.end === 'cue' ? ahead[0].step : null;
  const attended = ahead.filter((time) => time.step.attended);
  let soonestMs = 0;
  return attended.map((time, index) => {
    const key = stepKey(brew.id, time.step.id);
    const dueMs = Math.max(soonestMs, dueOf(time, times, plan?.starts[key]));
    // What is overdue, or takes longer than it should, holds up what comes after it until then at least.
    const fromMs = time.status === 'running' ? dueMs : Math.max(dueMs, nowMs);
    soonestMs = Math.max(nowMs, fromMs + time.step.durationS * 1000);
    return {
      key,
      brewId: brew.id,
      order,
      cup,
      card: brew.card,
      station,
      brew,
      step: time.step,
      asks: asksFor(time, index === 0 ? awaited : null),
      awaited: index === 0 ? awaited : null,
      dueMs,
      latestMs: latestStartMs(time, times),
      begunMs: time.status === 'running' ? time.startMs : null,
    };
  });
}

/**
 * The steps of the cups that wait, at their planned times; a cup that is not planned yet is not asked for. Those that begin
 * first have the stations that are free, what hands are at before all: no two cards ask for one place.
 */
function ofWaiting(
  waiting: readonly { order: OrderState; cup: CupState }[],
  state: BarState,
  bench: Bench,
  book: RecipeBook,
  plan: Plan | null,
  nowMs: number,
): Ahead[] {
  const ways = waysInTurn(state, bench, book);
  const taken = new Set<string>();
  return waiting
    .flatMap(({ order, cup }) => {
      const way = ways.get(cup.cupId);
      if (!way || !('card' in way)) return [];
      const first = stepKey(nextBrewId(cup), way.card.steps[0]!.id);
      // A brew is planned whole or not at all.
      const startS = plan?.starts[first];
      if (startS === undefined) return [];
      return [{ order, cup, way, turnS: plan?.startedHands?.[first] === undefined ? startS : -Infinity }];
    })
    .sort((a, b) => (a.turnS === b.turnS ? 0 : a.turnS - b.turnS))
    .flatMap(({ order, cup, way: { card, stations } }) => {
      const free = stations.find(({ id }) => !brewAt(state, id) && !taken.has(id));
      if (free) taken.add(free.id);
      const station = { ...(free ?? stations[0]!), free: free !== undefined };
      return stepsOfWaiting(state, card, station, order, cup, plan, nowMs);
    });
}

function stepsOfWaiting(
  state: BarState,
  card: BrewCard,
  station: AgendaItem['station'],
  order: OrderState,
  cup: CupState,
  plan: Plan | null,
  nowMs: number,
): Ahead[] {
  const brewId = nextBrewId(cup);
  const tin = hasTin(state, cup.coffee, card.doseG, nowMs) ? { fromTin: true as const } : {};
  return card.steps.flatMap((step) => {
    const plannedS = plan?.starts[stepKey(brewId, step.id)];
    if (!step.attended || plannedS === undefined) return [];
    const asks =
      step.end === 'clock'
        ? ('runs' as const)
        : isBegunByATap(step)
          ? ('start' as const)
          : ('finish' as const);
    return [
      {
        key: stepKey(brewId, step.id),
        brewId,
        order,
        cup,
        card,
        station,
        ...tin,
        brew: null,
        step,
        asks,
        awaited: null,
        dueMs: plannedS * 1000,
        latestMs: null,
        begunMs: null,
      },
    ];
  });
}

/** The first water starts the timer; a pour that waits for what is seen begins when a person says so. */
const isBegunByATap = ({ anchor, startCue }: CardStep): boolean =>
  anchor === 'start' || startCue !== undefined;

function asksFor(time: StepTime, awaited: CardStep | null): AgendaItem['asks'] {
  if (awaited) return 'cue';
  if (time.step.end === 'clock') return 'runs';
  return isBegunByATap(time.step) && time.status !== 'running' ? 'start' : 'finish';
}

/**
 * The plan's start, unless what has happened since makes that too early (the step before ran late) or the plan does
 * not know the step yet; then the card's own rhythm.
 */
function dueOf(time: StepTime, times: StepTime[], plannedS: number | undefined): number {
  if (time.status === 'running' || plannedS === undefined) return time.startMs;
  const before = times[times.indexOf(time) - 1];
  const soonestMs = before ? before.endMs + time.step.lag.minS * 1000 : time.startMs;
  const dueMs = Math.max(plannedS * 1000, soonestMs);
  // Even if a late plan has placed it later: after the latest start that the recipe forgives, it is due.
  const latestMs = time.step.kind === 'clean' ? null : latestStartMs(time, times);
  return latestMs === null ? dueMs : Math.min(dueMs, Math.max(soonestMs, latestMs));
}

function latestStartMs(time: StepTime, times: StepTime[]): number | null {
  const before = times[times.indexOf(time) - 1];
  const { maxS } = time.step.lag;
  return before && maxS !== null && before.status !== 'waiting' ? before.endMs + maxS * 1000 : null;
}
