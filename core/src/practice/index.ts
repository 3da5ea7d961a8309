export { EXERCISES, MEASURES, exercise, pourAt, recipeDrill, shouldFlow, shouldReadG } from './drill';
export type { Drill, DrillId, DrillPour, Exercise, Measure } from './drill';
export { STEP_S, freshRun, isOver, kettleFor, scaleFlow, stepRun } from './pour-run';
export type { HandNow, PourRun, Sample } from './pour-run';
export { scorePour, scoreTrace } from './score';
export type { PourScore } from './score';
export { drillKey, packSamples, unpackSamples } from './tries';
export type { PourTry } from './tries';
export { HABITS, LAB_FORMAT, changesOf, faultOf, variantOf } from './lab';
export type { LabChange, LabGuests, LabLine, LabVariant } from './lab';
export { CAREFULLY, exactWaits, liveLabShift } from './lab-shift';
export type { LabShift } from './lab-shift';
export { NINE_OF_TEN, differenceOf, isSure, labFigures, meanWaitS } from './lab-figures';
export type { LabDifference, LabFigures } from './lab-figures';
export {
  RUSH_LEVELS,
  SURPRISES,
  cueComesMs,
  idleFromMs,
  reviewRush,
  rushHappenings,
  surpriseNow,
} from './rush-drill';
export type { Happening, RushCounts, RushLevel, RushReview, Surprise } from './rush-drill';
export { LESSONS, LESSON_IDS, isLessonDone, lessonOf } from './lessons';
export type { Lesson, LessonId } from './lessons';
