/** The worker thread's side of `workerQuoter`. */
import { parentPort } from 'node:worker_threads';
import type { Quote } from '@even-kettle/core/plan';
import { quoteHere, type QuoteAsked } from './quoter';
import type { Job, JobAnswer } from './worker-jobs';

parentPort?.on('message', ({ job, asked }: Job<QuoteAsked>) => {
  const say = (said: JobAnswer<Quote>) => parentPort?.postMessage(said);
  try {
    say({ job, answer: quoteHere(asked) });
  } catch (error) {
    say({ job, error: error instanceof Error ? error.message : String(error) });
  }
});
