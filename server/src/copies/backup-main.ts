/** `npm run backup [-- FILE]`: a copy of the database, whether a server writes or not. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import BetterSqlite3 from 'better-sqlite3';
import { GUEST_EVENTS } from '@even-kettle/core/brew';
import { copiesFolder, copyDatabase, newCopyName } from './copy-files';
import { readSettings } from '../settings';
import { GUESTS_KEPT_DAYS } from '../store/guests';

const { databaseFile } = readSettings(process.env);

async function backUp(from: string, to: string): Promise<void> {
  if (!existsSync(from))
    throw new Error(`There is no database at ${from}. Set EVEN_KETTLE_DB to where the bar’s is.`);
  if (existsSync(to)) throw new Error(`There is a file at ${to} already. Name another.`);
  await copyDatabase(from, to);
  const copy = new BetterSqlite3(to, { readonly: true });
  const faults = copy.pragma('integrity_check', { simple: true });
  const { events } = copy.prepare<[], { events: number }>('SELECT COUNT(*) AS events FROM event').get()!;
  const guests = oldestGuests(copy);
  copy.close();
  if (faults !== 'ok') throw new Error(`The copy at ${to} is not whole: ${String(faults)}`);
  console.log(`${to}: ${events} events, looked through and whole.`);
  if (guests)
    console.log(
      `It holds names and words of guests since ${guests.since}. In the folder backups beside the database the server forgets them with those of the bar; anywhere else they stay, so delete the copy there after ${guests.days} days.`,
    );
}

/** The day of the first guest that a copy still names, and for how many days its bar keeps them; null if it names nobody. */
function oldestGuests(copy: BetterSqlite3.Database): { since: string; days: number } | null {
  const types = GUEST_EVENTS.map((type) => `'${type}'`).join(', ');
  const found = copy
    .prepare<[], { sinceMs: number | null }>(
      `SELECT MIN(at_ms) AS sinceMs FROM event WHERE type IN (${types}) AND (body LIKE '%"name":%' OR body LIKE '%"allergy":%' OR body LIKE '%"note":%')`,
    )
    .get();
  const bar = copy.prepare<[], { body: string }>(`SELECT body FROM setting WHERE name = 'bar'`).get();
  const { guestsKeptDays = GUESTS_KEPT_DAYS } = JSON.parse(bar?.body ?? '{}') as { guestsKeptDays?: number };
  return found?.sinceMs == null
    ? null
    : { since: new Date(found.sinceMs).toISOString().slice(0, 10), days: guestsKeptDays };
}

const named = process.argv[2];
const folder = copiesFolder(databaseFile);
const target = named ?? join(folder, newCopyName(folder, 'by-hand', Date.now()));
backUp(databaseFile, target).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
