/** The worker thread's side of `workerSolver`. */
import { parentPort } from 'node:worker_threads';
import { solve } from '@even-kettle/core/plan';
import type { SolveAnswer, SolveJob } from './solver';

parentPort?.on('message', ({ job, problem }: SolveJob) => {
  let answer: SolveAnswer;
  try {
    answer = { job, plan: solve(problem) };
  } catch (error) {
    answer = { job, error: error instanceof Error ? error.message : String(error) };
  }
  parentPort?.postMessage(answer);
});
