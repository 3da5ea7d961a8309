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

/** The id, the time and the person of something that is said now. */
export function useSign(): () => Pick<BarEvent, 'id' | 'atMs' | 'by'> {
  const { clock } = useHere();
  const { person } = useDevice();
  return useCallback(
    () => ({ id: newId(), atMs: clock.nowMs(), ...(person === null ? {} : { by: person }) }),
    [clock, person],
  );
}

/** One that has its own id and time already (a brew's start) keeps them. Takes events all at once or not at all; false where the bar's rules refuse them. A label lets the tap be undone. */
export function useAct(): (events: readonly NewEvent[], label?: string) => boolean {
  const { store } = useHere();
  const sign = useSign();
  return useCallback(
    (events, label) => {
      const { atMs } = sign();
      return store.act(
        events.map((event): BarEvent => ({ ...sign(), atMs, ...event })),
        label,
      );
    },
    [store, sign],
  );
}
