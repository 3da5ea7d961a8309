/**
 * Brews that wait for a tap that is long overdue. A plan can only reckon with that tap's coming at once, so what waits for it has
 * no time that could be told.
 */
import { brewAt, latestBrew, timelineAt, type BarState, type BrewState, type OrderState } from '../../brew';
import type { Standing } from './quote';
import { waysInTurn } from './turn';

export type Overdue = { brewId: string; stationName: string; byMs: number };

/** Later than any hand is that only comes late, milliseconds. */
const OVERDUE_MS = 120_000;

/** How long ago the step that a brew is at should have been over, counting all that its recipe forgives; null where nothing is overdue. */
function overdueBy(brew: BrewState, nowMs: number): number | null {
  if (brew.status !== 'running') return null;
  const times = timelineAt(brew, nowMs);
  const at = times.findIndex(({ status }) => status === 'running' || status === 'waiting');
  const time = times[at];
  if (!time) return null;
  const before = times[at - 1];
  const { maxS } = time.step.lag;
  const isForgiven = time.status === 'waiting' && (maxS === null || before === undefined);
  if (isForgiven) return null;
  const latestMs = time.status === 'running' ? time.startMs : before!.endMs + maxS! * 1000;
  const byMs = nowMs - latestMs - time.step.durationS * 1000;
  return byMs > OVERDUE_MS ? byMs : null;
}

/** Every brew that is overdue, the most first. */
export const overdueBrews = (state: BarState, nowMs: number): Overdue[] =>
  Object.values(state.brews)
    .flatMap((brew) => {
      const byMs = overdueBy(brew, nowMs);
      return byMs === null ? [] : [{ brewId: brew.id, stationName: brew.stationName, byMs }];
    })
    .sort((a, b) => b.byMs - a.byMs);

/** What an order waits for that is overdue: a brew of its own, or one that holds the last place at which it could be brewed. */
export function overdueFor(
  order: OrderState,
  { state, bench, book }: Pick<Standing, 'state' | 'bench' | 'book'>,
  overdue: readonly Overdue[],
): Overdue | null {
  if (overdue.length === 0) return null;
  const ways = waysInTurn(state, bench, book);
  const brewIds = order.cups.flatMap((cup) => {
    if (cup.status === 'brewing') return [latestBrew(state, cup)?.id];
    const way = cup.status === 'waiting' ? ways.get(cup.cupId) : undefined;
    const held = way && 'card' in way ? way.stations.map(({ id }) => brewAt(state, id)?.id) : [];
    return held.includes(undefined) ? [] : held;
  });
  return overdue.find(({ brewId }) => brewIds.includes(brewId)) ?? null;
}
