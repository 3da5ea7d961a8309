/**
 * The turn in which orders wait, and how each of their cups is to be brewed.
 */
import { queueOf, remadeOf, urgedOf, type BarState, type OrderState } from '../../brew';
import type { RecipeBook } from '../../recipe';
import { chooseWays, type Bench } from './bench';

/** An order that nothing was promised of should be out within this of being taken, seconds. */
export const PROMISE_S = 600;

/** How much an order's waiting counts: as it was urged, and by its queue's share. */
export const weightOf = (order: OrderState): number =>
  (urgedOf(order)?.weight ?? 1) * (queueOf(order).share ?? 1);

/** Who is pulled forward comes first, then who was promised the soonest. */
export const byTurn = (a: OrderState, b: OrderState): number =>
  weightOf(b) - weightOf(a) || dueMsOf(a) - dueMsOf(b) || a.takenMs - b.takenMs;

/** From when an order waits: from when it was taken, or a cup of it sent back. */
export const sinceMsOf = (order: OrderState): number => remadeOf(order)?.atMs ?? order.takenMs;

/**
 * When an order is to be out: as it is wanted now, else as its queue promises, else as the plan had it when it was taken, else
 * as it was promised. What was promised of a cup that was sent back is over.
 */
export function dueMsOf(order: OrderState): number {
  const wantedMs = urgedOf(order)?.wantedMs;
  if (wantedMs !== undefined) return wantedMs;
  const remade = remadeOf(order);
  const { pickUpMs, withinS } = queueOf(order);
  if (!remade && pickUpMs !== undefined) return pickUpMs;
  if (!remade && withinS !== undefined) return order.takenMs + withinS * 1000;
  const told = remade ? undefined : (order.expectedMs ?? order.promisedMs);
  return told ?? sinceMsOf(order) + PROMISE_S * 1000;
}

/** A cup that is fetched at a time should not stand for longer than this, since it cools, seconds. */
export const STANDS_S = 120;

/** The earliest at which a cup of the order should be out, bar milliseconds; null where sooner is better. */
export function notBeforeMsOf(order: OrderState): number | null {
  const { pickUpMs } = queueOf(order);
  return pickUpMs === undefined || remadeOf(order) || (urgedOf(order)?.weight ?? 1) > 1
    ? null
    : pickUpMs - STANDS_S * 1000;
}

/** How each waiting cup is to be brewed, by its id. */
export function waysInTurn(state: BarState, bench: Bench, book: RecipeBook): ReturnType<typeof chooseWays> {
  const cups = Object.values(state.orders)
    .sort(byTurn)
    .flatMap((order) => order.cups.filter(({ status }) => status === 'waiting'));
  return chooseWays(state, bench, book, cups);
}
