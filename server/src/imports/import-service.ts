/**
 * Imports of large files: stored on disk as they arrive, checked and imported by a worker thread, stopped or removed on
 * request. One at a time. The brews of a log count when all of them are stored; if an import is stopped, by a person or
 * by a power cut, its brews are hidden at once and then deleted.
 */
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Worker } from 'node:worker_threads';
import type { DataSource, Repository } from 'typeorm';
import { v7 as uuid } from 'uuid';
import type { ImportJob, ImportKind, Imports } from '@even-kettle/core/contract';
import { FileImportRow } from '../store/rows';
import { inTransaction } from '../store/transaction';
import type { Done, Work } from './work';

export type ToWorker = { work: Work; databaseFile: string; nowMs: number; stop: SharedArrayBuffer };
export type FromWorker =
  | { said: 'bytes'; bytes: number }
  | { said: 'done'; done: Done }
  | { said: 'stopped' }
  | { said: 'refused'; reason: string };

export type ImportRefusal = 'full' | 'busy' | 'too-large' | 'unknown' | 'not-looked-at' | 'faulty';
export type ImportResult<Answer> = { ok: true; answer: Answer } | { ok: false; why: ImportRefusal };

export type ImportService = {
  shown: () => Promise<Imports>;
  /** Receives a file and begins to check it. */
  receive: (kind: ImportKind, name: string, body: Readable) => Promise<ImportResult<ImportJob>>;
  /** Imports a checked file; rows with errors are left out if the caller wishes. */
  take: (id: string, leaveOutFaulty: boolean) => Promise<ImportResult<ImportJob>>;
  /** Stops an import, discards a checked file, or removes an imported log. */
  end: (id: string) => Promise<ImportResult<null>>;
  /** The import whose brews do not count at present. */
  hidden: () => string | null;
  close: () => Promise<void>;
};

type Parts = {
  source: DataSource;
  workerFile: URL;
  nowMs: () => number;
  /** Lets an archive be written while nothing else is, and then reads the bar again. */
  rewritten: (write: () => Promise<void>) => Promise<void>;
  /** Called when the records have changed. */
  changed: () => void;
  warn: (detail: unknown, message: string) => void;
};

/** The largest file, bytes. */
export const LARGEST = 4_000_000_000;
/** The most logs from elsewhere that stay on a bar. */
const KEPT_MAX = 200;
/** The most that the worker's heap may hold, megabytes: it needs a third of it. */
const WORKER_OLD_MB = 160;
const WORKER_YOUNG_MB = 16;

type Current = { job: ImportJob; file: string; stop: Int32Array; ended: Promise<void> };

// eslint-disable-next-line max-lines-per-function -- the one import that is under way is shared by its short functions
export async function openImportService(parts: Parts): Promise<ImportService> {
  const { source, nowMs, changed, warn } = parts;
  const rows = () => source.getRepository(FileImportRow);
  const write = (change: (rows: Repository<FileImportRow>) => Promise<unknown>) =>
    inTransaction(source, async (manager) => void (await change(manager.getRepository(FileImportRow))));
  const databaseFile = String(source.options.database);
  // Beside the database, where there is space for it.
  const folder = join(dirname(databaseFile), 'coming-in');
  let current: Current | null = null;
  let hidden: string | null = null;
  let closing = false;

  // The files that a killed server left behind.
  for (const name of await readdir(folder).catch(() => [])) await rm(join(folder, name), { force: true });
  const broken = await rows().findOne({ where: [{ state: 'coming' }, { state: 'going' }] });

  const run = (work: Work, stop: Int32Array, onBytes: (bytes: number) => void = () => undefined) =>
    new Promise<Done>((resolve, reject) => {
      const worker = new Worker(parts.workerFile, {
        workerData: {
          work,
          databaseFile,
          nowMs: nowMs(),
          stop: stop.buffer as SharedArrayBuffer,
        } satisfies ToWorker,
        // A fixed limit: an import with a smaller heap is slower, but it leaves the bar its memory.
        resourceLimits: { maxOldGenerationSizeMb: WORKER_OLD_MB, maxYoungGenerationSizeMb: WORKER_YOUNG_MB },
      });
      worker.on('message', (message: FromWorker) => {
        if (message.said === 'bytes') onBytes(message.bytes);
        else if (message.said === 'done') resolve(message.done);
        else reject(new Ended(message.said, message.said === 'refused' ? message.reason : null));
      });
      worker.on('error', reject);
      worker.on('exit', () => reject(new Error('The worker ended before it was done.')));
    });

  /** Deletes the brews of an import; they are hidden meanwhile. */
  const takeOut = async (importId: string, stop: Int32Array) => {
    hidden = importId;
    await write((table) => table.update({ id: importId }, { state: 'going' }));
    await run({ do: 'take-out', importId }, stop);
    await write((table) => table.delete({ id: importId }));
    hidden = null;
  };

  /** Runs in the background; the result is in the job. */
  const begin = (now: Current, work: () => Promise<Partial<ImportJob>>) => {
    now.ended = work()
      .then((done) => void Object.assign(now.job, done, { share: 1 }))
      .catch((error: unknown) => {
        if (error instanceof Ended) Object.assign(now.job, { phase: error.phase, reason: error.reason });
        else {
          warn({ err: error }, 'an import failed');
          Object.assign(now.job, {
            phase: 'refused',
            reason: 'It could not be read just now. Try once more.',
          });
        }
      })
      .finally(() => (now.job.phase === 'looked' ? undefined : rm(now.file, { force: true })));
  };

  const takeLog = async (
    { job, file, stop }: Current,
    leaveOutFaulty: boolean,
  ): Promise<Partial<ImportJob>> => {
    hidden = job.id;
    await write((table) =>
      table.insert({ id: job.id, name: job.name, state: 'coming', brews: 0, atMs: Math.round(nowMs()) }),
    );
    try {
      const { taken = 0, known = 0 } = await run(
        { do: 'take', kind: 'log', file, importId: job.id, leaveOutFaulty },
        stop,
        onBytesOf(job),
      );
      if (taken === 0) await write((table) => table.delete({ id: job.id }));
      else await write((table) => table.update({ id: job.id }, { state: 'kept', brews: taken }));
      hidden = null;
      changed();
      return { phase: 'taken', taken, known };
    } catch (error) {
      // A server that is stopped now finds the import at its next start, and removes it then.
      if (!closing) {
        job.phase = 'taking-out';
        await takeOut(job.id, stopFlag());
      }
      throw error;
    }
  };

  const takeArchive = async ({ job, file, stop }: Current): Promise<Partial<ImportJob>> => {
    let taken = 0;
    await parts.rewritten(async () => {
      ({ taken = 0 } = await run(
        { do: 'take', kind: 'archive', file, importId: job.id, leaveOutFaulty: false },
        stop,
        onBytesOf(job),
      ));
    });
    return { phase: 'taken', taken };
  };

  const beginTakingOut = ({ id, name }: FileImportRow) => {
    const job = jobOf(id, 'log', name, 'taking-out');
    const now: Current = { job, file: join(folder, id), stop: stopFlag(), ended: Promise.resolve() };
    current = now;
    begin(now, () => takeOut(id, now.stop).then(() => ({ phase: 'stopped' as const })));
    void now.ended.then(() => current === now && (current = null)).catch(() => undefined);
    return now.ended;
  };
  if (broken)
    void beginTakingOut(broken).catch((error: unknown) =>
      warn({ err: error }, 'a log could not be taken out'),
    );

  return {
    hidden: () => hidden,
    shown: async () => ({
      current: current?.job ?? null,
      kept: (await rows().find({ where: { state: 'kept' }, order: { atMs: 'DESC' } })).map(
        ({ id, name, brews, atMs }) => ({ id, name, brews, atMs }),
      ),
    }),
    receive: async (kind, name, body) => {
      if (current && BUSY.has(current.job.phase)) return { ok: false, why: 'busy' };
      if (kind === 'log' && (await rows().count()) >= KEPT_MAX) return { ok: false, why: 'full' };
      if (current) await rm(current.file, { force: true });
      const job = jobOf(uuid(), kind, name, 'looking');
      const file = join(folder, job.id);
      const now: Current = { job, file, stop: stopFlag(), ended: Promise.resolve() };
      current = now;
      try {
        await mkdir(folder, { recursive: true });
        await pipeline(
          body,
          counted((bytes) => (job.bytes = bytes)),
          createWriteStream(file),
        );
      } catch (error) {
        await rm(file, { force: true });
        if (current === now) current = null;
        if (error instanceof TooLarge) return { ok: false, why: 'too-large' };
        throw error;
      }
      // Stopped while the file was still arriving.
      if (current !== now) {
        await rm(file, { force: true });
        return { ok: true, answer: { ...job, phase: 'stopped' } };
      }
      begin(now, async () => {
        const { found } = await run({ do: 'look', kind, file }, now.stop, onBytesOf(job));
        return { phase: 'looked', found: found! };
      });
      return { ok: true, answer: job };
    },
    take: async (id, leaveOutFaulty) => {
      const now = current;
      if (now?.job.id !== id) return { ok: false, why: 'unknown' };
      if (now.job.phase !== 'looked') return { ok: false, why: 'not-looked-at' };
      const { rows: all, faulty } = now.job.found!;
      if (faulty > 0 && (!leaveOutFaulty || faulty === all)) return { ok: false, why: 'faulty' };
      Object.assign(now.job, { phase: 'taking', share: 0 });
      begin(now, () => (now.job.kind === 'log' ? takeLog(now, leaveOutFaulty) : takeArchive(now)));
      return { ok: true, answer: now.job };
    },
    end: async (id) => {
      if (current?.job.id === id && current.job.phase !== 'taken') {
        Atomics.store(current.stop, 0, 1);
        await current.ended;
        await rm(current.file, { force: true });
        current = null;
        return { ok: true, answer: null };
      }
      const kept = await rows().findOneBy({ id, state: 'kept' });
      if (!kept) return { ok: false, why: 'unknown' };
      if (current && BUSY.has(current.job.phase)) return { ok: false, why: 'busy' };
      void beginTakingOut(kept)
        .then(changed)
        .catch((error: unknown) => warn({ err: error }, 'a log could not be taken out'));
      return { ok: true, answer: null };
    },
    close: async () => {
      closing = true;
      if (!current) return;
      Atomics.store(current.stop, 0, 1);
      await current.ended;
    },
  };
}

const BUSY: ReadonlySet<ImportJob['phase']> = new Set(['looking', 'taking', 'taking-out']);

/** How a worker ended that did not finish. */
class Ended extends Error {
  constructor(
    readonly phase: 'stopped' | 'refused',
    readonly reason: string | null,
  ) {
    super(phase);
  }
}

const stopFlag = (): Int32Array => new Int32Array(new SharedArrayBuffer(4));

const onBytesOf = (job: ImportJob) => (bytes: number) => {
  job.share = job.bytes === 0 ? 0 : Math.min(1, bytes / job.bytes);
};

const jobOf = (id: string, kind: ImportKind, name: string, phase: ImportJob['phase']): ImportJob => ({
  id,
  kind,
  name,
  bytes: 0,
  phase,
  share: 0,
  found: null,
  taken: 0,
  known: 0,
  reason: null,
});

class TooLarge extends Error {}

const counted = (tell: (bytes: number) => void): Transform => {
  let bytes = 0;
  return new Transform({
    transform: (chunk: Buffer, _encoding, done) => {
      bytes += chunk.length;
      tell(bytes);
      if (bytes > LARGEST) done(new TooLarge());
      else done(null, chunk);
    },
  });
};
