/**
 * Reads events from the table. Nearly all fit today's schema; what older versions allowed is upgraded to it, so that a
 * bar and its archive are the same.
 */
import { namesGuest, withoutGuest, type BarEvent } from '@even-kettle/core/brew';
import { readStoredEvent } from '@even-kettle/core/contract';
import { canonical } from './canonical';

/** What is upgraded: pairs of hands numbered from 1, fractions of a millisecond, impossible times, readings of kilograms, escaped characters in a name. */
const OLD_WAYS = /"hands":\d|Ms":(-|\d+\.|\d+e|\d{14})|"readingG":(-|[3-9]\d{3}|\d{5})|\\[nrtbfu]/;

/** @throws Error if this version does not know the event */
export function eventOfBody(body: string): BarEvent {
  if (OLD_WAYS.test(body)) return readStoredEvent(JSON.parse(body));
  const event = JSON.parse(body) as BarEvent;
  const isEvent = typeof event === 'object' && event !== null && typeof event.type === 'string';
  return isEvent && Number.isInteger(event.atMs) && typeof event.id === 'string'
    ? event
    : readStoredEvent(event);
}

/** The body for an archive; null if it cannot be read. */
export function bodyForArchive(body: string, withoutGuests = false): string | null {
  try {
    const event = eventOfBody(body);
    if (withoutGuests && namesGuest(event)) return canonical(withoutGuest(event));
    return OLD_WAYS.test(body) ? canonical(event) : body;
  } catch {
    return null;
  }
}
