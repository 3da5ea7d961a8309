import { seededRandom } from '../plan';
import { runChart, shiftsOf, type RunValue } from './run-chart';
import { median } from './statistics';

/** A normal number by the polar way, from a seeded source. */
function normalOf(random: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
/** Whole seconds of a timer. */
const seconds = (off: number, by?: string): RunValue => ({
  value: Math.round(185 + SD * off),
  ...(by ? { by } : {}),
});
const SD = 6;
const steady = (seed: number, count: number): RunValue[] => {
  const normal = normalOf(seededRandom(seed));
  return Array.from({ length: count }, () => seconds(normal()));
};
const later = (values: RunValue[], byS: number): RunValue[] =>
  values.map(({ value }) => ({ value: value + byS }));

const LOGS = 100;
const BREWS = 120;
/** Days of eight brews; two baristas who take turns, one of them slower by two spreads. */
const DAY = 8;

/** Logs in which nothing has shifted, though brews in a row are alike. */
const ALIKE: Record<string, (normal: () => number) => RunValue[]> = {
  'steady brews': (normal) => Array.from({ length: BREWS }, () => seconds(normal())),
  'brews that carry half of the last one on': (normal) => {
    let at = normal();
    return Array.from({ length: BREWS }, () => seconds((at = 0.5 * at + Math.sqrt(0.75) * normal())));
  },
  'days that differ': (normal) => {
    let day = 0;
    return Array.from({ length: BREWS }, (_, n) => {
      if (n % DAY === 0) day = 0.7 * normal();
      return seconds(day + normal());
    });
  },
  'two baristas in turns': (normal) =>
    Array.from({ length: BREWS }, (_, n) => {
      const second = Math.floor(n / 4) % 2 === 1;
      return seconds(normal() + (second ? 2 : 0), second ? 'b' : 'a');
    }),
  'two baristas by days': (normal) =>
    Array.from({ length: BREWS }, (_, n) => {
      const second = Math.floor(n / DAY) % 3 === 0;
      return seconds(normal() + (second ? 2 : 0), second ? 'b' : 'a');
    }),
};

test.each(Object.keys(ALIKE))('a shift that is none is told at most 0.4 times in 100 brews: %s', (kind) => {
  let alarms = 0;
  for (let seed = 1; seed <= LOGS; seed += 1)
    alarms += shiftsOf(ALIKE[kind]!(normalOf(seededRandom(seed * 7919 + 13)))).length;
  const per100 = (100 * alarms) / (LOGS * BREWS);
  console.info(`${kind}: ${per100.toFixed(2)} false shifts in 100 brews`);
  expect(per100).toBeLessThanOrEqual(0.4);
});

test.each([
  [2, 0.6],
  [2.5, 0.85],
  [3, 0.95],
])(
  'brews that run %s spreads longer from day six on are told of in a median of four, most within five, and by about as much',
  (spreads, share) => {
    const delays: number[] = [];
    const sizes: number[] = [];
    for (let seed = 1; seed <= LOGS; seed += 1) {
      // Five days of eight brews as usual, then longer.
      const values = [...steady(seed, 40), ...later(steady(seed + 10_000, 16), SD * spreads)];
      const shift = shiftsOf(values).find(({ seenIndex }) => seenIndex >= 40);
      delays.push(shift ? shift.seenIndex - 39 : Infinity);
      if (shift) sizes.push(shift.by / SD);
    }
    const within = delays.filter((delay) => delay <= 5).length / delays.length;
    const middle = median(delays);
    console.info(
      `${spreads} spreads: median after ${middle}, within five brews in ${(100 * within).toFixed(1)} % of logs, said to be ${median(sizes).toFixed(2)}`,
    );
    expect(middle).toBeLessThanOrEqual(4);
    expect(within).toBeGreaterThan(share);
    expect(Math.abs(median(sizes) - spreads)).toBeLessThan(0.25);
  },
);

test('one odd brew is outside the limits and no shift; where a shift began and how far it went is said', () => {
  const values = steady(7, 40);
  values[30] = { value: 260 };
  const odd = runChart(values)!;
  expect(odd.outside[30]).toBe(true);
  expect(odd.shift).toBeNull();

  const shifted = runChart([...steady(3, 40), ...later(steady(4, 8), 20)])!;
  expect(Math.abs(shifted.shift!.fromIndex - 40)).toBeLessThanOrEqual(1);
  expect(shifted.shift!.by).toBeGreaterThan(10);
  expect(shifted.shift!.by).toBeLessThan(30);
  // The limits stay those of the usual brews.
  expect(Math.abs(shifted.centre - 185)).toBeLessThan(5);
});

test('somebody new is not taken for a shift of the coffee until it is known how they brew', () => {
  const usual = steady(5, 40).map((each) => ({ ...each, by: 'a' }));
  const fresh = later(steady(6, 3), 25).map((each) => ({ ...each, by: 'b' }));
  expect(runChart([...usual, ...fresh])!.shift).toBeNull();
  expect(runChart([...usual, ...fresh.map((each) => ({ ...each, by: 'a' }))])!.shift).not.toBeNull();
});

test('eleven brews have no limits yet, and equal ones are not odd for a second', () => {
  expect(runChart(steady(1, 11))).toBeNull();
  const equal = runChart([...Array<RunValue>(20).fill({ value: 180 }), { value: 181 }])!;
  expect(equal.outside.some(Boolean)).toBe(false);
  expect(equal.shift).toBeNull();
});
