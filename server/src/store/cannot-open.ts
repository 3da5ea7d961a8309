/** Why a bar cannot be opened on its database, in words that say what a person has to do. */
import { statfsSync } from 'node:fs';
import { dirname } from 'node:path';
import { CannotStart } from '../cannot-start';
import { copiesFolder, newestWhole, summaryOf } from '../copies/copy-files';
import { codeOf, failureOf } from './transaction';

/** What to do about a damaged database: which copy is the newest good one, and what it lacks. Looked up when it is needed. */
export function goBack(databaseFile: string): string {
  const copy = newestWhole(copiesFolder(databaseFile));
  if (!copy)
    return 'There is no good copy in the folder backups beside it. Keep the damaged file, and ask somebody who knows SQLite to recover what can be read.';
  const seq = summaryOf(databaseFile)?.seq;
  const lost =
    seq === undefined
      ? 'What was logged since then is lost by it'
      : `Of what can be read it lacks the latest ${Math.max(0, seq - copy.seq)} events`;
  return `The newest good copy is ${copy.name}, of ${new Date(copy.atMs).toISOString().slice(0, 16).replace('T', ' ')} UTC, with ${copy.events} events. ${lost}. Stop the server, run \`npm run restore -- ${copy.name}\`, which keeps the damaged file, and start again.`;
}

/** A database needs at least this much room to be opened, bytes: for what is written beside it. */
const ROOM_BYTES = 100_000;

/** The same fault as one that a restart does not mend; null for any other. */
export function whyNoStart(error: unknown, file: string): CannotStart | null {
  if (error instanceof CannotStart) return error;
  const code = codeOf(error);
  if (failureOf(error)?.code === 'damaged')
    return new CannotStart(`The database is damaged so much that it cannot be opened. ${goBack(file)}`);
  const isDisk = code.startsWith('SQLITE_IOERR') || code.startsWith('SQLITE_CANTOPEN');
  if (failureOf(error)?.code === 'full' || (isDisk && isFull(file)))
    return new CannotStart(
      'The disk is full, so the bar cannot be opened. Make room on it, then start again.',
    );
  if (code.startsWith('SQLITE_CANTOPEN') || code.startsWith('SQLITE_READONLY'))
    return new CannotStart(
      `The server may not write in ${dirname(file)}. Give its user the right to, or name another place for the database with EVEN_KETTLE_DB.`,
    );
  return isDisk
    ? new CannotStart(
        `The disk does not give or take the database ${file} (${code}). Look at the disk, then start again.`,
      )
    : null;
}

function isFull(file: string): boolean {
  try {
    const { bavail, bsize } = statfsSync(dirname(file));
    return bavail * bsize < ROOM_BYTES;
  } catch {
    return false;
  }
}
