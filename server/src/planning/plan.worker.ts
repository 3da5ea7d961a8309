/** The worker thread's side of `workerSolver`: a quick plan first, then better ones until the time is up or a newer job arrives. */
import { parentPort } from 'node:worker_threads';
import { startSolving } from '@even-kettle/core/plan';
import type { SolveAsked, Solved } from './solver';
import type { Job, JobAnswer } from './worker-jobs';

/** How many moves are tried before the clock and the queue of jobs are looked at again. */
const SLICE = 10;
let latest = 0;

parentPort?.on('message', ({ job, asked: { problem, before, budgetMs } }: Job<SolveAsked>) => {
  latest = job;
  const say = (said: JobAnswer<Solved | null>) => parentPort?.postMessage(said);
  try {
    const untilMs = performance.now() + budgetMs;
    const solving = startSolving(problem, { before: before ?? undefined });
    const standsCost = solving.cost();
    const goOn = () => {
      if (job !== latest) return say({ job, answer: null });
      solving.improve(SLICE);
      if (performance.now() < untilMs && !solving.proven()) return setImmediate(goOn);
      return say({ job, answer: { plan: solving.plan(), standsCost, cost: solving.cost() } });
    };
    goOn();
  } catch (error) {
    say({ job, error: error instanceof Error ? error.message : String(error) });
  }
});
