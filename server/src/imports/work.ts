/**
 * What reading a large file in takes, as the worker thread does it: look at all of it, take it, take it out again. In
 * pieces that are small enough for the bar's own writes to come between them.
 */
import { setTimeout as pause } from 'node:timers/promises';
import type { DataSource } from 'typeorm';
import type { ImportFound, ImportKind } from '@even-kettle/core/contract';
import { readBar } from '../bench';
import { FileFault } from '../files/csv';
import { lookAtArchive, takeArchive } from '../files/archive';
import { LOG_NEEDS, readerOfRows, type RowRead } from '../files/foreign-log';
import { happenedAt, nothingFound } from '../files/found';
import { rowsOfFile } from '../files/streams';
import { openRecipes } from '../store/recipes';
import { rowOfRecord } from '../store/records';
import { BrewRecordRow } from '../store/rows';

export type Work =
  | { do: 'look'; kind: ImportKind; file: string }
  | { do: 'take'; kind: ImportKind; file: string; importId: string; leaveOutFaulty: boolean }
  | { do: 'take-out'; importId: string };

export type Done = { found?: ImportFound; taken?: number; known?: number };

/** Where it works, and whom it tells. */
export type WorkPlace = {
  source: DataSource;
  nowMs: number;
  /** Bytes that this phase has read. */
  onBytes: (bytes: number) => void;
  /** Whether a person has said stop. */
  stopped: () => boolean;
};

/** A person said stop. */
export class Stopped extends Error {}

/** Rows that a look shows as they would be taken, and those that cannot be. */
const SHOWN = 8;
const FAULTS_SHOWN = 40;
/** Rows in one write. SQLite takes 32,766 values in one statement. */
const AT_ONCE = 250;
/** Between two writes the bar's own find the database free, milliseconds. */
const BREATH_MS = 2;

/**
 * @throws Stopped, or FileFault where the file cannot be taken; what was written of a log by then is to be taken out
 */
export async function doWork(work: Work, place: WorkPlace): Promise<Done> {
  if (work.do === 'take-out') return takeOut(work.importId, place);
  if (work.kind === 'archive')
    return work.do === 'look'
      ? { found: await lookAtArchive(work.file, onItems(place)) }
      : { taken: await takeArchive(place.source, work.file, onItems(place)) };
  return work.do === 'look'
    ? { found: await lookAtLog(work.file, place) }
    : takeLog(work.file, work.importId, work.leaveOutFaulty, place);
}

const onItems = ({ onBytes, stopped }: WorkPlace) => ({
  onBytes,
  onItem: () => {
    if (stopped()) throw new Stopped();
  },
});

async function lookAtLog(file: string, place: WorkPlace): Promise<ImportFound> {
  const found = nothingFound();
  for await (const { line, read } of readRows(file, place)) {
    found.rows += 1;
    if (!read.ok) {
      found.faulty += 1;
      if (found.faults.length < FAULTS_SHOWN) found.faults.push({ line, reason: read.reason });
      continue;
    }
    const { coffee, recipeId, doseG, endedMs } = read.record;
    happenedAt(found, endedMs);
    if (found.shows.length < SHOWN) found.shows.push({ line, shows: `${coffee}, ${recipeId}, ${doseG} g` });
  }
  if (found.rows === 0) throw new FileFault('There is no line in it.');
  return found;
}

async function takeLog(
  file: string,
  importId: string,
  leaveOutFaulty: boolean,
  place: WorkPlace,
): Promise<Required<Omit<Done, 'found'>>> {
  const { source } = place;
  let taken = 0;
  let known = 0;
  let batch = new Map<string, BrewRecordRow>();
  const write = async () => {
    if (batch.size === 0) return;
    const here = await source.manager
      .createQueryBuilder(BrewRecordRow, 'record')
      .select('record.brewId', 'brewId')
      .where('record.brewId IN (:...ids)', { ids: [...batch.keys()] })
      .getRawMany<{ brewId: string }>();
    for (const { brewId } of here) batch.delete(brewId);
    known += here.length;
    taken += batch.size;
    if (batch.size > 0) await source.manager.insert(BrewRecordRow, [...batch.values()]);
    batch = new Map();
    await pause(BREATH_MS);
  };
  for await (const { line, read } of readRows(file, place)) {
    if (!read.ok) {
      if (leaveOutFaulty) continue;
      throw new FileFault(`Line ${line}: ${read.reason}`);
    }
    if (batch.has(read.record.brewId)) known += 1;
    else batch.set(read.record.brewId, rowOfRecord(read.record, importId));
    if (batch.size >= AT_ONCE) await write();
  }
  await write();
  return { taken, known };
}

async function* readRows(
  file: string,
  { source, nowMs, onBytes, stopped }: WorkPlace,
): AsyncGenerator<{ line: number; read: RowRead }> {
  const recipes = await openRecipes(source, () => undefined);
  const { stations } = await readBar(source.manager);
  const read = readerOfRows({ recipes: recipes.latest(), stations, nowMs });
  for await (const row of rowsOfFile(file, LOG_NEEDS, onBytes)) {
    if (stopped()) throw new Stopped();
    yield { line: row.line, read: read(row) };
  }
}

async function takeOut(importId: string, { source, stopped }: WorkPlace): Promise<Done> {
  while (await source.manager.existsBy(BrewRecordRow, { importId })) {
    if (stopped()) throw new Stopped();
    await source.query(
      `DELETE FROM brew_record WHERE rowid IN (SELECT rowid FROM brew_record WHERE import_id = ? LIMIT ?)`,
      [importId, AT_ONCE],
    );
    await pause(BREATH_MS);
  }
  return {};
}
