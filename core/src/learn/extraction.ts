/**
 * How much of the coffee is in the cup: extraction yield from strength (craft, glossary).
 */
import { METHODS, type MethodId } from '../recipe';

/**
 * Extraction yield, per cent. Percolation: what is in the cup over the dose. Full immersion, measured before the
 * coffee is parted from the water: all the brew water holds what the cup holds.
 * @param tdsPct dissolved solids of the beverage, per cent; over ice of the drink with its ice melted, which `beverageG` then counts
 */
export function extractionYieldPct(
  method: MethodId,
  tdsPct: number,
  {
    doseG,
    brewWaterG,
    beverageG,
    isIced = false,
  }: { doseG: number; brewWaterG: number; beverageG: number; isIced?: boolean },
): number {
  // Measured with its ice melted in it, a drink is what it is, however it was brewed.
  return (tdsPct * (METHODS[method].isImmersion && !isIced ? brewWaterG : beverageG)) / doseG;
}

/** Where most cups are called balanced; ours, wide on purpose: a guest's liking comes first. Per cent. */
export const BALANCED = { tdsPct: { from: 1.15, to: 1.5 }, yieldPct: { from: 18, to: 22.5 } } as const;

export type ExtractionWords =
  | 'thin and sour'
  | 'strong and sour'
  | 'balanced'
  | 'thin and bitter'
  | 'strong and bitter'
  | 'thin'
  | 'strong'
  | 'sour'
  | 'bitter';

/** What a point of strength and yield usually tastes like. */
export function tasteOfPoint(tdsPct: number, yieldPct: number): ExtractionWords {
  const strength = tdsPct < BALANCED.tdsPct.from ? 'thin' : tdsPct > BALANCED.tdsPct.to ? 'strong' : null;
  const balance =
    yieldPct < BALANCED.yieldPct.from ? 'sour' : yieldPct > BALANCED.yieldPct.to ? 'bitter' : null;
  if (strength && balance) return `${strength} and ${balance}`;
  return strength ?? balance ?? 'balanced';
}
