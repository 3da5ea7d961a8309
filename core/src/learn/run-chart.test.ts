import { seededRandom } from '../plan';
import { runChart, shiftsOf } from './run-chart';

/** A normal number by the polar way, from a seeded source. */
function normalOf(random: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
const steady = (seed: number, count: number, sd = 6) => {
  const normal = normalOf(seededRandom(seed));
  return Array.from({ length: count }, () => Math.round(185 + sd * normal()));
};

const LOGS = 200;

test('on steady brews a shift is flagged at most once in 370 points, over many seeded logs', () => {
  let alarms = 0;
  let points = 0;
  for (let seed = 1; seed <= LOGS; seed += 1) {
    const values = steady(seed, 120);
    alarms += shiftsOf(values).length;
    points += values.length;
  }
  console.info(`${alarms} false alarms in ${points} steady points: one in ${Math.round(points / alarms)}`);
  expect(points / alarms).toBeGreaterThan(370);
});

test.each([
  [2.5, 0.9],
  [3, 0.97],
])(
  'brews that run %s spreads longer from day six on are flagged within five of them, in at least %s of the logs',
  (spreads, share) => {
    const delays: number[] = [];
    for (let seed = 1; seed <= LOGS; seed += 1) {
      // Five days of eight brews as usual, then longer.
      const values = [...steady(seed, 40), ...steady(seed + 10_000, 16).map((value) => value + 6 * spreads)];
      const shift = runChart(values)!.shift;
      delays.push(shift && shift.seenIndex >= 40 ? shift.seenIndex - 39 : Infinity);
    }
    const within = delays.filter((delay) => delay <= 5).length / delays.length;
    const middle = delays.sort((a, b) => a - b)[delays.length >> 1];
    console.info(
      `${spreads} spreads: within five brews in ${(100 * within).toFixed(1)} % of logs, median after ${middle}`,
    );
    expect(within).toBeGreaterThan(share);
  },
);

test('one odd brew is outside the limits and no shift; where a shift began and how far it went is said', () => {
  const values = steady(7, 40);
  values[30] = 260;
  const odd = runChart(values)!;
  expect(odd.outside[30]).toBe(true);
  expect(odd.shift).toBeNull();

  const shifted = runChart([...steady(3, 40), ...steady(4, 8).map((value) => value + 20)])!;
  expect(Math.abs(shifted.shift!.fromIndex - 40)).toBeLessThanOrEqual(1);
  expect(shifted.shift!.by).toBeGreaterThan(10);
  expect(shifted.shift!.by).toBeLessThan(30);
  // The limits stay those of the usual brews.
  expect(Math.abs(shifted.centre - 185)).toBeLessThan(5);
});

test('eleven brews have no limits yet, and equal ones are not odd for a second', () => {
  expect(runChart(steady(1, 11))).toBeNull();
  const equal = runChart([...Array<number>(20).fill(180), 181])!;
  expect(equal.outside.some(Boolean)).toBe(false);
  expect(equal.shift).toBeNull();
});
