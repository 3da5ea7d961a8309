/**
 * What the server checks of an event before the bar's own rules: whether its time is possible, whether this bench can
 * brew the cup, and whether the bar holds too much already.
 */
import {
  EVENT_KINDS,
  asksOf,
  brewAlike,
  hostOf,
  isRemark,
  openOrders,
  type BarEvent,
  type BarState,
  type CupAsk,
} from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { brewerOf, cardFor } from '@even-kettle/core/plan';
import type { RecipeBook } from '@even-kettle/core/recipe';
import type { BarClock } from '../bar-clock';
import type { Admit, Refused } from '../store/log';

type Refusal = Refused['refusal'];

const DAY_MS = 86_400_000;
/** How long a device that was away may keep its taps. An event of a device whose clock is ahead gets the bar's time. */
const REACH_MS = DAY_MS;
/** A promised or wanted time must be within this of the event's own time, milliseconds of bar time. */
const PROMISE_REACH_MS = 7 * DAY_MS;
/** How far an event may be ahead of the bar's clock, seconds of real time: the error of a measured offset. */
const AHEAD_S = 2;
const OPEN_ORDERS_MAX = 200;
const REMARKS_MAX = 60;
/** Far more than a bar says in an order's life, in a day of breaks, or of its things in three months. */
const ORDER_EVENTS_MAX = 200;
const AWAY_MAX = 200;
const HOUSE_EVENTS_MAX = 10_000;
/** These end something, so they are never too many. */
const ALWAYS: ReadonlySet<BarEvent['type']> = new Set(['guest-left', 'cup-cancelled', 'cups-fetched']);

export type AdmissionParts = { clock: BarClock; bar: () => Bar; book: RecipeBook };

export const admission =
  ({ clock, bar, book }: AdmissionParts): Admit =>
  (said, state) => {
    const event = inBarTime(said, clock);
    if (!('id' in event)) return event;
    return (
      timeOutOfReach(event) ?? tooMany(event, state) ?? notOnTheBench(event, state, bar(), book) ?? event
    );
  };

/** The event with a time that is not ahead of the bar's clock: a later time becomes now. */
function inBarTime(event: BarEvent, clock: BarClock): BarEvent | Refusal {
  const nowMs = clock.nowMs();
  const reachMs = REACH_MS * Math.max(1, clock.rate);
  if (event.atMs > nowMs + reachMs)
    return {
      code: 'in-the-future',
      field: 'atMs',
      reason: 'The event’s time is more than a day ahead of the bar’s clock. Take bar time from /api/clock.',
    };
  if (event.atMs < nowMs - reachMs)
    return {
      code: 'too-long-ago',
      field: 'atMs',
      reason:
        'The event happened more than a day ago. The bar has gone on since, so it is not taken any more.',
    };
  const limitMs = nowMs + AHEAD_S * 1000 * Math.max(1, clock.rate);
  return event.atMs <= limitMs ? event : { ...event, atMs: nowMs };
}

const REACHES: Readonly<Record<string, number>> = {
  promisedMs: PROMISE_REACH_MS,
  expectedMs: PROMISE_REACH_MS,
  wantedMs: PROMISE_REACH_MS,
  pickUpMs: PROMISE_REACH_MS,
  fromMs: DAY_MS,
  toMs: DAY_MS,
};

function timeOutOfReach(event: BarEvent): Refusal | null {
  for (const [field, reachMs] of Object.entries(REACHES)) {
    const atMs = (event as unknown as Record<string, unknown>)[field];
    if (typeof atMs !== 'number' || Math.abs(atMs - event.atMs) <= reachMs) continue;
    const days = reachMs / DAY_MS;
    return {
      code: 'not-fitting',
      field,
      reason: `This time is further than ${days === 1 ? 'a day' : `${days} days`} from when it was said; give one that is nearer.`,
    };
  }
  return null;
}

function tooMany(event: BarEvent, state: BarState): Refusal | null {
  const opens =
    event.type === 'order-taken' ||
    (event.type === 'cups-moved' && !Object.hasOwn(state.orders, event.toOrderId));
  if (opens && openOrders(state).length >= OPEN_ORDERS_MAX)
    return {
      code: 'too-many',
      field: 'orderId',
      reason: `${OPEN_ORDERS_MAX} orders are open, which is the most that a bar can hold. Hand some over or cancel them first.`,
    };
  const full = tooManyOf(event, state);
  if (full)
    return {
      code: 'too-many',
      field: 'type',
      reason: `The bar holds ${full} already, which is the most that it can. Nothing more of this kind can be said just now.`,
    };
  if (!isRemark(event) || !('brewId' in event)) return null;
  const brew = Object.hasOwn(state.brews, event.brewId) ? state.brews[event.brewId]! : null;
  const remarks = brew?.events.filter(({ type }) => type === event.type).length ?? 0;
  if (remarks < REMARKS_MAX) return null;
  return {
    code: 'too-many',
    field: 'brewId',
    reason: `${REMARKS_MAX} remarks of this kind are stored with this brew already, which is the most that it can hold.`,
  };
}

/** What there is too much of for one more event of its kind, in words; null if there is room. */
function tooManyOf(event: BarEvent, { orders, away, houseEvents }: BarState): string | null {
  const { moves } = EVENT_KINDS[event.type];
  if (moves === 'house' && (houseEvents?.length ?? 0) >= HOUSE_EVENTS_MAX)
    return `${HOUSE_EVENTS_MAX} notes of its coffees, lists and samples`;
  if (moves === 'hands' && (away?.length ?? 0) >= AWAY_MAX) return `${AWAY_MAX} breaks of these hours`;
  if (moves !== 'orders' || !('orderId' in event) || ALWAYS.has(event.type)) return null;
  const order = Object.hasOwn(orders, event.orderId) ? orders[event.orderId]! : null;
  return order && order.events.length >= ORDER_EVENTS_MAX
    ? `${ORDER_EVENTS_MAX} changes of this order`
    : null;
}

/** The cups that an event asks to be brewed, each with its field; one that only changes how it is handed over asks for nothing. */
function cupsAskedFor(event: BarEvent, state: BarState): { cup: CupAsk; at: string }[] {
  if (event.type === 'order-taken') return event.cups.map((cup, index) => ({ cup, at: `cups.${index}` }));
  if (event.type === 'cup-added') return [{ cup: event.cup, at: 'cup' }];
  if (event.type !== 'cup-changed' || !Object.hasOwn(state.orders, event.orderId)) return [];
  const before = asksOf(state.orders[event.orderId]!).find(({ cupId }) => cupId === event.cup.cupId);
  return before && brewAlike(before, event.cup) ? [] : [{ cup: event.cup, at: 'cup' }];
}

/** A cup must be one that this bench can brew, and a brew must start at a station of this bench. */
function notOnTheBench(event: BarEvent, state: BarState, bar: Bar, book: RecipeBook): Refusal | null {
  for (const { cup, at } of cupsAskedFor(event, state)) {
    const host = hostOf(state, cup);
    const found = cardFor(bar, host ? { ...cup, cups: (host.cups ?? 1) + (cup.cups ?? 1) } : cup, book);
    if (!found.ok)
      return {
        code: found.field === 'recipeId' ? 'unknown-recipe' : 'does-not-make-a-cup',
        field: `${at}.${found.field}`,
        reason: found.reason,
      };
  }
  if (event.type === 'brew-moved' && !bar.stations.some(({ id }) => id === event.stationId))
    return {
      code: 'unknown',
      field: 'stationId',
      reason: `There is no station ${event.stationId} on the bench.`,
    };
  if (event.type !== 'brew-started') return null;
  const station = bar.stations.find(
    ({ id, brewerId }) => id === event.stationId && brewerId === event.brewerId,
  );
  if (!station || !brewerOf(bar, event.brewerId))
    return {
      code: 'unknown',
      field: 'stationId',
      reason: `There is no station ${event.stationId} with a ${event.brewerId} on the bench.`,
    };
  const { ownBrewer } = event;
  const method = brewerOf(bar, event.brewerId)?.method;
  if (ownBrewer && (ownBrewer.id !== event.brewerId || ownBrewer.method !== method))
    return {
      code: 'not-fitting',
      field: 'ownBrewer',
      reason: `What is said of the brewer must be of ${event.brewerId}, and of its method.`,
    };
  const order = Object.hasOwn(state.orders, event.orderId) ? state.orders[event.orderId]! : null;
  const cup = order?.cups.find(({ cupId }) => cupId === event.cupId);
  const found = cup && cardFor(bar, cup, book);
  if (found?.ok && !found.stations.some(({ id }) => id === station.id))
    return {
      code: 'does-not-make-a-cup',
      field: 'stationId',
      reason: `${station.name} cannot brew this cup; ${found.stations.map(({ name }) => name).join(', ')} can.`,
    };
  return null;
}
