/**
 * Guests' names and words are forgotten in the log and in the records after the time that the bar sets. An event keeps its
 * number, its id and its time; a trigger allows no other change of it.
 */
import type { EntityManager } from 'typeorm';
import { GUEST_EVENTS, namesGuest, withoutGuest, type BarEvent, type BarState } from '@even-kettle/core/brew';
import type { BrewRecord } from '@even-kettle/core/contract';
import { canonical } from './canonical';
import { pausing } from './pausing';
import { readRecord, rowOfRecord } from './records';
import { BrewRecordRow } from './rows';
import { eventOfBody } from './stored-body';

/** Guests are forgotten after so many days where the bar has set nothing else. */
export const GUESTS_KEPT_DAYS = 30;

/** An order is surely over within this time of its first event, milliseconds. */
const OVER_MS = 2 * 86_400_000;
const AT_ONCE = 500;
/** Written out, so that the index of just these rows is used. */
const TYPES = GUEST_EVENTS.map((type) => `'${type}'`).join(', ');

/** A record without its guests' names; the same object where it has none. */
export function recordWithoutGuests(record: BrewRecord): BrewRecord {
  const { sharers } = record;
  if (record.guest === null && !sharers?.some(({ guest }) => guest !== null)) return record;
  return {
    ...record,
    guest: null,
    ...(sharers ? { sharers: sharers.map((sharer) => ({ ...sharer, guest: null })) } : {}),
  };
}

type Row = { seq: number; atMs: number; body: string };
type Read = { seq: number; atMs: number; event: BarEvent; orderIds: string[] };

/**
 * Forgets the guests of events before a time. Orders that are linked by cups that went over are forgotten together, or not
 * yet, since the cups of a move must be those of their order.
 * @returns how many events were changed
 */
export async function forgetGuestsInLog(
  manager: EntityManager,
  beforeMs: number,
  { orders }: BarState,
): Promise<number> {
  const rows = await manager.query<Row[]>(
    `SELECT seq, at_ms AS atMs, body FROM event
     WHERE type IN (${TYPES}) AND forgotten_ms IS NULL AND at_ms < ? ORDER BY seq`,
    [beforeMs + OVER_MS],
  );
  const read = rows.flatMap(readRow);
  const kept = new Set(Object.keys(orders));
  for (const { atMs, orderIds } of read) if (atMs >= beforeMs) for (const id of orderIds) kept.add(id);
  for (let before = -1; before < kept.size;) {
    before = kept.size;
    for (const { orderIds } of read)
      if (orderIds.some((id) => kept.has(id))) for (const id of orderIds) kept.add(id);
  }
  const due = read.filter(({ orderIds }) => !orderIds.some((id) => kept.has(id)));
  // What is written over leaves no trace in the file.
  if (due.length > 0) await manager.query('PRAGMA secure_delete = ON');
  for (const { seq, event } of due)
    await manager.query('UPDATE event SET body = ?, forgotten_ms = ? WHERE seq = ?', [
      canonical(withoutGuest(event)),
      Date.now(),
      seq,
    ]);
  return due.filter(({ event }) => namesGuest(event)).length;
}

function readRow({ seq, atMs, body }: Row): Read[] {
  try {
    const event = eventOfBody(body);
    if (!('orderId' in event)) return [];
    const orderIds = [event.orderId, ...('toOrderId' in event ? [event.toOrderId] : [])];
    return [{ seq, atMs, event, orderIds }];
  } catch {
    // An event that this version cannot read is left as it is.
    return [];
  }
}

/** Forgets the guests of brews that ended before a time, and those of imported logs. */
export async function forgetGuestsInRecords(
  write: <Result>(work: (manager: EntityManager) => Promise<Result>) => Promise<Result>,
  fromMs: number,
  beforeMs: number,
): Promise<void> {
  const rest = pausing();
  for (let after = { endedMs: fromMs, brewId: '' }; ;) {
    const last = await write(async (manager) => {
      const rows = await manager
        .createQueryBuilder(BrewRecordRow, 'record')
        .where('record.endedMs < :beforeMs', { beforeMs })
        .andWhere(
          '(record.endedMs > :endedMs OR (record.endedMs = :endedMs AND record.brewId > :brewId))',
          after,
        )
        .orderBy('record.endedMs', 'ASC')
        .addOrderBy('record.brewId', 'ASC')
        .limit(AT_ONCE)
        .getMany();
      for (const row of rows) {
        const record = readRecord(row.body);
        const plain = record && recordWithoutGuests(record);
        if (plain && plain !== record)
          await manager.upsert(BrewRecordRow, rowOfRecord(plain, row.importId), ['brewId']);
      }
      return rows.at(-1);
    });
    if (!last) return;
    after = { endedMs: last.endedMs, brewId: last.brewId };
    await rest();
  }
}
