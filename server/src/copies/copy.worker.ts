/** The worker thread that looks copies through, so that it never delays a tap. */
import { parentPort } from 'node:worker_threads';
import type { Job, JobAnswer } from '../planning/worker-jobs';
import { proveCopy, type Proof } from './prove';

parentPort?.on('message', ({ job, asked }: Job<string>) => {
  void proveCopy(asked).then((answer) => parentPort?.postMessage({ job, answer } satisfies JobAnswer<Proof>));
});
