/**
 * How full a brewer is while it is poured into and drains. A first, simple model (outflow proportional to what stands
 * over the bed), made to be dry when the brew's own drawdown ends; good enough to draw a level that is true to the
 * pours.
 */

/** A pour, real or planned: from when to when (seconds on any clock) and how many grams. */
export type PouredSpan = { startS: number; endS: number; pourG: number };

/** What is left counts as dry, grams. */
const DRY_G = 3;

/**
 * Time constant of a bed that lets the last pour's slurry run down to a dry bed within the drawdown, seconds:
 * tau = drawdown / ln(slurry / 3 g).
 */
export const drainTauS = (drawdownS: number, lastSlurryG: number): number =>
  drawdownS / Math.log(Math.max(lastSlurryG, DRY_G * 2) / DRY_G);

/**
 * Slurry over the bed at a moment, grams: with inflow q and outflow L / tau, L' = q - L / tau between the edges of the pours.
 * @param tauS see `drainTauS`; Infinity for a brewer that does not drain
 */
export function slurryG(pours: PouredSpan[], tauS: number, atS: number): number {
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
