/**
 * What to put into the grinder for a dose, and what to do when another dose comes out.
 */
import { round } from './round';

/** What a grinder keeps of a dose where its own figure is not known, and what a change of coffee takes, grams. */
export const USUAL_KEEPS_G = 0.6;
export const USUAL_PURGE_G = 2;
/** What comes out may be off by this much before the recipe follows it, grams. */
export const DOSE_TOLERANCE_G = 0.2;

/**
 * Beans to weigh, grams, to 0.1: the dose. A grinder gives back with the next dose what it kept of the one before; so only
 * the first dose after brushing or a change of coffee needs what it keeps on top, and what goes through first as a purge.
 */
export function beansToWeighG(
  doseG: number,
  {
    keepsG = USUAL_KEEPS_G,
    purgeG = USUAL_PURGE_G,
  }: { keepsG?: number | undefined; purgeG?: number | undefined } = {},
  coffeeChanged = false,
): number {
  return round(doseG + (coffeeChanged ? purgeG + keepsG : 0), 1);
}

/** The dose that the brew goes on with: the real one where it is off by more than the tolerance, else the planned. */
export const doseToFollowG = (plannedG: number, realG: number): number =>
  round(Math.abs(realG - plannedG), 6) > DOSE_TOLERANCE_G ? round(realG, 1) : plannedG;
