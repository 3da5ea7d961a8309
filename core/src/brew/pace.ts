/**
 * The pace of a pour: what the scale should read at this second, and how far ahead or behind the hand is.
 */
import type { CardStep } from '../recipe';

export type Pace = {
  /** What the scale should read now, grams. */
  shouldG: number;
  /** The reading less that: above 0 ahead, below behind; null where no scale tells. */
  aheadG: number | null;
  /** Seconds to the end of the pour at its own flow. */
  leftS: number;
  /** From its start to its target, 0 to 1: where the reading should be, and where it is. */
  shouldShare: number;
  readShare: number | null;
};

/**
 * Linear at the recipe's flow; a pour with an opening goes at the opening's flow first.
 * @param forS seconds since the pour began; negative counts as not begun
 * @param readingG what the scale reads, where there is one
 */
export function paceOf(step: CardStep, forS: number, readingG: number | null = null): Pace | null {
  const { targetG, pourG, flowGPerS, opening } = step;
  if (targetG === undefined || pourG === undefined || !flowGPerS) return null;
  const fromG = targetG - pourG;
  const openingG = opening ? Math.max(0, opening.targetG - fromG) : 0;
  const openingS = opening ? openingG / opening.flowGPerS : 0;
  const inS = Math.max(0, forS);
  const inG = inS < openingS ? inS * opening!.flowGPerS : openingG + (inS - openingS) * flowGPerS;
  const shouldG = Math.min(targetG, fromG + inG);
  const share = (atG: number) => (pourG > 0 ? Math.min(1.15, Math.max(0, (atG - fromG) / pourG)) : 1);
  return {
    shouldG,
    aheadG: readingG === null ? null : Math.round((readingG - shouldG) * 10) / 10,
    leftS: Math.max(0, openingS + (pourG - openingG) / flowGPerS - inS),
    shouldShare: share(shouldG),
    readShare: readingG === null ? null : share(readingG),
  };
}
