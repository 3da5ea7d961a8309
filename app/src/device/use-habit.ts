/**
 * What the person at this device is known to do, from the brews that the page knows (the last hour's).
 */
import { useMemo } from 'react';
import { habitOf, type Habit } from '@even-kettle/core/learn';
import { useDevice } from './settings';
import { useBar } from '../client/bar-context';

export function useHabit(stationId: string): Habit {
  const { state } = useBar();
  const { person } = useDevice();
  return useMemo(
    () => habitOf(Object.values(state.brews), person ?? undefined, stationId),
    [state.brews, person, stationId],
  );
}
