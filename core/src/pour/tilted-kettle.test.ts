/** The kettle in the hand: what a tilt pours, how slowly a full one follows, and that it pours no more than it holds. */
import fc from 'fast-check';
import { flowAt, lipOf, stepKettle, tiltFor, type TiltedKettle } from './tilted-kettle';

const NATURE = { sizeG: 1000, mostGPerS: 10 };
const upright = (holdsG: number): TiltedKettle => ({ tilt: 0, flowGPerS: 0, holdsG });

test('the tilt for a flow pours that flow, at any fill', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.1, max: 10, noNaN: true }),
      fc.double({ min: 1, max: 1000, noNaN: true }),
      (flow, holdsG) => {
        expect(flowAt(tiltFor(flow, upright(holdsG), NATURE), upright(holdsG), NATURE)).toBeCloseTo(flow, 6);
      },
    ),
  );
});

test('an emptier kettle must be tilted further, and a fuller one follows the hand more slowly', () => {
  expect(lipOf(upright(200), NATURE)).toBeGreaterThan(lipOf(upright(900), NATURE) + 0.2);
  const follows = (holdsG: number) => stepKettle(upright(holdsG), 0.1, 0.8, NATURE).kettle.tilt;
  expect(follows(100)).toBeGreaterThan(follows(1000) + 0.05);
});

test('however it is tilted, it pours what it loses and never more than it holds', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 120, noNaN: true }),
      fc.array(fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.integer({ min: 1, max: 40 })), {
        maxLength: 20,
      }),
      (holdsG, tilts) => {
        let kettle = upright(holdsG);
        let sum = 0;
        for (const [tilt, steps] of tilts)
          for (let n = 0; n < steps; n += 1) {
            const next = stepKettle(kettle, 0.05, tilt, NATURE);
            sum += next.pouredG;
            expect(next.pouredG).toBeGreaterThanOrEqual(0);
            kettle = next.kettle;
          }
        expect(kettle.holdsG).toBeGreaterThanOrEqual(0);
        expect(kettle.holdsG + sum).toBeCloseTo(holdsG, 6);
      },
    ),
  );
});
