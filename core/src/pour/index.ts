export { inTodaysWords } from './earlier-words';
export { NO_DRAIN, bedOf, secondsUntil, slurryG } from './level';
export type { Bed, PouredSpan } from './level';
export {
  CELL_S,
  SCALE_HZ,
  SPOUT_S,
  USUAL_NATURE,
  emptyScale,
  normal,
  practisedFlow,
  readingOf,
  stepScale,
  tareScale,
} from './scale-model';
export type { ScaleModel, ScaleNature } from './scale-model';
export { outlineOf } from './outline';
export type { PathOutline } from './outline';
export { addReading, emptyTrace, tracePoints, weightAt } from './trace';
export type { TraceWriter, WeightPoint } from './trace';
export { flowOf, restingWatch, watchPour } from './watch';
export type { PourWatch, PourChange } from './watch';
export { bytesToTrace, traceToBytes } from './trace-bytes';
export { KEPT_RADIUS, POUR_HEIGHTS, TURNS, WALL_WAYS, WATER_PATHS, spoutOf } from './water-path';
export type { BedPoint, Hand, PathPart, PourHeight, TimedPart, Turn, WallWay, WaterPath } from './water-path';
export {
  BED_RINGS,
  BED_SECTORS,
  byRing,
  dryBed,
  dryShareOf,
  moveBed,
  ringEdge,
  stepBed,
  swellOf,
  unevennessOf,
} from './wetted-bed';
export type { BedMove, BedNature, Stream, WettedBed } from './wetted-bed';
export { lipOf, stepKettle, tiltFor } from './tilted-kettle';
export type { KettleNature, TiltedKettle } from './tilted-kettle';
