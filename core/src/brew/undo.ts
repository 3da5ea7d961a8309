/**
 * Taking an event back, as if it had not been.
 */
import { accept, refuse, type Applied } from './applied';
import { fold, withBrew, withOrder } from './fold';
import { brewAt, holdsStation, type BarState, type BrewState, type OrderState } from './state';

/** Only the latest thing said of a brew or an order can be taken back, and only while nothing else stands on it. */
export function undo(state: BarState, eventId: string): Applied {
  const brew = Object.values(state.brews).find(({ events }) => events.some(({ id }) => id === eventId));
  if (brew) return undoInBrew(state, brew, eventId);
  const order = Object.values(state.orders).find(({ events }) => events.some(({ id }) => id === eventId));
  if (order) return undoInOrder(state, order, eventId);
  return refuse('not-undoable', 'eventId', 'There is nothing on the bar now that this event did.');
}

function undoInBrew(state: BarState, brew: BrewState, eventId: string): Applied {
  const last = brew.events.at(-1)!;
  if (last.id !== eventId)
    return refuse('not-undoable', 'eventId', 'Something was done to this brew since; undo that first.');
  const order = state.orders[brew.orderId]!;
  const cup = order.cups.find(({ cupId }) => cupId === brew.cupId)!;
  const sentBack = order.events.some((event) => event.type === 'cup-remade' && event.brewId === brew.id);
  // Cleaning is the station's affair; what was done for the cup stands once the cup has gone its own way.
  const newerBrew = cup.brewIds.at(-1) !== brew.id;
  const goneOn =
    (last.type === 'brew-served' && (newerBrew || sentBack)) ||
    (last.type === 'brew-abandoned' && (newerBrew || cup.status === 'cancelled'));
  if (goneOn) {
    return refuse('not-undoable', 'eventId', 'The cup has been sent back, cancelled or brewed again since.');
  }
  if (last.type === 'brew-started') {
    const { [brew.id]: _gone, ...brews } = state.brews;
    return accept(
      withOrder(
        { ...state, brews },
        {
          ...order,
          cups: order.cups.map((each) => ({ ...each, brewIds: each.brewIds.filter((id) => id !== brew.id) })),
        },
      ),
    );
  }
  const before = fold({ ...brew, events: brew.events.slice(0, -1) });
  const holder = brewAt(state, brew.stationId);
  if (holdsStation(before) && holder && holder.id !== brew.id) {
    return refuse('not-undoable', 'eventId', `${brew.stationName} has been taken by another brew since.`);
  }
  return accept(withBrew(state, before));
}

function undoInOrder(state: BarState, order: OrderState, eventId: string): Applied {
  const last = order.events.at(-1)!;
  if (last.id !== eventId)
    return refuse('not-undoable', 'eventId', 'Something was done to this order since; undo that first.');
  if (last.type === 'order-taken') {
    if (order.cups.some((cup) => cup.brewIds.length > 0))
      return refuse('not-undoable', 'eventId', 'A cup of this order is being brewed; undo that first.');
    const { [order.id]: _gone, ...orders } = state.orders;
    const lastBadge = state.lastBadge === order.badge ? order.badgeBefore : state.lastBadge;
    return accept({ ...state, orders, lastBadge });
  }
  if (
    last.type === 'cup-remade' &&
    order.cups.find(({ cupId }) => cupId === last.cupId)?.brewIds.at(-1) !== last.brewId
  ) {
    return refuse('not-undoable', 'eventId', 'The cup is being brewed again already; undo that first.');
  }
  return accept(withOrder(state, { ...order, events: order.events.slice(0, -1) }));
}
