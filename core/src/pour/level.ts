/**
 * How full a brewer is while it is poured into and drains, by Darcy's law: the flow through the bed is proportional to the
 * height of the water over it plus the bed's own depth, so that the last water still runs. The rate is set so that the bed
 * is dry when the brew's own drawdown ends.
 */

/** A pour, real or planned: from when to when (seconds on any clock) and how many grams. */
export type PouredSpan = { startS: number; endS: number; pourG: number };

/**
 * A bed as water sees it: its time constant, seconds (Infinity where nothing drains), and its own depth as the grams of
 * water that would stand as high.
 */
export type Bed = { tauS: number; headG: number };

export const NO_DRAIN: Bed = { tauS: Infinity, headG: 0 };

/** Wet grounds fill about 2.3 ml a gram (0.4 g/ml dry, swollen a little; our own figure). */
const BED_ML_PER_G = 2.3;
/** A smaller rest counts as dry, grams. */
const DRY_G = 1;
const HALVINGS = 24;

/**
 * The bed that is dry when the drawdown ends. Its time constant is found by halving; slower beds leave more.
 * @param drawdownS from the end of the last pour to a dry bed
 * @param pours all of the brew's, in order
 */
export function bedOf(drawdownS: number, pours: readonly PouredSpan[], doseG: number): Bed {
  const last = pours.at(-1);
  const headG = BED_ML_PER_G * doseG;
  if (!last) return NO_DRAIN;
  let low = 0.1;
  let high = Math.max(drawdownS, 1) * 8;
  for (let halving = 0; halving < HALVINGS; halving += 1) {
    const tauS = (low + high) / 2;
    if (slurryG(pours, { tauS, headG }, last.endS + drawdownS) > DRY_G) high = tauS;
    else low = tauS;
  }
  return { tauS: (low + high) / 2, headG };
}

/**
 * Water over the bed at a moment, grams: with inflow q, bed's head h and outflow (L + h) / tau, L' = q - (L + h) / tau
 * between the edges of the pours, and never below nought.
 */
export function slurryG(pours: readonly PouredSpan[], bed: Bed, atS: number): number {
  let levelG = 0;
  let sinceS = -Infinity;
  for (const { startS, endS, pourG } of pours) {
    if (atS <= startS) break;
    levelG = after(levelG, 0, startS - sinceS, bed);
    const lengthS = Math.max(endS - startS, 1);
    const pouredS = Math.min(atS, startS + lengthS) - startS;
    levelG = after(levelG, pourG / lengthS, pouredS, bed);
    sinceS = startS + pouredS;
  }
  return after(levelG, 0, atS - sinceS, bed);
}

/** The height after some seconds of one inflow. */
function after(levelG: number, flowGPerS: number, forS: number, { tauS, headG }: Bed): number {
  if (levelG === 0 && flowGPerS === 0) return 0;
  if (!Number.isFinite(tauS)) return levelG + flowGPerS * Math.max(0, forS);
  const left = Math.exp(-Math.max(0, forS) / tauS);
  return Math.max(0, (levelG + headG) * left + flowGPerS * tauS * (1 - left) - headG);
}

/** Seconds until so much is left with nothing more poured. */
export const secondsUntil = (levelG: number, leftG: number, { tauS, headG }: Bed): number =>
  Math.max(0, tauS * Math.log((levelG + headG) / (leftG + headG)));
