/** The bed from above: no water is lost, its sums are those of the bed without places, and mistakes leave their marks. */
import fc from 'fast-check';
import { seededRandom } from '../plan';
import {
  dryBed,
  dryShareOf,
  moveBed,
  pastShare,
  stepBed,
  swellOf,
  unevennessOf,
  byRing,
  type BedNature,
  type Stream,
  type WettedBed,
} from './wetted-bed';
import { KEPT_RADIUS, spoutAt, type PathPart } from './water-path';
import { USUAL_NATURE, emptyScale, stepScale } from './scale-model';

const NATURE: BedNature = { bed: { tauS: 28, headG: 41 }, keepsG: 36, gas: 0.5 };
const STEP_S = 0.02;
const held = ({ heldG }: WettedBed) => heldG.reduce((sum, each) => sum + each, 0);

const stream = fc.record({
  at: fc.record({
    x: fc.double({ min: -1.2, max: 1.2, noNaN: true }),
    y: fc.double({ min: -1.2, max: 1.2, noNaN: true }),
  }),
  flowGPerS: fc.double({ min: 0, max: 20, noNaN: true }),
  height: fc.constantFrom('low', 'high'),
}) as fc.Arbitrary<Stream>;

test('whatever is poured wherever, all of it is held, stands over the bed, has run through or has run past', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(fc.option(stream), fc.integer({ min: 1, max: 60 }), fc.constantFrom(null, 'swirl', 'stir')),
        { maxLength: 25 },
      ),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.constantFrom(NATURE.bed, { tauS: 9, headG: 30 }, { tauS: Infinity, headG: 0 }),
      (pours, gas, bed) => {
        const nature = { ...NATURE, gas, bed };
        let at = dryBed(nature);
        for (const [falls, steps, move] of pours) {
          for (let n = 0; n < steps; n += 1) at = stepBed(at, STEP_S, falls, nature);
          if (move) at = moveBed(at, move as 'swirl' | 'stir');
        }
        const found = held(at) + at.slurryG + at.drainedG + at.bypassedG;
        expect(Math.abs(found - at.pouredG)).toBeLessThan(0.1);
        expect(held(at)).toBeLessThanOrEqual(nature.keepsG + 1e-9);
        for (const share of [...at.dry, ...at.gas, ...at.crater]) {
          expect(share).toBeGreaterThanOrEqual(0);
          expect(share).toBeLessThanOrEqual(1);
        }
        expect(at.slurryG).toBeGreaterThanOrEqual(0);
      },
    ),
  );
});

test('rained on evenly it is the bed without places, within 1 % of the water at every second', () => {
  const scale = { ...USUAL_NATURE, ...NATURE, handNoise: 0 };
  const pourAt = (s: number) => (s < 9 || (s > 40 && s < 60) || (s > 75 && s < 105) ? 5.2 : 0);
  const random = seededRandom(1);
  let flat = emptyScale();
  let bed = dryBed(NATURE);
  let most = 0;
  for (let n = 0; n * STEP_S < 240; n += 1) {
    const beforeG = flat.pouredG;
    flat = stepScale(flat, STEP_S, pourAt(n * STEP_S), scale, random);
    const flowGPerS = (flat.pouredG - beforeG) / STEP_S;
    const shower: Stream = { at: { x: 0, y: 0 }, flowGPerS, height: 'low', spread: 99 };
    bed = stepBed(bed, STEP_S, flowGPerS > 0 ? shower : null, NATURE);
    if (n % 50 === 0)
      most = Math.max(most, Math.abs(bed.slurryG - flat.slurryG), Math.abs(bed.drainedG - flat.drainedG));
  }
  expect(bed.bypassedG).toBe(0);
  expect(most / bed.pouredG).toBeLessThan(0.01);
});

/** A bloom of 44 g in eight seconds by a path. */
function bloomed(part: PathPart, radius = 1, height: 'low' | 'high' = 'low'): WettedBed {
  let bed = dryBed(NATURE);
  for (let n = 0; n * STEP_S < 8; n += 1) {
    const { x, y } = spoutAt(part, n * STEP_S, 8);
    bed = stepBed(bed, STEP_S, { at: { x: x * radius, y: y * radius }, flowGPerS: 5.5, height }, NATURE);
  }
  return bed;
}

test('a bloom that only meets the middle leaves dry clumps and lies uneven; a spiral wets nearly every ground', () => {
  const [spiral, centre] = [bloomed({ path: 'spiral' }), bloomed({ path: 'centre' })];
  expect(dryShareOf(spiral)).toBeLessThan(0.12);
  expect(dryShareOf(centre)).toBeGreaterThan(0.25);
  expect(unevennessOf(spiral.fellG)!).toBeLessThan(0.5);
  expect(unevennessOf(centre.fellG)!).toBeGreaterThan(1.5);
  expect(byRing(centre.fellG)[0]).toBeGreaterThan(0.8);
  expect(dryShareOf(moveBed(centre, 'stir'))).toBeLessThan(dryShareOf(moveBed(centre, 'swirl')));
});

test('grounds swell as they are wetted, more while they are fresh, and sink as the gas leaves', () => {
  const at = (bed: WettedBed) => swellOf(bed, 0, NATURE.keepsG);
  expect(at(dryBed(NATURE))).toBe(0);
  const wet = bloomed({ path: 'spiral' });
  expect(at(wet)).toBeGreaterThan(0.3);
  let later = wet;
  for (let n = 0; n < 600; n += 1) later = stepBed(later, 0.1, null, NATURE);
  expect(at(later)).toBeLessThan(0.7 * at(wet));
});

test('a stream from high digs where one from low does not, and a swirl levels it', () => {
  const deepest = ({ crater }: WettedBed) => Math.max(...crater);
  const [low, high] = [bloomed({ path: 'centre' }), bloomed({ path: 'centre' }, 1, 'high')];
  expect(deepest(high)).toBeGreaterThan(0.3);
  expect(deepest(low)).toBeLessThan(0.1);
  expect(deepest(moveBed(high, 'swirl'))).toBeLessThan(0.3 * deepest(high));
  // A thinner bed lets water through sooner.
  const drainedIn = (bed: WettedBed) =>
    stepBed({ ...bed, slurryG: 30 }, 1, null, NATURE).drainedG - bed.drainedG;
  expect(drainedIn(high)).toBeGreaterThan(1.01 * drainedIn(low));
});

test('water runs past the coffee only where it falls beyond the margin of the wall', () => {
  expect(pastShare({ x: 0, y: KEPT_RADIUS })).toBe(0);
  expect(pastShare({ x: 0.6, y: 0.8 })).toBeCloseTo(0.5, 9);
  expect(bloomed({ path: 'spiral', wall: 'kept' }).bypassedG).toBe(0);
  expect(bloomed({ path: 'edge' }, 1.1).bypassedG).toBeGreaterThan(5);
});
