/**
 * Takes an event back, as if it had never happened.
 */
import { accept, refuse, type Applied } from './applied';
import { isRemark, type BrewGiven } from './events';
import { fold, withBrew, withOrder, withoutOrder, withoutStarted } from './fold';
import { exchangeCups } from './reassign';
import { brewAt, holdsStation, type BarState, type BrewState, type OrderState } from './state';

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
  return refuse('not-undoable', 'eventId', 'There is nothing on the bar now that this event did.');
}

function undoInBrew(state: BarState, brew: BrewState, eventId: string): Applied {
  const event = brew.events.find(({ id }) => id === eventId)!;
  const stands = isRemark(event) || brew.events.findLast((each) => !isRemark(each))?.id === eventId;
  if (!stands)
    return refuse('not-undoable', 'eventId', 'Something was done to this brew since; undo that first.');
  if (event.type === 'brew-given') return undoGiving(state, event);
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
    (event.type === 'brew-abandoned' && (newerBrew || triedAgain || cup.status === 'cancelled'));
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

const without = (brew: BrewState, eventId: string): BrewState =>
  fold({ ...brew, events: brew.events.filter(({ id }) => id !== eventId) });

/** Both brews go back to their cups, unless one of them has gone on. */
function undoGiving(state: BarState, event: BrewGiven): Applied {
  const ids = [event.brewId, ...(event.otherBrewId === undefined ? [] : [event.otherBrewId])];
  const brews = ids.map((id) => state.brews[id]);
  const still = brews.every((brew) => brew?.events.findLast((each) => !isRemark(each))?.id === event.id);
  const [from] = state.orders[event.fromOrderId]?.cups.filter(({ cupId }) => cupId === event.fromCupId) ?? [];
  const free = event.otherBrewId !== undefined || from?.status === 'waiting';
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

function undoInOrder(state: BarState, order: OrderState, eventId: string): Applied {
  const last = order.events.at(-1)!;
  if (last.id !== eventId)
    return refuse('not-undoable', 'eventId', 'Something was done to this order since; undo that first.');
  if (last.type === 'order-taken') {
    if (order.cups.some((cup) => cup.attempts.length > 0))
      return refuse('not-undoable', 'eventId', 'A cup of this order is being brewed; undo that first.');
    if (order.cups.some((cup) => cup.with && cup.status !== 'waiting' && cup.status !== 'cancelled'))
      return refuse('not-undoable', 'eventId', 'A cup of this order is in a brew that is under way.');
    const shared = Object.values(state.orders).some(({ cups }) =>
      cups.some((cup) => cup.with?.orderId === order.id),
    );
    if (shared)
      return refuse('not-undoable', 'eventId', 'Another order shares a brew of this one; undo that first.');
    const lastBadge = state.lastBadge === order.badge ? order.badgeBefore : state.lastBadge;
    return accept({ ...withoutOrder(state, order.id), lastBadge });
  }
  // A cup that shared a brew has no brew until it is brewed again.
  const since =
    last.type === 'cup-remade' && order.cups.find(({ cupId }) => cupId === last.cupId)?.brewIds.at(-1);
  if (last.type === 'cup-remade' && since && since !== last.brewId)
    return refuse('not-undoable', 'eventId', 'The cup is being brewed again already; undo that first.');
  return accept(withOrder(state, { ...order, events: order.events.slice(0, -1) }));
}
