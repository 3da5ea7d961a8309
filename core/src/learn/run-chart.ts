/**
 * The run chart of one recipe with one coffee: individual values, limits from the values' own history, and whether the
 * process has shifted. One odd brew is odd; several in a row on one side are news, but only as far as brews in a row are
 * not alike anyway: a warm day, and the hand that pours, are no shift of the coffee.
 */
import { mean, median, robustSd } from './statistics';

export type RunValue = {
  /** Seconds, or any other measure. */
  value: number;
  /** Who brewed it, where that is known. */
  by?: string | null;
};

export type RunChart = {
  /** The first value of the level that the limits are of. */
  fromIndex: number;
  /** The middle of what was usual, its spread from one brew to the next, and the limits three spreads off. */
  centre: number;
  sd: number;
  low: number;
  high: number;
  /** By value: outside the limits; those of an earlier level are not. */
  outside: boolean[];
  /** Since when the process runs elsewhere, and by how much; null while it runs as it did. */
  shift: LevelShift | null;
};

export type LevelShift = {
  /** The first value of the new level, and the value at which that was certain enough to say. */
  fromIndex: number;
  seenIndex: number;
  by: number;
};

/** Fewer values than this have no limits yet. */
export const FEWEST_FOR_LIMITS = 12;
/** Limits come from the latest of these values. */
const HISTORY = 80;
/** A shift is looked for in the last of so many to so many values. */
const SHORTEST_RUN = 3;
const LONGEST_RUN = 8;
/** A value counts at most so many spreads, so that one odd brew cannot carry a run. */
const MOST_SDS = 3.5;
/** So many standard errors off is a shift; what that means in false alarms is the statistical test's to show. */
const SURE = 3.05;
/** The spread of few brews is hardly known: the error grows by this over their number. */
const FEW_BREWS = 5.5;
/** All but one value of a run lie further than this to its side, spreads. */
const ASIDE_SDS = 0.4;
/** A level that has lasted so long is the usual one. */
const SETTLED = 24;
/** Mean moving range to standard deviation, for ranges of two (Shewhart's d2). */
const RANGE_TO_SD = 1.128;
/** Before a person's level is believed: it counts as so many brews of the bar's own, and needs so many of theirs. */
const PERSON_SHRINKS = 2;
const PERSON_KNOWN = 4;
/** How alike neighbours are taken to be before anything is known, and for how many brews that counts. */
const USUALLY_ALIKE = 0.15;
const ALIKE_BREWS = 8;
/** Likeness is found too low in a short history, by about this over the number of its brews. */
const ALIKE_BIAS = 1.5;
const MOST_ALIKE = 0.8;

/**
 * @param values in order of time
 * @param leastSd what cannot be told apart anyway, in the same unit (a timer's second)
 * @returns null while there are fewer than twelve values
 */
export function runChart(values: readonly RunValue[], leastSd = 0.5): RunChart | null {
  if (values.length < FEWEST_FOR_LIMITS) return null;
  const shifts = shiftsOf(values, leastSd);
  const from = shifts.at(-1)?.fromIndex ?? 0;
  const before = shifts.at(-2)?.fromIndex ?? 0;
  let shift = shifts.at(-1) ?? null;
  if (shift && values.length - shift.fromIndex >= SETTLED) shift = null;
  const fromIndex = shift ? before : from;
  const usual = usualOf(values.slice(fromIndex, shift?.fromIndex), leastSd);
  const { centre, sd } = usual;
  // Once more brews have come than it was found by, they say how far it went.
  const since = shift ? values.slice(shift.fromIndex) : [];
  if (shift && since.length > LONGEST_RUN)
    shift = { ...shift, by: mean(since.map(({ value, by }) => value - usual.levelOf(by))) };
  const [low, high] = [centre - 3 * sd, centre + 3 * sd];
  // Judged on what the limits were made from: each brew as if its person brewed as the bar does.
  const outside = values.map(({ value, by }, index) => {
    const levelled = value - (usual.levelOf(by) - centre);
    return index >= fromIndex && (levelled < low || levelled > high);
  });
  return { fromIndex, centre, sd, low, high, outside, shift };
}

/** Every shift of the values, each looked for from the level that the one before it led to. */
export function shiftsOf(values: readonly RunValue[], leastSd = 0.5): LevelShift[] {
  const shifts: LevelShift[] = [];
  let from = 0;
  for (let end = FEWEST_FOR_LIMITS + SHORTEST_RUN; end <= values.length; end += 1) {
    const found = shiftAt(values.slice(from, end), leastSd);
    if (!found) continue;
    from += found.fromIndex;
    shifts.push({ fromIndex: from, seenIndex: end - 1, by: found.by });
  }
  return shifts;
}

/** A shift that shows with the last value, if one does. */
function shiftAt(values: readonly RunValue[], leastSd: number): { fromIndex: number; by: number } | null {
  let found: { sure: number; fromIndex: number; by: number } | null = null;
  const before = values.slice(0, -LONGEST_RUN).slice(-HISTORY);
  const roughly = before.length < FEWEST_FOR_LIMITS ? null : usualOf(before, leastSd);
  for (let run = SHORTEST_RUN; run <= LONGEST_RUN; run += 1) {
    const history = values.slice(0, -run).slice(-HISTORY);
    if (history.length < FEWEST_FOR_LIMITS) break;
    const latest = values.slice(-run);
    // Most runs are not worth their own history's sums.
    if (roughly && isUsual(latest, roughly)) continue;
    const usual = usualOf(history, leastSd);
    // Of somebody new it is not known yet how they brew.
    if (latest.some(({ by }) => !usual.knows(by))) continue;
    const offs = latest.map(({ value, by }) => (value - usual.levelOf(by)) / usual.sd);
    const off = offs.map((sds) => Math.max(-MOST_SDS, Math.min(MOST_SDS, sds)));
    const side = Math.sign(mean(off));
    // All but one lie clearly on that side; else it is noise, or one odd brew.
    if (off.filter((sds) => sds * side > ASIDE_SDS).length < run - 1) continue;
    const sure = Math.abs(mean(off)) / errorOf(usual, run, history.length);
    // What is found because it is far off is on average less far off than it looks.
    if (sure >= SURE && (!found || sure > found.sure))
      found = { sure, fromIndex: values.length - run, by: mean(offs) * usual.sd * (1 - 0.5 / sure ** 2) };
  }
  return found;
}

/** So many standard errors off, with nothing else allowed for, a run is looked at more closely. */
const WORTH_A_LOOK = 2;

const isUsual = (run: readonly RunValue[], { sd, levelOf }: Usual): boolean =>
  Math.abs(mean(run.map(({ value, by }) => value - levelOf(by)))) * Math.sqrt(run.length) < WORTH_A_LOOK * sd;

/**
 * The standard error of the mean of a run, against the middle of its history, in spreads. The mean of `run` brews that are
 * alike by r has the variance (1 + (run - 1) r) / run.
 */
function errorOf({ alike }: Usual, run: number, history: number): number {
  const ofRun = (1 + (run - 1) * alike(run)) / run;
  // 1.6: a median is known less well than a mean (pi / 2).
  const ofMiddle = (1.6 / history) * (1 + (LONGEST_RUN - 1) * alike(LONGEST_RUN));
  return Math.sqrt(ofRun + ofMiddle) * (1 + FEW_BREWS / history);
}

type Usual = {
  centre: number;
  sd: number;
  /** The middle of a person's brews, drawn towards the bar's. */
  levelOf: (by: RunValue['by']) => number;
  knows: (by: RunValue['by']) => boolean;
  /** How alike brews are that stand within so many in a row: the mean of their correlations, 0 to 1. */
  alike: (within: number) => number;
};

/** Middle, spread and likeness of values that run as they do. */
function usualOf(values: readonly RunValue[], leastSd: number): Usual {
  const latest = values.slice(-HISTORY);
  const people = new Map<string, number[]>();
  for (const { value, by } of latest) people.set(by ?? '', [...(people.get(by ?? '') ?? []), value]);
  const middle = median(latest.map(({ value }) => value));
  const offOf = new Map(
    [...people].map(([by, of]) => {
      const own = people.size > 1 ? of.length / (of.length + PERSON_SHRINKS) : 0;
      return [by, own * (median(of) - middle)] as const;
    }),
  );
  const levelled = latest.map(({ value, by }) => value - offOf.get(by ?? '')!);
  const centre = median(levelled);
  const bySteps = spreadOfSteps(levelled, leastSd);
  const most = MOST_SDS * Math.max(bySteps, robustSd(levelled), leastSd);
  const near = levelled.map((value) => Math.max(-most, Math.min(most, value - centre)));
  const off = near.map((value) => value - mean(near));
  const variance = Math.max(leastSd ** 2, off.reduce((sum, each) => sum + each ** 2, 0) / (off.length - 1));
  return {
    centre,
    // Brews that are alike differ less from one to the next than they do in all.
    sd: Math.max(leastSd, bySteps, Math.sqrt(variance)),
    levelOf: (by) => centre + (offOf.get(by ?? '') ?? 0),
    knows: (by) => (people.get(by ?? '')?.length ?? 0) >= PERSON_KNOWN,
    alike: (within) => likeness(off, variance, within),
  };
}

/** The mean correlation of the pairs among so many brews in a row, drawn towards what is usual. */
function likeness(off: readonly number[], variance: number, within: number): number {
  let sum = 0;
  let weight = 0;
  for (let lag = 1; lag < within; lag += 1) {
    const products = off.slice(lag).map((value, index) => value * off[index]!);
    sum += (within - lag) * (mean(products) / variance);
    weight += within - lag;
  }
  const brews = off.length;
  const found = sum / weight + ALIKE_BIAS / brews;
  const drawn = (brews * found + ALIKE_BREWS * USUALLY_ALIKE) / (brews + ALIKE_BREWS);
  return Math.max(0, Math.min(MOST_ALIKE, drawn));
}

/** The spread from brew to brew; one odd brew does not widen it. */
function spreadOfSteps(values: readonly number[], leastSd: number): number {
  const ranges = values.slice(1).map((value, index) => Math.abs(value - values[index]!));
  const most = Math.max(3.5 * median(ranges), leastSd);
  return mean(ranges.map((range) => Math.min(range, most))) / RANGE_TO_SD;
}
