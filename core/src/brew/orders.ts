/**
 * The rules of orders: taking one, and everything that can change of it until it is served.
 */
import type { RecipeBook } from '../recipe';
import { accept, ownEntry, refuse, type Applied } from './applied';
import { nextBadge } from './badge';
import { fold, withBrews, withOrder } from './fold';
import { makeCard } from './make-card';
import {
  MOST_CUPS_OF_A_BREW,
  MOST_CUPS_OF_AN_ORDER,
  areAlike,
  askOf,
  brewAlike,
  type CupAdded,
  type CupAsk,
  type CupCancelled,
  type CupChanged,
  type CupRemade,
  type CupsFetched,
  type CupsMoved,
  type GuestLeft,
  type InQueue,
  type OrderEvent,
  type OrderQueued,
  type OrderRenamed,
  type OrderTaken,
  type OrderUrged,
} from './order-events';
import { asksOf, hasLeft, isFetched, reshaped } from './order-fold';
import {
  hostOf,
  isOpen,
  latestBrew,
  openOrders,
  sharersOf,
  type BarState,
  type CupState,
  type OrderState,
} from './state';

const happened = (state: BarState, order: OrderState, event: OrderEvent): Applied =>
  accept(withOrder(state, { ...order, events: [...order.events, event] }));

/** An order by its id, with one of its cups where one is named. */
type Found = { ok: true; order: OrderState; cup: CupState } | Extract<Applied, { ok: false }>;

export function findCup(state: BarState, { orderId, cupId }: { orderId: string; cupId: string }): Found {
  const order = ownEntry(state.orders, orderId);
  if (!order) return noSuchOrder();
  const cup = order.cups.find((each) => each.cupId === cupId);
  return cup ? { ok: true, order, cup } : refuse('unknown', 'cupId', 'There is no such cup in this order.');
}

const noSuchOrder = () => refuse('unknown', 'orderId', 'There is no such order.');
const guestIsGone = () =>
  refuse('cup-not-ready', 'orderId', 'The guest of this order has left. Take a new order instead.');

const newBadge = (state: BarState, { stroke }: InQueue): number =>
  nextBadge(state.lastBadge, new Set(openOrders(state).map((open) => open.badge)), stroke);

const inQueueOf = ({ queueId, withinS, pickUpMs, share }: InQueue): { inQueue?: InQueue } => {
  const inQueue = {
    ...(queueId === undefined ? {} : { queueId }),
    ...(withinS === undefined ? {} : { withinS }),
    ...(pickUpMs === undefined ? {} : { pickUpMs }),
    ...(share === undefined ? {} : { share }),
  };
  return Object.keys(inQueue).length > 0 ? { inQueue } : {};
};

export function takeOrder(state: BarState, event: OrderTaken, book: RecipeBook): Applied {
  if (Object.hasOwn(state.orders, event.orderId))
    return refuse('already-exists', 'orderId', 'There is an order with this id already.');
  const refusal = cannotTake(state, event.cups, book, (index) => `cups.${index}.`);
  if (refusal) return refusal;
  const order: OrderState = {
    id: event.orderId,
    ...(event.name === undefined ? {} : { name: event.name }),
    badge: newBadge(state, event),
    badgeBefore: state.lastBadge,
    takenMs: event.atMs,
    ...(event.promisedMs === undefined ? {} : { promisedMs: event.promisedMs }),
    ...(event.expectedMs === undefined ? {} : { expectedMs: event.expectedMs }),
    ...inQueueOf(event),
    cups: event.cups.map((cup) => ({ ...cup, status: 'waiting', brewIds: [], attempts: [] })),
    events: [event],
  };
  return accept({ ...withOrder(state, order), lastBadge: order.badge });
}

/** Why cups cannot be asked for, at their fields; null if they can. */
function cannotTake(
  state: BarState,
  cups: readonly CupAsk[],
  book: RecipeBook,
  at: (index: number) => string,
): Applied | null {
  const taken = new Set(Object.values(state.orders).flatMap((order) => order.cups.map((cup) => cup.cupId)));
  for (const [index, cup] of cups.entries()) {
    if (taken.has(cup.cupId))
      return refuse('already-exists', `${at(index)}cupId`, 'There is a cup with this id already.');
    taken.add(cup.cupId);
    const made = makeCard(book, cup, askOf(cup));
    if (!made.ok) return refuse(made.code, `${at(index)}${made.field}`, made.reason);
    const reason = cannotShare(state, cup);
    if (reason) return refuse('cup-not-ready', `${at(index)}with`, reason);
  }
  return null;
}

/** Why a cup cannot share another cup's brew; null if it can, or if it has its own. */
function cannotShare(state: BarState, cup: CupAsk): string | null {
  if (!cup.with) return null;
  const host = hostOf(state, cup);
  if (!host || host.with) return 'There is no such cup with a brew of its own.';
  if (host.status !== 'waiting') return `That cup does not wait any more; it is ${host.status}.`;
  if (host.attempts.length > 0) return 'That cup has been brewed once already; it is brewed again by itself.';
  if (!areAlike(host, cup)) return 'Only cups of one recipe, coffee and size are poured out of one brew.';
  return (host.cups ?? 1) + (cup.cups ?? 1) > MOST_CUPS_OF_A_BREW
    ? `One brew is poured into at most ${MOST_CUPS_OF_A_BREW} cups.`
    : null;
}

export function urgeOrder(state: BarState, event: OrderUrged): Applied {
  const order = ownEntry(state.orders, event.orderId);
  return order ? happened(state, order, event) : noSuchOrder();
}

export function renameOrder(state: BarState, event: OrderRenamed): Applied {
  const order = ownEntry(state.orders, event.orderId);
  if (!order) return noSuchOrder();
  const { name: _before, ...rest } = order;
  const { name } = event;
  return happened(state, name === undefined ? rest : { ...rest, name }, event);
}

export function queueOrder(state: BarState, event: OrderQueued): Applied {
  const order = ownEntry(state.orders, event.orderId);
  if (!order) return noSuchOrder();
  if (!isOpen(order)) return refuse('already-done', 'orderId', 'This order is out already.');
  return happened(state, order, event);
}

export function guestLeaves(state: BarState, event: GuestLeft): Applied {
  const order = ownEntry(state.orders, event.orderId);
  if (!order) return noSuchOrder();
  if (hasLeft(order)) return refuse('already-done', 'orderId', 'The guest has left already.');
  if (!isOpen(order))
    return refuse('already-done', 'orderId', 'This order is out already; nothing of it waits.');
  const needed = order.cups.some((cup) => cup.status === 'waiting' && sharersOf(state, cup).length > 0);
  if (needed) return refuse('cup-not-ready', 'orderId', SHARED);
  return happened(state, order, event);
}

const SHARED = 'A cup of another order is to be poured out of its brew; change or cancel that one first.';

export function addCup(state: BarState, event: CupAdded, book: RecipeBook): Applied {
  const order = ownEntry(state.orders, event.orderId);
  if (!order) return noSuchOrder();
  if (hasLeft(order)) return guestIsGone();
  if (!isOpen(order))
    return refuse('cup-not-ready', 'orderId', 'This order is out already. Take a new order for another cup.');
  if (standing(order) >= MOST_CUPS_OF_AN_ORDER) return tooLarge('cup');
  const refusal = cannotTake(state, [event.cup], book, () => 'cup.');
  if (refusal) return refusal;
  return accept(withOrder(state, reshaped({ ...order, events: [...order.events, event] })));
}

const standing = ({ cups }: OrderState): number => cups.filter(({ status }) => status !== 'cancelled').length;
const tooLarge = (field: string) =>
  refuse('not-fitting', field, `An order has at most ${MOST_CUPS_OF_AN_ORDER} cups. Take a second order.`);

export function changeCup(state: BarState, event: CupChanged, book: RecipeBook): Applied {
  const found = findCup(state, { orderId: event.orderId, cupId: event.cup.cupId });
  if (!found.ok) return found;
  const { order, cup } = found;
  if (hasLeft(order)) return guestIsGone();
  if (cup.status === 'served' || cup.status === 'cancelled')
    return refuse('cup-not-ready', 'cup.cupId', `This cup cannot be changed any more; it is ${cup.status}.`);
  const before = asksOf(order).find(({ cupId }) => cupId === cup.cupId)!;
  if (!brewAlike(before, event.cup)) {
    const refusal = cannotBrewOtherwise(state, cup, event.cup, book);
    if (refusal) return refusal;
  }
  return accept(withOrder(state, reshaped({ ...order, events: [...order.events, event] })));
}

function cannotBrewOtherwise(
  state: BarState,
  cup: CupState,
  wanted: CupAsk,
  book: RecipeBook,
): Applied | null {
  if (cup.status !== 'waiting')
    return refuse(
      'cup-not-ready',
      'cup.cupId',
      'This cup is being brewed. Stop its brew or give it to another guest, and change the cup then.',
    );
  if (sharersOf(state, cup).length > 0) return refuse('cup-not-ready', 'cup.cupId', SHARED);
  if (wanted.with)
    return refuse(
      'cup-not-ready',
      'cup.with',
      'A cup that is changed has a brew of its own. Leave out which brew it shares.',
    );
  const made = makeCard(book, wanted, askOf(wanted));
  return made.ok ? null : refuse(made.code, `cup.${made.field}`, made.reason);
}

export function cancelCup(state: BarState, event: CupCancelled): Applied {
  const found = findCup(state, event);
  if (!found.ok) return found;
  const { order, cup } = found;
  if (cup.status !== 'waiting')
    return refuse(
      'cup-not-ready',
      'cupId',
      `Only a cup that waits can be cancelled; this one is ${cup.status}. Give its brew up first.`,
    );
  if (sharersOf(state, cup).some(({ status }) => status === 'waiting'))
    return refuse('cup-not-ready', 'cupId', SHARED);
  return happened(state, order, event);
}

export function remakeCup(state: BarState, event: CupRemade): Applied {
  const found = findCup(state, event);
  if (!found.ok) return found;
  const { order, cup } = found;
  if (cup.status !== 'served')
    return refuse('cup-not-ready', 'cupId', `Only a served cup can be remade; this one is ${cup.status}.`);
  if (hasLeft(order)) return guestIsGone();
  if (latestBrew(state, cup)?.id !== event.brewId)
    return refuse('cup-not-ready', 'brewId', 'The cup has been brewed again since.');
  return happened(state, order, event);
}

export function fetchCups(state: BarState, event: CupsFetched): Applied {
  const order = ownEntry(state.orders, event.orderId);
  if (!order) return noSuchOrder();
  for (const cupId of event.cupIds) {
    const cup = order.cups.find((each) => each.cupId === cupId);
    if (!cup) return refuse('unknown', 'cupIds', 'There is no such cup in this order.');
    if (cup.status !== 'served')
      return refuse(
        'cup-not-ready',
        'cupIds',
        `Only a cup that is out can be fetched; one is ${cup.status}.`,
      );
    if (isFetched(state, cup)) return refuse('already-done', 'cupIds', 'This cup has been fetched already.');
  }
  return happened(state, order, event);
}

/** Cups go to another order with everything that was done for them; where there is none of that name, it is split off. */
export function moveCups(state: BarState, event: CupsMoved): Applied {
  const from = ownEntry(state.orders, event.orderId);
  if (!from) return noSuchOrder();
  const to = ownEntry(state.orders, event.toOrderId);
  if (to === from) return refuse('not-fitting', 'toOrderId', 'The cups are in this order already.');
  const refusal = cannotMove(state, from, event);
  if (refusal) return refusal;
  if (to && hasLeft(to)) return guestIsGone();
  if (to && standing(to) + event.cups.length > MOST_CUPS_OF_AN_ORDER) return tooLarge('cups');
  if (!to && event.cups.length === from.cups.length)
    return refuse('not-fitting', 'cups', 'A new order takes some of the cups, and not all of them.');
  const goes = new Set(event.cups.map(({ cupId }) => cupId));
  const cups = from.cups.filter(({ cupId }) => goes.has(cupId));
  const brews = Object.values(state.brews)
    .filter(({ cupId, orderId }) => orderId === from.id && goes.has(cupId))
    .map((brew) => fold({ ...brew, events: [...brew.events, event] }));
  const opened: OrderState = to ?? {
    id: event.toOrderId,
    ...(event.name === undefined ? {} : { name: event.name }),
    badge: newBadge(state, {}),
    badgeBefore: state.lastBadge,
    takenMs: from.takenMs,
    ...(from.promisedMs === undefined ? {} : { promisedMs: from.promisedMs }),
    ...(from.expectedMs === undefined ? {} : { expectedMs: from.expectedMs }),
    ...(from.inQueue === undefined ? {} : { inQueue: from.inQueue }),
    cups: [],
    events: [],
  };
  const joined = reshaped({ ...opened, events: [...opened.events, event] }, cups);
  const rest = reshaped({ ...from, events: [...from.events, event] });
  const next = withOrder(withOrder(withBrews(state, brews), joined), rest);
  return accept(to ? next : { ...next, lastBadge: opened.badge });
}

function cannotMove(state: BarState, from: OrderState, event: CupsMoved): Applied | null {
  const asks = asksOf(from);
  const seen = new Set<string>();
  for (const [index, cup] of event.cups.entries()) {
    const at = `cups.${index}`;
    const stands = from.cups.find(({ cupId }) => cupId === cup.cupId);
    if (!stands || seen.has(cup.cupId)) return refuse('unknown', at, 'There is no such cup in this order.');
    seen.add(cup.cupId);
    if (stands.status === 'cancelled')
      return refuse('cup-not-ready', at, 'A cancelled cup stays in its order.');
    if (stands.with || sharersOf(state, stands).length > 0)
      return refuse('cup-not-ready', at, 'A cup that shares a brew with another order stays in its order.');
    const ask = asks.find(({ cupId }) => cupId === cup.cupId)!;
    if (!isSame(ask, cup))
      return refuse('cup-not-ready', at, 'The cup has been changed since. Look at it and move it again.');
  }
  return null;
}

const isSame = (a: CupAsk, b: CupAsk): boolean => {
  const sorted = (cup: CupAsk) => JSON.stringify(Object.entries(cup).sort(([x], [y]) => (x < y ? -1 : 1)));
  return sorted(a) === sorted(b);
};
