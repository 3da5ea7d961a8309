import { seedOr } from '../testing/random';
import fc from 'fast-check';
import { bytesToTrace, traceToBytes } from './trace-bytes';

const seed = seedOr(20261125);
console.info(`trace-bytes.fuzz seed ${seed}`);

test('any trace comes back from its bytes as it was, to a tenth of a gram, and takes few of them', () => {
  const point = fc.record({
    atMs: fc.integer({ min: 0, max: 4_000_000_000_000 }),
    tenths: fc.integer({ min: -50_000, max: 200_000 }),
  });
  fc.assert(
    fc.property(fc.array(point, { maxLength: 60 }), (drawn) => {
      const points = drawn.map(({ atMs, tenths }) => ({ atMs, massG: tenths / 10 }));
      expect(bytesToTrace(traceToBytes(points))).toEqual(points);
    }),
    { numRuns: 500, seed },
  );
  const poured = Array.from({ length: 100 }, (_, n) => ({
    atMs: 1_764_000_000_000 + n * 1900,
    massG: n * 2.8,
  }));
  expect(traceToBytes(poured).length / poured.length).toBeLessThan(3.2);
  expect(() => bytesToTrace(Uint8Array.of(129))).toThrow(RangeError);
});
