/**
 * How many seconds a step of the grinder is worth, for one coffee and recipe: a regression that starts from what is
 * usual and is pulled by the brews (Bayesian linear regression with a normal-inverse-gamma prior, closed form; for
 * example A. Gelman et al., Bayesian Data Analysis, 3rd ed., section 14.8).
 */
import { calibrationFault, type Grinder } from '../recipe';
import { studentQuantile } from './statistics';

export type GrindPoint = {
  /** What the grinder stood at. */
  setting: number;
  /** From the timer's anchor to the end mark, seconds. */
  brewS: number;
};

export type GrindSlope = {
  brews: number;
  /** +1 where larger settings are coarser, -1 where they are finer. */
  way: 1 | -1;
  /** Seconds of brew time for a step coarser (below 0: coarser is faster), and its 80 % range either way. */
  secondsPerStep: number;
  plusMinusS: number;
  /** What a brew at this setting would take, with the 80 % range of one brew either way. */
  at: (setting: number) => { brewS: number; plusMinusS: number };
};

/** Before any brew: a step coarser takes off 8 s, give or take 6; the recipe's own time holds, give or take 25 s. */
export const PRIOR = { secondsPerStep: -8, stepSdS: 6, timeSdS: 25, brewSdS: 8, brews: 4 } as const;
/** 80 % of a normal distribution lie within so many standard deviations. */
const Z80 = 1.2816;

/** +1 where larger settings are coarser, -1 where they are finer. */
export function coarserWay({ points }: Pick<Grinder, 'points'>): 1 | -1 {
  if (calibrationFault(points)) return 1;
  const sorted = points.toSorted((a, b) => a.band - b.band);
  return sorted[0]!.setting > sorted.at(-1)!.setting ? 1 : -1;
}

/**
 * @param reference the setting that the recipe asks for, and the time that it expects there, seconds
 * @param way `coarserWay` of the grinder
 */
export function grindSlope(
  points: readonly GrindPoint[],
  reference: { setting: number; brewS: number },
  way: 1 | -1,
): GrindSlope {
  // Unknowns: brew time at the reference, and seconds a step. Everything is measured from the prior's means.
  const priorVariance = PRIOR.brewSdS ** 2;
  let p00 = priorVariance / PRIOR.timeSdS ** 2;
  let p01 = 0;
  let p11 = priorVariance / PRIOR.stepSdS ** 2;
  let [b0, b1, squares] = [0, 0, 0];
  for (const { setting, brewS } of points) {
    const x = way * (setting - reference.setting);
    const y = brewS - reference.brewS - PRIOR.secondsPerStep * x;
    p00 += 1;
    p01 += x;
    p11 += x * x;
    b0 += y;
    b1 += x * y;
    squares += y * y;
  }
  const determinant = p00 * p11 - p01 * p01;
  const m0 = (p11 * b0 - p01 * b1) / determinant;
  const m1 = (p00 * b1 - p01 * b0) / determinant;
  // Inverse gamma: the prior's spread counts for as many brews as it names.
  const freedom = PRIOR.brews + points.length;
  const variance = (PRIOR.brews * priorVariance + squares - (m0 * b0 + m1 * b1)) / freedom;
  const t80 = studentQuantile(Z80, freedom);
  return {
    brews: points.length,
    way,
    secondsPerStep: PRIOR.secondsPerStep + m1,
    plusMinusS: t80 * Math.sqrt((variance * p00) / determinant),
    at: (setting) => {
      const x = way * (setting - reference.setting);
      const leverage = (p11 - 2 * p01 * x + p00 * x * x) / determinant;
      return {
        brewS: reference.brewS + m0 + (PRIOR.secondsPerStep + m1) * x,
        plusMinusS: t80 * Math.sqrt(variance * (1 + leverage)),
      };
    },
  };
}

/** Half steps, and at most three at once: what can be tasted and taken back. */
const STEP = 0.5;
const MOST_STEPS = 3;

/**
 * Steps coarser (negative: finer) that bring the expected time to the target; 0 where half a step is too much already.
 * @param setting where the grinder stands
 */
export function stepsTo(slope: GrindSlope, setting: number, targetS: number): number {
  const perStep = Math.min(slope.secondsPerStep, -1);
  const steps = (targetS - slope.at(setting).brewS) / perStep;
  return Math.max(-MOST_STEPS, Math.min(MOST_STEPS, Math.round(steps / STEP) * STEP));
}
