export { EXERCISES, MEASURES, exercise, pourAt, recipeDrill, shouldFlow, shouldReadG } from './drill';
export type { Drill, DrillId, DrillPour, Exercise, Measure } from './drill';
export { STEP_S, freshRun, isOver, kettleFor, stepRun } from './pour-run';
export type { HandNow, PourRun, Sample } from './pour-run';
export { scorePour, scoreTrace } from './score';
export type { PourScore } from './score';
export { drillKey, packSamples, unpackSamples } from './tries';
export type { PourTry } from './tries';
