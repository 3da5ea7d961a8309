/**
 * Names and words of guests are needed while their cups are made, and for the time in which a cup may come back. After
 * that they are forgotten; what was brewed stays.
 */
import type { BarEvent, BrewEvent } from './events';
import type { CupAsk, OrderEvent } from './order-events';
import type { BrewState, CupState, OrderState } from './state';

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

/** The order without its guest's name and words. */
export function forgottenOrder(order: OrderState): OrderState {
  if (!order.events.some(namesGuest)) return order;
  const { name: _name, ...rest } = order;
  return {
    ...rest,
    cups: order.cups.map(withoutWords),
    events: order.events.map((event: OrderEvent) => withoutGuest(event)),
  };
}

/** The brew without the words of its guests: cups that went over took them along. */
export function forgottenBrew(brew: BrewState): BrewState {
  if (!brew.events.some(namesGuest)) return brew;
  return { ...brew, events: brew.events.map((event: BrewEvent) => withoutGuest(event)) };
}
