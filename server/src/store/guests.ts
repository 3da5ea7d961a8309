/**
 * Guests' names and words are forgotten in the log and in the records after the time that the bar sets. An event keeps its
 * number, its id and its time; a trigger allows no other change of it.
 */
import type { EntityManager } from 'typeorm';
import {
  GUEST_EVENTS,
  isOpen,
  namesGuest,
  withoutGuest,
  type BarEvent,
  type BarState,
} from '@even-kettle/core/brew';
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

/** Orders with a guest's name or words from before a time, and since when there are such. */
export async function guestsBefore(
  manager: EntityManager,
  beforeMs: number,
): Promise<{ orders: number; sinceMs: number }> {
  const [found] = await manager.query<{ orders: number; sinceMs: number | null }[]>(
    `SELECT COUNT(DISTINCT json_extract(body, '$.orderId')) AS orders, MIN(at_ms) AS sinceMs FROM event
     WHERE type IN (${TYPES}) AND forgotten_ms IS NULL AND at_ms < ? AND json_valid(body)
       AND (body LIKE '%"name":%' OR body LIKE '%"allergy":%' OR body LIKE '%"note":%')`,
    [beforeMs],
  );
  return { orders: found!.orders, sinceMs: found!.sinceMs ?? 0 };
}

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
 * @returns how many events were changed, and the orders whose guests are kept
 */
export async function forgetGuestsInLog(
  write: Write,
  beforeMs: number,
  { orders }: BarState,
): Promise<{ forgotten: number; kept: ReadonlySet<string> }> {
  const rest = pausing();
  const named: Named[] = [];
  for (let after = 0; ;) {
    const rows = await write((manager) => rowsAfter(manager, after, beforeMs + OVER_MS));
    named.push(...rows.flatMap(readRow));
    if (rows.length < AT_ONCE) break;
    after = rows.at(-1)!.seq;
    await rest();
  }
  // A cup of these may come back; the state has forgotten the guests of the others already.
  const kept = new Set(
    Object.values(orders).flatMap((order) =>
      isOpen(order) || order.events.some(namesGuest) ? [order.id] : [],
    ),
  );
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
  return { forgotten, kept };
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

/**
 * Forgets the guests of brews that ended before a time, those of imported logs too.
 * @param kept orders whose guests the log keeps: records made anew from it would name them again
 */
export async function forgetGuestsInRecords(
  write: Write,
  beforeMs: number,
  kept: ReadonlySet<string>,
): Promise<void> {
  const rest = pausing();
  for (let after = { endedMs: 0, brewId: '' }; ;) {
    const last = await write(async (manager) => {
      const rows = await manager
        .createQueryBuilder(BrewRecordRow, 'record')
        // Written as the index of just these rows has it.
        .where(`instr("record"."body", '"guest":"') > 0`)
        .andWhere('record.endedMs < :beforeMs', { beforeMs })
        .andWhere('(record.endedMs, record.brewId) > (:endedMs, :brewId)', after)
        .orderBy('record.endedMs', 'ASC')
        .addOrderBy('record.brewId', 'ASC')
        .limit(AT_ONCE)
        .getMany();
      for (const row of rows) {
        const record = readRecord(row.body);
        if (!record) continue;
        const orderIds = [record.orderId, ...(record.sharers ?? []).map(({ orderId }) => orderId)];
        if (orderIds.some((id) => kept.has(id))) continue;
        await manager.upsert(BrewRecordRow, rowOfRecord(recordWithoutGuests(record), row.importId), [
          'brewId',
        ]);
      }
      return rows.at(-1);
    });
    if (!last) return;
    after = { endedMs: last.endedMs, brewId: last.brewId };
    await rest();
  }
}
