/** A made-up brew's weight agrees with its log: it rises only while poured, and reads what the log says. */
import fc from 'fast-check';
import { seededRandom } from '../plan';
import { weightAt } from '../pour';
import { weighed, type Poured } from './weighed';

const poursGiven = fc
  .array(
    fc.record({
      restS: fc.integer({ min: 3, max: 60 }),
      flowGPerS: fc.integer({ min: 2, max: 8 }),
      forS: fc.integer({ min: 4, max: 30 }),
    }),
    { minLength: 1, maxLength: 6 },
  )
  .map((parts) =>
    parts.reduce<Poured[]>((pours, { restS, flowGPerS, forS }) => {
      const last = pours.at(-1);
      const fromMs = (last?.toMs ?? 1_700_000_000_000) + (last ? restS * 1000 : 0);
      return [...pours, { fromMs, toMs: fromMs + forS * 1000, toG: (last?.toG ?? 0) + flowGPerS * forS }];
    }, []),
  );

test('at the end of every pour the scale reads what was told, and nothing is added in between', () => {
  fc.assert(
    fc.property(poursGiven, fc.integer({ min: 1, max: 1e6 }), (pours, seed) => {
      const untilMs = pours.at(-1)!.toMs + 60_000;
      const points = weighed(pours, untilMs, seededRandom(seed));
      expect(points[0]!.atMs).toBe(pours[0]!.fromMs);
      expect(points.at(-1)!.atMs).toBeLessThanOrEqual(untilMs);
      pours.forEach(({ toMs, toG }, n) => {
        const restMs = pours[n + 1]?.fromMs ?? untilMs - 1000;
        // Spout and load cell are a moment behind.
        for (const atMs of [toMs + 1500, restMs])
          expect(Math.abs(weightAt(points, atMs)! - toG)).toBeLessThan(1.5);
      });
      // Few points: a straight pour is a handful, a rest next to none.
      expect(points.length).toBeLessThan(60 * pours.length + 60);
    }),
    { numRuns: 60, seed: 20261126 },
  );
});

test('nothing poured is nothing weighed', () => {
  expect(weighed([], 1000, seededRandom(1))).toEqual([]);
});
