/**
 * What happens at the bar, said by a screen: the event's id, its time and whose hands it was are added here.
 */
import { useCallback } from 'react';
import type { BarEvent } from '@even-kettle/core/brew';
import { newId, useHere } from '../client/bar-context';
import { useDevice } from './settings';

type Unsigned<Event> = Event extends BarEvent ? Omit<Event, 'id' | 'atMs' | 'by'> : never;
/** An event before it has its id, its time and its person. */
export type NewEvent = Unsigned<BarEvent>;

/** One that has its own id and time already (a brew's start) keeps them. Takes events all at once or not at all; false where the bar's rules refuse them. A label lets the tap be undone. */
export function useAct(): (events: readonly NewEvent[], label?: string) => boolean {
  const { store, clock } = useHere();
  const { person } = useDevice();
  return useCallback(
    (events, label) => {
      const atMs = clock.nowMs();
      const signed = events.map((event): BarEvent => ({
        id: newId(),
        atMs,
        ...(person === null ? {} : { by: person }),
        ...event,
      }));
      return store.act(signed, label);
    },
    [store, clock, person],
  );
}
