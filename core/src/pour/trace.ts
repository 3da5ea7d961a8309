/**
 * The weight over a brew as few points: the straight lines between them are within a tolerance of every reading.
 * (Swinging door: a point is kept only where no straight line from the last kept one passes all readings since.)
 */

/** A reading: milliseconds on one clock, grams. */
export type WeightPoint = { atMs: number; massG: number };

export type TraceWriter = {
  points: WeightPoint[];
  /** The latest reading, not yet kept. */
  pending: WeightPoint | null;
  /** The slopes that a line from the last kept point may have and still pass all readings since, g/ms. */
  least: number;
  most: number;
};

/** How far a line may be from a reading, grams: what a scale of 0.1 g can tell. */
export const TRACE_TOLERANCE_G = 0.15;

export const emptyTrace = (): TraceWriter => ({
  points: [],
  pending: null,
  least: -Infinity,
  most: Infinity,
});

/** Adds a reading and changes the writer. A reading that is not later than the last is ignored. */
export function addReading(trace: TraceWriter, reading: WeightPoint, toleranceG = TRACE_TOLERANCE_G): void {
  const from = trace.points.at(-1);
  if (!from) {
    trace.points.push(reading);
    return;
  }
  if (reading.atMs <= (trace.pending ?? from).atMs) return;
  const slope = (massG: number) => (massG - from.massG) / (reading.atMs - from.atMs);
  const straight = slope(reading.massG);
  if (trace.pending && (straight < trace.least || straight > trace.most)) {
    trace.points.push(trace.pending);
    trace.pending = null;
    trace.least = -Infinity;
    trace.most = Infinity;
    return addReading(trace, reading, toleranceG);
  }
  trace.least = Math.max(trace.least, slope(reading.massG - toleranceG));
  trace.most = Math.min(trace.most, slope(reading.massG + toleranceG));
  trace.pending = reading;
}

/** All that is kept, the latest reading with it. */
export const tracePoints = ({ points, pending }: TraceWriter): WeightPoint[] =>
  pending ? [...points, pending] : [...points];

/** The weight at a moment, on the line between the points around it; null outside them. */
export function weightAt(points: readonly WeightPoint[], atMs: number): number | null {
  const after = points.findIndex((point) => point.atMs >= atMs);
  if (after < 0) return null;
  const to = points[after]!;
  if (to.atMs === atMs) return to.massG;
  const from = points[after - 1];
  if (!from) return null;
  return from.massG + ((to.massG - from.massG) * (atMs - from.atMs)) / (to.atMs - from.atMs);
}
