/**
 * The whole bar in one file, and back: settings, saved recipes, the log and the traces. What is read back is the same
 * bar, to the hash of its state.
 */
import { createHash } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { ARCHIVE_FORMAT, archiveSchema, type Archive } from '@even-kettle/core/contract';
import type { BarEvent, BarState } from '@even-kettle/core/brew';
import { readRecipe } from '@even-kettle/core/formats';
import { bytesToTrace, traceToBytes } from '@even-kettle/core/pour';
import { writeBar } from '../bench';
import { canonical } from '../store/log';
import { BrewTraceRow, EventRow, RecipeVersionRow } from '../store/rows';

/** The state's hash: the same for the same bar, however it came to be there. */
export const stateHash = (state: BarState): string =>
  createHash('sha256').update(canonical(state)).digest('hex');

/** The archive piece by piece, a line an event, so that a long log never stands in memory as a whole. */
export async function* archiveOf(source: DataSource, bar: object): AsyncGenerator<string> {
  const { manager } = source;
  yield `{"format":${JSON.stringify(ARCHIVE_FORMAT)},\n"bar":${JSON.stringify(bar)},\n"recipes":[`;
  const versions = await manager.find(RecipeVersionRow, { order: { recipeId: 'ASC', version: 'ASC' } });
  yield versions.map(({ savedMs, body }) => `\n{"savedMs":${savedMs},"recipe":${body}}`).join(',');
  yield '],\n"events":[';
  let first = true;
  for (let seq = 0; ;) {
    const page = await manager
      .createQueryBuilder(EventRow, 'event')
      .where('event.seq > :seq', { seq })
      .orderBy('event.seq', 'ASC')
      .limit(PAGE)
      .getMany();
    if (page.length === 0) break;
    yield `${first ? '' : ','}${page.map(({ body }) => `\n${body}`).join(',')}`;
    first = false;
    seq = page.at(-1)!.seq;
  }
  yield '],\n"traces":[';
  first = true;
  for (let after = ''; ;) {
    const page = await manager
      .createQueryBuilder(BrewTraceRow, 'trace')
      .where('trace.brewId > :after', { after })
      .orderBy('trace.brewId', 'ASC')
      .limit(PAGE)
      .getMany();
    if (page.length === 0) break;
    const lines = page.map(
      ({ brewId, bytes }) =>
        `\n${JSON.stringify({ brewId, points: bytesToTrace(bytes).map(({ atMs, massG }) => [atMs, massG]) })}`,
    );
    yield `${first ? '' : ','}${lines.join(',')}`;
    first = false;
    after = page.at(-1)!.brewId;
  }
  yield ']}\n';
}
const PAGE = 500;

export type ReadArchive = { ok: true; archive: Archive } | { ok: false; field: string; reason: string };

/** Checks a file before anything of it is taken. */
export function readArchive(value: unknown): ReadArchive {
  const read = archiveSchema.safeParse(value);
  if (!read.success) {
    const [issue] = read.error.issues;
    return { ok: false, field: issue!.path.join('.') || 'format', reason: issue!.message };
  }
  for (const [index, { recipe }] of read.data.recipes.entries()) {
    const checked = readRecipe(recipe);
    if (!checked.ok) {
      const [fault] = checked.faults;
      return { ok: false, field: `recipes.${index}.recipe.${fault!.field}`, reason: fault!.reason };
    }
  }
  const ids = new Set(read.data.events.map(({ id }) => id));
  if (ids.size < read.data.events.length)
    return { ok: false, field: 'events', reason: 'has the same event twice' };
  return { ok: true, archive: read.data };
}

/** Puts an archive into an empty database: all of it, or nothing. */
export async function restoreArchive(source: DataSource, archive: Archive): Promise<void> {
  await source.transaction(async (manager) => {
    if ((await manager.count(EventRow)) > 0) throw new Error('An archive is read into an empty bar only.');
    await writeBar(manager, archive.bar);
    await insertAll(archive.recipes, (part) =>
      manager.insert(
        RecipeVersionRow,
        part.map(({ savedMs, recipe }) => {
          const { id, version } = recipe as { id: string; version: number };
          return { recipeId: id, version, savedMs, body: JSON.stringify(recipe) };
        }),
      ),
    );
    await insertAll(archive.events as BarEvent[], (part) =>
      manager.insert(
        EventRow,
        part.map((event) => ({
          id: event.id,
          type: event.type,
          atMs: event.atMs,
          receivedMs: Date.now(),
          body: canonical(event),
        })),
      ),
    );
    await insertAll(archive.traces, (part) =>
      manager.insert(
        BrewTraceRow,
        part.map(({ brewId, points }) => ({
          brewId,
          bytes: Buffer.from(traceToBytes(points.map(([atMs, massG]) => ({ atMs, massG })))),
        })),
      ),
    );
  });
}

async function insertAll<Item>(
  items: readonly Item[],
  insert: (part: Item[]) => Promise<unknown>,
): Promise<void> {
  for (let from = 0; from < items.length; from += PAGE) await insert(items.slice(from, from + PAGE));
}
