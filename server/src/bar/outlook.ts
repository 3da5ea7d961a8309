/**
 * What guests see: the board, and each order by an address that cannot be guessed. The key of an address is made from the
 * order's id with a secret of the server's, so that nothing has to be stored.
 */
import { createHmac } from 'node:crypto';
import type { BarState, OrderState } from '@even-kettle/core/brew';
import { boardOf, followedOrder, type Board, type FollowedOrder, type Outlook } from '@even-kettle/core/plan';

export type GuestOutlook = {
  board: () => Board;
  /** The order of a key; null where there is none, or none any more. */
  followed: (key: string) => FollowedOrder | null;
  /** The key of an order's address; null where there is no such order. */
  keyOf: (orderId: string) => string | null;
};

/** 132 bits of the digest. */
const KEY_LENGTH = 22;

export function openOutlook(secret: string, outlook: () => Outlook, nowMs: () => number): GuestOutlook {
  const keys = new Map<string, string>();
  const keyFor = (orderId: string): string => {
    const known = keys.get(orderId);
    if (known !== undefined) return known;
    const made = createHmac('sha256', secret).update(orderId).digest('base64url').slice(0, KEY_LENGTH);
    keys.set(orderId, made);
    return made;
  };
  const find = (key: string) => {
    const orders = ordersOf(outlook().state);
    if (keys.size > 2 * orders.length + 500) keys.clear();
    return orders.find(({ order }) => keyFor(order.id) === key);
  };
  return {
    board: () => boardOf(outlook(), nowMs()),
    followed: (key) => {
      const found = find(key);
      return found ? followedOrder({ ...outlook(), state: found.state }, found.order, nowMs()) : null;
    },
    keyOf: (orderId) =>
      ordersOf(outlook().state).some(({ order }) => order.id === orderId) ? keyFor(orderId) : null,
  };
}

/** Those of the live state, and those that were set aside; each in a state that holds its brews. */
const ordersOf = (state: BarState): { order: OrderState; state: BarState }[] => [
  ...Object.values(state.orders).map((order) => ({ order, state })),
  ...(state.settled ?? []).flatMap(({ orders, brews }) => {
    const then = {
      ...state,
      orders: Object.fromEntries(orders.map((order) => [order.id, order])),
      brews: Object.fromEntries(brews.map((brew) => [brew.id, brew])),
    };
    return orders.map((order) => ({ order, state: then }));
  }),
];
