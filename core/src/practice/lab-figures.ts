/**
 * What the lab's shifts come to, and whether two variants differ.
 */
import { mean, quantile, studentQuantile } from '../learn';
import type { LabShift } from './lab-shift';

/** Waits up to this count as short in "nine of ten under eight minutes", seconds. */
export const SHORT_WAIT_S = 480;
export const NINE_OF_TEN = 0.9;

export type LabFigures = {
  shifts: number;
  cupsAnHour: number;
  meanS: number;
  medianS: number;
  p90S: number;
  /** Orders over ten minutes, and orders that were out within eight, as shares. */
  lateShare: number;
  shortShare: number;
  handsBusy: number;
  toolsBusy: Record<string, number>;
  /** What is busy for the largest share of the time: `hands`, or a tool's name. */
  bottleneck: string;
};

/** @param shifts at least one */
export function labFigures(shifts: readonly LabShift[]): LabFigures {
  const waits = shifts.flatMap(({ waitsS }) => waitsS);
  const names = [...new Set(shifts.flatMap(({ toolsBusy }) => Object.keys(toolsBusy)))];
  const toolsBusy = Object.fromEntries(
    names.map((name) => [name, mean(shifts.map((shift) => shift.toolsBusy[name] ?? 0))]),
  );
  const handsBusy = mean(shifts.map((shift) => shift.handsBusy));
  const busiest = Object.entries({ hands: handsBusy, ...toolsBusy }).reduce((most, each) =>
    each[1] > most[1] ? each : most,
  );
  return {
    shifts: shifts.length,
    cupsAnHour: mean(shifts.map(({ cupsAnHour }) => cupsAnHour)),
    meanS: mean(waits),
    medianS: quantile(waits, 0.5),
    p90S: quantile(waits, 0.9),
    lateShare: sum(shifts.map(({ late }) => late)) / waits.length,
    shortShare: waits.filter((wait) => wait <= SHORT_WAIT_S).length / waits.length,
    handsBusy,
    toolsBusy,
    bottleneck: busiest[0],
  };
}

/** How much a figure of one variant is over that of another, with the half-width of its 95 % interval. */
export type LabDifference = { by: number; give: number; shifts: number };

/**
 * Compares shift by shift: the same seed brought the same guests, so that what is common to both falls out (paired t, 95 %).
 * Null with fewer than two shifts in common.
 */
export function differenceOf(
  one: readonly LabShift[],
  other: readonly LabShift[],
  figure: (shift: LabShift) => number,
): LabDifference | null {
  const bySeed = new Map(other.map((shift) => [shift.seed, shift]));
  const differences = one.flatMap((shift) => {
    const like = bySeed.get(shift.seed);
    return like ? [figure(shift) - figure(like)] : [];
  });
  const n = differences.length;
  if (n < 2) return null;
  const by = mean(differences);
  const variance = sum(differences.map((each) => (each - by) ** 2)) / (n - 1);
  return { by, give: studentQuantile(Z_95, n - 1) * Math.sqrt(variance / n), shifts: n };
}

/** Whether chance alone would seldom make so much of a difference. */
export const isSure = ({ by, give }: LabDifference): boolean => Math.abs(by) > give;

export const meanWaitS = ({ waitsS }: LabShift): number => mean(waitsS);

/** Of a normal distribution 2.5 % lie beyond this on each side. */
const Z_95 = 1.959964;

const sum = (values: readonly number[]): number => values.reduce((all, each) => all + each, 0);
