/** A hand, a bed and a scale: poured by a practised hand, read off as a pour, kept as few points. */
import fc from 'fast-check';
import { seededRandom } from '../testing/random';
import {
  SCALE_HZ,
  USUAL_NATURE,
  addReading,
  emptyScale,
  emptyTrace,
  flowOf,
  practisedFlow,
  readingOf,
  restingWatch,
  stepScale,
  tareScale,
  tracePoints,
  watchPour,
  weightAt,
  type ScaleModel,
  type PourChange,
  type WeightPoint,
} from './index';

type Poured = { seen: PourChange[]; readings: WeightPoint[]; model: ScaleModel };

/** Pours to targets one after another, each asked for from its second on, as the scale service would watch them. */
function pour(
  pours: { fromS: number; targetG: number; flowGPerS: number }[],
  untilS: number,
  seed: number,
): Poured {
  const random = seededRandom(seed);
  const nature = { ...USUAL_NATURE, bed: { tauS: 20, headG: 40 }, keepsG: 30 };
  let model = tareScale(emptyScale(540));
  let watch = restingWatch();
  const seen: PourChange[] = [];
  const readings: WeightPoint[] = [];
  let at = 0;
  let begun = false;
  for (let tick = 0; tick < untilS * SCALE_HZ; tick += 1) {
    const asked = pours[at];
    const readingG = readings.at(-1)?.massG ?? 0;
    const wanted = asked && tick >= asked.fromS * SCALE_HZ ? practisedFlow(readingG, asked) : 0;
    model = stepScale(model, 1 / SCALE_HZ, wanted, nature, random);
    const reading = { atMs: tick * 100, massG: readingOf(model, nature, random) };
    readings.push(reading);
    const watched = watchPour(watch, reading, asked?.targetG ?? null, begun);
    watch = watched.watch;
    if (watched.seen.what !== 'nothing') seen.push(watched.seen);
    if (watched.seen.what === 'begun') begun = true;
    if (watched.seen.what === 'ended') {
      at += 1;
      begun = false;
    }
  }
  return { seen, readings, model };
}

const THREE = [
  { fromS: 3, targetG: 42, flowGPerS: 6 },
  { fromS: 40, targetG: 129, flowGPerS: 5 },
  { fromS: 70, targetG: 286, flowGPerS: 5 },
];

test('over many hands: each pour is seen to begin and to end once, within 2 g of its target and half a second', () => {
  for (let seed = 1; seed <= 60; seed += 1) {
    const { seen } = pour(THREE, 120, seed);
    expect([seed, seen.map(({ what }) => what)]).toEqual([
      seed,
      ['begun', 'ended', 'begun', 'ended', 'begun', 'ended'],
    ]);
    THREE.forEach(({ fromS, targetG }, index) => {
      const begun = seen[index * 2] as Extract<PourChange, { what: 'begun' }>;
      const ended = seen[index * 2 + 1] as Extract<PourChange, { what: 'ended' }>;
      expect(Math.abs(begun.atMs - fromS * 1000)).toBeLessThanOrEqual(900);
      expect(Math.abs(ended.readingG - targetG)).toBeLessThanOrEqual(2);
    });
  }
});

test('a bump on the bench is no pour, and a hand that pauses short of the target has not ended it', () => {
  let watch = restingWatch();
  const bump = [0, 0, 0.8, 0.1, 0, 0, 0.4, 0, 0, 0];
  bump.forEach((massG, tick) => {
    const watched = watchPour(watch, { atMs: tick * 100, massG }, 42, false);
    watch = watched.watch;
    expect(watched.seen).toEqual({ what: 'nothing' });
  });
  const paused = Array.from({ length: 60 }, (_, tick) => ({
    atMs: 2000 + tick * 100,
    massG: Math.min(20, tick * 0.6),
  }));
  const seen = paused.flatMap((reading) => {
    const watched = watchPour(watch, reading, 42, false);
    watch = watched.watch;
    return watched.seen.what === 'nothing' ? [] : [watched.seen.what];
  });
  expect(seen).toEqual(['begun']);
});

test('water is neither made nor lost, and the bed drains to what it keeps', () => {
  const { model } = pour(THREE, 240, 5);
  expect(model.slurryG).toBeLessThan(0.1);
  expect(model.pouredG).toBeCloseTo(model.drainedG + model.slurryG + 30, 1);
  expect(flowOf([])).toBe(0);
});

test('a trace is a small part of the readings, and never further than its tolerance from one of them', () => {
  const { readings } = pour(THREE, 120, 9);
  const trace = emptyTrace();
  for (const reading of readings) addReading(trace, reading);
  const points = tracePoints(trace);
  expect(points.length).toBeLessThan(readings.length / 4);
  for (const { atMs, massG } of readings)
    expect(Math.abs(weightAt(points, atMs)! - massG)).toBeLessThanOrEqual(0.15 + 1e-9);
  expect(points.at(-1)).toEqual(readings.at(-1));
  expect([weightAt(points, -1), weightAt(points, 1e9)]).toEqual([null, null]);
});

test('whatever a scale says, the trace keeps every reading within its tolerance', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -50, max: 400, noNaN: true }), { minLength: 1, maxLength: 80 }),
      (masses) => {
        const trace = emptyTrace();
        const readings = masses.map((massG, tick) => ({ atMs: tick * 100, massG }));
        for (const reading of readings) addReading(trace, reading);
        // The same moment again, or an earlier one, changes nothing.
        addReading(trace, readings[0]!);
        const points = tracePoints(trace);
        for (const { atMs, massG } of readings)
          expect(Math.abs(weightAt(points, atMs)! - massG)).toBeLessThanOrEqual(0.15 + 1e-6);
      },
    ),
    { numRuns: 300 },
  );
});
