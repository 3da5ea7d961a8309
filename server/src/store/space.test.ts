/** Room on the disk is told before it is too late, to every page that is open. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import BetterSqlite3 from 'better-sqlite3';
import type { StorageState } from '@even-kettle/core/contract';
import { bar, close, cup, folder, open, openOver, order, post } from '../testing/bar';
import { openDatabase } from './database';
import { watchSpace } from './space';

test('a disk that fills up is told once at each level, and told again when there is room', async () => {
  const told: StorageState[] = [];
  let freeBytes = 5e9;
  const watch = await watchSpace(
    '/somewhere/bar.sqlite',
    (storage) => told.push(storage),
    (at) => {
      expect(at).toBe('/somewhere');
      return Promise.resolve(freeBytes);
    },
  );
  for (const bytes of [4e9, 200e6, 190e6, 5e6, 900e6]) {
    freeBytes = bytes;
    await watch.look();
  }
  expect(told).toMatchObject([
    { level: 'low', freeMb: 200 },
    { level: 'full', freeMb: 5 },
    { level: 'enough', freeMb: 900 },
  ]);
  watch.close();
});

test('where the system does not say how much room there is, nothing is said of it', async () => {
  const watch = await watchSpace(
    'x',
    () => undefined,
    () => Promise.reject(new Error('not here')),
  );
  expect(watch.now()).toMatchObject({ level: 'enough', freeMb: null });
  watch.close();
});

test('a page that loads the bar, and health, are told of a disk that is almost full', async () => {
  const source = await openDatabase(join(folder, 'small.sqlite'));
  const small = await openOver(source, { freeBytes: () => Promise.resolve(100e6) });
  expect(small.snapshot().storage).toMatchObject({ level: 'low', freeMb: 100 });
  expect(await small.health()).toMatchObject({ status: 'ok', storage: 'low' });
  await small.close();
});

test('a copy that is made while the server runs holds everything that was acknowledged, and a bar opens on it', async () => {
  const built = mkdtempSync(join(tmpdir(), 'even-kettle-backup-'));
  const here = (path: string) => join(__dirname, path);
  // Built beside the server's own, so that its packages are found.
  const outdir = here('../../dist/test');
  execFileSync(process.execPath, [here('../../build.mjs'), here('../copies/backup-main.ts'), outdir]);
  await post(order('A', cup('a1')), order('B', cup('b1')));
  const copy = join(built, 'copy.sqlite');
  const run = () =>
    execFileSync(process.execPath, [join(outdir, 'backup-main.js'), copy], {
      env: { ...process.env, EVEN_KETTLE_DB: join(folder, 'bar.sqlite') },
      encoding: 'utf8',
      stdio: 'pipe',
    });
  expect(run()).toContain('2 events, looked through and whole');
  // A copy of a day is not written over by the next.
  expect(run).toThrow(/There is a file at/);
  const db = new BetterSqlite3(copy, { readonly: true });
  expect(db.prepare('SELECT COUNT(*) AS n FROM event').get()).toEqual({ n: 2 });
  db.close();
  expect(existsSync(dirname(copy))).toBe(true);
  rmSync(built, { recursive: true });
  await close();
  await open();
  expect(Object.keys(bar.log.state().orders)).toEqual(['A', 'B']);
});
