/**
 * Reads the log's events, page by page. Where a page of the file is damaged, the rows around it are still read.
 */
import { MoreThan, type EntityManager } from 'typeorm';
import type { BarEvent } from '@even-kettle/core/brew';
import { EventRow } from './rows';
import { eventOfBody } from './stored-body';
import { failureOf } from './transaction';

const READ_AT_ONCE = 500;

/** An event that the file does not give. */
export type LostEvent = { seq: number; event: null; reason: string };
type StoredEvent = { seq: number; event: BarEvent; reason?: never } | LostEvent;

/** The next events after a number in the log, those that cannot be read with the reason; empty at its end. */
export const eventsAfter = async (manager: EntityManager, seq: number): Promise<StoredEvent[]> =>
  (await eventRowsAfter(manager, seq)).map((row) => ('reason' in row ? row : readEvent(row)));

export function readEvent({ seq, body }: EventRow): StoredEvent {
  try {
    return { seq, event: eventOfBody(body) };
  } catch {
    return { seq, event: null, reason: 'this version cannot read it' };
  }
}

/** The rows themselves, as they are stored. */
export const eventRowsAfter = (manager: EntityManager, seq: number): Promise<(EventRow | LostEvent)[]> =>
  manager
    .find(EventRow, { where: { seq: MoreThan(seq) }, order: { seq: 'ASC' }, take: READ_AT_ONCE })
    .catch((error: unknown) => {
      if (failureOf(error)?.code !== 'damaged') throw error;
      return readOneByOne(manager, seq);
    });

async function readOneByOne(manager: EntityManager, seq: number): Promise<(EventRow | LostEvent)[]> {
  const latest = await latestSeq(manager);
  const found: (EventRow | LostEvent)[] = [];
  for (let at = seq + 1; at <= Math.min(latest, seq + READ_AT_ONCE); at += 1) {
    const row = await manager.findOneBy(EventRow, { seq: at }).catch(() => undefined);
    if (row === null) continue;
    found.push(row ?? { seq: at, event: null, reason: 'the file is damaged there' });
  }
  return found;
}

/** The number of the last event that was ever stored. */
export async function latestSeq(manager: EntityManager): Promise<number> {
  const [{ latest = 0 } = {}] = await manager.query<{ latest?: number }[]>(
    `SELECT seq AS latest FROM sqlite_sequence WHERE name = 'event'`,
  );
  return latest;
}
