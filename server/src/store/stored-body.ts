/**
 * Events as they stand in the table. Nearly all are as today's schema has them; what older versions let in is brought to
 * it when it is read, so that a bar and its archive are the same.
 */
import type { BarEvent } from '@even-kettle/core/brew';
import { readStoredEvent } from '@even-kettle/core/contract';
import { canonical } from './canonical';

/** Pairs of hands numbered from 1, fractions of a millisecond, times after any bar's, readings of kilograms, and escaped characters in a name. */
const OLD_WAYS = /"hands":\d|Ms":(-|\d+\.|\d+e|\d{14})|"readingG":(-|[3-9]\d{3}|\d{5})|\\[nrtbfu]/;

/** @throws Error where it is no event that this version knows */
export function eventOfBody(body: string): BarEvent {
  if (OLD_WAYS.test(body)) return readStoredEvent(JSON.parse(body));
  const event = JSON.parse(body) as BarEvent;
  const isEvent = typeof event === 'object' && event !== null && typeof event.type === 'string';
  return isEvent && Number.isInteger(event.atMs) && typeof event.id === 'string'
    ? event
    : readStoredEvent(event);
}

/** The body as an archive has it; null where it cannot be read. */
export function bodyForArchive(body: string): string | null {
  try {
    const event = eventOfBody(body);
    return OLD_WAYS.test(body) ? canonical(event) : body;
  } catch {
    return null;
  }
}
