/**
 * Events about the bar's things that still matter: the latest weighing of a coffee, the latest boiling of a cloth. Events
 * that a later one replaced are dropped, so that memory does not grow over a year.
 */
import type { HouseEvent } from './events';

/** How long accepted changes and sample rounds are kept, milliseconds. */
const LOOKED_BACK_MS = 90 * 86_400_000;

/** What is about one day is kept for less, milliseconds. */
const OF_A_DAY_MS: Partial<Record<HouseEvent['type'], number>> = {
  'made-ready': 86_400_000,
  'tins-emptied': 86_400_000,
  'task-done': 2 * 86_400_000,
  'shift-handed-over': 7 * 86_400_000,
};

/** What a later event must share with this one to replace it; null if events of this type are never replaced. */
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
    case 'task-done':
      // What is due by litres is due from when it was done last, however long ago.
      return event.taskId === 'descale' ? 'descaled' : null;
    default:
      return null;
  }
}

/**
 * The list without events that no longer matter. A replaced event stays while its replacement can still be undone.
 * @param beforeMs events older than this can no longer be undone, bar time
 * @returns the same list if nothing was dropped
 */
export function lastingHouseEvents(events: readonly HouseEvent[], beforeMs: number): readonly HouseEvent[] {
  const overtaken = new Set<string>();
  const gone = new Set<string>();
  for (const event of events.toReversed()) {
    const place = placeOf(event);
    if (place === null) {
      if (event.atMs < beforeMs - (OF_A_DAY_MS[event.type] ?? LOOKED_BACK_MS)) gone.add(event.id);
    } else if (overtaken.has(place)) gone.add(event.id);
    else if (event.atMs < beforeMs) overtaken.add(place);
  }
  return gone.size === 0 ? events : events.filter(({ id }) => !gone.has(id));
}
