/** The browser's planner: the server's own, in a worker, for while the server is away. */
import { buildProblem, solve, type Bench, type Plan } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf, type Recipe } from '@even-kettle/core/recipe';
import type { BarState } from '@even-kettle/core/brew';

export type PlanJob = {
  job: number;
  state: BarState;
  bench: Bench;
  saved: Recipe[];
  nowMs: number;
  before: Plan | null;
};
export type PlanAnswer = { job: number; plan: Plan | null };

self.onmessage = ({ data: { job, state, bench, saved, nowMs, before } }: MessageEvent<PlanJob>) => {
  const book = bookOf([...SCHOOLS, ...saved]);
  const { problem } = buildProblem(state, bench, book, Math.ceil(nowMs / 1000), before ?? undefined);
  const plan = problem.brews.length > 0 ? solve(problem) : null;
  self.postMessage({ job, plan } satisfies PlanAnswer);
};
