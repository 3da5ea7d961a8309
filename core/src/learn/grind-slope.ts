/**
 * How many seconds a step of the grinder is worth, for one coffee and recipe: a regression that starts from what is
 * usual and is pulled by the brews (Bayesian linear regression whose prior does not depend on how much brews differ; that is
 * summed over a grid, for example A. Gelman et al., Bayesian Data Analysis, 3rd ed., sections 3.7 and 14.8).
 */
import { calibrationFault, type Grinder } from '../recipe';
import { normalShare } from './statistics';

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

/**
 * Before any brew: a band of grind is worth 3 s (craft), give or take 55 % of that; the recipe's own time holds,
 * give or take 25 s.
 */
const PRIOR = { secondsPerBand: -3, bandShare: 0.55, timeSdS: 25 } as const;
/**
 * By how much brews differ that are brewed alike, seconds (standard deviation): anything from half a second to 25 s, each
 * ratio nearly as likely as another: a few brews that happen to be alike are not believed to be always so.
 */
const BREW_SDS_S = Array.from({ length: 28 }, (_, n) => 0.5 * 50 ** (n / 27));
const DOUBT = 0.4;
/**
 * The worth of a band may be far from what is usual: with this weight the prior is so many times as wide. Where brews and
 * prior disagree it is the wide one that explains them, and the range widens.
 */
const WIDE = { times: 4, weight: 0.1 } as const;
/** A brew counts half as much as one that came so many brews later: beans age, burrs wear. */
const HALF_LIFE = 105;

/** +1 where larger settings are coarser, -1 where they are finer. */
export function coarserWay({ points }: Pick<Grinder, 'points'>): 1 | -1 {
  if (calibrationFault(points)) return 1;
  const sorted = points.toSorted((a, b) => a.band - b.band);
  return sorted[0]!.setting > sorted.at(-1)!.setting ? 1 : -1;
}

/** Bands of grind that one step of a grinder is worth, over all of its calibration; what is usual where it has none. */
export function bandsPerStep({ points }: Pick<Grinder, 'points'>): number {
  if (calibrationFault(points)) return USUAL_BANDS_PER_STEP;
  const sorted = points.toSorted((a, b) => a.band - b.band);
  const [first, last] = [sorted[0]!, sorted.at(-1)!];
  return (last.band - first.band) / Math.abs(last.setting - first.setting);
}
const USUAL_BANDS_PER_STEP = 2.5;

/**
 * @param points oldest first
 * @param reference the setting that the recipe asks for, and the time that it expects there, seconds
 * @param grinder `way` by `coarserWay`, `bands` by `bandsPerStep`
 */
export function grindSlope(
  points: readonly GrindPoint[],
  reference: { setting: number; brewS: number },
  { way, bands }: { way: 1 | -1; bands: number },
): GrindSlope {
  const usually = PRIOR.secondsPerBand * bands;
  const measured = points.map(({ setting, brewS }, index) => {
    const x = way * (setting - reference.setting);
    const counts = 0.5 ** ((points.length - 1 - index) / HALF_LIFE);
    // Everything is measured from the prior's means.
    return { x, y: brewS - reference.brewS - usually * x, counts };
  });
  const stepSdS = PRIOR.bandShare * Math.abs(usually);
  const fits = likeliest(
    BREW_SDS_S.flatMap((brewSdS) => [
      fit(measured, brewSdS, stepSdS, 1 - WIDE.weight),
      fit(measured, brewSdS, WIDE.times * stepSdS, WIDE.weight),
    ]),
  );
  const blend = (of: (fitted: Fit) => Spread) =>
    rangeOf(fits.map((fitted) => ({ ...of(fitted), weight: fitted.weight })));
  const step = blend(({ m1, sd1 }) => ({ middle: m1, sd: sd1 }));
  return {
    brews: points.length,
    way,
    secondsPerStep: usually + step.middle,
    plusMinusS: step.plusMinus,
    at: (setting) => {
      const x = way * (setting - reference.setting);
      const brew = blend((fitted) => fitted.at(x));
      return { brewS: reference.brewS + usually * x + brew.middle, plusMinusS: brew.plusMinus };
    },
  };
}

type Spread = { middle: number; sd: number };
type Fit = { m1: number; sd1: number; at: (x: number) => Spread; logWeight: number };

/**
 * Unknowns: brew time at the reference, and seconds a step, each off the prior's mean.
 * @param brewSdS by how much brews differ, as if that were known
 * @param stepSdS the prior's own doubt of a step
 * @param weight of this prior
 */
function fit(
  measured: readonly { x: number; y: number; counts: number }[],
  brewSdS: number,
  stepSdS: number,
  weight: number,
): Fit {
  const variance = brewSdS ** 2;
  let [p00, p01, p11] = [PRIOR.timeSdS ** -2, 0, stepSdS ** -2];
  const priorLog = Math.log(p00 * p11);
  let [b0, b1, squares, brews] = [0, 0, 0, 0];
  for (const { x, y, counts } of measured) {
    const sure = counts / variance;
    p00 += sure;
    p01 += sure * x;
    p11 += sure * x * x;
    b0 += sure * y;
    b1 += sure * x * y;
    squares += sure * y * y;
    brews += counts;
  }
  const determinant = p00 * p11 - p01 * p01;
  const m0 = (p11 * b0 - p01 * b1) / determinant;
  const m1 = (p00 * b1 - p01 * b0) / determinant;
  return {
    m1,
    sd1: Math.sqrt(p00 / determinant),
    at: (x) => {
      const leverage = (p11 - 2 * p01 * x + p00 * x * x) / determinant;
      return { middle: m0 + m1 * x, sd: Math.sqrt(variance + leverage) };
    },
    // How likely the brews are under it; what does not differ from one to the other is left out.
    logWeight:
      Math.log(weight) +
      DOUBT * Math.log(brewSdS) -
      (brews / 2) * Math.log(variance) +
      0.5 * (priorLog - Math.log(determinant)) -
      0.5 * (squares - (m0 * b0 + m1 * b1)),
  };
}

/** Weights that add up to 1; what is next to impossible is left out. */
function likeliest(fits: readonly Fit[]): (Fit & { weight: number })[] {
  const most = Math.max(...fits.map(({ logWeight }) => logWeight));
  const kept = fits
    .map((each) => ({ ...each, weight: Math.exp(each.logWeight - most) }))
    .filter(({ weight }) => weight > 1e-4);
  const all = kept.reduce((sum, { weight }) => sum + weight, 0);
  return kept.map((each) => ({ ...each, weight: each.weight / all }));
}

/** Middle and 80 % range of what is one or another of these: the half width within which 80 % of all lie. */
function rangeOf(parts: readonly (Spread & { weight: number })[]): { middle: number; plusMinus: number } {
  const middle = parts.reduce((sum, part) => sum + part.weight * part.middle, 0);
  const inside = (half: number) =>
    parts.reduce(
      (sum, { weight, middle: of, sd }) =>
        sum + weight * (normalShare((middle + half - of) / sd) - normalShare((middle - half - of) / sd)),
      0,
    );
  let [low, high] = [0, 20 * Math.max(...parts.map(({ sd }) => sd))];
  for (let turn = 0; turn < 24; turn += 1) {
    const half = (low + high) / 2;
    if (inside(half) < 0.8) low = half;
    else high = half;
  }
  return { middle, plusMinus: high };
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
