export { NO_DRAIN, bedOf, secondsUntil, slurryG } from './level';
export type { Bed, PouredSpan } from './level';
export {
  SCALE_HZ,
  SPOUT_S,
  USUAL_NATURE,
  emptyScale,
  practisedFlow,
  readingOf,
  stepScale,
  tareScale,
} from './scale-model';
export type { ScaleModel, ScaleNature } from './scale-model';
export { addReading, emptyTrace, tracePoints, weightAt } from './trace';
export type { TraceWriter, WeightPoint } from './trace';
export { flowOf, restingWatch, watchPour } from './watch';
export type { PourWatch, PourChange } from './watch';
export { bytesToTrace, traceToBytes } from './trace-bytes';
