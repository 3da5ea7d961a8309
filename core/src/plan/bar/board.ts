/**
 * What guests may see of the bar: on a board in the room every order by its badge, and on a guest's own phone one order. It
 * holds no name but one that the guest gave to be called by.
 */
import {
  badgeOf,
  hasLeft,
  isOpen,
  latestBrew,
  queueOf,
  readyOrders,
  SURELY_GONE_MS,
  shownNameOf,
  type Badge,
  type BarState,
  type CupState,
  type OrderState,
} from '../../brew';
import type { Plan } from '../solver';
import type { Queue } from './queues';

/** An order on the board. Times are bar milliseconds. */
export type BoardOrder = {
  badge: Badge;
  /** The place in the cycle of badges, for who draws them. */
  badgeNumber: number;
  name?: string;
  queueId: string | null;
  cups: number;
  /** How many of them stand ready. */
  ready: number;
  /** When all of it will be ready; since when, where all of it is; null where nobody knows yet. */
  readyMs: number | null;
};
export type Board = {
  barName: string;
  queues: { id: string; name: string }[];
  /** What is ready now, that which stands longest first. */
  ready: BoardOrder[];
  /** What is to come, soonest first. */
  coming: BoardOrder[];
};

/** A guest's own order. */
export type FollowedOrder = {
  barName: string;
  badge: Badge;
  cups: { coffee: string; status: 'waiting' | 'brewing' | 'ready' | 'fetched' | 'cancelled' }[];
  readyMs: number | null;
};

export type Outlook = {
  state: BarState;
  bench: { name: string; queues?: readonly Pick<Queue, 'id' | 'name'>[] | undefined };
  plan: Pick<Plan, 'finish'> | null;
  /** About when orders are out that wait behind those that are planned, seconds of bar time. */
  rough: Record<string, number>;
};

/** A guest's page ends so long after the order was fetched, milliseconds. */
const FOLLOWED_MS = 3_600_000;

export function boardOf(outlook: Outlook, nowMs: number): Board {
  const { state, bench } = outlook;
  const standing = standingAt(state, nowMs);
  const shown = Object.values(state.orders).flatMap((order) => {
    const cups = order.cups.filter((cup) => cup.status !== 'cancelled' && !cup.sample);
    if (cups.length === 0 || hasLeft(order)) return [];
    const ready = cups.filter(({ cupId }) => standing.has(cupId));
    if (!isOpen(order) && ready.length === 0) return [];
    return [{ order, isReady: !isOpen(order), shown: onBoard(outlook, order, cups.length, ready) }];
  });
  const byTime = (a: BoardOrder, b: BoardOrder) => (a.readyMs ?? Infinity) - (b.readyMs ?? Infinity);
  const listed = (isReady: boolean) =>
    shown
      .filter((each) => each.isReady === isReady)
      .sort((a, b) => byTime(a.shown, b.shown) || a.order.takenMs - b.order.takenMs)
      .map((each) => each.shown);
  return {
    barName: bench.name,
    queues: (bench.queues ?? []).map(({ id, name }) => ({ id, name })),
    ready: listed(true),
    coming: listed(false),
  };
}

function onBoard(
  outlook: Outlook,
  order: OrderState,
  cups: number,
  standing: readonly CupState[],
): BoardOrder {
  const name = shownNameOf(order);
  const since = standing.map((cup) => latestBrew(outlook.state, cup)?.servedMs ?? 0);
  return {
    badge: badgeOf(order.badge),
    badgeNumber: order.badge,
    ...(name === undefined ? {} : { name }),
    queueId: queueOf(order).queueId ?? outlook.bench.queues?.[0]?.id ?? null,
    cups,
    ready: standing.length,
    readyMs: isOpen(order) ? outMs(outlook, order) : Math.min(...since),
  };
}

/** To the minute, so that a plan that moves by seconds changes nothing on a board. */
function outMs({ plan, rough }: Outlook, { id }: OrderState): number | null {
  const outS = plan?.finish[id] ?? rough[id];
  return outS === undefined ? null : Math.ceil(outS / 60) * 60_000;
}

/** The cups that stand on the counter. */
const standingAt = (state: BarState, nowMs: number): ReadonlySet<string> =>
  new Set(readyOrders(state, nowMs).flatMap(({ cups }) => cups.map(({ cupId }) => cupId)));

/**
 * One order as its guest follows it; null once it is over for an hour.
 * @param order of the live state; or one that was set aside, in a state that holds its brews
 */
export function followedOrder(outlook: Outlook, order: OrderState, nowMs: number): FollowedOrder | null {
  const { state, bench } = outlook;
  const endMs = overSinceMs(state, order);
  const standing = standingAt(state, nowMs);
  if (endMs !== null && nowMs > endMs + FOLLOWED_MS) return null;
  return {
    barName: bench.name,
    badge: badgeOf(order.badge),
    cups: order.cups.map((cup) => ({
      coffee: cup.coffee,
      status: cup.status !== 'served' ? cup.status : standing.has(cup.cupId) ? 'ready' : 'fetched',
    })),
    readyMs: isOpen(order) && !hasLeft(order) ? outMs(outlook, order) : null,
  };
}

/** Since when nobody waits for anything of an order; null while somebody does. */
function overSinceMs(state: BarState, order: OrderState): number | null {
  if (isOpen(order)) return null;
  const fetched = order.events.findLast(({ type }) => type === 'cups-fetched' || type === 'guest-left');
  if (fetched) return fetched.atMs;
  const served = order.cups.map((cup) => latestBrew(state, cup)?.servedMs ?? order.takenMs);
  return Math.max(...served) + SURELY_GONE_MS;
}
