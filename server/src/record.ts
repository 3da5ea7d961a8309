/**
 * The record that a finished brew leaves: planned against real. A projection of the log; nothing in it is typed twice.
 */
import type { BrewRecord } from '@even-kettle/core/contract';
import { anchorMs, brewTimeMs, timelineAt, type BarState, type BrewState } from '@even-kettle/core/brew';

/** The record of a brew that is served or given up; null while it is running. */
export function recordOf(state: BarState, brew: BrewState): BrewRecord | null {
  const order = state.orders[brew.orderId];
  const endedMs = brew.servedMs ?? brew.abandoned?.atMs;
  if (!order || endedMs === undefined) return null;
  const { card, ask } = brew;
  const times = timelineAt(brew, brew.lastMs);
  const zeroMs = anchorMs(brew, brew.lastMs);
  const fromZeroS = (atMs: number) => (zeroMs === null ? null : tenth((atMs - zeroMs) / 1000));
  const brewMs = brewTimeMs(brew);
  const lastPour = card.steps.findLast((step) => step.targetG !== undefined);
  return {
    brewId: brew.id,
    badge: order.badge,
    coffee: ask.coffee,
    recipeId: ask.recipeId,
    recipeVersion: ask.recipeVersion,
    method: card.method,
    stationName: brew.stationName,
    outcome: brew.abandoned ? 'abandoned' : 'served',
    reason: brew.abandoned?.reason ?? null,
    cupMl: ask.cupMl,
    doseG: card.doseG,
    brewWaterG: card.brewWaterG,
    pouredG: (lastPour && brew.marks[lastPour.id]?.readingG) ?? null,
    plannedBrewS: card.brewTimeS,
    windowFromS: card.brewWindowS.from,
    windowToS: card.brewWindowS.to,
    realBrewS: brewMs === null ? null : tenth(brewMs / 1000),
    orderedMs: order.takenMs,
    startedMs: brew.startedMs,
    endedMs,
    steps: times
      .filter((time) => time.step.phase === 'brew')
      .map(({ step, status, startMs, endMs }) => ({
        id: step.id,
        name: step.name,
        attended: step.attended,
        plannedStartS: step.startS,
        realStartS: status === 'done' ? fromZeroS(startMs) : null,
        realEndS: status === 'done' ? fromZeroS(endMs) : null,
        targetG: step.targetG ?? null,
        readingG: brew.marks[step.id]?.readingG ?? null,
      })),
  };
}

const tenth = (value: number): number => Math.round(value * 10) / 10;
