import type { Taste } from '../brew';
import { adviseOn, changeInWords } from './advice';
import { clothState } from './cloth';
import { dayOf, type DayBrew } from './day';
import { extractionYieldPct, tasteOfPoint } from './extraction';
import { grindSlope } from './grind-slope';
import { restInWords, restOf } from './rest';

const slope = grindSlope(
  [18, 20, 22].flatMap((setting) => [0, 1, 2].map((n) => ({ setting, brewS: 208 - 8 * (setting - 20) + n }))),
  { setting: 20, brewS: 180 },
  { way: 1, bands: 8 / 3 },
);
const evidence = { chart: null, grind: { slope, setting: 20 } };
const tried = {
  method: 'cone' as const,
  roast: 'medium' as const,
  taste: {},
  notes: [],
  brewS: 210,
  windowS: { from: 170, to: 195 },
  expectedS: 182,
  waterC: 93,
  highestC: 99.9,
};

test('a brew that runs slow and tastes bitter: so many steps coarser, with the time that is expected and from how many brews', () => {
  const advice = adviseOn({ ...tried, taste: { balance: 1 } }, evidence);
  expect(advice.kind).toBe('change');
  if (advice.kind !== 'change') return;
  expect(advice.change).toMatchObject({ what: 'grind', stepsCoarser: 3 });
  expect(changeInWords(advice.change, slope.brews)).toMatch(
    /^3 steps coarser: about 3:0\d ± 0:\d\d \(80 %\), from 9 brews$/,
  );
  expect(advice.because).toEqual([
    '3:30 is 15 s over its window.',
    'It was bitter.',
    'A step coarser is worth about 8 s here, from 9 brews.',
  ]);
});

test.each([
  ['bitter yet fast', { brewS: 150, taste: { balance: 1 as const } }, 'The dose'],
  ['sour yet slow', { brewS: 230, taste: { balance: -2 as const } }, 'The water'],
])('%s is said to be a contradiction, with what to check first', (_what, changed, first) => {
  const advice = adviseOn({ ...tried, ...changed }, evidence);
  expect(advice.kind).toBe('contradiction');
  if (advice.kind === 'contradiction') expect(advice.checkFirst[0]).toContain(first);
});

test('a light body is told apart: with sourness too little was drawn out, clean it is no fault', () => {
  const because = (taste: Taste) => adviseOn({ ...tried, brewS: 180, taste }, evidence).because.join(' ');
  expect(because({ balance: -1, body: -1 })).toMatch(/It was sour, light body\. Sour and thin together/);
  expect(because({ balance: 0, body: -1 })).toMatch(/clean taste is no fault/);
  expect(because({ body: 1 })).not.toMatch(/fault|thin/);
});

test.each([
  ['in time and balanced', {}, null],
  ['bitter and dark', { roast: 'dark' as const, taste: { balance: 1 as const } }, '2 °C cooler'],
  ['sour and light', { roast: 'light' as const, taste: { balance: -1 as const } }, '2 °C hotter'],
  [
    'sour, light and thin',
    { brewS: 180, roast: 'light' as const, taste: { balance: -1 as const, body: -1 as const } },
    /steps? finer/,
  ],
  ['light in body and clean', { brewS: 180, taste: { balance: 0 as const, body: -2 as const } }, null],
  [
    'bitter, in water that was read too hot',
    { taste: { balance: 1 as const }, reads: [{ readC: 97, from: 93, to: 93 }] },
    'Read 97 °C, asked 93: cooler water first.',
  ],
  [
    'a siphon that was read too hot',
    { method: 'siphon' as const, brewS: 180, reads: [{ readC: 96, from: 91, to: 94 }] },
    'Read 96 °C, asked 91 to 94: lower the flame first.',
  ],
  [
    'bitter, though its water was read too cool',
    {
      roast: 'dark' as const,
      brewS: 180,
      taste: { balance: 1 as const },
      reads: [{ readC: 88, from: 91, to: 94 }],
    },
    '2 °C cooler',
  ],
  ['weak', { taste: { strength: -1 as const } }, 'Ratio down by 0.5: less water on the dose'],
  ['too strong', { taste: { strength: 1 as const } }, 'Ratio up by 0.5: more water on the dose'],
  ['weak, with grounds on the wall', { taste: { strength: -1 as const, seen: ['wall' as const] } }, /wall/],
  ['dry clumps', { taste: { seen: ['clumps' as const] } }, /Stir the bloom/],
  ['stalled', { brewS: 240, notes: ['stalled' as const] }, /Pour lower and more gently/],
  [
    'stalled in an hourglass',
    { method: 'hourglass' as const, notes: ['stalled' as const] },
    /Free the spout/,
  ],
  ['stalled in a siphon', { method: 'siphon' as const, notes: ['stalled' as const] }, /Boil the cloth/],
  ['a press plunged late', { method: 'press' as const, brewS: 235 }, /^Plunged 0:40 late/],
  ['an air press pressed early', { method: 'air-press' as const, brewS: 150 }, /^Pressed 0:20 early/],
  ['a pot that took long', { method: 'foam-pot' as const, brewS: 300 }, /flame was too low/],
  ['a hard plunge', { method: 'press' as const, notes: ['hard-plunge' as const] }, /coarser/],
  ['a siphon too hot above', { method: 'siphon' as const, notes: ['too-hot' as const] }, /Lower the flame/],
  ['noted as too fast', { notes: ['ran-fast' as const] }, /finer/],
  ['very light and sour', { roast: 'very light' as const, taste: { balance: -1 as const } }, '2 °C hotter'],
  [
    'medium-dark and bitter',
    { roast: 'medium-dark' as const, taste: { balance: 1 as const } },
    '2 °C cooler',
  ],
  ['a lively bloom', { taste: { seen: ['lively-bloom' as const] } }, /open more slowly/],
  ['muddy and in time', { taste: { seen: ['muddy' as const] } }, /gently and lower next time, and taste/],
  ['one grind for all, bitter', { oneGrind: true, taste: { balance: 1 as const } }, '2 °C cooler'],
  ['one grind for all, sour', { oneGrind: true, taste: { balance: -1 as const } }, '2 °C hotter'],
  [
    'a pot, dark and bitter',
    { method: 'foam-pot' as const, roast: 'dark' as const, taste: { balance: 1 as const } },
    /^1 step coarser$/,
  ],
  [
    'a pressure pot, too strong',
    { method: 'pressure-pot' as const, taste: { strength: 1 as const } },
    /filled whole/,
  ],
  ['a press, sour', { method: 'press' as const, taste: { balance: -1 as const } }, /^1 step finer$/],
  [
    'fines on the wall of a stirred single pour',
    { stirredOnePour: true, taste: { seen: ['wall' as const] } },
    null,
  ],
  [
    'light and sour where water boils at 93',
    { roast: 'light' as const, highestC: 93, taste: { balance: -1 as const } },
    /finer/,
  ],
])('in time, %s: one change at a time, from the table of signs', (_what, changed, words) => {
  const advice = adviseOn({ ...tried, brewS: 182, ...changed }, evidence);
  if (words === null) return expect(advice.kind).toBe('leave');
  expect(advice.kind).toBe('change');
  if (advice.kind !== 'change') return;
  if (words instanceof RegExp) expect(changeInWords(advice.change)).toMatch(words);
  else expect(changeInWords(advice.change)).toBe(words);
});

test('a siphon that is bitter and slow goes coarser first; a bar with one grind for all pours otherwise', () => {
  const siphon = adviseOn({ ...tried, method: 'siphon', brewS: 240, taste: { balance: 1 } }, evidence);
  expect(siphon).toMatchObject({ kind: 'change', change: { what: 'grind' } });
  expect(siphon.because.join(' ')).toContain('lower the flame next');
  const kept = adviseOn({ ...tried, brewS: 240, oneGrind: true }, evidence);
  expect(kept).toMatchObject({ kind: 'change', change: { what: 'by-hand' } });
});

test('percolation counts what is in the cup, immersion all the water', () => {
  const cup = { doseG: 18, brewWaterG: 288, beverageG: 250 };
  expect(extractionYieldPct('cone', 1.4, cup)).toBeCloseTo(19.44, 2);
  expect(extractionYieldPct('press', 1.4, cup)).toBeCloseTo(22.4, 2);
  expect(extractionYieldPct('press', 1.4, { ...cup, isIced: true })).toBeCloseTo(19.44, 2);
  expect(tasteOfPoint(1.3, 20)).toBe('balanced');
  expect(tasteOfPoint(1.7, 16)).toBe('strong and sour');
});

test('a light roast rests five days, is good to the twenty-first, and is to be used first before that', () => {
  const at = (day: number) => restOf('2026-11-01', 'light', Date.UTC(2026, 10, 1 + day, 9));
  expect([3, 5, 16, 17, 21, 22].map((day) => at(day).stands)).toEqual([
    'too young',
    'good',
    'good',
    'use first',
    'use first',
    'past',
  ]);
  expect(restInWords(at(12))).toBe('12 days old, good for 9 more');
  expect(restInWords(at(21))).toBe('21 days old, use first: its last day');
});

test('a cloth is boiled before its first use and each day of service, and replaced when worn or slow', () => {
  const day = 86_400_000;
  const brews = (count: number, drawdownS: (n: number) => number) =>
    Array.from({ length: count }, (_, n) => ({ atMs: n * (day / 4), drawdownS: drawdownS(n) }));
  expect(clothState({ sinceMs: 0, boiledMs: [], brews: [] }, 0).due).toEqual(['boil before first use']);
  const fresh = clothState({ sinceMs: 0, boiledMs: [0], brews: brews(20, () => 60) }, 4 * day);
  expect(fresh).toMatchObject({ uses: 20, creep: null, due: ['boil today'] });
  const slow = clothState(
    { sinceMs: 0, boiledMs: [10 * day], brews: brews(41, (n) => (n < 28 ? 60 : 75)) },
    10 * day,
  );
  expect(slow.creep).toBeCloseTo(0.25, 5);
  expect(slow.due).toEqual(['replace: runs slow']);
  expect(clothState({ sinceMs: 0, boiledMs: [50 * day], brews: brews(91, () => 60) }, 50 * day).due).toEqual([
    'replace: worn',
  ]);
});

test('a day in figures: waits of whole orders, who was late and why, what was lost', () => {
  const brew = (part: Partial<DayBrew>): DayBrew => ({
    brewId: 'b',
    orderId: 'o',
    method: 'cone',
    outcome: 'served',
    reason: null,
    attempt: 1,
    cups: 1,
    doseG: 18,
    pouredG: 288,
    handsS: 150,
    orderedMs: 0,
    promisedMs: 400_000,
    startedMs: 30_000,
    endedMs: 300_000,
    realBrewS: 182,
    windowFromS: 170,
    windowToS: 195,
    ...part,
  });
  const day = dayOf([
    brew({ orderId: 'A', queueId: 'counter' }),
    brew({ orderId: 'A', method: 'press', endedMs: 360_000, realBrewS: null, queueId: 'counter' }),
    brew({ orderId: 'B', startedMs: 300_000, endedMs: 520_000, queueId: 'boat' }),
    brew({ orderId: 'C', outcome: 'abandoned', reason: 'torn filter' }),
    brew({ orderId: 'C', attempt: 2, endedMs: 640_000, realBrewS: 240 }),
  ]);
  expect(day).toMatchObject({
    cups: 4,
    orders: 3,
    waitS: { median: 520, longest: 640 },
    remade: 1,
    abandoned: [{ reason: 'torn filter', count: 1 }],
    waste: { coffeeG: 18, waterG: 288 },
    inWindow: { of: 3, inside: 2 },
  });
  expect(day.late).toEqual([
    { orderId: 'C', byS: 240, cause: 'brewed again' },
    { orderId: 'B', byS: 120, cause: 'waited for hands or a brewer' },
  ]);
  // C stood in no queue: its log is older than queues are.
  expect(day.queues).toEqual([
    { queueId: 'counter', orders: 1, medianWaitS: 360, late: 0 },
    { queueId: 'boat', orders: 1, medianWaitS: 520, late: 1 },
  ]);
  expect(day.handsByMethod.map(({ method, cups }) => [method, cups])).toEqual([
    ['cone', 3],
    ['press', 1],
  ]);
  expect(dayOf([])).toMatchObject({ cups: 0, waitS: null, late: [] });
  // Served, sent back and brewed again: one cup sold, and the first one's coffee and water lost.
  const back = dayOf([brew({ isSentBack: true }), brew({ brewId: 'b2', attempt: 2 })]);
  expect(back).toMatchObject({ cups: 1, remade: 1, abandoned: [], waste: { coffeeG: 18, waterG: 288 } });
});
