/**
 * Small statistics that one bad brew does not move.
 */

/** The middle value; NaN of nothing. */
export function median(values: readonly number[]): number {
  return quantile(values, 0.5);
}

/** The value below which a share (0 to 1) of the values lies, linear between neighbours; NaN of nothing. */
export function quantile(values: readonly number[], share: number): number {
  if (values.length === 0) return NaN;
  const sorted = values.toSorted((a, b) => a - b);
  const at = share * (sorted.length - 1);
  const low = sorted[Math.floor(at)]!;
  return low + (at - Math.floor(at)) * (sorted[Math.ceil(at)]! - low);
}

export const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/** Whole pieces that add up to a total, as near to these shares as pieces can be: what is left goes where most was cut off. */
export function pieces(total: number, shares: readonly number[]): number[] {
  const all = shares.reduce((sum, share) => sum + share, 0);
  if (all <= 0) return shares.map(() => 0);
  const exact = shares.map((share) => (total * share) / all);
  const whole = exact.map(Math.floor);
  const left = total - whole.reduce((sum, each) => sum + each, 0);
  const byCut = exact
    .map((each, index) => ({ index, cut: each - Math.floor(each) }))
    .sort((a, b) => b.cut - a.cut || a.index - b.index);
  for (const { index } of byCut.slice(0, left)) whole[index]! += 1;
  return whole;
}

/** Standard deviation by the median absolute deviation (1.4826 of it, for a normal distribution). */
export function robustSd(values: readonly number[]): number {
  const middle = median(values);
  return 1.4826 * median(values.map((value) => Math.abs(value - middle)));
}

/** Further from the median than this many robust standard deviations, a value is named an outlier. */
const OUTLIER_SDS = 3.5;

/**
 * The places of the values that lie too far out to be of the same kind.
 * @param leastSd what values may differ by in any case, so that equal values do not make the next one an outlier
 */
export function outliersOf(values: readonly number[], leastSd: number): number[] {
  const middle = median(values);
  const sd = Math.max(leastSd, robustSd(values));
  return values.flatMap((value, index) => (Math.abs(value - middle) > OUTLIER_SDS * sd ? [index] : []));
}

/** Standard deviation of a sample; NaN of fewer than two. */
export function sampleSd(values: readonly number[]): number {
  const middle = mean(values);
  return Math.sqrt(values.reduce((sum, value) => sum + (value - middle) ** 2, 0) / (values.length - 1));
}

/** The slope of y by x as the median over all pairs of points (Theil 1950, Sen 1968); null where all x are one. */
export function medianSlope(points: readonly { x: number; y: number }[]): number | null {
  const slopes: number[] = [];
  for (const [index, a] of points.entries())
    for (const b of points.slice(index + 1)) if (a.x !== b.x) slopes.push((b.y - a.y) / (b.x - a.x));
  return slopes.length === 0 ? null : median(slopes);
}

/** The share of Student's t with three degrees of freedom that lies below t. */
function shareOfThree(t: number): number {
  const angle = Math.atan(t / Math.sqrt(3));
  return 0.5 + (angle + Math.sin(angle) * Math.cos(angle)) / Math.PI;
}

/**
 * The quantile of Student's t: exact for one, two and three degrees of freedom, above by its expansion around the normal's
 * (G. W. Hill, CACM 13, 1970, leading terms); good to a hundredth.
 * @param z the normal quantile, for example 1.2816 for 90 %
 * @param freedom whole degrees of freedom, at least one
 */
export function studentQuantile(z: number, freedom: number): number {
  const share = normalShare(z);
  if (freedom <= 1) return Math.tan(Math.PI * (share - 0.5));
  if (freedom === 2) return (2 * share - 1) * Math.sqrt(2 / (4 * share * (1 - share)));
  if (freedom === 3) {
    let [low, high] = [0, 100 * Math.abs(z)];
    for (let turn = 0; turn < 60; turn += 1) {
      const middle = (low + high) / 2;
      if (shareOfThree(middle) < (share < 0.5 ? 1 - share : share)) low = middle;
      else high = middle;
    }
    return Math.sign(z) * high;
  }
  const z3 = z ** 3;
  const z5 = z ** 5;
  const z7 = z ** 7;
  return (
    z +
    (z3 + z) / (4 * freedom) +
    (5 * z5 + 16 * z3 + 3 * z) / (96 * freedom ** 2) +
    (3 * z7 + 19 * z5 + 17 * z3 - 15 * z) / (384 * freedom ** 3)
  );
}

/** The share of a normal distribution that lies below z (Abramowitz and Stegun 26.2.17; good to 1e-7). */
export function normalShare(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}
