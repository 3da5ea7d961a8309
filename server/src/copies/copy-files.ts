/**
 * Copies of the database: what they are called, where they are, which of them are kept, and how one is made. Their times are
 * real time.
 */
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import BetterSqlite3 from 'better-sqlite3';
import { formatISO } from 'date-fns/formatISO';
import { getISOWeek } from 'date-fns/getISOWeek';
import { getISOWeekYear } from 'date-fns/getISOWeekYear';

/** Why a copy was made. Those of the night are pruned by days and weeks, the next two by number, those by hand by people. */
export const COPY_KINDS = ['night', 'before-migration', 'before-restore', 'by-hand'] as const;
export type CopyKind = (typeof COPY_KINDS)[number];

export type CopyFile = { name: string; file: string; kind: CopyKind; atMs: number; bytes: number };

const DAYS_KEPT = 7;
const WEEKS_KEPT = 8;
/** Of those from before a migration or a restore so many are kept. */
const OTHERS_KEPT = 3;

/** The folder beside the database. */
export const copiesFolder = (databaseFile: string): string => join(dirname(databaseFile), 'backups');

const NAME =
  /^even-kettle-(\d{4})-(\d\d)-(\d\d)-(\d\d)-(\d\d)-(\d\d)(?:\.(night|before-migration|before-restore))?\.sqlite$/;

/** By the clock of the coordinated world, so that no hour of a year comes twice. */
export const copyName = (kind: CopyKind, atMs: number): string =>
  `even-kettle-${new Date(atMs).toISOString().slice(0, 19).replace(/[T:]/g, '-')}${kind === 'by-hand' ? '' : `.${kind}`}.sqlite`;

/** A name that no copy of the folder has: two may be made within a second. */
export function newCopyName(folder: string, kind: CopyKind, atMs: number): string {
  const name = copyName(kind, atMs);
  return existsSync(join(folder, name)) ? newCopyName(folder, kind, atMs + 1000) : name;
}

/** The copies in a folder, latest first; none where it cannot be read. */
export function copiesIn(folder: string): CopyFile[] {
  return namesIn(folder)
    .flatMap((name) => {
      const found = NAME.exec(name);
      if (!found) return [];
      const [year, month, day, hour, minute, second] = found.slice(1, 7).map(Number) as [
        number,
        number,
        number,
        number,
        number,
        number,
      ];
      const file = join(folder, name);
      return [
        {
          name,
          file,
          kind: (found[7] ?? 'by-hand') as CopyKind,
          atMs: Date.UTC(year, month - 1, day, hour, minute, second),
          bytes: statSync(file).size,
        },
      ];
    })
    .sort((a, b) => b.atMs - a.atMs);
}

function namesIn(folder: string): string[] {
  try {
    return readdirSync(folder);
  } catch {
    return [];
  }
}

/** Which of them are not kept any longer: the latest of a day and of a week stay, for so many days and weeks. */
export function toPrune(copies: readonly CopyFile[]): CopyFile[] {
  const latestFirst = copies.toSorted((a, b) => b.atMs - a.atMs);
  const nights = latestFirst.filter(({ kind }) => kind === 'night');
  const kept = new Set([
    ...firstOfEach(nights, ({ atMs }) => formatISO(atMs, { representation: 'date' })).slice(0, DAYS_KEPT),
    ...firstOfEach(nights, ({ atMs }) => `${getISOWeekYear(atMs)} ${getISOWeek(atMs)}`).slice(0, WEEKS_KEPT),
    ...latestFirst.filter(({ kind }) => kind === 'before-migration').slice(0, OTHERS_KEPT),
    ...latestFirst.filter(({ kind }) => kind === 'before-restore').slice(0, OTHERS_KEPT),
    ...latestFirst.filter(({ kind }) => kind === 'by-hand'),
  ]);
  return latestFirst.filter((copy) => !kept.has(copy));
}

function firstOfEach(copies: readonly CopyFile[], keyOf: (copy: CopyFile) => string): CopyFile[] {
  const seen = new Set<string>();
  return copies.filter((copy) => {
    const key = keyOf(copy);
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

/**
 * Copies a database by SQLite's own online backup: complete and of one moment, whether a server writes or not. A copy of the
 * file alone is incomplete, because the latest writes are in a second file beside it.
 */
export async function copyDatabase(from: string, to: string): Promise<void> {
  mkdirSync(dirname(to), { recursive: true });
  const part = `${to}.part`;
  const source = new BetterSqlite3(from, { readonly: true, fileMustExist: true });
  try {
    await source.backup(part);
    const copy = new BetterSqlite3(part);
    // One file, with nothing beside it: so it can be carried elsewhere.
    copy.pragma('journal_mode = DELETE');
    copy.close();
    renameSync(part, to);
  } finally {
    source.close();
    for (const rest of [part, `${part}-journal`, `${part}-wal`, `${part}-shm`]) rmSync(rest, { force: true });
  }
}

/** What a database says of itself; null where it cannot be read. */
export function summaryOf(file: string): { events: number; seq: number; isWhole: boolean } | null {
  try {
    const db = new BetterSqlite3(file, { readonly: true, fileMustExist: true });
    try {
      const { events, seq } = db
        .prepare<[], { events: number; seq: number | null }>(
          'SELECT COUNT(*) AS events, MAX(seq) AS seq FROM event',
        )
        .get()!;
      return { events, seq: seq ?? 0, isWhole: db.pragma('quick_check(1)', { simple: true }) === 'ok' };
    } finally {
      db.close();
    }
  } catch {
    return null;
  }
}

/** The latest copy that is whole; null where there is none. */
export function newestWhole(folder: string): (CopyFile & { events: number; seq: number }) | null {
  for (const copy of copiesIn(folder)) {
    const summary = summaryOf(copy.file);
    if (summary?.isWhole) return { ...copy, ...summary };
  }
  return null;
}
