/**
 * Orders that were closed an hour ago, and all but the latest of those that were closed since, are set aside, so that an
 * event costs the same on a bar with many closed orders as on one with few. What is set aside is not looked at, until an
 * event names it: then it comes back whole.
 */
import { forgottenBrew, forgottenOrder, namesGuest } from './forget-guests';
import type { BarEvent } from './events';
import { hostsOf, sharersWith } from './order-fold';
import { closedSinceMs, type BarState, type BrewState, type OrderState, type Settled } from './state';

/** How long a closed order is shown, and its guest known, milliseconds: for so long a cup may still come back. */
const SHOWN_AFTER_MS = 3600 * 1000;

/** How many closed orders are shown at the most. A page loads more than these, so that all copies set the same aside. */
const SHOWN_MAX = 60;

/** How long it can come back, milliseconds. The log keeps it for good. */
const KEPT_AFTER_MS = 12 * SHOWN_AFTER_MS;

/** Orders and brews by their ids. */
const byId = <Item extends { id: string }>(items: readonly Item[]): Record<string, Item> =>
  Object.fromEntries(items.map((item) => [item.id, item]));

const without = <Item extends { id: string }>(
  all: Record<string, Item>,
  gone: readonly Item[],
): Record<string, Item> => {
  const rest = { ...all };
  for (const { id } of gone) delete rest[id];
  return rest;
};

/**
 * The state with orders that are no longer shown set aside, without the names and words of their guests.
 * Orders whose cups are poured out of one brew go together.
 */
export function settle(live: BarState, atMs: number): BarState {
  const closedMs = Object.values(live.orders)
    .map((order) => closedSinceMs(live, order))
    .filter(Number.isFinite)
    .sort((a, b) => b - a);
  const shownMs = Math.max(atMs - SHOWN_AFTER_MS, closedMs[SHOWN_MAX - 1] ?? -Infinity);
  // One that waits for another which shares its brew forgets its guest all the same.
  const state = withoutGuests(live, shownMs);
  const due = Object.values(state.orders).filter((order) => closedSinceMs(state, order) < shownMs);
  if (due.length === 0) return state;
  const settled: Settled[] = [];
  const seen = new Set<OrderState>();
  for (const order of due) {
    if (seen.has(order)) continue;
    const orders = sharing(state, order);
    for (const each of orders) seen.add(each);
    if (orders.some((each) => closedSinceMs(state, each) >= shownMs)) continue;
    const ids = new Set(orders.map(({ id }) => id));
    const brews = Object.values(state.brews).filter(({ orderId }) => ids.has(orderId));
    settled.push({
      closedMs: Math.max(...orders.map((each) => closedSinceMs(state, each))),
      orders,
      brews,
    });
  }
  if (settled.length === 0) return state;
  return {
    ...state,
    orders: without(
      state.orders,
      settled.flatMap(({ orders }) => orders),
    ),
    brews: without(
      state.brews,
      settled.flatMap(({ brews }) => brews),
    ),
    settled: [...(state.settled ?? []), ...settled].filter(
      ({ closedMs }) => closedMs >= atMs - KEPT_AFTER_MS,
    ),
  };
}

/** The state without the names and words of guests whose orders were closed an hour before a time; the orders stay where they are. */
export const forgetGuests = (state: BarState, atMs: number): BarState =>
  withoutGuests(state, atMs - SHOWN_AFTER_MS);

function withoutGuests(state: BarState, closedBeforeMs: number): BarState {
  const gone = Object.values(state.orders).filter(
    (order) => order.events.some(namesGuest) && closedSinceMs(state, order) < closedBeforeMs,
  );
  if (gone.length === 0) return state;
  const ids = new Set(gone.map(({ id }) => id));
  const brews = Object.values(state.brews).filter(({ orderId }) => ids.has(orderId));
  return {
    ...state,
    orders: { ...state.orders, ...byId(gone.map(forgottenOrder)) },
    brews: { ...state.brews, ...byId(brews.map(forgottenBrew)) },
  };
}

/** The order, and all that share a brew with it, directly or by another. */
function sharing(state: BarState, order: OrderState): OrderState[] {
  const found = new Set([order]);
  for (const each of found) {
    for (const id of hostsOf(each)) if (Object.hasOwn(state.orders, id)) found.add(state.orders[id]!);
    for (const sharer of sharersWith(state, each)) found.add(sharer);
  }
  return [...found];
}

/** The state with what an event names brought back, where it was set aside. */
export function recalled(state: BarState, event: BarEvent): BarState {
  if (!state.settled || event.type === 'order-taken') return state;
  const names = isNamedBy(state, event);
  const back = names && state.settled.filter(names);
  if (!back || back.length === 0) return state;
  const { settled, ...rest } = state;
  const left = settled.filter((each) => !back.includes(each));
  return {
    ...rest,
    orders: { ...state.orders, ...byId(back.flatMap(({ orders }) => orders)) },
    brews: { ...state.brews, ...byId(back.flatMap(({ brews }) => brews)) },
    ...(left.length > 0 ? { settled: left } : {}),
  };
}

/** Whether an event is about what was set aside; null where all that it names is here. */
function isNamedBy(state: BarState, event: BarEvent): ((settled: Settled) => boolean) | null {
  const said = event as { orderId?: string; toOrderId?: string; fromOrderId?: string; brewId?: string };
  if (event.type === 'event-undone') {
    const { eventId } = event;
    const did = ({ events }: OrderState | BrewState) => events.some(({ id }) => id === eventId);
    if (Object.values(state.brews).some(did) || Object.values(state.orders).some(did)) return null;
    return ({ orders, brews }) => brews.some(did) || orders.some(did);
  }
  const orders = [said.orderId, said.toOrderId, said.fromOrderId].filter(
    (id) => id !== undefined && !Object.hasOwn(state.orders, id),
  );
  // A brew that is started was never there.
  const isThere =
    said.brewId === undefined || event.type === 'brew-started' || Object.hasOwn(state.brews, said.brewId);
  const brewId = isThere ? null : said.brewId;
  if (orders.length === 0 && brewId === null) return null;
  return (settled) =>
    settled.orders.some(({ id }) => orders.includes(id)) || settled.brews.some(({ id }) => id === brewId);
}

/** Every brew that the state knows, those that were set aside too, without such as were surely over before a time. */
export const everyBrew = ({ brews, settled = [] }: BarState, sinceMs = 0): BrewState[] => [
  ...Object.values(brews),
  ...settled.filter(({ closedMs }) => closedMs >= sinceMs).flatMap((each) => each.brews),
];
