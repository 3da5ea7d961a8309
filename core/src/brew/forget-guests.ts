/**
 * Names and words of guests are needed while their cups are made, and for the time in which a cup may come back. After
 * that they are forgotten; what was brewed stays.
 */
import type { RecipeBook } from '../recipe';
import type { Applied } from './applied';
import type { BarEvent, BrewEvent } from './events';
import type { CupAsk, OrderEvent } from './order-events';
import { apply } from './reduce';
import { closedSinceMs, type BarState, type CupState, type OrderState } from './state';

/** How long a closed order keeps them in the live state, milliseconds: for so long a cup may still come back. */
const KEPT_AFTER_MS = 3600 * 1000;

/** The events that hold a guest's name or words. */
export const GUEST_EVENTS = [
  'order-taken',
  'order-renamed',
  'cup-added',
  'cup-changed',
  'cups-moved',
] as const satisfies BarEvent['type'][];

function withoutWords<Cup extends CupAsk | CupState>(cup: Cup): Cup {
  const { allergy: _a, note: _n, ...rest } = cup;
  return rest as Cup;
}

const hasWords = ({ allergy, note }: CupAsk): boolean => allergy !== undefined || note !== undefined;

/** Whether an event holds a guest's name, or words about their cup. */
export function namesGuest(event: BarEvent): boolean {
  switch (event.type) {
    case 'order-taken':
    case 'cups-moved':
      return event.name !== undefined || event.cups.some(hasWords);
    case 'order-renamed':
      return event.name !== undefined;
    case 'cup-added':
    case 'cup-changed':
      return hasWords(event.cup);
    default:
      return false;
  }
}

/** The event without the guest's name and words; the same object where it has none. */
export function withoutGuest<Event extends BarEvent>(event: Event): Event;
export function withoutGuest(event: BarEvent): BarEvent {
  if (!namesGuest(event)) return event;
  if (event.type === 'order-taken' || event.type === 'cups-moved') {
    const { name: _name, ...rest } = event;
    return { ...rest, cups: event.cups.map(withoutWords) };
  }
  if (event.type === 'order-renamed') {
    const { name: _name, ...rest } = event;
    return rest;
  }
  if (event.type === 'cup-added' || event.type === 'cup-changed')
    return { ...event, cup: withoutWords(event.cup) };
  return event;
}

function forgotten(order: OrderState): OrderState {
  const { name: _name, ...rest } = order;
  return {
    ...rest,
    cups: order.cups.map(withoutWords),
    events: order.events.map((event: OrderEvent) => withoutGuest(event)),
  };
}

/** The state without the names and words of guests whose orders were closed an hour before a time. */
export function forgetGuests(state: BarState, atMs: number): BarState {
  const gone = Object.values(state.orders).filter(
    (order) => order.events.some(namesGuest) && closedSinceMs(state, order) < atMs - KEPT_AFTER_MS,
  );
  if (gone.length === 0) return state;
  const ids = new Set(gone.map(({ id }) => id));
  const brews = Object.values(state.brews)
    .filter((brew) => ids.has(brew.orderId) && brew.events.some(namesGuest))
    .map((brew) => ({ ...brew, events: brew.events.map((event: BrewEvent) => withoutGuest(event)) }));
  return {
    ...state,
    orders: { ...state.orders, ...Object.fromEntries(gone.map((order) => [order.id, forgotten(order)])) },
    brews: { ...state.brews, ...Object.fromEntries(brews.map((brew) => [brew.id, brew])) },
  };
}

/**
 * Applies an event of the log, on the server and on every copy. With each new order, guests who left long ago are
 * forgotten, so that all copies that have heard the same log forget the same.
 */
export function applyLogged(state: BarState, event: BarEvent, book: RecipeBook): Applied {
  const applied = apply(state, event, book);
  if (!applied.ok || event.type !== 'order-taken') return applied;
  return { ok: true, state: forgetGuests(applied.state, event.atMs) };
}
