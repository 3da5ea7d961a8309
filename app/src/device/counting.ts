/**
 * Counting into a pour's target, so that eyes stay on the bed: "twenty, ten, stop". With a scale by what it reads, without
 * one by the recipe's flow from the tap that began the pour. Hands that stop late are told to stop as much earlier.
 */
import { paceOf } from '@even-kettle/core/brew';
import type { AgendaItem } from '@even-kettle/core/plan';

export const COUNTS = ['twenty', 'ten', 'stop'] as const;
export type Count = (typeof COUNTS)[number];

/** Grams that are left when it is counted. */
const LEFT_G: Record<Count, number> = { twenty: 20, ten: 10, stop: 0 };
/** Two counts in less than this cannot be told apart, seconds: the first of them is left out. */
const APART_S = 0.9;

export type Pouring = {
  /** What is in by now, grams: read, or by the clock. */
  inG: number;
  /** Where to stop: the target, less what these hands overrun. */
  stopAtG: number;
  /** What this pour began at, so that a small pour is not counted from before its start. */
  fromG: number;
  flowGPerS: number;
};

/** The latest count that has come; null before the first. */
export function countAt({ inG, stopAtG, fromG, flowGPerS }: Pouring): Count | null {
  return (
    COUNTS.findLast(
      (count) =>
        inG >= stopAtG - LEFT_G[count] &&
        // "Twenty" for a pour of fifteen, or where "stop" follows too soon, would only confuse.
        (count === 'stop' || (stopAtG - LEFT_G[count] > fromG && LEFT_G.ten / flowGPerS >= APART_S)),
    ) ?? null
  );
}

/**
 * The pour that is under way and what is in by now; null where none is, or where nothing tells when it began.
 * @param readingG what the scale reads, where there is one
 */
export function pouringOf(
  { step, asks, begunMs }: Pick<AgendaItem, 'step' | 'asks' | 'begunMs'>,
  nowMs: number,
  readingG: number | null,
  leadG: number,
): Pouring | null {
  const { targetG, pourG = 0, flowGPerS } = step;
  if (asks !== 'finish' || begunMs === null || targetG === undefined || !flowGPerS) return null;
  const pace = paceOf(step, (nowMs - begunMs) / 1000);
  if (!pace) return null;
  return {
    inG: readingG ?? pace.shouldG,
    stopAtG: targetG - leadG,
    fromG: targetG - pourG,
    flowGPerS,
  };
}
