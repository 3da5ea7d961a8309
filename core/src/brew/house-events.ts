/**
 * What is said of the bar's things, and what of it still matters: the latest weighing of a coffee, the latest boiling of
 * a cloth. What a later one has taken the place of is let go, so that a year of mornings does not stay in memory.
 */
import type { HouseEvent } from './events';

/** Changes that were tried and sample rounds are looked back at for so long, milliseconds. */
const LOOKED_BACK_MS = 90 * 86_400_000;

/** Whose place a later event of this kind takes; null where each stands for itself. */
function placeOf(event: HouseEvent): string | null {
  switch (event.type) {
    case 'coffee-weighed':
      return `weighed ${event.coffee}`;
    case 'papers-counted':
      return `counted ${event.method}`;
    case 'cloth-boiled':
      return `boiled ${event.clothId}`;
    case 'cloth-replaced':
      return `replaced ${event.clothId}`;
    default:
      return null;
  }
}

/**
 * Without what no longer matters. A thing stays while the one that took its place could still be taken back.
 * @param beforeMs nothing older than this is taken back any more, bar time
 * @returns the same list where nothing goes
 */
export function lastingHouseEvents(events: readonly HouseEvent[], beforeMs: number): readonly HouseEvent[] {
  const overtaken = new Set<string>();
  const gone = new Set<string>();
  for (const event of events.toReversed()) {
    const place = placeOf(event);
    if (place === null) {
      if (event.atMs < beforeMs - LOOKED_BACK_MS) gone.add(event.id);
    } else if (overtaken.has(place)) gone.add(event.id);
    else if (event.atMs < beforeMs) overtaken.add(place);
  }
  return gone.size === 0 ? events : events.filter(({ id }) => !gone.has(id));
}
