/**
 * Takes an event back, as if it had never happened.
 */
import { accept, refuse, type Applied } from './applied';
import { isRemark, type BrewGiven } from './events';
import { fold, withBrew, withBrews, withOrder, withoutOrder, withoutStarted } from './fold';
import { brewAlike, type CupAsk, type CupsMoved, type OrderEvent } from './order-events';
import { asksOf, nameOf, reshaped } from './order-fold';
import { exchangeCups } from './reassign';
import {
  brewAt,
  holdsStation,
  hostOf,
  sharersOf,
  type BarState,
  type BrewState,
  type CupState,
  type OrderState,
} from './state';

/** Only the latest event of a brew or an order can be undone, and only while no other event depends on it. */
export function undo(state: BarState, eventId: string): Applied {
  const brew = Object.values(state.brews).find(({ events }) => events.some(({ id }) => id === eventId));
  if (brew) return undoInBrew(state, brew, eventId);
  const order = Object.values(state.orders).find(({ events }) => events.some(({ id }) => id === eventId));
  if (order) return undoInOrder(state, order, eventId);
  if (state.away?.some(({ id }) => id === eventId)) {
    const { away, ...rest } = state;
    const left = away.filter(({ id }) => id !== eventId);
    return accept(left.length > 0 ? { ...rest, away: left } : rest);
  }
  if (state.houseEvents?.some(({ id }) => id === eventId)) {
    const { houseEvents, ...rest } = state;
    const left = houseEvents.filter(({ id }) => id !== eventId);
    return accept(left.length > 0 ? { ...rest, houseEvents: left } : rest);
  }
  return refuse(
    'not-undoable',
    'eventId',
    'Nothing is left to undo: what this event did is no longer on the bar.',
  );
}

function undoInBrew(state: BarState, brew: BrewState, eventId: string): Applied {
  const event = brew.events.find(({ id }) => id === eventId)!;
  const stands = isRemark(event) || brew.events.findLast((each) => !isRemark(each))?.id === eventId;
  if (!stands)
    return refuse('not-undoable', 'eventId', 'Something was done to this brew since; undo that first.');
  if (event.type === 'brew-given') return undoGiving(state, event);
  if (event.type === 'cups-moved') return undoMoving(state, event);
  const order = state.orders[brew.orderId]!;
  const cup = order.cups.find(({ cupId }) => cupId === brew.cupId)!;
  // Any cup that was poured out of it, of this order or another.
  const sentBack = Object.values(state.orders).some(({ events }) =>
    events.some((each) => each.type === 'cup-remade' && each.brewId === brew.id),
  );
  // Cleaning belongs to the station; what was done for a cup stays after the cup has been reassigned.
  const newerBrew = cup.brewIds.at(-1) !== brew.id;
  const triedAgain = cup.attempts.at(-1) !== brew.id;
  const goneOn =
    (event.type === 'brew-served' && (newerBrew || sentBack)) ||
    (event.type === 'brew-abandoned' && (newerBrew || triedAgain || isCancelled(order, cup)));
  if (goneOn) {
    return refuse('not-undoable', 'eventId', 'The cup has been sent back, cancelled or brewed again since.');
  }
  // Remarks on a brew that never began go with it.
  if (event.type === 'brew-started') return accept(withoutStarted(state, brew));
  const before = without(brew, eventId);
  const holder = brewAt(state, before.stationId);
  if (holdsStation(before) && holder && holder.id !== brew.id) {
    return refuse('not-undoable', 'eventId', `${before.stationName} has been taken by another brew since.`);
  }
  return accept(withBrew(state, before));
}

const isCancelled = ({ events }: OrderState, { cupId }: CupState): boolean =>
  events.some((event) => event.type === 'cup-cancelled' && event.cupId === cupId);

const without = (brew: BrewState, eventId: string): BrewState =>
  fold({ ...brew, events: brew.events.filter(({ id }) => id !== eventId) });

/** Both brews go back to their cups, unless one of them has gone on. */
function undoGiving(state: BarState, event: BrewGiven): Applied {
  const ids = [event.brewId, ...(event.otherBrewId === undefined ? [] : [event.otherBrewId])];
  const brews = ids.map((id) => state.brews[id]);
  // Cups that went to another order since know only that one.
  const still = brews.every(
    (brew) => brew?.events.findLast((each) => !isRemark(each) || each.type === 'cups-moved')?.id === event.id,
  );
  const order = state.orders[event.fromOrderId];
  const from = order?.cups.find(({ cupId }) => cupId === event.fromCupId);
  // It waits, or its guest has left; and it has not been brewed again since.
  const isFree =
    from !== undefined &&
    !from.attempts.some((id) => id !== event.brewId && cameSince(state.brews[id], from, event)) &&
    (from.status === 'waiting' || (from.status === 'cancelled' && !isCancelled(order!, from)));
  const free = event.otherBrewId !== undefined || isFree;
  if (!still || !free)
    return refuse('not-undoable', 'eventId', 'The brews have gone on with their new cups since.');
  return accept(
    exchangeCups(
      state,
      brews.map((brew) => without(brew!, event.id)),
      { ...event, from: event, to: { orderId: event.fromOrderId, cupId: event.fromCupId } },
      true,
    ),
  );
}

/** Whether a brew was begun for a cup, given to it or taken from it after an event. */
function cameSince(brew: BrewState | undefined, { cupId }: CupState, { atMs }: BrewGiven): boolean {
  return (brew?.events ?? []).some(
    (event) =>
      event.atMs > atMs &&
      ((event.type === 'brew-started' && event.cupId === cupId) ||
        (event.type === 'brew-given' && (event.cupId === cupId || event.fromCupId === cupId))),
  );
}

function undoInOrder(state: BarState, order: OrderState, eventId: string): Applied {
  const last = order.events.at(-1)!;
  if (last.id !== eventId) return goneOn('Something was done to this order since; undo that first.');
  const before = { ...order, events: order.events.slice(0, -1) };
  if (hostBegunSince(state, order, last))
    return goneOn('The brew that a cup of it shared has been begun without it; undo that first.');
  switch (last.type) {
    case 'order-taken': {
      const reason = order.cups.map((cup) => inUse(state, cup)).find((each) => each !== null);
      if (reason) return goneOn(reason);
      const lastBadge = state.lastBadge === order.badge ? order.badgeBefore : state.lastBadge;
      return accept({ ...withoutOrder(state, order.id), lastBadge });
    }
    case 'cup-added': {
      const reason = inUse(
        state,
        order.cups.find(({ cupId }) => cupId === last.cup.cupId)!,
      );
      return reason ? goneOn(reason) : accept(withOrder(state, reshaped(before)));
    }
    case 'cup-changed': {
      const cup = order.cups.find(({ cupId }) => cupId === last.cup.cupId)!;
      const earlier = asksOf(before).find(({ cupId }) => cupId === cup.cupId)!;
      if (!brewAlike(earlier, last.cup) && isBrewedBy(state, cup, last.cup))
        return goneOn('The cup has been brewed as it is now; undo that first.');
      if (!brewAlike(earlier, last.cup) && sharersOf(state, cup).length > 0)
        return goneOn('Another order shares its brew as it is now; undo that first.');
      return accept(withOrder(state, reshaped(before)));
    }
    case 'cup-remade': {
      // A cup that shared a brew has no brew until it is brewed again.
      const since = order.cups.find(({ cupId }) => cupId === last.cupId)?.brewIds.at(-1);
      if (since && since !== last.brewId)
        return goneOn('The cup is being brewed again already; undo that first.');
      const undone = withOrder(state, before);
      // Sent back, it may have gone to another guest’s cup, which has it again now.
      const { orderId } = state.brews[last.brewId] ?? {};
      const other = orderId === undefined ? undefined : undone.orders[orderId];
      return accept(other ? withOrder(undone, other) : undone);
    }
    case 'cups-moved':
      return undoMoving(state, last);
    case 'order-renamed': {
      const { name: _now, ...rest } = before;
      const name = nameOf(before.events);
      return accept(withOrder(state, name === undefined ? rest : { ...rest, name }));
    }
    default:
      return accept(withOrder(state, before));
  }
}

const goneOn = (reason: string): Applied => refuse('not-undoable', 'eventId', reason);

/** Whether a cup would share a brew again that was begun without it. */
function hostBegunSince(state: BarState, order: OrderState, event: OrderEvent): boolean {
  const isBack = (ask: CupAsk): boolean => {
    if (event.type === 'cup-cancelled') return event.cupId === ask.cupId;
    if (event.type === 'cup-changed') return event.cup.cupId === ask.cupId && event.cup.with === undefined;
    return event.type === 'guest-left';
  };
  return asksOf({ ...order, events: order.events.slice(0, -1) }).some((ask) => {
    const host = ask.with && isBack(ask) ? hostOf(state, { with: ask.with }) : undefined;
    return host?.attempts.some((id) => (state.brews[id]?.startedMs ?? 0) >= event.atMs) ?? false;
  });
}

/** Why a cup cannot be taken away again, as if it had never been asked for; null if it can. */
function inUse(state: BarState, cup: CupState): string | null {
  if (cup.attempts.length > 0) return 'A cup of this order is being brewed; undo that first.';
  // A brew is shared only before it is begun for the first time.
  if ((hostOf(state, cup)?.attempts.length ?? 0) > 0)
    return 'A cup of this order is in a brew that has been begun; undo that first.';
  const shared = Object.values(state.orders).some(({ cups }) =>
    cups.some((each) => each.with?.cupId === cup.cupId),
  );
  return shared ? 'Another order shares a brew of this one; undo that first.' : null;
}

/** Whether a brew of the cup was started with what it asks for now. */
const isBrewedBy = (state: BarState, cup: CupState, ask: CupAsk): boolean =>
  cup.attempts.some((id) => {
    const brew = state.brews[id];
    return brew !== undefined && brew.ask.cupId === cup.cupId && brewAlike(brew.ask, ask);
  });

/** The cups go back with what was done for them, unless one of them has a brew that knows only its new order. */
function undoMoving(state: BarState, event: CupsMoved): Applied {
  const [from, to] = [state.orders[event.orderId], state.orders[event.toOrderId]];
  if (from?.events.at(-1)?.id !== event.id || to?.events.at(-1)?.id !== event.id)
    return goneOn('Something was done to one of the two orders since; undo that first.');
  const moved = new Set(event.cups.map(({ cupId }) => cupId));
  const brews = Object.values(state.brews).filter(
    (brew) => moved.has(brew.cupId) || brew.events.some(({ id }) => id === event.id),
  );
  const isSince = ({ events }: BrewState) => {
    const at = events.findIndex(({ id }) => id === event.id);
    return at < 0 || events.slice(at).some(({ type }) => type === 'brew-given');
  };
  const shared = to.cups.some((cup) => moved.has(cup.cupId) && sharersOf(state, cup).length > 0);
  if (shared || brews.some(isSince))
    return goneOn('A cup has been brewed in its new order since; undo that first.');
  const cups = to.cups.filter(({ cupId }) => moved.has(cupId));
  const isSplit = to.events.length === 1;
  const back = withBrews(
    state,
    brews.map((brew) => without(brew, event.id)),
  );
  const rest = isSplit
    ? withoutOrder(back, to.id)
    : withOrder(back, reshaped({ ...to, events: to.events.slice(0, -1) }));
  const next = withOrder(rest, reshaped({ ...from, events: from.events.slice(0, -1) }, cups));
  const lastBadge = isSplit && state.lastBadge === to.badge ? to.badgeBefore : state.lastBadge;
  return accept({ ...next, lastBadge });
}
