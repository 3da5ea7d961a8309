/**
 * The page's own planner: questions go to a web worker, answers come when they are there.
 */
import type { Plan } from '@even-kettle/core/plan';
import type { Answer, BarGiven, PlanAnswer, PlanJob, Question } from './plan.worker';

export type Planner = {
  /** Asks; `hear` gets each answer. Gives a way to hear no more of it. */
  ask: (bar: BarGiven, question: Question, hear: (answer: Answer) => void) => () => void;
  plan: (bar: BarGiven) => Promise<Plan | null>;
};

export function openPlanner(): Planner {
  let worker: Worker | null = null;
  let jobs = 0;
  const hearing = new Map<number, (answer: Answer | null) => void>();

  const start = () => {
    const started = new Worker(new URL('./plan.worker', window.location.href));
    started.onmessage = ({ data: { job, answer, last } }: MessageEvent<PlanAnswer>) => {
      const hear = hearing.get(job);
      if (last) hearing.delete(job);
      hear?.(answer);
    };
    started.onerror = () => {
      worker = null;
      const all = [...hearing.values()];
      hearing.clear();
      for (const hear of all) hear(null);
    };
    return started;
  };
  const post = (bar: BarGiven, question: Question, hear: (answer: Answer | null) => void) => {
    worker ??= start();
    jobs += 1;
    const job = jobs;
    hearing.set(job, hear);
    worker.postMessage({ job, bar, question } satisfies PlanJob);
    return () => void hearing.delete(job);
  };

  return {
    ask: (bar, question, hear) => post(bar, question, (answer) => answer && hear(answer)),
    plan: (bar) =>
      new Promise((resolve) => {
        post(bar, { ask: 'plan' }, (answer) => resolve(answer?.ask === 'plan' ? answer.plan : null));
      }),
  };
}
