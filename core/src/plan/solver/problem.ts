/**
 * The bar's timetable as open data: a problem and its plan, as in docs/formats.md. All times are whole seconds on one
 * clock (the bar's, seconds since 1970, where the bar itself plans).
 */

export const PROBLEM_FORMAT = 'even-kettle/plan-problem@1';
export const PLAN_FORMAT = 'even-kettle/plan@1';

/** The wait between the end of the step before and a step's start; `max: null` is no limit. */
export type Lag = { min: number; ideal: number; max: number | null; penalty: number };
export type PlanStep = {
  id: string;
  attended: boolean;
  duration: number;
  lag: Lag;
  serve?: true;
};
export type PlanHold = { tool: string; from: string; to: string };
export type PlanBrew = {
  id: string;
  orders: string[];
  steps: PlanStep[];
  holds: PlanHold[];
  /** So long after its serve step it counts as out: what is tasted together has to be drinkable together. Not in files of version 1. */
  coolS?: number;
};
export type PlanOrder = {
  id: string;
  placedAt: number;
  dueAt: number;
  /** By when its guest was told to have it: the search leaves no room unused to keep that, and the cost does not count it. Not in files of version 1. */
  promisedAt?: number;
  weight: number;
  serveWithin: number;
  brews: string[];
};

export type PlanProblem = {
  format: typeof PROBLEM_FORMAT;
  now: number;
  hands: number;
  away?: { from: number; to: number; hands: number }[];
  tools: Record<string, number>;
  orders: PlanOrder[];
  brews: PlanBrew[];
  /** Real starts and ends, by `brew/step`. */
  started: Record<string, number>;
  ended: Record<string, number>;
  /** Planned starts that may change only if nothing feasible keeps them. */
  frozen: Record<string, number>;
  /** The pair that has begun a step, or whose card asks for it: it stays with that pair. Not in files of version 1. */
  startedHands?: Record<string, number>;
  /** Of these, the step that one goes before though its card asked for that first, since it spoils sooner. */
  goesBefore?: Record<string, string>;
  /** The pair whose card counts a step down: it stays with that pair where that is free. Not in files of version 1. */
  countedHands?: Record<string, number>;
};

export type Relaxed = { step: string; rule: 'max-lag' | 'frozen'; by: number };
/** What a brew that has not started waits for, and the step that frees it; or the partner's, with which it is to come out. */
export type WaitsFor = {
  for: 'hands' | 'tool' | 'partner';
  tool?: string;
  until: number;
  step: string | null;
};

export type Plan = {
  format: typeof PLAN_FORMAT;
  starts: Record<string, number>;
  hands: Record<string, number>;
  /** As the problem had them: what the pairs were at when the plan was made, and instead of what. */
  startedHands?: Record<string, number>;
  goesBefore?: Record<string, string>;
  finish: Record<string, number>;
  cost: number;
  bound: number;
  optimal: boolean;
  relaxed: Relaxed[];
  why: Record<string, WaitsFor>;
};

/** A problem that no plan can answer: a tool that the bar does not have. */
export class ImpossibleProblem extends Error {
  override name = 'ImpossibleProblem';
}

export const stepKey = (brewId: string, stepId: string): string => `${brewId}/${stepId}`;
