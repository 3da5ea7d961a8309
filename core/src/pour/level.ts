/**
 * How full a brewer is while it is poured into and drains. A first, simple model (outflow proportional to what stands
 * over the bed), made to be dry when the brew's own drawdown ends; good enough to draw a level that is true to the
 * pours, and to say when a pour would rise over the rim.
 */

/** A pour, real or planned: from when to when (seconds on any clock) and how many grams. */
export type PouredSpan = { startS: number; endS: number; pourG: number };

/** What is left counts as dry, grams. */
const DRY_G = 3;
const HALVINGS = 24;

/**
 * Time constant of a bed that is dry when the drawdown ends: the tau at which 3 g are left that long after the last
 * pour. Seconds, found by halving; slower beds leave more.
 * @param drawdownS from the end of the last pour to a dry bed
 * @param pours all of the brew's, in order
 */
export function drainTauS(drawdownS: number, pours: readonly PouredSpan[]): number {
  const last = pours.at(-1);
  if (!last) return Infinity;
  let low = 0.1;
  let high = Math.max(drawdownS, 1) * 4;
  for (let halving = 0; halving < HALVINGS; halving += 1) {
    const middle = (low + high) / 2;
    if (slurryG(pours, middle, last.endS + drawdownS) > DRY_G) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}

/**
 * Slurry over the bed at a moment, grams: with inflow q and outflow L / tau, L' = q - L / tau between the edges of the pours.
 * @param tauS see `drainTauS`; Infinity for a brewer that does not drain
 */
export function slurryG(pours: readonly PouredSpan[], tauS: number, atS: number): number {
  let levelG = 0;
  let sinceS = -Infinity;
  for (const { startS, endS, pourG } of pours) {
    if (atS <= startS) break;
    levelG = decay(levelG, startS - sinceS, tauS);
    const lengthS = Math.max(endS - startS, 1);
    const flowGPerS = pourG / lengthS;
    const pouredS = Math.min(atS, startS + lengthS) - startS;
    levelG = Number.isFinite(tauS)
      ? decay(levelG, pouredS, tauS) + flowGPerS * tauS * (1 - Math.exp(-pouredS / tauS))
      : levelG + flowGPerS * pouredS;
    sinceS = startS + pouredS;
  }
  return decay(levelG, atS - sinceS, tauS);
}

const decay = (levelG: number, forS: number, tauS: number): number =>
  levelG === 0 || !Number.isFinite(tauS) ? levelG : levelG * Math.exp(-Math.max(0, forS) / tauS);
