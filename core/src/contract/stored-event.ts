/**
 * Upgrades events that older versions stored to today's schema. Stricter rules for new events must not make an old log
 * unreadable.
 */
import type { BarEvent } from '../brew';
import { barEventSchema } from './events';
import { LATEST_MS } from './words';

/** A reading above this is no pour: a hand leant on the scale. */
const READING_MAX_G = 3000;

/**
 * A stored event in today's schema: whole milliseconds, readings that a scale under a brewer can show, and single lines
 * of text.
 * @throws ZodError if this version does not know the event
 */
export function readStoredEvent(stored: unknown): BarEvent {
  const event = upgradedEvent(stored);
  const read = barEventSchema.safeParse(event);
  return read.success ? read.data : barEventSchema.parse(mended(event));
}

/**
 * An event as an earlier version of the app writes it, in today's form; anything else as it is. A device that was away while
 * the server was upgraded posts such events, and the log has them.
 */
export function upgradedEvent(said: unknown): unknown {
  if (typeof said !== 'object' || said === null) return said;
  const { hands, ...event } = said as { type?: unknown; hands?: unknown };
  // Before pairs of hands were numbered from 0, `step-taken` named them 1 and 2.
  return event.type === 'step-taken' && typeof hands === 'number' ? { ...event, pair: hands - 1 } : said;
}

function mended(value: unknown, key = ''): unknown {
  if (Array.isArray(value)) return value.map((each) => mended(each));
  if (typeof value === 'string') return oneLine(value);
  if (typeof value === 'number') {
    if (key.endsWith('Ms')) return Math.min(LATEST_MS, Math.max(0, Math.round(value)));
    return key === 'readingG' ? Math.min(READING_MAX_G, Math.max(0, value)) : value;
  }
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, mended(inner, name)]));
}

/** Text without ends of lines and other control characters, and no space around it. */
export const oneLine = (text: string): string => text.replace(/\p{Cc}+/gu, ' ').trim();
