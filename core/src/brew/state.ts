/**
 * The state of the bar: orders with their cups, and brews with what has happened to each. Plain JSON, and nothing in
 * it is derived from a clock: what time does to a brew is `timelineAt`'s to say.
 *
 * Invariants (held by `apply`, shown by the property tests):
 * 1. A station is held by one brew at the most, from its start until it is cleaned.
 * 2. A cup has one live brew at the most (running, or served and not sent back).
 * 3. Marks of a brew follow the order of its steps, and their times never run backwards.
 * 4. A served brew has every attended step up to its end mark done; what comes between that and serving is done with it.
 * 5. `apply` followed by undoing what was applied gives the state before it.
 */
import type { Pair } from './pair';
import type { BrewCard, Brewer } from '../recipe';
import { brewIdOf, type BrewEvent, type BrewStarted, type HandsAway, type HouseEvent } from './events';
import type { Note } from './notes';
import type { CupAsk, InQueue, OrderEvent, OrderUrged } from './order-events';
import type { Taste } from './taste';
import { lastingHouseEvents } from './house-events';

/** What people have said about a step. The rest (steps that end by the clock) follows from the card. */
export type StepMark = {
  begunMs?: number;
  doneMs?: number;
  /** What the scale read, and what the card asked for at that moment, grams. */
  readingG?: number;
  targetG?: number;
  leadG?: number;
  /** What the thermometer said, degrees Celsius. */
  readC?: number;
  /** Where its end was asked for late: it ended after this. */
  notOverMs?: number;
};

export type BrewStatus = 'running' | 'served' | 'cleaned' | 'abandoned';

export type BrewState = {
  id: string;
  orderId: string;
  cupId: string;
  stationId: string;
  stationName: string;
  brewerId: string;
  ask: CupAsk;
  /** The card that it was started with. */
  planned: BrewCard;
  /** The card as it now stands: re-targeted after what was really poured. The planned one itself while nothing is off. */
  card: BrewCard;
  startedMs: number;
  /** Time of the latest thing done in it; remarks and corrections do not count. */
  lastMs: number;
  status: BrewStatus;
  marks: Record<string, StepMark>;
  servedMs?: number;
  beverageG?: number;
  abandoned?: { atMs: number; reason: string };
  /** The dose that was found to be in the brewer, where it is not the card's, grams. */
  doseG?: number;
  /** Steps that were left out. */
  skipped?: string[];
  notes?: { note: Note; atMs: number }[];
  taste?: Taste & { atMs: number };
  /** Which pair of hands a step is, or was, in: the one that took it over, began it or did it. */
  takenBy?: Record<string, Pair>;
  /** As it was when the brew was started. */
  kettleId?: string;
  withoutScale?: true;
  handHeld?: true;
  ownBrewer?: Brewer;
  /** The brew's own events that stand, oldest first. */
  events: BrewEvent[];
};

export type CupStatus = 'waiting' | 'brewing' | 'served' | 'cancelled';

export type CupState = CupAsk & {
  status: CupStatus;
  brewIds: string[];
  /** Every brew that was started for it or given to it, as it came; one that went to another cup is still among them. */
  attempts: string[];
};

/** Every field of a cup that this version knows; a newer server may send more. */
export const CUP_FIELDS: Record<keyof CupState, true> = {
  cupId: true,
  recipeId: true,
  recipeVersion: true,
  coffee: true,
  roast: true,
  cupMl: true,
  addition: true,
  cups: true,
  gassy: true,
  besides: true,
  milk: true,
  toGo: true,
  allergy: true,
  note: true,
  decaf: true,
  sample: true,
  with: true,
  status: true,
  brewIds: true,
  attempts: true,
};

export type OrderState = {
  id: string;
  name?: string;
  /** Place in the cycle of badges: 0 is A in a solid ring. */
  badge: number;
  badgeBefore: number;
  takenMs: number;
  promisedMs?: number;
  expectedMs?: number;
  /** The queue that it came in; `queueOf` says where it stands now. */
  inQueue?: InQueue;
  cups: CupState[];
  events: OrderEvent[];
};

/** Orders that were closed an hour ago, with their brews: one, or all that share a brew. */
export type Settled = { closedMs: number; orders: OrderState[]; brews: BrewState[] };

/** Every field of an order that this version knows. */
export const ORDER_FIELDS: Record<keyof OrderState, true> = {
  id: true,
  name: true,
  badge: true,
  badgeBefore: true,
  takenMs: true,
  promisedMs: true,
  expectedMs: true,
  inQueue: true,
  cups: true,
  events: true,
};

export type BarState = {
  orders: Record<string, OrderState>;
  brews: Record<string, BrewState>;
  /** What is looked at only when an event names it, as it was set aside. */
  settled?: readonly Settled[];
  /** Badge of the latest order, -1 before the first. */
  lastBadge: number;
  /** When a pair of hands is away. */
  away?: HandsAway[];
  /** What was said of coffees, cloths and changes, oldest first. */
  houseEvents?: readonly HouseEvent[];
};

export const EMPTY_BAR: BarState = { orders: {}, brews: {}, lastBadge: -1 };

/** The last attempt at a cup, if any: its own, or the one that it shares with a cup of another order. */
export const latestBrew = (state: BarState, cup: CupState): BrewState | undefined => {
  const id = (hostOf(state, cup) ?? cup).brewIds.at(-1);
  return id === undefined ? undefined : state.brews[id];
};

/** The cup of another order whose brew this one is poured out of; undefined where it has its own. */
export const hostOf = (state: BarState, cup: Pick<CupState, 'with'>): CupState | undefined => {
  const at = cup.with;
  return at && state.orders[at.orderId]?.cups.find(({ cupId }) => cupId === at.cupId);
};

/** What the cup's next brew will be called, on every device. */
export const nextBrewId = (cup: CupState): string => brewIdOf(cup.cupId, cup.attempts.length + 1);

/** A brew that still holds its station: running, or served or abandoned and not yet cleaned. */
export const holdsStation = (brew: BrewState): boolean =>
  brew.status === 'running' ||
  brew.status === 'served' ||
  (brew.status === 'abandoned' && needsCleaning(brew));

/** The brew at a station, if one holds it. */
export const brewAt = (state: BarState, stationId: string): BrewState | undefined =>
  Object.values(state.brews).find((brew) => brew.stationId === stationId && holdsStation(brew));

/** How an order was urged last, if it was. */
export const urgedOf = (order: OrderState): OrderUrged | undefined =>
  order.events.findLast((event) => event.type === 'order-urged');

/** Cups of other orders that are poured out of a cup's brew. */
export const sharersOf = (state: BarState, { cupId }: Pick<CupState, 'cupId'>): CupState[] =>
  Object.values(state.orders)
    .flatMap(({ cups }) => cups)
    .filter((cup) => cup.with?.cupId === cupId && cup.status !== 'cancelled');

/** Whether a cup of it is neither served nor cancelled. */
export const isOpen = ({ cups }: Pick<OrderState, 'cups'>): boolean =>
  cups.some(({ status }) => status === 'waiting' || status === 'brewing');

/** Open orders, oldest first. */
export const openOrders = (state: BarState): OrderState[] =>
  Object.values(state.orders)
    .filter(isOpen)
    .sort((a, b) => a.takenMs - b.takenMs || a.badge - b.badge);

/** Whether an abandoned brew has wetted or loaded anything, so that its station has to be cleaned before it is free. */
function needsCleaning(brew: BrewState): boolean {
  return (
    brew.marks['clean']?.doneMs === undefined &&
    brew.card.steps.some(
      (step) => step.id !== 'fill' && step.id !== 'weigh' && brew.marks[step.id] !== undefined,
    )
  );
}

/** The time of the last that happened of an order that is closed, bar milliseconds; infinite while it is not. */
export function closedSinceMs(state: BarState, order: OrderState): number {
  if (isOpen(order)) return Infinity;
  let sinceMs = order.events.at(-1)!.atMs;
  for (const { atMs } of order.events) sinceMs = Math.max(sinceMs, atMs);
  for (const { brewIds } of order.cups)
    for (const id of brewIds) {
      const brew = state.brews[id]!;
      if (holdsStation(brew)) return Infinity;
      sinceMs = Math.max(sinceMs, brew.lastMs);
    }
  return sinceMs;
}

/**
 * The state without what was closed before a time: orders with every cup served or cancelled and every brew's station
 * free. For keeping memory and snapshots small; the log keeps everything.
 */
export function forgetClosed(state: BarState, beforeMs: number): BarState {
  const gone = new Set(
    Object.values(state.orders)
      .filter((order) => closedSinceMs(state, order) < beforeMs)
      .map(({ id }) => id),
  );
  const away = state.away?.filter(({ toMs }) => toMs >= beforeMs);
  const settled = state.settled?.filter(({ closedMs }) => closedMs >= beforeMs);
  const houseEvents = state.houseEvents && lastingHouseEvents(state.houseEvents, beforeMs);
  const isSame =
    gone.size === 0 &&
    away?.length === state.away?.length &&
    settled?.length === state.settled?.length &&
    houseEvents === state.houseEvents;
  if (isSame) return state;
  const keep = <Item>(record: Record<string, Item>, orderOf: (item: Item) => string) =>
    Object.fromEntries(Object.entries(record).filter(([, item]) => !gone.has(orderOf(item))));
  const { settled: _all, ...rest } = state;
  return {
    ...rest,
    ...(away ? { away } : {}),
    ...(settled && settled.length > 0 ? { settled } : {}),
    ...(houseEvents ? { houseEvents } : {}),
    orders: keep(state.orders, (order) => order.id),
    brews: keep(state.brews, (brew) => brew.orderId),
  };
}

/** The most closed orders that a page loads. */
const CLOSED_SHOWN_MAX = 100;

/** The state as a page loads it: what is open, and of what was closed since a time the latest. */
export function shownState(state: BarState, sinceMs: number): BarState {
  const closed = Object.values(state.orders)
    .map((order) => closedSinceMs(state, order))
    .filter(Number.isFinite)
    .sort((a, b) => b - a);
  return forgetClosed(state, Math.max(sinceMs, closed[CLOSED_SHOWN_MAX - 1] ?? 0));
}

/** What a brew keeps of the event that started it. */
export const startedFrom = (event: BrewStarted) => ({
  id: event.brewId,
  orderId: event.orderId,
  cupId: event.cupId,
  stationId: event.stationId,
  stationName: event.stationName,
  brewerId: event.brewerId,
  startedMs: event.atMs,
  ...(event.kettleId === undefined ? {} : { kettleId: event.kettleId }),
  ...(event.withoutScale ? { withoutScale: event.withoutScale } : {}),
  ...(event.handHeld ? { handHeld: event.handHeld } : {}),
  ...(event.ownBrewer ? { ownBrewer: event.ownBrewer } : {}),
});
