/**
 * The state of the log as it was a while ago, so that a start does not have to live the whole log again. Each is checked
 * before it is kept: the one before it and the events since must make the same state.
 */
import { createHash } from 'node:crypto';
import { LessThan, type DataSource, type EntityManager } from 'typeorm';
import { canonical } from './canonical';
import type { LogState } from './log';
import { StateSnapshotRow } from './rows';
import { inTransaction } from './transaction';

/** A state is kept after so many events. */
const EVERY = 2000;

export type StateSnapshots = {
  /** The latest that these rules made, and that still reads; null where there is none. */
  latest: () => Promise<LogState | null>;
  /** What a start made of the log by living it: kept where it was long, so that the next one is short. */
  lived: (now: LogState) => void;
  /** The log has come so far. Keeps the state where it is time to, behind the scenes. */
  passed: (now: LogState) => void;
  /** Lets all of them go: the log has become another. */
  forget: (manager: EntityManager) => Promise<void>;
  settled: () => Promise<void>;
};

type Parts = {
  /** Lives the log from a state on, up to a place in it. */
  replay: (from: LogState | null, toSeq: number) => Promise<LogState>;
  warn: (message: string) => void;
};

/** @param rules what made the states: under other rules they might be others. Empty: none are kept. */
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
    // What does not read back as it was is no help to a start.
    if (!readSnapshot(row)) return warn(`The state at event ${now.seq} cannot be kept as text.`);
    await inTransaction(source, async (manager) => {
      await manager.upsert(StateSnapshotRow, row, ['seq']);
      await manager.delete(StateSnapshotRow, { seq: LessThan(now.seq) });
    });
    keptSeq = now.seq;
  };

  /** The state before and the events since must make this one. */
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
