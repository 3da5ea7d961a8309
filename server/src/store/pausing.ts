/** Splits long work so that other requests run in between. */
import { setImmediate as turn } from 'node:timers/promises';

/** The longest uninterrupted stretch of such work, milliseconds. */
const STRETCH_MS = 12;

/** Await this between two pieces of work: it yields the thread if the work has had it for long enough. */
export function pausing(stretchMs = STRETCH_MS): () => Promise<void> {
  let sinceMs = performance.now();
  return async () => {
    if (performance.now() - sinceMs < stretchMs) return;
    await turn();
    sinceMs = performance.now();
  };
}
