/** Long work that lets everything else in between. */
import { setImmediate as turn } from 'node:timers/promises';

/** No stretch of such work is longer than this, milliseconds. */
const STRETCH_MS = 12;

/** To be awaited between two pieces of work: gives the thread away once it has been kept for long enough. */
export function pausing(stretchMs = STRETCH_MS): () => Promise<void> {
  let sinceMs = performance.now();
  return async () => {
    if (performance.now() - sinceMs < stretchMs) return;
    await turn();
    sinceMs = performance.now();
  };
}
