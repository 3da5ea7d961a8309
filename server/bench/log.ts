/**
 * How quick the log is with 100,000 brews and 5,000,000 points of weight in it, and how large it is on disk. Run by
 * `npm run bench -- log`; BREWS and POINTS change it.
 */
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { reduce } from '@even-kettle/core/brew';
import { traceToBytes } from '@even-kettle/core/pour';
import { seededRandom } from '@even-kettle/core/rush';
import { SCHOOLS, bookOf, everyVersion, latestOf } from '@even-kettle/core/recipe';
import { LANTERN_PIER, twoWeeksBefore } from '../src/demo/benches';
import { openLearning } from '../src/learnt';
import { recordOf } from '../src/record';
import { openDatabase } from '../src/store/database';
import { openRecords, rowOfRecord } from '../src/store/records';
import { BrewRecordRow, BrewTraceRow } from '../src/store/rows';
import { openTraces } from '../src/store/traces';

const BREWS = Number(process.env['BREWS'] ?? 100_000);
const POINTS = Number(process.env['POINTS'] ?? 5_000_000);
const ROUNDS = 60;
const AT_ONCE = 500;
const DAY_MS = 86_400_000;
/** A busy bar's day. */
const A_DAY = 200;

const folder = mkdtempSync(join(tmpdir(), 'even-kettle-log-'));
const file = join(folder, 'bar.sqlite');
const source = await openDatabase(file);
const nowMs = Date.UTC(2026, 5, 1, 12);
const { state } = reduce(twoWeeksBefore(nowMs), bookOf(SCHOOLS));
const patterns = Object.values(state.brews).map((brew) => recordOf(state, brew)!);
const random = seededRandom(4);
const points = Math.round(POINTS / BREWS);

const from = performance.now();
await source.query('PRAGMA synchronous = OFF');
for (let first = 0; first < BREWS; first += AT_ONCE) {
  await source.transaction(async (manager) => {
    const rows = [];
    const traces = [];
    for (let n = first; n < Math.min(BREWS, first + AT_ONCE); n += 1) {
      const pattern = patterns[n % patterns.length]!;
      const endedMs = Math.round(nowMs - ((BREWS - n) / A_DAY) * DAY_MS);
      const brewId = `brew-${n}.1`;
      const record = {
        ...pattern,
        brewId,
        orderId: `order-${n}`,
        guest: `guest ${n}`,
        orderedMs: endedMs - 480_000,
        startedMs: endedMs - 300_000,
        endedMs,
        realBrewS: pattern.realBrewS === null ? null : pattern.realBrewS + Math.round(20 * (random() - 0.5)),
      };
      rows.push(rowOfRecord(record));
      const weights = Array.from({ length: points }, (_, k) => ({
        atMs: endedMs - 200_000 + k * 3700 + Math.round(300 * random()),
        massG: Math.round(k * 57 + 20 * random()) / 10,
      }));
      traces.push({ brewId, bytes: Buffer.from(traceToBytes(weights)) });
    }
    // SQLite takes 32,766 values in one statement.
    await manager.insert(BrewRecordRow, rows);
    await manager.insert(BrewTraceRow, traces);
  });
}
await source.query('PRAGMA wal_checkpoint(TRUNCATE)');
const [{ bytes: traceBytes }] = (await source.query(
  'SELECT SUM(LENGTH(bytes)) AS bytes FROM brew_trace',
)) as [{ bytes: number }];
console.log(
  `  ${BREWS} brews and ${points * BREWS} points written in ${((performance.now() - from) / 1000).toFixed(0)} s; database ${(statSync(file).size / 1e6).toFixed(0)} MB, of which traces ${(traceBytes / 1e6).toFixed(1)} MB (${(traceBytes / points / BREWS).toFixed(2)} bytes a point)`,
);

const records = openRecords(source);
const recipes = latestOf(SCHOOLS);
const learning = openLearning({
  records,
  traces: openTraces(source),
  state: () => state,
  bar: () => LANTERN_PIER,
  recipe: (id) => recipes.find((recipe) => recipe.id === id),
  versions: (id) => everyVersion([]).filter((recipe) => recipe.id === id),
  nowMs: () => nowMs,
});
const page = (query: object) => records.page({ limit: 30, ...query });
const questions: [what: string, ask: () => Promise<unknown>][] = [
  ['the list', () => page({})],
  ['the list, a year back', () => page({ before: `${nowMs - 365 * DAY_MS} x` })],
  ['of one coffee and taste', () => page({ coffee: 'Saltmarsh', taste: 'bitter' })],
  ['of one person', () => page({ person: 'imre' })],
  ['a search that finds', () => page({ search: `guest ${Math.floor(BREWS / 7)}` })],
  ['a search that finds nothing', () => page({ search: 'nobody said this' })],
  ['a run and what it teaches', () => learning.of('cone-thirds', 'Saltmarsh')],
  ['a brew with its advice', () => learning.brew(`brew-${Math.floor(random() * BREWS)}.1`)],
  ['a day', () => learning.day(nowMs - 40 * DAY_MS, nowMs - 39 * DAY_MS)],
  ['coffees and cloths', () => learning.house()],
];
for (const [what, ask] of questions) {
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const before = performance.now();
    await ask();
    times.push(performance.now() - before);
  }
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.floor(share * (times.length - 1))]!.toFixed(1).padStart(6);
  console.log(`  ${what.padEnd(30)} p50 ${at(0.5)} ms, p95 ${at(0.95)} ms, worst ${at(1)} ms`);
}
await source.destroy();
rmSync(folder, { recursive: true, force: true });
