/**
 * What was deleted or written over leaves no trace in the file: SQLite overwrites it (`secure_delete`), free pages leave
 * the file in small steps, and the log of writes beside it is emptied.
 */
import { statSync, statfsSync } from 'node:fs';
import { dirname } from 'node:path';
import type BetterSqlite3 from 'better-sqlite3';
import type { DataSource } from 'typeorm';
import { pausing } from './pausing';
import { alone, connectionOf } from './transaction';

const INCREMENTAL = 2;
/** Pages that leave the file at once, so that the bar's own taps never wait long. */
const PAGES_AT_ONCE = 200;

/**
 * Makes a new file one from which pages can leave. A file of an earlier version is written anew once for it, which also
 * removes what that version left behind; if that fails for want of room, the next start tries again.
 */
export function keepClean(db: BetterSqlite3.Database, file: string): void {
  db.pragma('secure_delete = ON');
  const isNew = db.pragma('page_count', { simple: true }) === 0;
  if (!isNew && (db.pragma('auto_vacuum', { simple: true }) === INCREMENTAL || !hasRoomTwice(file))) return;
  db.pragma(`auto_vacuum = ${INCREMENTAL}`);
  if (isNew) return;
  try {
    // A damaged file is left as it is, for whoever looks into it.
    if (db.pragma('quick_check(1)', { simple: true }) !== 'ok') return;
    db.exec('VACUUM');
  } catch {
    // Another connection has the file, or the disk has no room after all.
  }
}

function hasRoomTwice(file: string): boolean {
  try {
    const { bavail, bsize } = statfsSync(dirname(file));
    return bavail * bsize > 3 * statSync(file).size;
  } catch {
    return false;
  }
}

/** Lets free pages leave the file, and empties the log of writes. */
export async function emptied(source: DataSource): Promise<void> {
  const rest = pausing();
  const db = connectionOf(source);
  for (;;) {
    const free = db.pragma('freelist_count', { simple: true }) as number;
    if (free === 0) break;
    await alone(source, async () => void db.pragma(`incremental_vacuum(${PAGES_AT_ONCE})`));
    // A file that could not be written anew keeps its free pages, which are overwritten.
    if (db.pragma('freelist_count', { simple: true }) === free) break;
    await rest();
  }
  await alone(source, async () => void db.pragma('wal_checkpoint(TRUNCATE)'));
}
