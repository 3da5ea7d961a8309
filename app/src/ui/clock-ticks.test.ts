/** Time axes are labelled at whole steps of a clock, whatever their range. */
import fc from 'fast-check';
import { clockTicks } from './clock-ticks';

test('the ticks of any brew lie in its range, evenly, at steps that a clock shows, and no more of them than were asked for', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -300, max: 600 }),
      fc.integer({ min: 5, max: 7200 }),
      fc.integer({ min: 2, max: 12 }),
      (fromS, lengthS, count) => {
        const ticks = clockTicks([fromS, fromS + lengthS], count);
        const steps = new Set(ticks.slice(1).map((s, n) => s - ticks[n]!));
        expect(steps.size).toBeLessThanOrEqual(1);
        for (const step of steps) expect(60 % step === 0 || step % 60 === 0).toBe(true);
        expect(ticks.every((s) => s >= fromS && s <= fromS + lengthS)).toBe(true);
        expect(ticks.length).toBeLessThanOrEqual(count + 1);
      },
    ),
  );
});

test('a brew of three minutes on a phone is labelled at each half minute', () => {
  expect(clockTicks([0, 190], 7)).toEqual([0, 30, 60, 90, 120, 150, 180]);
});
