/**
 * Work that is done in a worker thread, so that it never delays a tap. If the worker dies or does not answer, its jobs fail,
 * and the next job starts a new worker.
 */
import { Worker } from 'node:worker_threads';

/** What goes to the worker and what comes back, matched by `job`. */
export type Job<Asked> = { job: number; asked: Asked };
export type JobAnswer<Answer> = { job: number } & ({ answer: Answer } | { error: string });

type Waiting<Answer> = {
  resolve: (answer: Answer | null) => void;
  reject: (error: Error) => void;
  deadline: NodeJS.Timeout;
};

export type WorkerJobs<Asked, Answer> = {
  /**
   * @param withinMs how long the worker may take, real milliseconds
   * @returns null once it is closed
   */
  ask: (asked: Asked, withinMs: number) => Promise<Answer | null>;
  close: () => Promise<void>;
};

/** @param called the worker's name in an error */
export function workerJobs<Asked, Answer>(file: URL, called: string): WorkerJobs<Asked, Answer> {
  const waiting = new Map<number, Waiting<Answer>>();
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
    started.on('message', (said: JobAnswer<Answer>) => {
      const asked = waiting.get(said.job);
      clearTimeout(asked?.deadline);
      waiting.delete(said.job);
      if ('answer' in said) asked?.resolve(said.answer);
      else asked?.reject(new Error(said.error));
    });
    // A worker that was ended for being late must not fail the jobs of the worker that replaced it.
    const failOwn = (error: Error) => {
      if (worker === started) failAll(error);
    };
    started.on('error', failOwn);
    started.on('exit', (code) => failOwn(new Error(`The ${called}'s worker ended with code ${code}.`)));
    return started;
  };
  const giveUp = (withinMs: number) => {
    const late = worker;
    failAll(new Error(`The ${called} had not answered within ${withinMs} ms; it starts anew.`));
    void late?.terminate();
  };

  return {
    ask: (asked, withinMs) =>
      new Promise((resolve, reject) => {
        if (closing) return resolve(null);
        worker ??= start();
        jobs += 1;
        const deadline = setTimeout(() => giveUp(withinMs), withinMs);
        deadline.unref();
        waiting.set(jobs, { resolve, reject, deadline });
        worker.postMessage({ job: jobs, asked } satisfies Job<Asked>);
      }),
    close: async () => {
      closing = true;
      await worker?.terminate();
    },
  };
}
