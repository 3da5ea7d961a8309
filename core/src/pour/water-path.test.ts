/** The paths of a pour: they stay inside their wall, cover what they should, and are each other's mirror image. */
import fc from 'fast-check';
import {
  KEPT_RADIUS,
  TURNS,
  WALL_WAYS,
  WATER_PATHS,
  lineOf,
  spoutAt,
  spoutOf,
  type BedPoint,
  type PathPart,
} from './water-path';

const part = fc.record(
  {
    path: fc.constantFrom(...WATER_PATHS),
    wall: fc.constantFrom(...WALL_WAYS),
    turn: fc.constantFrom(...TURNS),
  },
  { requiredKeys: ['path'] },
) as fc.Arbitrary<PathPart>;
const lasts = fc.double({ min: 1, max: 120, noNaN: true });
const radius = ({ x, y }: BedPoint) => Math.hypot(x, y);

test('the spout stays inside the wall that is kept, and within the bed where it is washed', () => {
  fc.assert(
    fc.property(part, lasts, fc.double({ min: -5, max: 130, noNaN: true }), (each, lastsS, atS) => {
      const out = radius(spoutAt(each, atS, lastsS));
      expect(out).toBeLessThanOrEqual(each.wall === 'washed' ? 1 : KEPT_RADIUS + 1e-9);
    }),
  );
});

test('the left hand’s path is the right hand’s mirrored, unless the recipe says the way round', () => {
  fc.assert(
    fc.property(part, lasts, fc.double({ min: 0, max: 1, noNaN: true }), (each, lastsS, share) => {
      const right = spoutAt(each, share * lastsS, lastsS, 'right');
      const left = spoutAt(each, share * lastsS, lastsS, 'left');
      expect(left.x).toBeCloseTo(each.turn ? right.x : -right.x, 9);
      expect(left.y).toBeCloseTo(right.y, 9);
    }),
  );
});

test('but for the dabs of a cross, the hand never jumps', () => {
  fc.assert(
    fc.property(
      part.filter(({ path, wall }) => path !== 'cross' && wall !== 'washed'),
      fc.double({ min: 6, max: 120, noNaN: true }),
      (each, lastsS) => {
        // Less than a radius in a tenth of a second.
        const line = lineOf(each, lastsS, Math.ceil(lastsS * 10) + 1);
        const leaps = line.slice(1).map(({ x, y }, n) => Math.hypot(x - line[n]!.x, y - line[n]!.y));
        expect(Math.max(...leaps)).toBeLessThan(0.6);
      },
    ),
  );
});

/** How far the driest place of the bed within the kept wall is from the line, in radii. */
function driest(line: readonly BedPoint[]): number {
  const places = Array.from({ length: 400 }, (_, n): BedPoint => {
    const out = KEPT_RADIUS * Math.sqrt((n + 0.5) / 400);
    // The golden angle spreads them evenly.
    return { x: out * Math.sin(n * 2.4), y: out * Math.cos(n * 2.4) };
  });
  return Math.max(
    ...places.map((place) => Math.min(...line.map(({ x, y }) => Math.hypot(x - place.x, y - place.y)))),
  );
}

test('a spiral covers the bed evenly; a ring, a cross and the centre keep to their places', () => {
  const line = (path: PathPart['path'], lastsS = 16) => lineOf({ path }, lastsS, 2000);
  // A stream wets as far as that: 8 mm on a common bed.
  expect(driest(line('spiral'))).toBeLessThan(0.24);
  expect(driest(line('all over'))).toBeLessThan(0.24);
  // As much time in the inner half of the area as in the outer.
  const inner = line('spiral').filter((point) => radius(point) < KEPT_RADIUS * Math.SQRT1_2).length / 2000;
  expect(inner).toBeCloseTo(0.5, 1);
  expect(line('ring').every((point) => Math.abs(radius(point) - 0.5) < 1e-9)).toBe(true);
  expect(line('centre').every((point) => radius(point) === 0)).toBe(true);
  expect(new Set(line('cross').map(({ x, y }) => `${Math.sign(x)}${Math.sign(y)}`)).size).toBe(5);
  const edge = line('edge');
  expect(edge.every((point) => Math.abs(radius(point) - KEPT_RADIUS) < 1e-9)).toBe(true);
  expect(Math.min(...edge.map(({ y }) => y))).toBeCloseTo(-KEPT_RADIUS, 3);
});

test('a halo begins in the middle and works outwards; a washed wall is gone round once, at the end', () => {
  const halo = lineOf({ path: 'halo' }, 12, 600).map(radius);
  expect(halo.slice(0, 150).every((out) => out === 0)).toBe(true);
  expect(halo.slice(1).every((out, n) => out >= halo[n]! - 1e-9)).toBe(true);
  const washed = lineOf({ path: 'spiral', wall: 'washed' }, 20, 1000);
  const atWall = washed.filter((point) => radius(point) > KEPT_RADIUS + 0.05);
  expect(atWall.length / 1000).toBeCloseTo(0.2, 1);
  expect(Math.min(...atWall.map(({ y }) => y))).toBeCloseTo(-0.98, 2);
  expect(radius(washed[500]!)).toBeLessThan(KEPT_RADIUS + 1e-9);
});

test('a pour in parts goes from one path to the next at its time', () => {
  const parts = [
    { path: 'centre', fromS: 0, toS: 10 },
    { path: 'edge', fromS: 10, toS: 20 },
  ] as const;
  expect(radius(spoutOf(parts, 9.9)!)).toBe(0);
  expect(radius(spoutOf(parts, 10)!)).toBeCloseTo(KEPT_RADIUS, 9);
  expect(spoutOf(parts, 15)!.y).toBeLessThan(0);
  expect(spoutOf([], 3)).toBeNull();
});
