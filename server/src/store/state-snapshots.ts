/**
 * Snapshots of the state, so that a start need not fold the whole log. Each is checked before it is stored: the snapshot
 * before it and the events since must give the same state.
 */
import { createHash } from 'node:crypto';
import { LessThan, type DataSource, type EntityManager } from 'typeorm';
import { canonical } from './canonical';
import type { LogState } from './log';
import { StateSnapshotRow } from './rows';
import { inTransaction } from './transaction';

/** A snapshot is taken after so many events. */
const EVERY = 2000;

export type StateSnapshots = {
  /** The latest snapshot that these rules made and that can be read; null if there is none. */
  latest: () => Promise<LogState | null>;
  /** Stores what a long start has folded, so that the next start is short. */
  lived: (now: LogState) => void;
  /** Tells how long the log is. Takes a snapshot in the background when one is due. */
  passed: (now: LogState) => void;
  /** Stores this state in place of all snapshots before it, which may hold what is to be forgotten. */
  renew: (now: LogState) => Promise<void>;
  /** Deletes all snapshots, because the log was replaced. */
  forget: (manager: EntityManager) => Promise<void>;
  settled: () => Promise<void>;
};

type Parts = {
  /** Folds the log from a state on, up to a number. */
  replay: (from: LogState | null, toSeq: number) => Promise<LogState>;
  warn: (message: string) => void;
};

/** @param rules names the rules that made the states, since other rules might make others; if empty, none are stored */
export function openStateSnapshots(
  source: DataSource,
  rules: string,
  { replay, warn }: Parts,
): StateSnapshots {
  const rows = source.getRepository(StateSnapshotRow);
  let keptSeq = 0;
  let keeping: Promise<void> | null = null;

  const latest = async (): Promise<LogState | null> => {
    if (rules === '') return null;
    const row = await rows.findOne({ where: { rules }, order: { seq: 'DESC' } }).catch(() => null);
    const read = row && readSnapshot(row);
    keptSeq = read?.seq ?? 0;
    return read;
  };

  const write = async (now: LogState): Promise<void> => {
    const row = { seq: now.seq, rules, hash: hashOf(now), body: bodyOf(now) };
    // A snapshot that differs after it is read back is of no use.
    if (!readSnapshot(row)) return warn(`The state at event ${now.seq} cannot be kept as text.`);
    await inTransaction(source, async (manager) => {
      await manager.upsert(StateSnapshotRow, row, ['seq']);
      await manager.delete(StateSnapshotRow, { seq: LessThan(now.seq) });
    });
    keptSeq = now.seq;
  };

  /** The snapshot before and the events since must give this state. */
  const keep = async (now: LogState): Promise<void> => {
    const lived = await replay(await latest(), now.seq);
    if (hashOf(lived) === hashOf(now)) return write(now);
    warn(`The state at event ${now.seq} is not what the log makes; it is not kept.`);
    await inTransaction(source, forget);
  };

  const behindTheScenes = (now: LogState, work: (now: LogState) => Promise<void>): void => {
    if (rules === '' || keeping || now.seq - keptSeq < EVERY) return;
    keeping = work(now)
      .catch((error: unknown) => warn(`The state at event ${now.seq} could not be kept: ${String(error)}`))
      .finally(() => (keeping = null));
  };

  const forget = async (manager: EntityManager) => {
    await manager.clear(StateSnapshotRow);
    keptSeq = 0;
  };

  return {
    latest,
    forget,
    renew: async (now) => {
      await keeping;
      if (rules === '') return;
      await inTransaction(source, forget);
      await write(now);
    },
    lived: (now) => behindTheScenes(now, write),
    passed: (now) => behindTheScenes(now, keep),
    settled: async () => void (await keeping),
  };
}

const bodyOf = ({ state, latestMs }: LogState): string => JSON.stringify({ state, latestMs });

function readSnapshot({ seq, hash, body }: StateSnapshotRow): LogState | null {
  try {
    const read = { ...(JSON.parse(body) as Omit<LogState, 'seq'>), seq };
    return hashOf(read) === hash ? read : null;
  } catch {
    return null;
  }
}

const hashOf = ({ state, seq, latestMs }: LogState): string =>
  createHash('sha256').update(canonical({ state, seq, latestMs })).digest('hex');
