/**
 * Events about the bar's things that still matter: the latest weighing of a coffee, the latest boiling of a cloth. Events
 * that a later one replaced are dropped, so that memory does not grow over a year.
 */
import type { HouseEvent } from './events';

const DAY_MS = 86_400_000;

/** How long events of a type matter, milliseconds; where they have a place, until a later event takes it, however long that is. */
type Keeps<Type extends HouseEvent['type']> = {
  forMs: number;
  replacementKey?: (event: Extract<HouseEvent, { type: Type }>) => string | null;
};

/** Every type says how long it is kept: the compiler asks for a new one. */
const KEEPS: { [Type in HouseEvent['type']]: Keeps<Type> } = {
  'coffee-weighed': { forMs: 90 * DAY_MS, replacementKey: ({ coffee }) => `weighed ${coffee}` },
  'papers-counted': { forMs: 90 * DAY_MS, replacementKey: ({ method }) => `counted ${method}` },
  'cloth-boiled': { forMs: 90 * DAY_MS, replacementKey: ({ clothId }) => `boiled ${clothId}` },
  'cloth-replaced': { forMs: 90 * DAY_MS, replacementKey: ({ clothId }) => `replaced ${clothId}` },
  'change-tried': { forMs: 90 * DAY_MS },
  'round-begun': { forMs: 90 * DAY_MS },
  'round-scored': { forMs: 90 * DAY_MS },
  'round-revealed': { forMs: 90 * DAY_MS },
  'made-ready': { forMs: DAY_MS },
  'tins-emptied': { forMs: DAY_MS },
  // What is due by litres is due from when it was done last, however long ago.
  'task-done': {
    forMs: 2 * DAY_MS,
    replacementKey: ({ taskId }) => (taskId === 'descale' ? 'descaled' : null),
  },
  'shift-handed-over': { forMs: 7 * DAY_MS },
};

function keepsOf<Type extends HouseEvent['type']>(event: Extract<HouseEvent, { type: Type }>) {
  const keeps: Keeps<Type> = KEEPS[event.type as Type];
  return { forMs: keeps.forMs, place: keeps.replacementKey?.(event) ?? null };
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
    const { forMs, place } = keepsOf(event);
    if (place === null) {
      if (event.atMs < beforeMs - forMs) gone.add(event.id);
    } else if (overtaken.has(place)) gone.add(event.id);
    else if (event.atMs < beforeMs) overtaken.add(place);
  }
  return gone.size === 0 ? events : events.filter(({ id }) => !gone.has(id));
}
