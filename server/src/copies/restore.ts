/** Puts a copy in the place of the bar's database. No server has either open meanwhile. */
import { existsSync, renameSync, rmSync } from 'node:fs';
import { copiesFolder, copyDatabase, newCopyName, summaryOf } from './copy-files';
import { join } from 'node:path';

export type Restored = {
  /** Where what stood there is kept. */
  kept: string | null;
  /** Events that the bar had and the copy has not; null where the database could not be read any more. */
  lost: number | null;
};

/** @param copy the file of a copy that was looked through */
export async function restoreCopy(
  databaseFile: string,
  copy: string,
  realMs = Date.now(),
): Promise<Restored> {
  const before = summaryOf(databaseFile);
  const after = summaryOf(copy);
  // First, so that a full disk leaves everything where it was.
  await copyDatabase(copy, `${databaseFile}.restoring`);
  const kept = existsSync(databaseFile)
    ? await keepPresent(databaseFile, before?.isWhole ?? false, realMs)
    : null;
  // What these hold belongs to the file that goes.
  for (const beside of ['-wal', '-shm', '-journal']) rmSync(`${databaseFile}${beside}`, { force: true });
  renameSync(`${databaseFile}.restoring`, databaseFile);
  return { kept, lost: before && after ? Math.max(0, before.seq - after.seq) : null };
}

/** A whole database is copied; a damaged one is set aside as it is, for whoever looks into it. */
async function keepPresent(databaseFile: string, isWhole: boolean, realMs: number): Promise<string> {
  if (isWhole) {
    const folder = copiesFolder(databaseFile);
    const file = join(folder, newCopyName(folder, 'before-restore', realMs));
    await copyDatabase(databaseFile, file);
    return file;
  }
  const aside = `${databaseFile}.damaged-${new Date(realMs).toISOString().slice(0, 19).replace(/[T:]/g, '-')}`;
  for (const beside of ['', '-wal', '-shm'])
    if (existsSync(databaseFile + beside)) renameSync(databaseFile + beside, aside + beside);
  return aside;
}
