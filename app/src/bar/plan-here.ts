/**
 * Plans in a web worker, so that the page never waits for it.
 */
import type { Bench, Plan } from '@even-kettle/core/plan';
import type { BarState } from '@even-kettle/core/brew';
import type { Recipe } from '@even-kettle/core/recipe';
import type { PlanAnswer, PlanJob } from './plan.worker';

export function planHere() {
  let worker: Worker | null = null;
  let jobs = 0;
  const asked = new Map<number, { resolve: (plan: Plan | null) => void; reject: (error: Error) => void }>();

  const start = () => {
    const started = new Worker(new URL('./plan.worker', window.location.href));
    started.onmessage = ({ data }: MessageEvent<PlanAnswer>) => {
      asked.get(data.job)?.resolve(data.plan);
      asked.delete(data.job);
    };
    started.onerror = (event) => {
      worker = null;
      for (const { reject } of asked.values()) reject(new Error(event.message));
      asked.clear();
    };
    return started;
  };

  return (
    state: BarState,
    bench: Bench,
    saved: Recipe[],
    nowMs: number,
    before: Plan | null,
  ): Promise<Plan | null> =>
    new Promise((resolve, reject) => {
      worker ??= start();
      jobs += 1;
      asked.set(jobs, { resolve, reject });
      worker.postMessage({ job: jobs, state, bench, saved, nowMs, before } satisfies PlanJob);
    });
}
