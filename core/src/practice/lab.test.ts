/** The rush lab: shifts end, differences are found, and more hands or tools never make it worse. */
import { SCHOOLS, bookOf } from '../recipe';
import { lanternPier } from '../demo';
import { benchOf, changesOf, faultOf, variantOf, type LabVariant } from './lab';
import { CAREFULLY, guestsOf, liveLabShift, type LabCare, type LabShift } from './lab-shift';
import { differenceOf, isSure, labFigures, meanWaitS } from './lab-figures';

const book = bookOf(SCHOOLS);
const bar = lanternPier(Date.UTC(2026, 0, 5, 8));
const BOATS = [4, 2, 1, 1, 1, 0.5, 3, 2, 1, 1, 0.5, 0.5];
const line = (recipeId: string, cupMl: number, share: number) => ({
  recipeId,
  recipeVersion: 1,
  coffee: 'Saltmarsh',
  roast: 'light' as const,
  cupMl,
  share,
});
const MENU = [
  line('cone-thirds', 250, 4),
  line('cone-steady', 250, 2),
  line('sock-fours', 250, 1),
  line('press-long', 250, 1),
];
const base = (cupsAnHour = 10): LabVariant => ({
  ...variantOf(bar, MENU, { cupsAnHour, curve: BOATS }, 'As it is'),
  hands: 1,
});

/** Enough to tell; `npm run bench -- lab` lives twenty of each. */
const SEEDS = 14;

const lived = new Map<string, Promise<LabShift[]>>();
/** Shifts are the same for the same variant and seed, so that tests share them. */
function shifts(variant: LabVariant, seeds: number, care?: LabCare): Promise<LabShift[]> {
  const key = JSON.stringify([variant, seeds, care]);
  const known = lived.get(key);
  if (known) return known;
  const all = (async () => {
    const list: LabShift[] = [];
    for (let seed = 1; seed <= seeds; seed += 1)
      list.push(await liveLabShift(bar, variant, book, seed, care && (() => care)));
    return list;
  })();
  lived.set(key, all);
  return all;
}

test('every guest of a shift is served, and the same seed lives the same shift again', async () => {
  const [first] = await shifts(base(), 1);
  const again = await liveLabShift(bar, base(), book, 1);
  expect(again).toEqual(first);
  expect(first!.cups).toBe(10);
  expect(first!.waitsS.every((wait) => wait > 60 && wait < 3 * 3600)).toBe(true);
  expect(first!.handsBusy).toBeGreaterThan(0.2);
});

test('guests come by the curve, and are the same ones whatever else is changed', () => {
  const variant = base(60);
  const guests = guestsOf(variant, bar, book, 3);
  expect(guestsOf({ ...variant, hands: 2, kettles: 9 }, bar, book, 3)).toEqual(guests);
  expect(
    guestsOf(
      { ...variant, guests: { cupsAnHour: 60, curve: [1, ...Array<number>(11).fill(0)] } },
      bar,
      book,
      3,
    ).every(({ atMs }) => atMs - guests[0]!.atMs < 300_000),
  ).toBe(true);
  expect(guests.flatMap(({ cups }) => cups)).toHaveLength(60);
});

test('two variants that differ by 5 % in how quick their hands are, are told apart', async () => {
  const usual = await shifts(base(), SEEDS);
  const slower = await shifts({ ...base(), paceBy: 1.05 }, SEEDS);
  const difference = differenceOf(slower, usual, meanWaitS)!;
  console.log(
    `hands 5 % slower: ${difference.by.toFixed(0)} s ± ${difference.give.toFixed(0)} s on a mean wait of ${labFigures(usual).meanS.toFixed(0)} s, ${SEEDS} paired shifts`,
  );
  expect(isSure(difference)).toBe(true);
  expect(difference.by).toBeGreaterThan(0);
  expect(isSure(differenceOf(usual, usual, meanWaitS)!)).toBe(false);
});

test('more hands or tools never make the mean wait longer beyond chance', async () => {
  const usual = await shifts(base(), SEEDS);
  const more = changesOf(base()).filter(
    ({ what, brewerId, andHabits }) =>
      !andHabits && (what === 'hands' || what === 'kettle' || brewerId === 'press-350'),
  );
  expect(more).toHaveLength(3);
  for (const { what, brewerId, variant } of more) {
    const difference = differenceOf(await shifts(variant, 6), usual.slice(0, 6), meanWaitS)!;
    console.log(
      `one more ${brewerId ?? what}: ${difference.by.toFixed(0)} s ± ${difference.give.toFixed(0)} s`,
    );
    expect(difference.by - difference.give).toBeLessThan(1);
  }
  const second = differenceOf(await shifts({ ...base(), hands: 2 }, 5), usual, meanWaitS)!;
  expect(second.by + second.give).toBeLessThan(-60);
});

test('work done ahead saves its seconds, and a short menu its slow lines', async () => {
  const usual = await shifts(base(), SEEDS);
  const ahead = await shifts({ ...base(), ahead: true }, 5);
  // Hands that weigh nothing are busy for less of the time; so few shifts do not tell it by the wait.
  expect(differenceOf(ahead, usual, ({ handsBusy }) => handsBusy)!.by).toBeLessThan(-0.005);
  const offered = await liveLabShift(bar, { ...base(), shortMenu: true }, book, 1);
  expect(offered.cups).toBe(10);
});

test('planned less often than a real bar is, a shift comes to the same within chance', async () => {
  const quick = await shifts(base(8), 3);
  const careful = await shifts(base(8), 3, CAREFULLY);
  const difference = differenceOf(quick, careful, meanWaitS)!;
  console.log(
    `quickly less carefully: ${difference.by.toFixed(0)} s ± ${difference.give.toFixed(0)} s on ${labFigures(careful).meanS.toFixed(0)} s`,
  );
  expect(Math.abs(difference.by)).toBeLessThan(0.12 * labFigures(careful).meanS);
});

test('equal cups of one order become one larger brew only where a brewer takes it', () => {
  const variant = { ...base(40), shared: true, menu: [line('press-long', 250, 1)] };
  const bench = benchOf(bar, variant);
  const cups = guestsOf(variant, bench, book, 2).flatMap(({ cups: each }) => each);
  expect(Math.max(...cups.map((cup) => cup.cups ?? 1))).toBeGreaterThan(1);
  expect(cups.reduce((sum, cup) => sum + (cup.cups ?? 1), 0)).toBe(40);
  const cones = guestsOf({ ...variant, menu: [line('cone-thirds', 350, 1)] }, bench, book, 2);
  expect(cones.flatMap(({ cups: each }) => each).every((cup) => (cup.cups ?? 1) === 1)).toBe(true);
});

test('a variant that cannot be lived with says why', () => {
  expect(faultOf(bar, base(), book)).toBeNull();
  expect(faultOf(bar, { ...base(), kettles: 0 }, book)).toMatch(/needs a kettle/);
  expect(faultOf(bar, { ...base(), stations: { 'press-350': 1 } }, book)).toMatch(/No station on the bench/);
  expect(faultOf(bar, { ...base(), menu: [] }, book)).toMatch(/menu/);
});

test('figures are those of all orders, and the busiest is named', () => {
  const shift = (seed: number, waitsS: number[]): LabShift => ({
    seed,
    orders: waitsS.length,
    cups: waitsS.length,
    waitsS,
    cupsAnHour: 20,
    late: waitsS.filter((wait) => wait > 600).length,
    handsBusy: 0.6,
    toolsBusy: { kettle: 0.7, grinder: 0.1 },
  });
  const figures = labFigures([shift(1, [100, 200, 300, 700]), shift(2, [400, 500])]);
  expect(figures).toMatchObject({
    shifts: 2,
    // Between 300 and 400, and half-way from 500 to 700.
    medianS: 350,
    p90S: 600,
    lateShare: 1 / 6,
    shortShare: 4 / 6,
    bottleneck: 'kettle',
  });
  // By hand: differences 10 and 30, so 20 with a standard error of 10, and t of one degree 12.7.
  const difference = differenceOf(
    [shift(1, [110]), shift(2, [230])],
    [shift(1, [100]), shift(2, [200])],
    meanWaitS,
  )!;
  expect(difference.by).toBe(20);
  expect(difference.give).toBeGreaterThan(60);
});

test('what could be changed comes the cheapest first, alone and with all habits, and nothing that is so already', () => {
  const changes = changesOf(base());
  expect(changes.map(({ cost }) => cost)).toEqual(changes.map(({ cost }) => cost).sort((a, b) => a - b));
  expect(changes.slice(0, 3).map(({ what }) => what)).toEqual(['ahead', 'shared', 'shortMenu']);
  const withHands = changes.filter(({ what }) => what === 'hands');
  expect(
    withHands.map(({ andHabits, variant }) => [andHabits ?? false, variant.hands, variant.ahead]),
  ).toEqual([
    [false, 2, false],
    [true, 2, true],
  ]);
  const best = { ...base(), hands: 4, ahead: true, shared: true, shortMenu: true };
  expect(
    changesOf(best).some(({ what, andHabits }) => what === 'hands' || what === 'habits' || andHabits),
  ).toBe(false);
});
