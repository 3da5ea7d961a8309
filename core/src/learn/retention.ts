/**
 * What the bed keeps, and how drawdown grows with the cup, learnt from weighed cups. By medians: a spilt cup is named,
 * not believed.
 */
import { median, medianSlope, outliersOf, robustSd } from './statistics';

export type WeighedCup = {
  brewId: string;
  doseG: number;
  brewWaterG: number;
  bypassG: number;
  lossG: number;
  beverageG: number;
};

export type LearntRetention = {
  /** Grams of water that a gram of coffee keeps. */
  gPerG: number;
  /** The standard error of that, grams a gram. */
  plusMinus: number;
  cups: number;
  /** Cups that do not fit the others: spilt, or weighed with the server. */
  outliers: string[];
};

/** Fewer weighed cups than this teach nothing yet. */
const FEWEST_CUPS = 5;
/** Scales and hands differ by this anyway, grams a gram. */
const LEAST_SD = 0.03;

/**
 * Retention by the water's balance (craft, conversion): what was poured, less losses and beverage, over the dose.
 * @returns null while fewer than five cups have been weighed
 */
export function learnRetention(cups: readonly WeighedCup[]): LearntRetention | null {
  const values = cups.map(
    ({ doseG, brewWaterG, bypassG, lossG, beverageG }) => (brewWaterG + bypassG - lossG - beverageG) / doseG,
  );
  const out = new Set(outliersOf(values, LEAST_SD));
  const kept = values.filter((_, index) => !out.has(index));
  if (kept.length < FEWEST_CUPS) return null;
  return {
    gPerG: Math.round(median(kept) * 100) / 100,
    plusMinus: 1.253 * (Math.max(LEAST_SD, robustSd(kept)) / Math.sqrt(kept.length)),
    cups: kept.length,
    outliers: [...out].map((index) => cups[index]!.brewId),
  };
}

export type DrawdownPoint = { brewId: string; brewWaterG: number; drawdownS: number };
export type LearntDrawdown = {
  /** Seconds of drawdown for `usualG` of brew water, and the power with which they grow. */
  usualS: number;
  usualG: number;
  exponent: number;
  brews: number;
  outliers: string[];
};

const FEWEST_DRAWDOWNS = 8;
/** Cups must differ by this factor in size before the power says anything. */
const LEAST_RANGE = 1.3;
/** Drawdowns of one size differ by this share anyway. */
const LEAST_LOG_SD = 0.04;

/** The power law of drawdown over brew water, by the median of all pairs' slopes; null while too few or too alike. */
export function learnDrawdown(points: readonly DrawdownPoint[]): LearntDrawdown | null {
  const logs = points
    .filter(({ brewWaterG, drawdownS }) => brewWaterG > 0 && drawdownS > 0)
    .map(({ brewId, brewWaterG, drawdownS }) => ({
      brewId,
      x: Math.log(brewWaterG),
      y: Math.log(drawdownS),
    }));
  const xs = logs.map(({ x }) => x);
  if (logs.length < FEWEST_DRAWDOWNS || Math.max(...xs) - Math.min(...xs) < Math.log(LEAST_RANGE))
    return null;
  const first = medianSlope(logs)!;
  const rest = logs.map(({ x, y }) => y - first * x);
  const out = new Set(outliersOf(rest, LEAST_LOG_SD));
  const kept = logs.filter((_, index) => !out.has(index));
  const exponent = medianSlope(kept) ?? first;
  const usualG = Math.round(Math.exp(median(kept.map(({ x }) => x))));
  const level = median(kept.map(({ x, y }) => y - exponent * x));
  return {
    usualS: Math.round(Math.exp(level + exponent * Math.log(usualG)) * 10) / 10,
    usualG,
    exponent: Math.round(exponent * 100) / 100,
    brews: kept.length,
    outliers: [...out].map((index) => logs[index]!.brewId),
  };
}
