/**
 * The whole bar in one file: settings, saved recipes, the log and the traces. The imported bar is the same as the
 * exported one, down to the hash of its state.
 */
import { createHash } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import type { z } from 'zod';
import {
  ARCHIVE_FORMAT,
  archiveParts,
  readStoredEvent,
  type Bar,
  type ImportFound,
  type Unreadable,
} from '@even-kettle/core/contract';
import type { BarState } from '@even-kettle/core/brew';
import { readRecipe } from '@even-kettle/core/formats';
import { bytesToTrace, traceToBytes } from '@even-kettle/core/pour';
import { readBar, writeBar } from '../bench';
import { canonical } from '../store/canonical';
import { rowsByBrew } from '../store/by-brew';
import { eventRowsAfter, latestSeq } from '../store/event-reader';
import { recordWithoutGuests } from '../store/guests';
import { nameOrder } from '../store/order-names';
import { readRecord, rowOfRecord } from '../store/records';
import { BrewRecordRow, BrewTraceRow, EventRow, FileImportRow, RecipeVersionRow } from '../store/rows';
import { bodyForArchive } from '../store/stored-body';
import { FileFault } from './csv';
import { happenedAt, nothingFound } from './found';
import { itemsOfFile, type OnBytes } from './streams';

/** A hash of the state: equal for equal bars, however they were made. */
export const stateHash = (state: BarState): string =>
  createHash('sha256').update(canonical(state)).digest('hex');

/**
 * Generates the archive in pieces, one line an event, so that a long log is never in memory as a whole, and no transaction is
 * held while it is read. Its events are those of the moment when the first piece was asked for.
 * What cannot be read is left out and named at the end.
 * @param withoutGuests leaves out the names and words of guests
 */
export async function* archiveOf(manager: EntityManager, withoutGuests = false): AsyncGenerator<string> {
  const lost: Unreadable[] = [];
  const toSeq = await latestSeq(manager);
  const bar = await readBar(manager);
  const imports = await manager.findBy(FileImportRow, { state: 'kept' });
  yield `{"format":${JSON.stringify(ARCHIVE_FORMAT)},\n"bar":${JSON.stringify(bar)},\n"recipes":[`;
  const versions = await manager.find(RecipeVersionRow, { order: { recipeId: 'ASC', version: 'ASC' } });
  yield versions.map(({ savedMs, body }) => `\n{"savedMs":${savedMs},"recipe":${body}}`).join(',');
  yield '],\n"events":[';
  yield* listed(eventLines(manager, toSeq, withoutGuests, lost));
  yield '],\n"traces":[';
  yield* listed(traceLines(manager, lost));
  yield '],\n"imports":[';
  yield imports
    .map(({ id, name, brews, atMs }) => `\n${JSON.stringify({ id, name, brews, atMs })}`)
    .join(',');
  yield '],\n"records":[';
  yield* listed(recordLines(manager, imports, withoutGuests, lost));
  yield ']';
  if (lost.length > 0) yield `,\n"unreadable":[${lost.map((each) => `\n${JSON.stringify(each)}`).join(',')}]`;
  yield '}\n';
}

/** Pages of lines as items of a list. */
async function* listed(pages: AsyncGenerator<string[]>): AsyncGenerator<string> {
  let isFirst = true;
  for await (const lines of pages) {
    if (lines.length > 0) yield `${isFirst ? '' : ','}${lines.map((line) => `\n${line}`).join(',')}`;
    isFirst &&= lines.length === 0;
  }
}

async function* eventLines(
  manager: EntityManager,
  toSeq: number,
  withoutGuests: boolean,
  lost: Unreadable[],
): AsyncGenerator<string[]> {
  for (let seq = 0; seq < toSeq;) {
    const rows = await eventRowsAfter(manager, seq);
    if (rows.length === 0) return;
    seq = rows.at(-1)!.seq;
    yield rows
      .filter((row) => row.seq <= toSeq)
      .flatMap((row) => {
        const line = 'reason' in row ? null : bodyForArchive(row.body, withoutGuests);
        if (line === null) lost.push({ part: 'events', of: String(row.seq) });
        return line ?? [];
      });
  }
}

async function* traceLines(manager: EntityManager, lost: Unreadable[]): AsyncGenerator<string[]> {
  const rows = rowsByBrew(manager, BrewTraceRow, {}, TRACES_PAGE, (of) => lost.push({ part: 'traces', of }));
  for await (const page of rows) yield page.flatMap((row) => traceLine(row) ?? []);
}

async function* recordLines(
  manager: EntityManager,
  imports: readonly FileImportRow[],
  withoutGuests: boolean,
  lost: Unreadable[],
): AsyncGenerator<string[]> {
  for (const { id: importId } of imports) {
    const rows = rowsByBrew(manager, BrewRecordRow, { importId }, PAGE, (of) =>
      lost.push({ part: 'records', of }),
    );
    for await (const page of rows)
      yield page.flatMap(({ body }) => {
        const record = readRecord(body);
        const shown = withoutGuests && record ? JSON.stringify(recordWithoutGuests(record)) : body;
        return record ? `{"importId":${JSON.stringify(importId)},"record":${shown}}` : [];
      });
  }
}

function traceLine({ brewId, bytes }: BrewTraceRow): string | null {
  try {
    const points = bytesToTrace(bytes).map(({ atMs, massG }) => [Math.max(0, atMs), massG]);
    return JSON.stringify({ brewId, points });
  } catch {
    return null;
  }
}

const TRACES_PAGE = 50;
const PAGE = 500;

type On = { onBytes: OnBytes; onItem: () => void };

/**
 * Checks every part of an archive without keeping any.
 * @throws FileFault with the place of what is wrong
 */
export async function lookAtArchive(file: string, on: On): Promise<ImportFound> {
  const counts = new Map<string, number>();
  const found = nothingFound();
  let name = '';
  for await (const item of checkedItems(file, on)) {
    counts.set(item.part, (counts.get(item.part) ?? 0) + 1);
    if (item.part === 'bar') name = item.value.name;
    if (item.part !== 'events') continue;
    found.rows += 1;
    happenedAt(found, item.value.atMs);
  }
  const count = (part: string, one: string, whence = '') => {
    const many = counts.get(part) ?? 0;
    return `${many} ${one}${many === 1 ? '' : 's'}${whence}`;
  };
  found.shows = [
    name,
    count('events', 'event'),
    count('traces', 'trace'),
    count('recipes', 'saved recipe'),
    count('records', 'brew', ' from tables'),
    ...(counts.has('unreadable')
      ? [count('unreadable', 'row', ' of the bar could not be read when this file was made')]
      : []),
  ].map((shows) => ({ line: 0, shows }));
  return found;
}

/**
 * Imports an archive into an empty database: all of it, or nothing.
 * @returns how many events it had
 * @throws FileFault if it cannot be imported; then nothing is stored
 */
export async function takeArchive(source: DataSource, file: string, on: On): Promise<number> {
  return source
    .transaction(async (manager) => {
      if ((await manager.count(EventRow)) + (await manager.count(FileImportRow)) > 0)
        throw new FileFault('This bar has a log already. Read an archive into an empty one.');
      let events = 0;
      let part: CheckedItem['part'] | null = null;
      let rows: object[] = [];
      const write = async () => {
        if (part && part !== 'bar' && part !== 'unreadable' && rows.length > 0)
          await manager.insert(ROW_OF[part], rows);
        rows = [];
      };
      for await (const item of checkedItems(file, on)) {
        if (item.part !== part || rows.length >= PAGE) await write();
        part = item.part;
        if (item.part === 'bar') await writeBar(manager, settingsOf(item.value));
        else if (item.part !== 'unreadable') rows.push(rowOf(item));
        if (item.part === 'events') events += 1;
        if (item.part === 'events') await nameOrder(manager, item.value);
      }
      await write();
      // A brew whose import is unknown could never be removed again.
      const orphans = await manager.query<unknown[]>(
        'SELECT 1 FROM brew_record WHERE import_id NOT IN (SELECT id FROM file_import) LIMIT 1',
      );
      if (orphans.length > 0)
        throw new FileFault('records: one belongs to an import that the file does not contain.');
      return events;
    })
    .catch((error: unknown) => {
      if (/UNIQUE constraint failed: (\w+)/.test(String(error)))
        throw new FileFault(
          `It has the same ${/failed: (\w+)/.exec(String(error))![1]!.replace('_', ' ')} twice.`,
        );
      throw error;
    });
}

/** The settings without the learnt values and without the version. */
function settingsOf({
  pace: _pace,
  beds: _beds,
  promiseShares: _promiseShares,
  stockG: _stockG,
  guestsDue: _guestsDue,
  version: _version,
  ...settings
}: Bar): Bar {
  return settings;
}

const ROW_OF = {
  recipes: RecipeVersionRow,
  events: EventRow,
  traces: BrewTraceRow,
  imports: FileImportRow,
  records: BrewRecordRow,
} as const;

function rowOf(item: Exclude<CheckedItem, { part: 'bar' | 'unreadable' }>): object {
  switch (item.part) {
    case 'recipes': {
      const { id, version } = item.value.recipe as { id: string; version: number };
      return { recipeId: id, version, savedMs: item.value.savedMs, body: JSON.stringify(item.value.recipe) };
    }
    case 'events': {
      const { id, type, atMs } = item.value;
      return { id, type, atMs, receivedMs: Date.now(), body: canonical(item.value) };
    }
    case 'traces':
      return {
        brewId: item.value.brewId,
        bytes: Buffer.from(traceToBytes(item.value.points.map(([atMs, massG]) => ({ atMs, massG })))),
      };
    case 'imports':
      return { ...item.value, state: 'kept' };
    case 'records':
      return rowOfRecord(item.value.record, item.value.importId);
  }
}

type Parts = { [Part in keyof typeof archiveParts]: z.infer<(typeof archiveParts)[Part]> };
type CheckedItem = {
  [Part in Exclude<keyof Parts, 'format'>]: { part: Part; value: Parts[Part] };
}[Exclude<keyof Parts, 'format'>];

/** Every item of an archive, each checked: the bar as one item, the lists item by item. */
async function* checkedItems(file: string, { onBytes, onItem }: On): AsyncGenerator<CheckedItem> {
  const bar: Record<string, unknown> = {};
  let format: unknown;
  for await (const { part, at, value } of itemsOfFile(file, onBytes)) {
    onItem();
    if (part === 'format' && at === '') format = value;
    else if (part === 'bar') bar[at] = value;
    else if ((Object.hasOwn(ROW_OF, part) || part === 'unreadable') && at !== '') {
      const asToday = part === 'events' ? mendedEvent(value) : value;
      const checked = checkedPart(part as keyof typeof ROW_OF | 'unreadable', `${part}.${at}`, asToday);
      if (part === 'recipes') checkRecipeOf(checked, `${part}.${at}.recipe`);
      yield { part, value: checked } as CheckedItem;
    } else throw new FileFault(`${part}: is no part of an archive.`);
  }
  checkedPart('format', 'format', format);
  yield { part: 'bar', value: checkedPart('bar', 'bar', bar) };
}

/** Upgrades an event that an older version allowed to today's schema; the check reports all else that is wrong. */
function mendedEvent(value: unknown): unknown {
  try {
    return readStoredEvent(value);
  } catch {
    return value;
  }
}

function checkedPart<Part extends keyof Parts>(part: Part, at: string, value: unknown): Parts[Part] {
  const read = archiveParts[part].safeParse(value);
  if (read.success) return read.data as Parts[Part];
  const [issue] = read.error.issues;
  throw new FileFault(`${[at, ...issue!.path].join('.')}: ${issue!.message}.`);
}

function checkRecipeOf(item: unknown, at: string): void {
  const checked = readRecipe((item as Parts['recipes']).recipe);
  if (!checked.ok) throw new FileFault(`${at}.${checked.faults[0]!.field}: ${checked.faults[0]!.reason}.`);
}
