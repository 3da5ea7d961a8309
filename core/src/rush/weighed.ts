/**
 * What a scale under a simulated brew would have read: a hand that takes as long as the log says, and stops where it says.
 */
import {
  SCALE_HZ,
  SPOUT_S,
  USUAL_NATURE,
  addReading,
  emptyScale,
  emptyTrace,
  readingOf,
  stepScale,
  tracePoints,
  type ScaleNature,
  type WeightPoint,
} from '../pour';

/** From when to when it was poured, bar milliseconds, and what the scale read then, grams. */
export type Poured = { fromMs: number; toMs: number; toG: number };

/** Where nothing is poured a reading now and then says as much, milliseconds. */
const RESTING_MS = 500;
const POURING_MS = 1000 / SCALE_HZ;
/** A hand lets go a moment before the end, since the spout still runs, seconds. */
const LETS_GO_S = 0.35;

/**
 * The readings over a brew, as few points.
 * @param pours in order of time
 * @param untilMs when the brew is taken off the scale
 * @param random numbers from 0 up to 1
 */
export function weighed(
  pours: readonly Poured[],
  untilMs: number,
  random: () => number,
  nature: ScaleNature = USUAL_NATURE,
): WeightPoint[] {
  const [first] = pours;
  if (!first) return [];
  const trace = emptyTrace();
  let tickMs = POURING_MS;
  let model = emptyScale();
  for (let atMs = first.fromMs; atMs <= untilMs; atMs += tickMs) {
    const pour = pours.find(({ fromMs, toMs }) => atMs >= fromMs && atMs < toMs);
    tickMs = pour || model.flowGPerS > 0 ? POURING_MS : RESTING_MS;
    const leftS = pour ? (pour.toMs - atMs) / 1000 - LETS_GO_S : 0;
    const leftG = pour ? pour.toG - model.pouredG - SPOUT_S * model.flowGPerS : 0;
    const wantedGPerS = leftS > 0 ? Math.max(0, leftG) / Math.max(LETS_GO_S, leftS) : 0;
    model = stepScale(model, tickMs / 1000, wantedGPerS, nature, random);
    addReading(trace, { atMs, massG: readingOf(model, nature, random) });
  }
  return tracePoints(trace);
}
