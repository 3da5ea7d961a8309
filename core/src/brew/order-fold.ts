/**
 * What an order's own events make of it: its cups as they are asked for now, its name, its queue.
 */
import type { CupAsk, InQueue, OrderEvent } from './order-events';
import { latestBrew, type BarState, type CupState, type OrderState } from './state';

/** The cups as they are asked for now, in the order in which they came. */
export function asksOf({ id, events }: Pick<OrderState, 'id' | 'events'>): CupAsk[] {
  let asks: CupAsk[] = [];
  for (const event of events) {
    if (event.type === 'order-taken') asks = [...event.cups];
    else if (event.type === 'cup-added') asks.push(event.cup);
    else if (event.type === 'cup-changed')
      asks = asks.map((ask) => (ask.cupId === event.cup.cupId ? event.cup : ask));
    else if (event.type === 'cups-moved') {
      const moved = new Set(event.cups.map(({ cupId }) => cupId));
      asks = event.orderId === id ? asks.filter(({ cupId }) => !moved.has(cupId)) : [...asks, ...event.cups];
    }
  }
  return asks;
}

/** The cups that an event asks for, as it asks for them. */
const askedBy = (event: OrderEvent): readonly CupAsk[] => {
  if (event.type === 'order-taken') return event.cups;
  return event.type === 'cup-added' || event.type === 'cup-changed' ? [event.cup] : [];
};

/** The orders out of whose brews a cup of this one was ever asked to be poured. */
export const hostsOf = ({ events }: Pick<OrderState, 'events'>): string[] =>
  events.flatMap((event) => askedBy(event).flatMap((cup) => (cup.with ? [cup.with.orderId] : [])));

/** The orders of which a cup was ever asked to be poured out of a brew of this one. */
export const sharersWith = (state: BarState, { id }: Pick<OrderState, 'id'>): OrderState[] =>
  Object.values(state.orders).filter(({ events }) =>
    events.some((event) => askedBy(event).some((cup) => cup.with?.orderId === id)),
  );

/**
 * The order with its cups as they are asked for now; what was done for each is kept.
 * @param come cups that come from another order, as they are there
 */
export function reshaped(order: OrderState, come: readonly CupState[] = []): OrderState {
  const known = new Map([...order.cups, ...come].map((cup) => [cup.cupId, cup]));
  const cups = asksOf(order).map((ask): CupState => {
    const before = known.get(ask.cupId);
    const { cups: own, with: asked, ...rest } = ask;
    // How many are poured out of a brew, and whose brew it is, is settled as it begins.
    const settled = before && before.status !== 'waiting';
    const [count, shared] = settled ? [before.cups, before.with] : [own, asked];
    return {
      ...rest,
      ...(count === undefined ? {} : { cups: count }),
      ...(shared === undefined ? {} : { with: shared }),
      status: before?.status ?? 'waiting',
      brewIds: before?.brewIds ?? [],
      attempts: before?.attempts ?? [],
    };
  });
  return { ...order, cups };
}

/** What it was renamed to last, else the name that it began with. */
export function nameOf(events: readonly OrderEvent[]): string | undefined {
  const renamed = events.findLast((event) => event.type === 'order-renamed');
  if (renamed) return renamed.name;
  const [first] = events;
  return first?.type === 'order-taken' || first?.type === 'cups-moved' ? first.name : undefined;
}

/** The name, where the guest gave it to be called by it: a board may show it. */
export function shownNameOf({ events }: Pick<OrderState, 'events'>): string | undefined {
  const named = events.findLast((event) => event.type === 'order-renamed' || event.type === 'order-taken');
  return named && 'nameShown' in named && named.nameShown ? named.name : undefined;
}

export const hasLeft = ({ events }: Pick<OrderState, 'events'>): boolean =>
  events.some(({ type }) => type === 'guest-left');

/** The queue that an order stands in now. */
export const queueOf = (order: OrderState): InQueue =>
  order.events.findLast((event) => event.type === 'order-queued') ?? order.inQueue ?? {};

/** What stands on the counter: an order's cups that are out and not fetched, and since when the first of them stands there. */
export type Ready = { order: OrderState; cups: CupState[]; sinceMs: number };

/** A cup that nobody said anything of is surely gone after so long, milliseconds. */
export const SURELY_GONE_MS = 600_000;

/** Cups on the counter, those that stand there the longest first; what is one order's stays together. */
export const readyOrders = (state: BarState, nowMs: number): Ready[] =>
  Object.values(state.orders)
    .flatMap((order) => {
      const out = order.cups.flatMap((cup) => {
        const servedMs = cup.status === 'served' ? latestBrew(state, cup)?.servedMs : undefined;
        const stands = servedMs !== undefined && nowMs - servedMs < SURELY_GONE_MS && !isFetched(state, cup);
        return stands ? [{ cup, servedMs }] : [];
      });
      if (out.length === 0) return [];
      const sinceMs = Math.min(...out.map(({ servedMs }) => servedMs));
      return [{ order, cups: out.map(({ cup }) => cup), sinceMs }];
    })
    .sort((a, b) => a.sinceMs - b.sinceMs);

/** Whether a cup that is out has been fetched since. */
export function isFetched(state: BarState, cup: CupState): boolean {
  const servedMs = latestBrew(state, cup)?.servedMs ?? Infinity;
  return Object.values(state.orders).some(({ events }) =>
    events.some(
      (event) => event.type === 'cups-fetched' && event.cupIds.includes(cup.cupId) && event.atMs >= servedMs,
    ),
  );
}
