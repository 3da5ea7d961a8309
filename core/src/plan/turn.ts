/**
 * The turn in which orders wait, and how each of their cups is to be brewed.
 */
import { remadeOf, urgedOf, type BarState, type OrderState } from '../brew';
import type { RecipeBook } from '../recipe';
import { chooseWays, type Bench } from './bench';

/** An order that nothing was promised of should be out within this of being taken, seconds. */
export const PROMISE_S = 600;

/** Who is pulled forward comes first, then who was promised the soonest. */
export const byTurn = (a: OrderState, b: OrderState): number =>
  (urgedOf(b)?.weight ?? 1) - (urgedOf(a)?.weight ?? 1) || dueMsOf(a) - dueMsOf(b) || a.takenMs - b.takenMs;

/** From when an order waits: from when it was taken, or a cup of it sent back. */
export const sinceMsOf = (order: OrderState): number => remadeOf(order)?.atMs ?? order.takenMs;

/**
 * When an order is to be out: as it is wanted now, else as the plan had it when it was taken, else as it was promised. What
 * was promised of a cup that was sent back is over.
 */
export function dueMsOf(order: OrderState): number {
  const wantedMs = urgedOf(order)?.wantedMs;
  if (wantedMs !== undefined) return wantedMs;
  const told = remadeOf(order) ? undefined : (order.expectedMs ?? order.promisedMs);
  return told ?? sinceMsOf(order) + PROMISE_S * 1000;
}

/** How each waiting cup is to be brewed, by its id. */
export function waysInTurn(state: BarState, bench: Bench, book: RecipeBook): ReturnType<typeof chooseWays> {
  const cups = Object.values(state.orders)
    .sort(byTurn)
    .flatMap((order) => order.cups.filter(({ status }) => status === 'waiting'));
  return chooseWays(state, bench, book, cups);
}
