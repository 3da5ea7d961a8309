/** The rush lab: shifts end, and are the same again; what differs is told apart in `lab.long.test.ts`. */
import { book } from '../testing/bench';
import { bar, base, line } from '../testing/lab';
import { benchOf, changesOf, faultOf } from './lab';
import { guestsOf, liveLabShift, type LabShift } from './lab-shift';
import { differenceOf, labFigures, meanWaitS } from './lab-figures';

test('every guest of a shift is served, and the same seed lives the same shift again', async () => {
  const first = await liveLabShift(bar, base(), book, 1);
  const again = await liveLabShift(bar, base(), book, 1);
  expect(again).toEqual(first);
  expect(first.cups).toBe(10);
  expect(first.waitsS.every((wait) => wait > 60 && wait < 3 * 3600)).toBe(true);
  expect(first.handsBusy).toBeGreaterThan(0.2);
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
