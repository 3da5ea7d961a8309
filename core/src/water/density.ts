/**
 * Density of liquid water, for what a vessel of some millilitres holds in grams. On the bar itself 1 g counts as 1 ml.
 */

/** Standard values at atmospheric pressure: degrees Celsius, g/ml. */
const TABLE: readonly (readonly [atC: number, gPerMl: number])[] = [
  [0, 0.9998],
  [10, 0.9997],
  [20, 0.9982],
  [30, 0.9957],
  [40, 0.9922],
  [50, 0.988],
  [60, 0.9832],
  [70, 0.9778],
  [80, 0.9718],
  [90, 0.9653],
  [100, 0.9584],
];

/** Density at a temperature, g/ml; linear between the table's values. @throws RangeError outside 0 to 100 C */
export function waterDensityGPerMl(atC: number): number {
  if (!(atC >= 0 && atC <= 100)) throw new RangeError(`Water is liquid from 0 to 100 °C, not at ${atC}.`);
  const above = TABLE.findIndex(([tableC]) => tableC >= atC);
  const [highC, high] = TABLE[above]!;
  if (highC === atC) return high;
  const [lowC, low] = TABLE[above - 1]!;
  return low + ((high - low) * (atC - lowC)) / (highC - lowC);
}
