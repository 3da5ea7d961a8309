/**
 * Where a time axis is labelled: at whole steps of a clock, not at hundreds of seconds.
 */
const STEPS_S = [5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600];

/** About `count` moments of a range, seconds, each at a whole step of a clock. */
export function clockTicks([fromS, toS]: readonly number[], count: number): number[] {
  const least = (toS! - fromS!) / Math.max(1, count);
  const step = STEPS_S.find((each) => each >= least) ?? STEPS_S.at(-1)!;
  const ticks: number[] = [];
  for (let s = Math.ceil(fromS! / step) * step; s <= toS!; s += step) ticks.push(s);
  return ticks;
}
