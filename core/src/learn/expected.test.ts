/** What the same hours of the weeks before say of a rush; and when kettles are descaled. */
import { descaleAfterL, expectedRush, litresThrough, weekBefore, type PastBrew } from './expected';

const brew = (coffee: string, change: Partial<PastBrew> = {}): PastBrew => ({
  orderedMs: 0,
  outcome: 'served',
  attempt: 1,
  cups: 1,
  coffee,
  method: 'cone',
  doseG: 17.6,
  ...change,
});

test('a usual week is the mean of those in which the bar was open; what was brewed again was asked for once', () => {
  const first = [
    brew('Saltmarsh'),
    brew('Saltmarsh'),
    brew('Saltmarsh', { attempt: 2 }),
    brew('Low Beacon', { doseG: 30, cups: 2 }),
  ];
  const second = [
    ...Array.from({ length: 4 }, () => brew('Saltmarsh')),
    brew('Low Beacon', { outcome: 'abandoned' }),
  ];
  expect(expectedRush([first, [], second, []])).toEqual({
    doses: [
      { coffee: 'Saltmarsh', method: 'cone', doseG: 17.6, brews: 3 },
      // Once in two weeks rounds up to one.
      { coffee: 'Low Beacon', method: 'cone', doseG: 30, brews: 1 },
    ],
    cups: 4,
    weeks: 2,
  });
  expect(expectedRush([[], []])).toEqual({ doses: [], cups: 0, weeks: 0 });
});

test('the same hours of another week lie whole weeks before', () => {
  expect(weekBefore(2, { fromMs: 15 * 86_400_000, toMs: 15 * 86_400_000 + 5 })).toEqual({
    fromMs: 86_400_000,
    toMs: 86_400_000 + 5,
  });
});

test('hard water descales sooner, by the kettle; soft water never', () => {
  // 12 g for each of two kettles; 200 ppm is 0.2 g a litre.
  expect([descaleAfterL(2, 200), descaleAfterL(2), descaleAfterL(1, 0)]).toEqual([120, 200, Infinity]);
  // A hundred brews of 18 g: 28.8 l in cups and 18 l to rinse.
  expect(litresThrough({ doseG: 1800, brews: 100 })).toBeCloseTo(46.8);
});
