import { BENCH, T0, book, counter, cup } from '../testing/bench';
import { brewTimeMs, reduce, type BrewStarted } from '../brew';
import { grindSlope, runChart } from '../learn';
import { seededRandom } from '../plan';
import { liveDays } from './days';

const DAY_MS = 86_400_000;
const bench = { ...BENCH, coffees: [{ name: 'Saltmarsh' }] };
const { cupId: _cupId, ...ask } = cup('c');

test('two weeks from the simulator are a log that the bar takes, and teach what was true of them', () => {
  const events = liveDays({
    bench,
    book,
    daysMs: Array.from({ length: 14 }, (_, day) => T0 + day * DAY_MS),
    cupsADay: 8,
    menu: [ask],
    people: ['noor', 'imre'],
    truths: [
      {
        recipeId: 'cone-thirds',
        coffee: 'Saltmarsh',
        longerS: 4,
        spreadS: 4,
        secondsPerStep: -9,
        drift: { fromDay: 12, longerS: 16 },
      },
    ],
    coarserOn: (_coffee, day) => (day < 5 ? day - 2 : 0),
    random: seededRandom(8),
    newId: counter('past-'),
    prefix: 'past',
  });
  const { state, refused } = reduce(events, book);
  expect(refused).toEqual([]);
  const brews = Object.values(state.brews);
  expect(brews.map(({ status }) => status)).toEqual(Array(14 * 8).fill('cleaned'));
  const points = brews.map((brew) => ({
    setting: (brew.events[0] as BrewStarted).grindSetting!,
    brewS: brewTimeMs(brew)! / 1000,
  }));
  const reference = { setting: points.at(-1)!.setting, brewS: brews[0]!.planned.brewTimeS };
  // Larger settings are coarser on this grinder.
  const slope = grindSlope(points.slice(0, 12 * 8), reference, { way: 1, bands: 8 / 3 });
  expect(Math.abs(slope.secondsPerStep / -9 - 1)).toBeLessThan(0.15);
  const chart = runChart(points.slice(5 * 8).map(({ brewS }) => ({ value: brewS })))!;
  expect(Math.abs(chart.shift!.fromIndex - 7 * 8)).toBeLessThanOrEqual(2);
  expect(chart.shift!.seenIndex).toBeLessThan(7 * 8 + 5);
  expect(brews.filter(({ taste }) => taste).length).toBeGreaterThan(25);
});
