/**
 * The guests of a brew, and the time from which an order's wait counts.
 */
import type { CupRemade } from './order-events';
import type { BrewState, BarState, CupState, OrderState } from './state';

/** A guest's part of a brew: whose it is, and the grams of each of their cups. */
export type GuestShare = {
  orderId: string;
  badge: number;
  name?: string;
  cup: CupState;
  gramsPerCup: number[];
};

/** The guests of a brew, the one whose order it was started for first. Their grams are all of the card's. */
export function guestsOf(state: BarState, brew: BrewState): GuestShare[] {
  const grams = [...brew.card.perCupG];
  const sharers = Object.values(state.orders).flatMap((order) =>
    order.cups
      .filter((cup) => cup.with?.cupId === brew.cupId && cup.status !== 'cancelled')
      .map((cup) => ({ order, cup, cups: cup.cups ?? 1 })),
  );
  const order = state.orders[brew.orderId];
  const cup = order?.cups.find(({ cupId }) => cupId === brew.cupId);
  const shared = sharers.reduce((sum, { cups }) => sum + cups, 0);
  const own = order && cup ? [{ order, cup, cups: grams.length - shared }] : [];
  return [...own, ...sharers].map(({ order, cup, cups }) => ({
    cup,
    orderId: order.id,
    badge: order.badge,
    ...(order.name === undefined ? {} : { name: order.name }),
    gramsPerCup: grams.splice(0, Math.max(0, cups)),
  }));
}

/** The latest cup of an order that was sent back; the wait counts from then, and the promise of the first cup is ignored. */
export const remadeOf = (order: OrderState): CupRemade | undefined =>
  order.events.findLast((event) => event.type === 'cup-remade');
