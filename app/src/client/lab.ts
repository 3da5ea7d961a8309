/**
 * Many simulated shifts, in as many workers as leave the page a processor. All variants grow alike: the first shift of each
 * comes before the second of any.
 */
import type { LabShift, LabVariant } from '@even-kettle/core/practice';
import type { ExactJob, LabAnswer, LabJob } from './lab.worker';

type Asked = Omit<LabJob, 'variant' | 'seed'> & { variants: readonly LabVariant[]; shifts: number };
type Heard = {
  onShift: (variantId: string, shift: LabShift) => void;
  /** All are done, or what went wrong. */
  onEnd: (failed: string | null) => void;
};

const MOST_WORKERS = 3;

/** Begins at once; gives a way to stop. */
export function runLab({ bench, saved, variants, shifts }: Asked, { onShift, onEnd }: Heard): () => void {
  const jobs: LabJob[] = Array.from({ length: shifts }, (_, n) =>
    variants.map((variant): LabJob => ({ bench, saved, variant, seed: n + 1 })),
  ).flat();
  let left = jobs.length;
  let isOver = false;
  const workers: Worker[] = [];
  const end = (failed: string | null) => {
    if (isOver) return;
    isOver = true;
    for (const worker of workers) worker.terminate();
    onEnd(failed);
  };
  const count = Math.max(1, Math.min(MOST_WORKERS, (navigator.hardwareConcurrency || 2) - 1, jobs.length));
  for (let n = 0; n < count; n += 1) {
    const worker = new Worker(new URL('./lab.worker', window.location.href));
    const next = () => {
      const job = jobs.shift();
      if (job) worker.postMessage(job);
    };
    worker.onmessage = ({ data }: MessageEvent<LabAnswer>) => {
      if (isOver) return;
      if ('failed' in data) return end(data.failed);
      if (!('shift' in data)) return;
      left -= 1;
      onShift(data.variantId, data.shift);
      if (left === 0) end(null);
      else next();
    };
    worker.onerror = ({ message }) => end(message);
    workers.push(worker);
    next();
  }
  return () => end(null);
}

/** How long each order would wait with hands that are never late, seconds; nothing where that cannot be worked out. */
export function askExactWaits(job: ExactJob): Promise<Record<string, number>> {
  return new Promise((resolve) => {
    const worker = new Worker(new URL('./lab.worker', window.location.href));
    const answer = (waitsS: Record<string, number>) => {
      worker.terminate();
      resolve(waitsS);
    };
    worker.onmessage = ({ data }: MessageEvent<LabAnswer>) => answer('waitsS' in data ? data.waitsS : {});
    worker.onerror = () => answer({});
    worker.postMessage(job);
  });
}
