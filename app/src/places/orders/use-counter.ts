/** What the counter knows while cups are asked for. */
import { useMemo } from 'react';
import type { Bar } from '@even-kettle/core/contract';
import { useBar, useHere, useUnits } from '../../client/bar-context';
import { recipesOn, type Counter } from '../../parts/orders/cup-draft';

const HOUR_MS = 3_600_000;

export function useCounter(bar: Bar): Counter {
  const { clock } = useHere();
  const { recipes, book } = useBar();
  const units = useUnits();
  const menu = useMemo(() => recipesOn(bar, recipes), [bar, recipes]);
  // A coffee's age is known to the hour: finer, and nothing that is worked out from it could be kept.
  const hour = Math.floor(clock.nowMs() / HOUR_MS);
  return useMemo(() => ({ bar, menu, book, units, nowMs: hour * HOUR_MS }), [bar, menu, book, units, hour]);
}
