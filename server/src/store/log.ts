/**
 * The append-only log, the state that is made from it, and the records of finished brews.
 */
import { IsNull, type DataSource, type EntityManager } from 'typeorm';
import {
  EMPTY_BAR,
  EVENT_KINDS,
  NOT_HANDED_OVER,
  applyLogged,
  forgetClosed,
  forgetGuests,
  type BarEvent,
  type BarState,
  type CupTasted,
  type Applied,
  type Refusal,
} from '@even-kettle/core/brew';
import { barEventSchema, upgradedEvent, type BrewRecord, type LiveEvent } from '@even-kettle/core/contract';
import type { RecipeBook } from '@even-kettle/core/recipe';
import { isSentBack, recordOf, tasted } from '../record';
import { canonical } from './canonical';
import { pausing } from './pausing';
import { forgetGuestsInLog, forgetGuestsInRecords } from './guests';
import { nameOrder, namesOf } from './order-names';
import { readRecord, rowOfRecord } from './records';
import { BrewRecordRow, EventRow, SettingRow } from './rows';
import { readSetting } from './settings-table';
import { eventsAfter, readEvent } from './event-reader';
import { openStateSnapshots } from './state-snapshots';
import { emptied } from './vacuum';
import { alone, connectionOf, inTransaction, notStored, transactionNow } from './transaction';

/** How long closed orders stay in the live state, milliseconds of bar time. The log keeps them for good. */
const CLOSED_STAY_MS = 12 * 3600 * 1000;

/** An event that was refused, with its index in the request. */
export type Refused = {
  index: number;
  /** The event's id; null if it has none that can be read. */
  eventId: string | null;
  refusal: Refusal | { code: DoorCode; field: string; reason: string };
  /** All faults that the schema found, if it was the schema that refused. */
  issues?: { field: string; reason: string; code: string }[];
};
/** A reason to refuse an event besides the rules of the bar. */
export type DoorCode =
  | 'id-taken'
  | 'in-the-future'
  | 'too-long-ago'
  | 'not-valid'
  | 'too-many'
  | 'already-exists';

/** Returns the event as it is to be stored, or the reason to refuse it. */
export type Admit = (event: BarEvent, state: BarState) => BarEvent | Refused['refusal'];

/** An event of the log that cannot be read. */
export type LogDamage = { seq: number; reason: string }[];
export type Appended =
  | { ok: true; appended: LiveEvent[]; duplicates: string[]; seq: number }
  | { ok: false; refused: Refused };

export type EventLog = {
  /** The state after the whole log. */
  state: () => BarState;
  /** The number of the latest event; 0 if there is none. */
  seq: () => number;
  /**
   * Appends all events of a request or, if one is refused, none of them. Each is checked by its schema, whoever calls.
   * When this resolves the events are durable, and have been read back.
   * @param beside writes more in the same transaction, if any event is new; may run more than once
   * @throws StoreFailed if the disk or the database does not store it
   */
  append: (
    events: readonly unknown[],
    admit?: Admit,
    beside?: (writer: EntityManager) => Promise<void>,
  ) => Promise<Appended>;
  /** A page of events after a number in the log. */
  after: (seq: number) => Promise<LiveEvent[]>;
  /** One event by its id; null if there is none, or if it cannot be read. */
  byId: (id: string) => Promise<BarEvent | null>;
  /** Bar time of the latest event; 0 if there is none. */
  latestMs: () => number;
  /** Lets other code write the log while no events are posted, and then reads it again. */
  rewritten: (write: () => Promise<void>) => Promise<void>;
  /** Forgets the names and words of guests who came before a time, in the log, the records and the snapshots. */
  forgetGuests: (beforeMs: number) => Promise<void>;
  /** Rebuilds the records from the log. */
  rebuildRecords: () => Promise<number>;
  /** Events that cannot be read; the bar works without them. */
  damage: () => LogDamage;
  /** Resolves when all background work has ended. */
  settled: () => Promise<void>;
};

export type LogOptions = {
  /** Called for everything that was skipped. */
  warn: (message: string) => void;
  /** The latest possible time of an event, bar milliseconds; a later one is ignored when the clock is set. */
  plausibleUntilMs?: number;
  /** Names the rules that make the state: snapshots that other rules made are not used. */
  rules?: string;
};

/** Reads the log and makes the state. Events that the rules refuse are skipped and reported to `warn`; they never stop the bar. */
// eslint-disable-next-line max-lines-per-function -- the log that is open is shared by its short functions
export async function openLog(
  source: DataSource,
  book: RecipeBook,
  { warn, plausibleUntilMs = Infinity, rules = '' }: LogOptions,
): Promise<EventLog> {
  const { manager } = source;
  let damage: LogDamage = [];
  const reader: Reader = {
    manager,
    book,
    plausibleUntilMs,
    warn,
    onDamage: (seq, reason) => damage.push({ seq, reason }),
  };
  const snapshots = openStateSnapshots(source, rules, {
    replay: (from, toSeq) => replay(reader, from, { toSeq }),
    warn,
  });
  let { state, seq, latestMs } = await replay(reader, await snapshots.latest());
  snapshots.lived({ state, seq, latestMs });
  // Where the file is damaged, what stands there stays.
  const isThere = await manager.existsBy(BrewRecordRow, { importId: IsNull() }).catch(() => true);
  const isMissing = seq > 0 && !isThere;
  // The tables were created anew, or the log was imported.
  const isOutdated = (await readSetting(manager, OUTDATED).catch(() => null)) !== null;
  if (isMissing || isOutdated)
    await inTransaction(source, async (writer) => {
      await remakeRecords(writer, reader);
      await writer.delete(SettingRow, { name: OUTDATED });
    }).catch((error: unknown) => warn(`The records of the brews could not be made anew: ${String(error)}`));

  const append: EventLog['append'] = (asked, admit, beside) =>
    alone(source, async () => {
      const result = await transactionNow(source, async (writer) => {
        const checked = await check(writer, asked, admit);
        if (!checked.ok || checked.fresh.length === 0) return checked;
        const places = await insertEvents(writer, checked.fresh);
        await beside?.(writer);
        // Event by event: an order that is closed and set aside within one post has its records all the same.
        for (const [n, { before, after }] of checked.turns.entries()) {
          const event = checked.fresh[n]!;
          await storeRecords(writer, before, after, event);
          if (isLate(event, after)) await tasteLate(writer, event);
        }
        return { ...checked, places };
      });
      if (!result.ok) return result;
      const { places, duplicates } = result;
      if (places.length === 0) return { ok: true, appended: [], duplicates, seq };
      if (!areStored(source, places)) throw notStored(source);
      ({ state, latestMs } = result);
      seq = places.at(-1)!.seq;
      snapshots.passed({ state, seq, latestMs });
      return { ok: true, appended: places, duplicates, seq };
    });

  /** Which events of a request are new and allowed, and the state after them. Called while nobody else writes the log. */
  async function check(writer: EntityManager, asked: readonly unknown[], admit: Admit | undefined) {
    const duplicates: string[] = [];
    const fresh: BarEvent[] = [];
    const turns: { before: BarState; after: BarState }[] = [];
    let next = state;
    let latest = latestMs;
    const bodies = await storedBodies(writer, asked);
    // Nothing is written yet, so other requests may run in between.
    const rest = pausing();
    for (const [index, raw] of asked.entries()) {
      await rest();
      const read = barEventSchema.safeParse(upgradedEvent(raw));
      if (!read.success) return notValid(index, raw, read.error.issues);
      const said: BarEvent = read.data;
      const known = bodies.get(said.id);
      if (known !== undefined) {
        if (!isSame(known, said)) return refuse(index, said, ID_TAKEN);
        duplicates.push(said.id);
        continue;
      }
      const event = admit ? admit(said, next) : said;
      if (!('id' in event)) return refuse(index, said, event);
      const laterMs = later(latest, event, plausibleUntilMs);
      const applied = withoutOld(applyLogged(next, event, book), event, laterMs);
      if (!applied.ok) return refuse(index, event, applied.refusal);
      const refusal = await refusedByTheLog(writer, event, next);
      if (refusal) return refuse(index, event, refusal);
      turns.push({ before: next, after: applied.state });
      next = applied.state;
      latest = laterMs;
      bodies.set(event.id, canonical(event));
      fresh.push(event);
    }
    return {
      ok: true as const,
      duplicates,
      fresh,
      turns,
      state: next,
      latestMs: latest,
      places: [] as LiveEvent[],
    };
  }

  return {
    state: () => state,
    seq: () => seq,
    latestMs: () => latestMs,
    damage: () => damage,
    settled: snapshots.settled,
    append,
    after: async (from) =>
      (await eventsAfter(manager, from)).flatMap((read) =>
        read.event ? [{ seq: read.seq, event: read.event }] : [],
      ),
    byId: async (id) => {
      const row = await manager.findOneBy(EventRow, { id });
      return row && readEvent(row).event;
    },
    rewritten: (write) =>
      alone(source, async () => {
        await write();
        damage = [];
        await transactionNow(source, snapshots.forget);
        ({ state, seq, latestMs } = await replay(reader));
        await transactionNow(source, (writer) => rebuildRecords(writer, reader));
      }),
    forgetGuests: async (beforeMs) => {
      const write = <Result>(work: (writer: EntityManager) => Promise<Result>) => inTransaction(source, work);
      // Days may pass without an event, so guests leave the live state by the clock, as they leave the log.
      await alone(source, async () => void (state = forgetGuests(state, beforeMs)));
      const { forgotten, kept } = await forgetGuestsInLog(write, beforeMs, state);
      await forgetGuestsInRecords(write, beforeMs, kept);
      if (forgotten > 0) await snapshots.renew({ state, seq, latestMs });
      await emptied(source);
    },
    rebuildRecords: () => inTransaction(source, (writer) => rebuildRecords(writer, reader)),
  };
}

const ID_TAKEN: Refused['refusal'] = {
  code: 'id-taken',
  field: 'id',
  reason: 'Another event was stored under this id; a new event needs a new id.',
};

const refuse = (index: number, event: BarEvent, refusal: Refused['refusal']) => ({
  ok: false as const,
  refused: { index, eventId: event.id, refusal },
});

/** The first fault of an event and all of its faults, with the event's id if it has one. */
function notValid(
  index: number,
  raw: unknown,
  found: readonly { path: PropertyKey[]; message: string; code: string }[],
) {
  const id = (raw as { id?: unknown } | null)?.id;
  const issues = found.map(({ path, message, code }) => ({ field: path.join('.'), reason: message, code }));
  const { field, reason } = issues[0]!;
  return {
    ok: false as const,
    refused: {
      index,
      eventId: typeof id === 'string' ? id : null,
      refusal: { code: 'not-valid' as const, field, reason },
      issues,
    },
  };
}

/** Whether two events are equal apart from their time: an event from a clock that was ahead is stored with another time. */
const isSame = (stored: string, event: BarEvent): boolean =>
  stored === canonical(event) ||
  canonical({ ...(JSON.parse(stored) as BarEvent), atMs: 0 }) === canonical({ ...event, atMs: 0 });

/** Checks that need the whole log, because the state holds only the last hours. */
async function refusedByTheLog(
  manager: EntityManager,
  event: BarEvent,
  state: BarState,
): Promise<Refused['refusal'] | null> {
  if (isLate(event, state)) return lateRefusal(manager, event);
  // Cups may go to an order that is there.
  const isKnown = event.type === 'cups-moved' && Object.hasOwn(state.orders, event.toOrderId);
  const ids = isKnown ? [] : namesOf(event);
  if (ids.length === 0) return null;
  const before = await manager.query<unknown[]>(
    `SELECT 1 FROM order_name WHERE name IN (${ids.map(() => '?').join(', ')}) LIMIT 1`,
    ids,
  );
  if (before.length === 0) return null;
  return {
    code: 'already-exists',
    field: 'orderId',
    reason: 'An earlier order or cup had this id; a new one needs a new id.',
  };
}

async function insertEvents(manager: EntityManager, events: readonly BarEvent[]): Promise<LiveEvent[]> {
  const places: LiveEvent[] = [];
  for (const event of events) {
    const { id, type, atMs } = event;
    // Written by hand: a query builder takes ten times as long, and 200 events would block the thread for all of it.
    const seq = await manager.query<number | bigint>(
      'INSERT INTO "event" (id, type, at_ms, received_ms, body) VALUES (?, ?, ?, ?, ?)',
      [id, type, atMs, Date.now(), canonical(event)],
    );
    places.push({ seq: Number(seq), event });
    await nameOrder(manager, event);
  }
  return places;
}

/** Whether what was just committed can be read, by the driver itself and outside of any transaction. */
function areStored(source: DataSource, places: readonly LiveEvent[]): boolean {
  const rows = connectionOf(source)
    .prepare<[number, number], { id: string }>('SELECT id FROM event WHERE seq BETWEEN ? AND ? ORDER BY seq')
    .all(places[0]!.seq, places.at(-1)!.seq);
  return rows.length === places.length && rows.every(({ id }, n) => id === places[n]!.event.id);
}

type Reader = {
  manager: EntityManager;
  book: RecipeBook;
  plausibleUntilMs: number;
  warn: (message: string) => void;
  onDamage: (seq: number, reason: string) => void;
};

/** The state up to a number in the log, and the latest possible time of an event in it. */
export type LogState = { state: BarState; seq: number; latestMs: number };
const NOTHING_YET: LogState = { state: EMPTY_BAR, seq: 0, latestMs: 0 };

async function replay(
  reader: Reader,
  from: LogState | null = null,
  {
    toSeq = Infinity,
    each,
  }: { toSeq?: number; each?: (before: BarState, after: BarState, event: BarEvent) => Promise<void> } = {},
): Promise<LogState> {
  let { state, seq, latestMs } = from ?? NOTHING_YET;
  const rest = pausing();
  for (
    let page = await eventsAfter(reader.manager, seq);
    page.length > 0 && seq < toSeq;
    page = await eventsAfter(reader.manager, seq)
  ) {
    for (const stored of page) {
      if (stored.seq > toSeq) break;
      seq = stored.seq;
      if (!stored.event) {
        reader.onDamage(seq, stored.reason);
        reader.warn(`Event ${seq} of the log cannot be read: ${stored.reason}`);
        continue;
      }
      const laterMs = later(latestMs, stored.event, reader.plausibleUntilMs);
      const applied = withoutOld(applyStored(state, stored.event, reader.book), stored.event, laterMs);
      if (!applied.ok) {
        reader.warn(`Event ${seq} of the log was passed over: ${applied.refusal.reason}`);
        continue;
      }
      await each?.(state, applied.state, stored.event);
      state = applied.state;
      latestMs = laterMs;
      await rest();
    }
  }
  return { state, seq, latestMs };
}

/** The latest time of an event so far; one that cannot be is ignored. */
const later = (latestMs: number, { atMs }: BarEvent, plausibleUntilMs: number): number =>
  atMs <= plausibleUntilMs ? Math.max(latestMs, atMs) : latestMs;

/** With each new order, what was closed long before leaves the live state. */
const withoutOld = (applied: Applied, { type }: BarEvent, latestMs: number): Applied =>
  applied.ok && type === 'order-taken'
    ? { ok: true, state: forgetClosed(applied.state, latestMs - CLOSED_STAY_MS) }
    : applied;

/** An event that is valid JSON but no valid event must not stop the bar either. */
function applyStored(state: BarState, event: BarEvent, book: RecipeBook): Applied {
  try {
    return applyLogged(state, event, book);
  } catch (error) {
    return {
      ok: false,
      refusal: { code: 'unknown', field: 'type', reason: `it is incomplete (${String(error)})` },
    };
  }
}

async function storedBodies(manager: EntityManager, asked: readonly unknown[]): Promise<Map<string, string>> {
  const ids = asked.flatMap((event) => {
    const id = (event as { id?: unknown } | null)?.id;
    return typeof id === 'string' ? [id] : [];
  });
  if (ids.length === 0) return new Map();
  const rows = await manager
    .createQueryBuilder(EventRow, 'event')
    .where('event.id IN (:...ids)', { ids })
    .getMany();
  return new Map(rows.map((row) => [row.id, row.body]));
}

/** Writes the records of the brews that changed, and deletes those of brews that are running again. */
async function storeRecords(
  manager: EntityManager,
  before: BarState,
  after: BarState,
  event: BarEvent,
): Promise<void> {
  if (before.brews === after.brews && before.orders === after.orders) return;
  const only = onlyBrewOf(event);
  const all = only === null ? Object.values(after.brews) : [after.brews[only]];
  for (const brew of all) {
    if (!brew) continue;
    const isSame =
      before.orders[brew.orderId] === after.orders[brew.orderId] ||
      isSentBack(before, brew) === isSentBack(after, brew);
    if (before.brews[brew.id] === brew && isSame) continue;
    const record = recordOf(after, brew);
    if (record)
      await manager.upsert(BrewRecordRow, rowOfRecord(await withGuests(manager, record)), ['brewId']);
    else await manager.delete(BrewRecordRow, { brewId: brew.id });
  }
  if (only !== null) return;
  // Of an order that is set aside, the brews go with it and their records stay.
  for (const { id, orderId } of Object.values(before.brews))
    if (!Object.hasOwn(after.brews, id) && Object.hasOwn(after.orders, orderId))
      await manager.delete(BrewRecordRow, { brewId: id });
}

/** The one brew whose record an event can change; null where it may be another's too. A bar's brews are not all looked at for each tap. */
const onlyBrewOf = (event: BarEvent): string | null =>
  EVENT_KINDS[event.type].moves === 'brews' && 'brewId' in event && event.type !== 'brew-given'
    ? event.brewId
    : null;

/** The live state forgets guests sooner than the log does: a record that is written again keeps those that it had. */
async function withGuests(manager: EntityManager, record: BrewRecord): Promise<BrewRecord> {
  const isKnown = record.guest !== null && !record.sharers?.some(({ guest }) => guest === null);
  const row = isKnown ? null : await manager.findOneBy(BrewRecordRow, { brewId: record.brewId });
  const known = row && readRecord(row.body);
  if (!known) return record;
  const guestOf = (orderId: string) =>
    known.sharers?.find((sharer) => sharer.orderId === orderId)?.guest ?? null;
  return {
    ...record,
    guest: record.guest ?? known.guest,
    ...(record.sharers
      ? { sharers: record.sharers.map((each) => ({ ...each, guest: each.guest ?? guestOf(each.orderId) })) }
      : {}),
  };
}

/** A taste that is entered after its brew has left the live state, or whose brew was imported from a file. */
const isLate = (event: BarEvent, state: BarState): event is CupTasted =>
  event.type === 'cup-tasted' && !Object.hasOwn(state.brews, event.brewId);

async function lateRefusal(manager: EntityManager, { brewId }: CupTasted): Promise<Refusal | null> {
  const row = await manager.findOneBy(BrewRecordRow, { brewId });
  if (!row) return { code: 'unknown', field: 'brewId', reason: 'There is no such brew in the log.' };
  return row.outcome === 'served' ? null : NOT_HANDED_OVER;
}

async function tasteLate(manager: EntityManager, { brewId, taste, atMs }: CupTasted): Promise<void> {
  const row = await manager.findOneBy(BrewRecordRow, { brewId });
  // The brew was removed with its import, but the log still has the taste.
  if (row?.outcome !== 'served') return;
  const known = readRecord(row.body);
  // A damaged row is rebuilt with the others, and then the taste is added again.
  if (!known) return;
  const record = tasted(known, { ...taste, atMs });
  await manager.upsert(BrewRecordRow, rowOfRecord(record, row.importId), ['brewId']);
}

async function rebuildRecords(manager: EntityManager, reader: Reader): Promise<number> {
  await manager.delete(BrewRecordRow, { importId: IsNull() });
  await remakeRecords(manager, reader);
  return manager.countBy(BrewRecordRow, { importId: IsNull() });
}

/** Set by a migration after which records say something else than before. */
const OUTDATED = 'records-outdated';

/** The records that the log gives, over those that there are. */
async function remakeRecords(manager: EntityManager, reader: Reader): Promise<void> {
  const quiet = { ...reader, manager, warn: () => undefined, onDamage: () => undefined };
  await replay(quiet, null, {
    each: async (before, after, event) => {
      await storeRecords(manager, before, after, event);
      if (isLate(event, after)) await tasteLate(manager, event);
    },
  });
}
