/**
 * What a person's hands are known to do: how many grams late they stop, and how many seconds late they come. Medians of
 * the latest, so that one slip says nothing.
 */
import { timelineAt, type BrewState } from '../brew';
import { median } from './statistics';

export type Habit = {
  /** Grams that this person on this scale runs past where the card says stop; 0 until enough pours are known. */
  leadG: number;
  pours: number;
  /** Seconds that this person comes late to a step; 0 until enough steps are known. */
  lateS: number;
  steps: number;
};

/** Craft, "lead": the last ten pours. */
const POURS = 10;
const STEPS = 20;
/** Fewer than this say nothing yet. */
const FEWEST = 4;
/** Beyond this it is no habit but another fault: grams, seconds. */
const MOST_LEAD_G = 12;
const MOST_LATE_S = 12;

/**
 * @param by the person; undefined for bars that name nobody
 * @param stationId whose scale
 */
export function habitOf(brews: readonly BrewState[], by: string | undefined, stationId: string): Habit {
  const overs: { atMs: number; overG: number }[] = [];
  const lates: { atMs: number; lateS: number }[] = [];
  for (const brew of brews) {
    const whose = new Map(
      brew.events.flatMap((event) =>
        'stepId' in event && event.type === 'step-done' ? [[event.stepId, event.by]] : [],
      ),
    );
    let previousEndMs = brew.startedMs;
    for (const { step, status, endMs } of timelineAt(brew, brew.lastMs)) {
      if (status !== 'done') break;
      const mark = brew.marks[step.id];
      const theirs = mark?.doneMs !== undefined && whose.get(step.id) === by;
      if (
        theirs &&
        brew.stationId === stationId &&
        mark?.readingG !== undefined &&
        mark.targetG !== undefined
      )
        overs.push({ atMs: endMs, overG: mark.readingG - mark.targetG + (mark.leadG ?? 0) });
      if (theirs && step.phase === 'brew' && step.attended && step.anchor === undefined)
        lates.push({ atMs: endMs, lateS: (endMs - previousEndMs) / 1000 - step.lag.idealS - step.durationS });
      previousEndMs = endMs;
    }
  }
  const latest = <Item extends { atMs: number }>(items: Item[], most: number) =>
    items.sort((a, b) => b.atMs - a.atMs).slice(0, most);
  const pours = latest(overs, POURS).map(({ overG }) => overG);
  const steps = latest(lates, STEPS).map(({ lateS }) => lateS);
  return {
    leadG: pours.length < FEWEST ? 0 : within(Math.round(median(pours)), MOST_LEAD_G),
    pours: pours.length,
    lateS: steps.length < FEWEST ? 0 : within(Math.round(median(steps)), MOST_LATE_S),
    steps: steps.length,
  };
}

const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
