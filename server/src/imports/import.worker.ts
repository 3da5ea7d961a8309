/** The worker thread that imports a large file: with its own connection to the database, and its own memory. */
import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase } from '../store/database';
import { FileFault } from '../files/csv';
import { Stopped, doWork } from './work';
import type { FromWorker, ToWorker } from './import-service';

const { work, databaseFile, nowMs, stop } = workerData as ToWorker;
const stopFlag = new Int32Array(stop);
const tell = (said: FromWorker) => parentPort?.postMessage(said);
const KEPT_STATEMENTS = 4;
/** The shortest time between two reports of progress, milliseconds. */
const TELL_MS = 150;

async function main(): Promise<void> {
  // A statement that writes hundreds of rows takes a megabyte, and hardly two are equal.
  const source = await openDatabase(databaseFile, { keptStatements: KEPT_STATEMENTS });
  // The bar's next write makes this one durable too.
  await source.query('PRAGMA synchronous = NORMAL');
  let toldMs = 0;
  try {
    const done = await doWork(work, {
      source,
      nowMs,
      onBytes: (bytes) => {
        if (performance.now() - toldMs < TELL_MS) return;
        toldMs = performance.now();
        tell({ said: 'bytes', bytes });
      },
      stopped: () => Atomics.load(stopFlag, 0) === 1,
    });
    tell({ said: 'done', done });
  } catch (error) {
    if (error instanceof Stopped) tell({ said: 'stopped' });
    else if (error instanceof FileFault) tell({ said: 'refused', reason: error.message });
    else throw error;
  } finally {
    await source.destroy();
  }
}

void main();
