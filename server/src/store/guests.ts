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
const AT_ONCE = 200;
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
type Named = { seq: number; atMs: number; orderIds: string[] };
/** Writes in a transaction of its own. */
type Write = <Result>(work: (manager: EntityManager) => Promise<Result>) => Promise<Result>;

/**
 * Forgets the guests of events before a time, a few at once, so that the bar's own taps never wait long. Orders that are
 * linked by cups that went over are forgotten together, or not yet, since the cups of a move must be those of their order.
 * @returns how many events were changed
 */
export async function forgetGuestsInLog(
  write: Write,
  beforeMs: number,
  { orders }: BarState,
): Promise<number> {
  const rest = pausing();
  const named: Named[] = [];
  for (let after = 0; ;) {
    const rows = await write((manager) => rowsAfter(manager, after, beforeMs + OVER_MS));
    named.push(...rows.flatMap(readRow));
    if (rows.length < AT_ONCE) break;
    after = rows.at(-1)!.seq;
    await rest();
  }
  const kept = new Set(Object.keys(orders));
  for (const { atMs, orderIds } of named) if (atMs >= beforeMs) for (const id of orderIds) kept.add(id);
  for (let before = -1; before < kept.size;) {
    before = kept.size;
    for (const { orderIds } of named)
      if (orderIds.some((id) => kept.has(id))) for (const id of orderIds) kept.add(id);
  }
  const due = named.filter(({ orderIds }) => !orderIds.some((id) => kept.has(id))).map(({ seq }) => seq);
  let forgotten = 0;
  for (let from = 0; from < due.length; from += AT_ONCE) {
    forgotten += await write((manager) => forgetEvents(manager, due.slice(from, from + AT_ONCE)));
    await rest();
  }
  return forgotten;
}

const rowsAfter = (manager: EntityManager, seq: number, beforeMs: number): Promise<Row[]> =>
  manager.query<Row[]>(
    `SELECT seq, at_ms AS atMs, body FROM event
     WHERE type IN (${TYPES}) AND forgotten_ms IS NULL AND at_ms < ? AND seq > ? ORDER BY seq LIMIT ${AT_ONCE}`,
    [beforeMs, seq],
  );

function readRow({ seq, atMs, body }: Row): Named[] {
  const event = eventOf(body);
  if (!event || !('orderId' in event)) return [];
  return [{ seq, atMs, orderIds: [event.orderId, ...('toOrderId' in event ? [event.toOrderId] : [])] }];
}

/** An event that this version cannot read is left as it is. */
function eventOf(body: string): BarEvent | null {
  try {
    return eventOfBody(body);
  } catch {
    return null;
  }
}

async function forgetEvents(manager: EntityManager, seqs: readonly number[]): Promise<number> {
  // What is written over leaves no trace in the file.
  await manager.query('PRAGMA secure_delete = ON');
  const rows = await manager.query<Row[]>(
    `SELECT seq, body FROM event WHERE seq IN (${seqs.join(', ')}) AND forgotten_ms IS NULL`,
  );
  let forgotten = 0;
  for (const { seq, body } of rows) {
    const event = eventOf(body);
    if (!event) continue;
    if (namesGuest(event)) forgotten += 1;
    await manager.query('UPDATE event SET body = ?, forgotten_ms = ? WHERE seq = ?', [
      namesGuest(event) ? canonical(withoutGuest(event)) : body,
      Date.now(),
      seq,
    ]);
  }
  return forgotten;
}

/** Forgets the guests of brews that ended before a time, and those of imported logs. */
export async function forgetGuestsInRecords(write: Write, fromMs: number, beforeMs: number): Promise<void> {
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
