/**
 * The append-only log and what is kept beside it: the state that it makes, and the records of finished brews.
 */
import { IsNull, MoreThan, type DataSource, type EntityManager } from 'typeorm';
import {
  EMPTY_BAR,
  NOT_HANDED_OVER,
  apply,
  forgetClosed,
  type BarEvent,
  type BarState,
  type CupTasted,
  type Refusal,
} from '@even-kettle/core/brew';
import type { BrewRecord, LiveEvent } from '@even-kettle/core/contract';
import type { RecipeBook } from '@even-kettle/core/recipe';
import { recordOf, tasted } from '../record';
import { oneLane } from './lane';
import { rowOfRecord } from './records';
import { BrewRecordRow, EventRow } from './rows';

/** How long closed orders stay in the live state, milliseconds of bar time. The log keeps them for good. */
const CLOSED_STAY_MS = 12 * 3600 * 1000;
const READ_AT_ONCE = 2000;

/** An event that was not let in, with its place in the post. */
export type Refused = {
  index: number;
  eventId: string;
  refusal: Refusal | { code: 'id-taken' | 'in-the-future'; field: string; reason: string };
};
export type Appended =
  { ok: true; appended: LiveEvent[]; duplicates: string[]; seq: number } | { ok: false; refused: Refused };

export type EventLog = {
  /** The state that the whole log makes. */
  state: () => BarState;
  /** Place in the log of the latest event; 0 where there is none. */
  seq: () => number;
  /** Appends all of a post or, where one event is refused, nothing of it. Durable when this resolves. */
  append: (
    events: BarEvent[],
    checks?: (event: BarEvent, state: BarState) => Refused['refusal'] | null,
  ) => Promise<Appended>;
  /** Events after a place in the log, at most a page of them. */
  after: (seq: number) => Promise<LiveEvent[]>;
  /** Bar time of the latest event, 0 where there is none. */
  latestMs: () => number;
  /** Lets something else write the log while nothing is posted, and then reads it anew. */
  rewritten: (write: () => Promise<void>) => Promise<void>;
  /** Makes the records anew from the log. */
  rebuildRecords: () => Promise<number>;
};

/** Reads the log and makes the state. Events that the rules refuse are passed over and told to `warn`; they cannot stop the bar. */
export async function openLog(
  source: DataSource,
  book: RecipeBook,
  warn: (message: string) => void,
): Promise<EventLog> {
  const lane = oneLane();
  let { state, seq, latestMs } = await replay(source.manager, book, warn);
  // Tables that were made anew, or a log that came from elsewhere.
  if (seq > 0 && (await brewedHere(source.manager)) === 0) await rebuildRecords(source, book);

  const append: EventLog['append'] = (events, checks) =>
    lane(async () => {
      const duplicates: string[] = [];
      const fresh: BarEvent[] = [];
      let next = state;
      const bodies = await storedBodies(source.manager, events);
      for (const [index, event] of events.entries()) {
        const stored = bodies.get(event.id);
        if (stored !== undefined) {
          if (stored !== canonical(event))
            return refuse(index, event, {
              code: 'id-taken',
              field: 'id',
              reason: 'Another event was stored under this id; a new event needs a new id.',
            });
          duplicates.push(event.id);
          continue;
        }
        const objection = checks?.(event, next);
        if (objection) return refuse(index, event, objection);
        const applied = apply(next, event, book);
        if (!applied.ok) return refuse(index, event, applied.refusal);
        const late = isLate(event, next) ? await lateRefusal(source.manager, event) : null;
        if (late) return refuse(index, event, late);
        next = applied.state;
        bodies.set(event.id, canonical(event));
        fresh.push(event);
      }
      if (fresh.length === 0) return { ok: true, appended: [], duplicates, seq };
      const appended = await source.transaction(async (manager) => {
        const rows = fresh.map((event) => ({
          id: event.id,
          type: event.type,
          atMs: event.atMs,
          receivedMs: Date.now(),
          body: canonical(event),
        }));
        const places: LiveEvent[] = [];
        for (const [index, row] of rows.entries()) {
          const inserted = await manager.insert(EventRow, row);
          places.push({ seq: Number(inserted.identifiers[0]!['seq']), event: fresh[index]! });
        }
        await storeRecords(manager, state, next);
        for (const event of fresh) if (isLate(event, next)) await tasteLate(manager, event);
        return places;
      });
      latestMs = Math.max(latestMs, ...fresh.map((event) => event.atMs));
      state = forgetClosed(next, latestMs - CLOSED_STAY_MS);
      seq = appended.at(-1)!.seq;
      return { ok: true, appended, duplicates, seq };
    });

  return {
    state: () => state,
    seq: () => seq,
    latestMs: () => latestMs,
    append,
    after: async (from) =>
      (await readAfter(source.manager, from)).map(({ seq: place, event }) => ({ seq: place, event })),
    rewritten: (write) =>
      lane(async () => {
        await write();
        ({ state, seq, latestMs } = await replay(source.manager, book, warn));
        await rebuildRecords(source, book);
      }),
    rebuildRecords: () => lane(() => rebuildRecords(source, book)),
  };
}

const refuse = (index: number, event: BarEvent, refusal: Refused['refusal']): Appended => ({
  ok: false,
  refused: { index, eventId: event.id, refusal },
});

async function replay(
  manager: EntityManager,
  book: RecipeBook,
  warn: (message: string) => void,
  each?: (before: BarState, after: BarState, event: BarEvent) => Promise<void>,
) {
  let state = EMPTY_BAR;
  let seq = 0;
  let latestMs = 0;
  for (let page = await readAfter(manager, 0); page.length > 0; page = await readAfter(manager, seq)) {
    for (const stored of page) {
      seq = stored.seq;
      const applied = apply(state, stored.event, book);
      if (!applied.ok) {
        warn(`Event ${stored.seq} of the log was passed over: ${applied.refusal.reason}`);
        continue;
      }
      await each?.(state, applied.state, stored.event);
      state = applied.state;
      latestMs = Math.max(latestMs, stored.event.atMs);
    }
    state = forgetClosed(state, latestMs - CLOSED_STAY_MS);
  }
  return { state, seq, latestMs };
}

async function readAfter(manager: EntityManager, seq: number): Promise<LiveEvent[]> {
  const rows = await manager.find(EventRow, {
    where: { seq: MoreThan(seq) },
    order: { seq: 'ASC' },
    take: READ_AT_ONCE,
  });
  return rows.map((row) => ({ seq: row.seq, event: JSON.parse(row.body) as BarEvent }));
}

async function storedBodies(manager: EntityManager, events: BarEvent[]): Promise<Map<string, string>> {
  const rows = await manager
    .createQueryBuilder(EventRow, 'event')
    .where('event.id IN (:...ids)', { ids: events.map((event) => event.id) })
    .getMany();
  return new Map(rows.map((row) => [row.id, row.body]));
}

/** Writes the records of the brews that changed, and takes back those of brews that are running again. */
async function storeRecords(manager: EntityManager, before: BarState, after: BarState): Promise<void> {
  for (const brew of Object.values(after.brews)) {
    if (before.brews[brew.id] === brew) continue;
    const record = recordOf(after, brew);
    if (record) await manager.save(BrewRecordRow, rowOfRecord(record));
    else await manager.delete(BrewRecordRow, { brewId: brew.id });
  }
  for (const id of Object.keys(before.brews))
    if (!Object.hasOwn(after.brews, id)) await manager.delete(BrewRecordRow, { brewId: id });
}

/** A cup that is told of when its brew has left the live state, or was never in it: read in from a file. */
const isLate = (event: BarEvent, state: BarState): event is CupTasted =>
  event.type === 'cup-tasted' && !Object.hasOwn(state.brews, event.brewId);

async function lateRefusal(manager: EntityManager, { brewId }: CupTasted): Promise<Refusal | null> {
  const row = await manager.findOneBy(BrewRecordRow, { brewId });
  if (!row) return { code: 'unknown', field: 'brewId', reason: 'There is no such brew in the log.' };
  return row.outcome === 'served' ? null : NOT_HANDED_OVER;
}

async function tasteLate(manager: EntityManager, { brewId, taste, atMs }: CupTasted): Promise<void> {
  const row = await manager.findOneBy(BrewRecordRow, { brewId });
  // What was taken out again with its file is told of in the log, and is no more.
  if (row?.outcome !== 'served') return;
  const record = tasted(JSON.parse(row.body) as BrewRecord, { ...taste, atMs });
  await manager.save(BrewRecordRow, rowOfRecord(record, row.importId));
}

async function rebuildRecords(source: DataSource, book: RecipeBook): Promise<number> {
  return source.transaction(async (manager) => {
    await manager.delete(BrewRecordRow, { importId: IsNull() });
    await replay(
      manager,
      book,
      () => undefined,
      async (before, after, event) => {
        await storeRecords(manager, before, after);
        if (isLate(event, after)) await tasteLate(manager, event);
      },
    );
    return brewedHere(manager);
  });
}

/** How many records there are of what was brewed here. */
const brewedHere = (manager: EntityManager): Promise<number> =>
  manager.countBy(BrewRecordRow, { importId: IsNull() });

/** JSON with its keys sorted: the same event gives the same text, however it was written. */
export function canonical(value: unknown): string {
  return JSON.stringify(value, (_key, inner: unknown) =>
    inner !== null && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
}
