/**
 * Where plans are made: a worker thread, so that a hard problem never holds back a tap.
 */
import { Worker } from 'node:worker_threads';
import type { Plan, PlanProblem } from '@even-kettle/core/plan';

export type Solver = { solve: (problem: PlanProblem) => Promise<Plan>; close: () => Promise<void> };

/** What goes to the worker and what comes back, matched by `job`. */
export type SolveJob = { job: number; problem: PlanProblem };
export type SolveAnswer = { job: number } & ({ plan: Plan } | { error: string });

type Waiting = { resolve: (plan: Plan) => void; reject: (error: Error) => void };

/** A solver in a worker thread. A worker that dies fails the jobs it had; the next job starts a new one. */
export function workerSolver(file: URL): Solver {
  const waiting = new Map<number, Waiting>();
  let jobs = 0;
  let worker: Worker | null = null;

  const failAll = (error: Error) => {
    worker = null;
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  const start = () => {
    const started = new Worker(file);
    started.on('message', (answer: SolveAnswer) => {
      const asked = waiting.get(answer.job);
      waiting.delete(answer.job);
      if ('plan' in answer) asked?.resolve(answer.plan);
      else asked?.reject(new Error(answer.error));
    });
    started.on('error', failAll);
    started.on('exit', (code) => failAll(new Error(`The planner's worker ended with code ${code}.`)));
    return started;
  };

  return {
    solve: (problem) =>
      new Promise((resolve, reject) => {
        worker ??= start();
        jobs += 1;
        waiting.set(jobs, { resolve, reject });
        worker.postMessage({ job: jobs, problem } satisfies SolveJob);
      }),
    close: async () => {
      await worker?.terminate();
    },
  };
}
