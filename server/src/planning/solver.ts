/**
 * Where plans are made: in a worker thread, so that a hard problem never delays a tap.
 */
import { Worker } from 'node:worker_threads';
import type { Plan, PlanProblem } from '@even-kettle/core/plan';

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

/** What goes to the worker and what comes back, matched by `job`. */
export type SolveJob = { job: number; problem: PlanProblem; before: Plan | null; budgetMs: number };
export type SolveAnswer = { job: number } & (Solved | { superseded: true } | { error: string });

type Waiting = {
  resolve: (solved: Solved | null) => void;
  reject: (error: Error) => void;
  deadline: NodeJS.Timeout;
};

/** A worker that has not answered this long after its time is ended, milliseconds. */
const GRACE_MS = 5000;

/**
 * A solver in a worker thread. If the worker dies or does not answer, its jobs fail, and the next job starts
 * a new worker.
 */
export function workerSolver(file: URL, graceMs = GRACE_MS): Solver {
  const waiting = new Map<number, Waiting>();
  let jobs = 0;
  let worker: Worker | null = null;
  let closing = false;

  const failAll = (error: Error) => {
    worker = null;
    for (const { resolve, reject, deadline } of waiting.values()) {
      clearTimeout(deadline);
      if (closing) resolve(null);
      else reject(error);
    }
    waiting.clear();
  };
  const start = () => {
    const started = new Worker(file);
    started.on('message', (answer: SolveAnswer) => {
      const asked = waiting.get(answer.job);
      clearTimeout(asked?.deadline);
      waiting.delete(answer.job);
      if ('plan' in answer) asked?.resolve(answer);
      else if ('superseded' in answer) asked?.resolve(null);
      else asked?.reject(new Error(answer.error));
    });
    // A worker that was ended for being late must not fail the jobs of the worker that replaced it.
    const failOwn = (error: Error) => {
      if (worker === started) failAll(error);
    };
    started.on('error', failOwn);
    started.on('exit', (code) => failOwn(new Error(`The planner's worker ended with code ${code}.`)));
    return started;
  };
  const giveUp = (budgetMs: number) => {
    const late = worker;
    failAll(
      new Error(`The planner had not answered ${graceMs} ms after its ${budgetMs} ms; it starts anew.`),
    );
    void late?.terminate();
  };

  return {
    solve: (problem, before, budgetMs) =>
      new Promise((resolve, reject) => {
        if (closing) return resolve(null);
        worker ??= start();
        jobs += 1;
        const deadline = setTimeout(() => giveUp(budgetMs), budgetMs + graceMs);
        deadline.unref();
        waiting.set(jobs, { resolve, reject, deadline });
        worker.postMessage({ job: jobs, problem, before, budgetMs } satisfies SolveJob);
      }),
    close: async () => {
      closing = true;
      await worker?.terminate();
    },
  };
}
