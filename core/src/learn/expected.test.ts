/** What the same hours of the weeks before say of a rush; and when kettles are descaled. */
import { descaleAfterL, expectedRush, weekBefore, type PastBrew } from './expected';

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
  expect(expectedRush([first, null, second, null])).toEqual({
    doses: [
      { coffee: 'Saltmarsh', method: 'cone', doseG: 17.6, brews: 3 },
      { coffee: 'Low Beacon', method: 'cone', doseG: 30, brews: 1 },
    ],
    cups: 4,
    weeks: 2,
  });
  expect(expectedRush([null, null])).toEqual({ doses: [], cups: 0, weeks: 0 });
  // Open without a guest is a week like any other; and eighteen halves are nine.
  const eight = Array.from({ length: 8 }, () => brew('Saltmarsh'));
  expect(expectedRush([eight, [], [], []])).toMatchObject({ doses: [{ brews: 2 }], cups: 2, weeks: 4 });
  const kinds = Array.from({ length: 18 }, (_, n) => brew(`coffee ${n}`));
  const halves = expectedRush([kinds, []]);
  expect([halves.cups, halves.doses.reduce((sum, { brews }) => sum + brews, 0)]).toEqual([9, 9]);
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
});
