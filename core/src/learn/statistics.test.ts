import { seededRandom } from '../plan';
import { median, medianSlope, outliersOf, quantile, robustSd, studentQuantile } from './statistics';

test('quantiles lie between their neighbours, and nothing has none', () => {
  expect(median([4, 1, 3])).toBe(3);
  expect(median([4, 1, 3, 2])).toBe(2.5);
  expect(quantile([10, 20, 30, 40, 50], 0.9)).toBeCloseTo(46, 9);
  expect(median([])).toBeNaN();
});

test('a tenth of nonsense moves neither middle nor spread much, and is named', () => {
  const random = seededRandom(3);
  const true_ = Array.from({ length: 90 }, () => 100 + 6 * (random() + random() + random() - 1.5));
  const values = [...true_, ...Array.from({ length: 10 }, () => 900)];
  expect(Math.abs(median(values) - 100)).toBeLessThan(1.5);
  expect(robustSd(values)).toBeLessThan(1.4 * robustSd(true_));
  expect(outliersOf(values, 0.5)).toEqual(Array.from({ length: 10 }, (_, n) => 90 + n));
  // Equal values make the next one no outlier for less than scales can tell.
  expect(outliersOf([...Array<number>(20).fill(2), 2.05], 0.03)).toEqual([]);
});

test('a slope is that of most points, not of the one that is off; points of one x have none', () => {
  const points = Array.from({ length: 12 }, (_, n) => ({ x: n, y: 5 - 3 * n + (n === 11 ? 500 : 0) }));
  expect(medianSlope(points)).toBe(-3);
  expect(
    medianSlope([
      { x: 2, y: 1 },
      { x: 2, y: 9 },
    ]),
  ).toBeNull();
});

test.each([
  // From tables of Student's t, one-sided 90 %.
  [1, 3.078],
  [2, 1.886],
  [3, 1.638],
  [4, 1.533],
  [9, 1.383],
  [30, 1.31],
  [1000, 1.282],
])('Student’s 90 %% quantile with %s degrees of freedom is %s', (freedom, table) => {
  expect(studentQuantile(1.2816, freedom)).toBeCloseTo(table, 2);
});

test('with one degree of freedom, of two shifts, the 97.5 % quantile is 12.7', () => {
  expect(studentQuantile(1.959964, 1)).toBeCloseTo(12.706, 1);
});
