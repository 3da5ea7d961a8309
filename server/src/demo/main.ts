/**
 * Makes the demo's database anew: `EVEN_KETTLE_DB` names the file. `DEMO_EVENTS` says what has happened on the bar: `all` of
 * it (left out), `none` of it, the `weeks` before today, or the `shift` of today on top of a file that has those. With
 * `DEMO_FEED=on` the order feed runs. `DEMO_BAR` is `upper-basin` for the bar high up, `plain` for a small bench.
 */
import { rmSync } from 'node:fs';
import { BATCH_MAX, type Bar } from '@even-kettle/core/contract';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { PLAIN_BAR, writeBar } from '../bench';
import { readSettings } from '../settings';
import { openDatabase } from '../store/database';
import { writeSetting } from '../store/settings-table';
import { openLog } from '../store/log';
import { LANTERN_PIER, UPPER_BASIN, shiftUpTo, twoWeeksBefore } from './benches';
import { weighAll } from './weights';

const { databaseFile } = readSettings(process.env);
const what = process.env['DEMO_EVENTS'] ?? 'all';
const goesOn = what === 'shift';
for (const suffix of goesOn ? [] : ['', '-wal', '-shm']) rmSync(`${databaseFile}${suffix}`, { force: true });
const source = await openDatabase(databaseFile);
const BARS: Record<string, Bar> = { plain: PLAIN_BAR, 'upper-basin': UPPER_BASIN };
const bar = BARS[process.env['DEMO_BAR'] ?? ''] ?? LANTERN_PIER;
if (!goesOn) await writeBar(source.manager, bar);
const log = await openLog(source, bookOf(SCHOOLS), { warn: console.error });
const nowMs = Date.now();
const weeks = what === 'all' || what === 'weeks' ? twoWeeksBefore(nowMs, bar) : [];
const shift = what === 'all' || what === 'shift' ? shiftUpTo(nowMs, bar).events : [];
const events = [...weeks, ...shift].sort((a, b) => a.atMs - b.atMs);
for (let from = 0; from < events.length; from += BATCH_MAX) {
  const result = await log.append(events.slice(from, from + BATCH_MAX));
  if (!result.ok)
    throw new Error(
      `The demo’s event ${from + result.refused.index} was refused: ${result.refused.refusal.reason}`,
    );
}
// In the demo that people look at, boats go on landing.
if (process.env['DEMO_FEED'] === 'on') await writeSetting(source.manager, 'feed', { running: true });
await weighAll(source, log.state(), bar, { fromMs: goesOn ? shift[0]!.atMs : 0, nowMs });
await source.destroy();
console.log(`  ${events.length} events in ${databaseFile}`);
