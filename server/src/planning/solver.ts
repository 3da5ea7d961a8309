/**
 * Where plans are made: in a worker thread, so that a hard problem never delays a tap.
 */
import type { Plan, PlanProblem } from '@even-kettle/core/plan';
import { workerJobs } from './worker-jobs';

/**
 * The plan, its cost, and the cost of the plan that the search started from; both include the cost of moved frozen starts.
 * Null if a newer job arrived before it was ready.
 */
export type Solved = { plan: Plan; cost: number; standsCost: number };

export type Solver = {
  /** @param budgetMs how long to search for better plans, real milliseconds */
  solve: (problem: PlanProblem, before: Plan | null, budgetMs: number) => Promise<Solved | null>;
  close: () => Promise<void>;
};

export type SolveAsked = { problem: PlanProblem; before: Plan | null; budgetMs: number };

/** A worker that has not answered this long after its time is ended, milliseconds. */
const GRACE_MS = 5000;

export function workerSolver(file: URL, graceMs = GRACE_MS): Solver {
  const jobs = workerJobs<SolveAsked, Solved | null>(file, 'planner');
  return {
    solve: (problem, before, budgetMs) => jobs.ask({ problem, before, budgetMs }, budgetMs + graceMs),
    close: jobs.close,
  };
}
