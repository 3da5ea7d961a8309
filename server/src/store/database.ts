/**
 * The database: one SQLite file, opened through TypeORM. Tables are made and changed by migrations only.
 */
import 'reflect-metadata';
import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import BetterSqlite3 from 'better-sqlite3';
import { DataSource } from 'typeorm';
import { CannotStart } from '../cannot-start';
import { copyDatabase, newCopyName } from '../copies/copy-files';
import { whyNoStart } from './cannot-open';
import {
  DrawdownFromLastPour1765000000000,
  ForgottenGuests1764600000000,
  FirstTables1764000000000,
  LogAndTraces1764300000000,
  LogsFromFiles1764400000000,
  NamesAndSnapshots1764500000000,
  PeopleAndTraces1764200000000,
  PracticeItems1764700000000,
  PracticeKinds1764900000000,
  RecipesAndBench1764100000000,
  RecordsWithGuests1764800000000,
} from './migrations';
import {
  BrewRecordRow,
  BrewTraceRow,
  EventRow,
  FileImportRow,
  OrderNameRow,
  PracticeItemRow,
  RecipeVersionRow,
  SettingRow,
  StateSnapshotRow,
} from './rows';
import { keepClean } from './vacuum';

const MIGRATIONS = [
  FirstTables1764000000000,
  RecipesAndBench1764100000000,
  PeopleAndTraces1764200000000,
  LogAndTraces1764300000000,
  LogsFromFiles1764400000000,
  NamesAndSnapshots1764500000000,
  ForgottenGuests1764600000000,
  PracticeItems1764700000000,
  RecordsWithGuests1764800000000,
  PracticeKinds1764900000000,
  DrawdownFromLastPour1765000000000,
];

export type DatabaseOptions = {
  /** How many prepared statements stay in memory; an import needs few, because each of its statements writes hundreds of rows. */
  keptStatements?: number;
  /** How long the thread may wait for another process that has locked the file, milliseconds. */
  busyMs?: number;
  /** Opens it for reading only, beside a server that writes. */
  readonly?: boolean;
  /** Whether its tables are brought to this version; a copy of another one is left as it is. */
  migrates?: boolean;
  /** Where a copy is made before tables of an earlier version are changed; none is made if left out. */
  copiesTo?: string;
};

/**
 * Opens or creates the database and runs the migrations that are missing.
 * @throws CannotStart if the file is of a newer version, or is no database
 */
export async function openDatabase(
  file: string,
  {
    keptStatements = 100,
    busyMs = 3000,
    readonly = false,
    migrates = !readonly,
    copiesTo,
  }: DatabaseOptions = {},
): Promise<DataSource> {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true });
  const source = new DataSource({
    type: 'better-sqlite3',
    database: file,
    readonly,
    statementCacheSize: keptStatements,
    entities: [
      EventRow,
      SettingRow,
      BrewRecordRow,
      RecipeVersionRow,
      BrewTraceRow,
      FileImportRow,
      OrderNameRow,
      PracticeItemRow,
      StateSnapshotRow,
    ],
    migrations: MIGRATIONS,
    migrationsRun: false,
    synchronize: false,
    prepareDatabase: (db: BetterSqlite3.Database) => {
      db.pragma('busy_timeout = 3000');
      if (readonly) return;
      refuseNewer(db, file);
      keepClean(db, file);
      // FULL: an acknowledged event survives a power cut, not only a killed server.
      db.pragma('journal_mode = WAL');
      db.pragma('synchronous = FULL');
      db.pragma('foreign_keys = ON');
    },
  });
  try {
    await source.initialize();
    if (migrates) {
      if (copiesTo !== undefined && (await isOfEarlierVersion(source)))
        await copyDatabase(file, join(copiesTo, newCopyName(copiesTo, 'before-migration', Date.now())));
      await source.runMigrations();
    }
  } catch (error) {
    if (source.isInitialized) await source.destroy();
    const code = String((error as { code?: unknown }).code);
    if (code === 'SQLITE_NOTADB') throw new CannotStart(`${file} is no database of Even Kettle’s.`);
    throw whyNoStart(error, file) ?? error;
  }
  await source.query(`PRAGMA busy_timeout = ${busyMs}`);
  return source;
}

/** Whether its tables hold something and are to be changed. */
async function isOfEarlierVersion(source: DataSource): Promise<boolean> {
  const tables = await source.query<unknown[]>(`SELECT 1 FROM sqlite_master WHERE name = 'event'`);
  return tables.length > 0 && (await source.showMigrations());
}

function refuseNewer(db: BetterSqlite3.Database, file: string): void {
  const hasTable = db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'migrations'`).get();
  if (!hasTable) return;
  const known = new Set(MIGRATIONS.map(({ name }) => name));
  const done = db.prepare<[], { name: string }>('SELECT name FROM migrations').all();
  if (done.every(({ name }) => known.has(name))) return;
  throw new CannotStart(
    `${file} was written by a newer version of Even Kettle. Start that version, or go back to a copy from before it.`,
  );
}

/**
 * Prevents a second server on the same file while this process lives, however it ends: the operating system holds the
 * lock, on a file beside the database.
 * @returns a function that releases the lock
 * @throws CannotStart if another server has it
 */
export function lockDatabase(file: string): () => void {
  mkdirSync(dirname(file), { recursive: true });
  let lock: BetterSqlite3.Database | null = null;
  try {
    lock = new BetterSqlite3(`${file}-lock`, { timeout: 0 });
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock?.close();
    // A disk that has no room for a lock does not mean that another server runs.
    if ((error as { code?: string }).code !== 'SQLITE_BUSY') return () => undefined;
    throw new CannotStart(
      `Another server has ${file} open. Stop it first, or give this one a database of its own with EVEN_KETTLE_DB.`,
    );
  }
  const taken = lock;
  return () => taken.close();
}

/** The faults that SQLite's own check finds in the file; empty if there are none. */
export async function faultsOf(source: DataSource): Promise<string[]> {
  const rows = await source
    .query<{ quick_check: string }[]>('PRAGMA quick_check(5)')
    .catch((error: unknown) => [{ quick_check: String(error) }]);
  return rows.map(({ quick_check }) => quick_check).filter((line) => line !== 'ok');
}
