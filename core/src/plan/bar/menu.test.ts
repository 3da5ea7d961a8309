/** The menu as it stands: what is off says why, and doses that are promised to others are not sold twice. */
import { BENCH, T0, book, cup, order, started } from '../../testing/bench';
import { reduce } from '../../brew';
import { SCHOOLS } from '../../recipe';
import {
  asInQueue,
  menuNow,
  quoteOrder,
  standingPlan,
  timesOf,
  wavesOf,
  type MenuLine,
  type Queue,
} from '../index';

const LINES: MenuLine[] = [
  { id: 'm1', coffeeId: 'saltmarsh', recipeId: 'cone-thirds', sizesMl: [250, 300] },
  { id: 'm2', coffeeId: 'saltmarsh', recipeId: 'press-long', sizesMl: [250], off: true },
  { id: 'm3', coffeeId: 'saltmarsh', recipeId: 'press-long', sizesMl: [250], before: '11:00' },
  { id: 'm4', coffeeId: 'saltmarsh', recipeId: 'siphon-late', sizesMl: [350] },
  { id: 'm5', coffeeId: 'gone', recipeId: 'cone-thirds', sizesMl: [250] },
];
const bar = (stockG?: number) => ({
  ...BENCH,
  coffees: [{ id: 'saltmarsh', name: 'Saltmarsh', roast: 'light' as const }],
  menu: LINES,
  ...(stockG === undefined ? {} : { stockG: { Saltmarsh: stockG } }),
});
const now = (state = reduce([], book).state, stockG?: number, minute = 12 * 60) =>
  Object.fromEntries(
    menuNow(bar(stockG), SCHOOLS, book, state, minute).map(({ line, off, dosesLeft }) => [
      line.id,
      [off, dosesLeft],
    ]),
  );

test('each line says whether it can be had; one whose coffee is gone is not shown', () => {
  expect(now()).toEqual({
    m1: [null, null],
    m2: ['sold out', null],
    m3: ['only before', null],
    m4: ['no station', null],
  });
  expect(now(undefined, undefined, 10 * 60 + 59)['m3']).toEqual([null, null]);
});

test('doses left are what nobody waits for: brews that run and cups that wait are off the stock', () => {
  // A cup of 250 ml takes 17.6 g.
  expect(now(undefined, 54)['m1']).toEqual([null, 3]);
  const waits = reduce([order('A', 0, cup('a1'))], book).state;
  expect(now(waits, 54)['m1']).toEqual([null, 2]);
  const runs = reduce([order('A', 0, cup('a1'), cup('a2')), started('a1', 'A', 'cone-1', 10)], book).state;
  expect(now(runs, 54)['m1']).toEqual([null, 1]);
  expect(now(runs, 40)['m1']).toEqual(['no coffee left', 0]);
});

test('a station out of use makes nothing new; where no other brews it, the line is off', () => {
  const stations = BENCH.stations.map((station) => ({ ...station, out: station.brewerId === 'cone-m' }));
  const [line] = menuNow({ ...bar(), stations }, SCHOOLS, book, reduce([], book).state, 0);
  expect(line!.off).toBe('no station');
  const one = stations.map((station) => ({ ...station, out: station.id === 'cone-1' }));
  expect(menuNow({ ...bar(), stations: one }, SCHOOLS, book, reduce([], book).state, 0)[0]!.off).toBeNull();
});

test('a cup that waits for a station out of use holds up no quote for another one', () => {
  const state = reduce([order('A', 0, cup('a1', 'press-long'))], book).state;
  const stations = BENCH.stations.map((station) => ({ ...station, out: station.brewerId !== 'cone-m' }));
  const standing = { state, bench: { ...BENCH, stations }, book, nowS: T0 / 1000 + 10, plan: null };
  expect(quoteOrder(standing, standingPlan(standing), [cup('b1')])).toMatchObject({ ok: true });
  const press = quoteOrder(standing, standingPlan(standing), [cup('b1', 'press-long')]);
  expect(press).toEqual({ ok: false, reason: 'Press 1: out of use, and no other station brews this.' });
});

test('what is fetched at a time is promised for it while it can be, else with the usual margin', () => {
  expect(timesOf(1000.2, 900, { pickUpMs: 1_200_000 })).toEqual({
    promisedMs: 1_200_000,
    expectedMs: 1_001_000,
  });
  expect(timesOf(1000, 900, { pickUpMs: 950_000 })).toEqual({ promisedMs: 1_023_000, expectedMs: 1_000_000 });
  expect(timesOf(1000, 900, {}, 0.5)).toEqual({ promisedMs: 1_065_000, expectedMs: 1_000_000 });
});

test('what an order says of its queue; and the waves of a large one', () => {
  const queue: Queue = {
    id: 'tables',
    name: 'Tables',
    promise: 'within',
    withinMin: 15,
    share: 2,
    stroke: 'dotted',
  };
  expect(asInQueue(queue, 5)).toEqual({ queueId: 'tables', withinS: 900, share: 2, stroke: 'dotted' });
  expect(asInQueue({ id: 'boat', name: 'Boat', promise: 'pick-up' }, 5)).toEqual({
    queueId: 'boat',
    pickUpMs: 5,
  });
  expect(asInQueue(undefined, 5)).toEqual({});
  // Cups that are out within two minutes of a wave's first are of that wave.
  expect(wavesOf([300, 100, 210, 500, 430])).toEqual([[1, 2], [0], [4, 3]]);
});
