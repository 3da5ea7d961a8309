/**
 * A copy of the database by SQLite's own online backup: complete and of one moment, whether a server writes or not. A
 * copy of the file alone is incomplete, because the latest writes are in a second file beside it.
 */
import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import BetterSqlite3 from 'better-sqlite3';
import { readSettings } from './settings';

const { databaseFile } = readSettings(process.env);

async function backUp(from: string, to: string): Promise<void> {
  if (!existsSync(from))
    throw new Error(`There is no database at ${from}. Set EVEN_KETTLE_DB to where the bar’s is.`);
  if (existsSync(to)) throw new Error(`There is a file at ${to} already. Name another.`);
  mkdirSync(dirname(to), { recursive: true });
  const source = new BetterSqlite3(from, { readonly: true });
  await source.backup(to);
  source.close();
  const copy = new BetterSqlite3(to, { readonly: true });
  const faults = copy.pragma('integrity_check', { simple: true });
  const { events } = copy.prepare<[], { events: number }>('SELECT COUNT(*) AS events FROM event').get()!;
  copy.close();
  if (faults !== 'ok') throw new Error(`The copy at ${to} is not whole: ${String(faults)}`);
  console.log(`${to}: ${events} events, looked through and whole.`);
}

const named = process.argv[2];
const target =
  named ??
  join(
    dirname(databaseFile),
    'backups',
    `even-kettle-${new Date().toISOString().slice(0, 19).replace(/[T:]/g, '-')}.sqlite`,
  );
backUp(databaseFile, target).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
