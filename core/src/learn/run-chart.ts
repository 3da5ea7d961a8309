/**
 * The run chart of one recipe with one coffee: individual values and moving ranges, limits from the values' own history,
 * and whether the process has shifted. One odd brew is odd; several in a row on one side are news.
 */
import { mean, median } from './statistics';

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
  shift: Shift | null;
};

export type Shift = {
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
const SURE = 3.4;
/** A level that has lasted so long is the usual one. */
const SETTLED = 24;
/** Mean moving range to standard deviation, for ranges of two (Shewhart's d2). */
const RANGE_TO_SD = 1.128;

/**
 * @param values in order of time: seconds, or any other measure
 * @param leastSd what cannot be told apart anyway, in the same unit (a timer's second)
 * @returns null while there are fewer than twelve values
 */
export function runChart(values: readonly number[], leastSd = 0.5): RunChart | null {
  if (values.length < FEWEST_FOR_LIMITS) return null;
  const shifts = shiftsOf(values, leastSd);
  const from = shifts.at(-1)?.fromIndex ?? 0;
  const before = shifts.at(-2)?.fromIndex ?? 0;
  let shift = shifts.at(-1) ?? null;
  if (shift && values.length - shift.fromIndex >= SETTLED) shift = null;
  const fromIndex = shift ? before : from;
  const { centre, sd } = usualOf(values.slice(fromIndex, shift?.fromIndex), leastSd);
  const [low, high] = [centre - 3 * sd, centre + 3 * sd];
  const outside = values.map((value, index) => index >= fromIndex && (value < low || value > high));
  return { fromIndex, centre, sd, low, high, outside, shift };
}

/** Every shift of the values, each looked for from the level that the one before it led to. */
export function shiftsOf(values: readonly number[], leastSd = 0.5): Shift[] {
  const shifts: Shift[] = [];
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
function shiftAt(values: readonly number[], leastSd: number): { fromIndex: number; by: number } | null {
  let found: { sure: number; fromIndex: number; by: number } | null = null;
  for (let run = SHORTEST_RUN; run <= LONGEST_RUN; run += 1) {
    const history = values.slice(0, -run).slice(-HISTORY);
    if (history.length < FEWEST_FOR_LIMITS) break;
    const latest = values.slice(-run);
    const { centre, sd } = usualOf(history, leastSd);
    const off = latest.map((value) => Math.max(-MOST_SDS, Math.min(MOST_SDS, (value - centre) / sd)));
    const side = Math.sign(mean(off));
    // All but one lie clearly on that side; else it is noise, or one odd brew.
    const aside = off.filter((sds) => sds * side > 0.4).length;
    // The middle is known the less the fewer brews it comes from, and so is the spread.
    const error = Math.sqrt(1 / run + 1.6 / history.length) * (1 + 2 / history.length);
    const sure = Math.abs(mean(off)) / error;
    if (sure >= SURE && aside >= run - 1 && (!found || sure > found.sure))
      found = { sure, fromIndex: values.length - run, by: mean(latest) - centre };
  }
  return found;
}

/** Middle and spread of values that run as they do; the spread from brew to brew, so that a slow drift does not widen it. */
function usualOf(values: readonly number[], leastSd: number): { centre: number; sd: number } {
  const latest = values.slice(-HISTORY);
  const ranges = latest.slice(1).map((value, index) => Math.abs(value - latest[index]!));
  const most = Math.max(3.5 * median(ranges), leastSd);
  const sd = mean(ranges.map((range) => Math.min(range, most))) / RANGE_TO_SD;
  return { centre: median(latest), sd: Math.max(leastSd, sd) };
}
