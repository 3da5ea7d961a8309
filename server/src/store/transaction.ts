/**
 * Writing to the database: one transaction at a time, complete or not at all, and checked. There is one connection, so a
 * write of another request must never run inside a transaction that is then rolled back.
 */
import { setTimeout as pause } from 'node:timers/promises';
import { Mutex } from 'async-mutex';
import type BetterSqlite3 from 'better-sqlite3';
import type { DataSource, EntityManager } from 'typeorm';

/** How long a write waits for another process or thread that has locked the file, milliseconds. */
const BUSY_MS = 10_000;
const BUSY_PAUSE_MS = 15;

/** Why the store did not take what it was given; nothing of it is stored then. */
export class StoreFailed extends Error {
  constructor(
    readonly code: 'full' | 'busy' | 'damaged' | 'unclean',
    message: string,
    cause?: unknown,
  ) {
    super(message, { cause });
  }
}

const SAID = {
  full: 'The disk is full. Nothing was stored; make room, and it goes on by itself.',
  busy: 'The database is held by another program. Nothing was stored; it is tried again.',
  damaged: 'The database is damaged. Nothing was stored; go back to a copy.',
  unclean: 'The database’s connection is in a state that nobody knows. The server starts anew.',
} as const;

type Store = {
  /** There is one connection: other requests must not write inside a transaction. */
  lock: Mutex;
  /** Set when the connection is in an unknown state; nothing is written after that. */
  unclean: StoreFailed | null;
  onUnclean: (error: StoreFailed) => void;
};
const stores = new WeakMap<DataSource, Store>();

function storeOf(source: DataSource): Store {
  const known = stores.get(source) ?? { lock: new Mutex(), unclean: null, onUnclean: () => undefined };
  stores.set(source, known);
  return known;
}

/** Sets what to do when the connection cannot be trusted: the process has to end. */
export function whenUnclean(source: DataSource, tell: (error: StoreFailed) => void): void {
  storeOf(source).onUnclean = tell;
}

/** The driver's own connection. */
export const connectionOf = (source: DataSource): BetterSqlite3.Database =>
  (source.driver as unknown as { databaseConnection: BetterSqlite3.Database }).databaseConnection;

/** Runs something while nobody else writes, after the writes that were asked for before. It writes with `transactionNow`. */
export const alone = <Result>(source: DataSource, work: () => Promise<Result>): Promise<Result> =>
  storeOf(source).lock.runExclusive(work);

/**
 * Writes in a transaction of its own, after the writes that were asked for before.
 * @param work may run more than once
 * @throws StoreFailed, or what `work` throws; then nothing is stored
 */
export const inTransaction = <Result>(
  source: DataSource,
  work: (manager: EntityManager) => Promise<Result>,
): Promise<Result> => alone(source, () => transactionNow(source, work));

/** The same for callers that are `alone` already. If another process has locked the file it retries without blocking the thread. */
export async function transactionNow<Result>(
  source: DataSource,
  work: (manager: EntityManager) => Promise<Result>,
): Promise<Result> {
  const store = storeOf(source);
  const untilMs = performance.now() + BUSY_MS;
  for (;;) {
    try {
      return await once(source, store, work);
    } catch (error) {
      const failed = failureOf(error);
      if (failed?.code !== 'busy' || performance.now() > untilMs) throw failed ?? error;
      await pause(BUSY_PAUSE_MS);
    }
  }
}

async function once<Result>(
  source: DataSource,
  store: Store,
  work: (manager: EntityManager) => Promise<Result>,
): Promise<Result> {
  prove(source, store);
  const runner = source.createQueryRunner();
  try {
    await runner.startTransaction();
    const result = await work(runner.manager);
    await runner.commitTransaction();
    prove(source, store);
    return result;
  } catch (error) {
    await rollBack(source);
    prove(source, store);
    throw error;
  }
}

/** Ends any open transaction and resets what TypeORM believes, since SQLite may have rolled back by itself. */
async function rollBack(source: DataSource): Promise<void> {
  const connection = connectionOf(source);
  const driver = source.driver as unknown as { queryRunner?: unknown };
  try {
    if (connection.inTransaction) await source.createQueryRunner().rollbackTransaction();
  } catch {
    // What could not be rolled back here is rolled back below, or reported.
  }
  try {
    if (connection.inTransaction) connection.exec('ROLLBACK');
  } catch {
    // `prove` reports it.
  }
  driver.queryRunner = undefined;
}

/** Between two writes there must be no transaction, neither in SQLite nor in TypeORM's belief. */
function prove(source: DataSource, store: Store): void {
  if (store.unclean) throw store.unclean;
  const believed = source.createQueryRunner().isTransactionActive;
  if (!believed && !connectionOf(source).inTransaction) return;
  store.unclean = new StoreFailed('unclean', SAID.unclean);
  store.onUnclean(store.unclean);
  throw store.unclean;
}

/** For a write that was reported as stored and is missing: as bad as a connection in an unknown state. */
export function notStored(source: DataSource): StoreFailed {
  const store = storeOf(source);
  store.unclean = new StoreFailed('unclean', SAID.unclean);
  store.onUnclean(store.unclean);
  return store.unclean;
}

/** SQLite's errors about disk, locks and damage in our words; null for other errors. */
export function failureOf(error: unknown): StoreFailed | null {
  if (error instanceof StoreFailed) return error;
  const code = codeOf(error);
  if (code.startsWith('SQLITE_FULL') || /ENOSPC/.test(code) || code === 'SQLITE_IOERR_WRITE')
    return new StoreFailed('full', SAID.full, error);
  if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED'))
    return new StoreFailed('busy', SAID.busy, error);
  if (code.startsWith('SQLITE_CORRUPT') || code === 'SQLITE_NOTADB')
    return new StoreFailed('damaged', SAID.damaged, error);
  return null;
}

/** SQLite's own code of an error; empty where it has none. */
export function codeOf(error: unknown): string {
  const inner = (error as { driverError?: unknown } | null)?.driverError ?? error;
  return String((inner as { code?: unknown } | null)?.code ?? '');
}
