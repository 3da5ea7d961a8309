/**
 * The pace of a pour: what the scale should read at this second, and how far ahead or behind the hand is.
 */
import type { TimedPart } from '../pour';
import type { CardPath, CardStep } from '../recipe';

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

/** The paths of a pour with their seconds from its start, at the recipe's flow; none where its recipe does not say. */
export function pathsOf(step: CardStep): (TimedPart & Pick<CardPath, 'toG'>)[] {
  const { paths = [], targetG = 0, pourG = 0, flowGPerS = 1, opening } = step;
  const fromG = targetG - pourG;
  const openingG = opening ? Math.max(0, opening.targetG - fromG) : 0;
  const openingS = opening ? openingG / opening.flowGPerS : 0;
  const secondsTo = (inG: number) =>
    inG <= openingG && opening ? inG / opening.flowGPerS : openingS + (inG - openingG) / flowGPerS;
  let beganS = 0;
  return paths.flatMap((part) => {
    const toS = secondsTo(Math.min(pourG, Math.max(0, (part.toG ?? targetG) - fromG)));
    if (toS <= beganS) return [];
    const timed = { ...part, fromS: beganS, toS };
    beganS = toS;
    return [timed];
  });
}
