/**
 * What the bed keeps, and how drawdown grows with the cup, learnt from weighed cups. By medians: a spilt cup is named,
 * not believed.
 */
import { round } from '../recipe';
import { mean, median, medianSlope, outliersOf, robustSd, sampleSd, studentQuantile } from './statistics';

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
  /** Half of the range that holds it in four cases of five, grams a gram. */
  plusMinus: number;
  cups: number;
  /** Cups that do not fit the others: spilt, or weighed with the server. */
  outliers: string[];
};

/** 80 % of a normal distribution lie within so many standard deviations. */
const Z80 = 1.2816;
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
    // 1.253: a median is known less well than a mean (the root of pi / 2). Outliers are out, and of few cups a robust
    // deviation is found too small.
    plusMinus:
      studentQuantile(Z80, kept.length - 1) *
      1.253 *
      (Math.max(LEAST_SD, sampleSd(kept)) / Math.sqrt(kept.length)),
    cups: kept.length,
    outliers: [...out].map((index) => cups[index]!.brewId),
  };
}

export type DrawdownPoint = {
  brewId: string;
  brewWaterG: number;
  drawdownS: number;
  /** As the card expected it, without what had been learnt of its level, seconds. */
  plannedS: number;
};
export type LearntDrawdown = {
  /** Seconds of drawdown for `usualG` of brew water, and the power with which they grow. */
  usualS: number;
  usualG: number;
  exponent: number;
  /** How far off the power may be: its standard deviation. */
  exponentSd: number;
  /** How long these beds take, times what the cards expected; 1 until it is known better. */
  level: number;
  brews: number;
  outliers: string[];
};

const FEWEST_DRAWDOWNS = 8;
/** Drawdowns of one size differ by this share anyway. */
const LEAST_LOG_SD = 0.04;
/** Beds of one method grow by about the method's power; a coffee's own lies within this of it (standard deviation). */
const EXPONENT_SD = 0.15;
/** The level is that of the latest of these, and before they are many, drawn to 1 as by so many that came as expected. */
const LEVEL_OF = 12;
const LEVEL_SHRINKS = 3;

/**
 * The power law of drawdown over brew water, by the median of all pairs' slopes, drawn towards the method's own by how
 * little it is known; null while there are too few.
 * @param methodExponent the method's power, which holds until the log knows better
 */
export function learnDrawdown(
  points: readonly DrawdownPoint[],
  methodExponent: number,
): LearntDrawdown | null {
  const logs = points
    .filter(({ brewWaterG, drawdownS, plannedS }) => brewWaterG > 0 && drawdownS > 0 && plannedS > 0)
    .map(({ brewId, brewWaterG, drawdownS, plannedS }) => ({
      brewId,
      x: Math.log(brewWaterG),
      y: Math.log(drawdownS),
      late: drawdownS / plannedS,
    }));
  if (logs.length < FEWEST_DRAWDOWNS) return null;
  const first = medianSlope(logs) ?? methodExponent;
  const rest = logs.map(({ x, y }) => y - first * x);
  const out = new Set(outliersOf(rest, LEAST_LOG_SD));
  const kept = logs.filter((_, index) => !out.has(index));
  const { exponent, sd } = exponentOf(kept, methodExponent);
  const usualG = Math.round(Math.exp(median(kept.map(({ x }) => x))));
  const height = median(kept.map(({ x, y }) => y - exponent * x));
  const latest = kept.slice(-LEVEL_OF).map(({ late }) => late);
  return {
    usualS: round(Math.exp(height + exponent * Math.log(usualG)), 1),
    usualG,
    exponent: hundredth(exponent),
    exponentSd: hundredth(sd),
    level: hundredth((latest.length * median(latest) + LEVEL_SHRINKS) / (latest.length + LEVEL_SHRINKS)),
    brews: kept.length,
    outliers: [...out].map((index) => logs[index]!.brewId),
  };
}

/** What the brews say and what the method says, each by how surely (two normal distributions multiplied). */
function exponentOf(points: readonly { x: number; y: number }[], methodExponent: number) {
  const said = medianSlope(points);
  const middle = mean(points.map(({ x }) => x));
  const spread = Math.sqrt(points.reduce((sum, { x }) => sum + (x - middle) ** 2, 0));
  const known = EXPONENT_SD ** -2;
  if (said === null || spread === 0) return { exponent: methodExponent, sd: EXPONENT_SD };
  const residual = Math.max(LEAST_LOG_SD, robustSd(points.map(({ x, y }) => y - said * x)));
  // The spread of few brews is found too small, and a median of slopes is known a little less well than a line.
  const found = (spread / (residual * (1 + 3 / points.length))) ** 2;
  return { exponent: (known * methodExponent + found * said) / (known + found), sd: (known + found) ** -0.5 };
}

const hundredth = (value: number): number => round(value, 2);
