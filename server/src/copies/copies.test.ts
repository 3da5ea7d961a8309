/** Copies: made whole, looked through, kept by days and weeks, and the way back to one. */
import {
  copyFileSync,
  mkdirSync,
  openSync,
  readFileSync,
  readdirSync,
  writeFileSync,
  writeSync,
  closeSync,
} from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import BetterSqlite3 from 'better-sqlite3';
import fc from 'fast-check';
import request from 'supertest';
import { bar, brewed, close, folder, http, open, openOver, order, cup, post, warned } from '../testing/bar';
import { openDatabase } from '../store/database';
import { goBack } from '../store/cannot-open';
import { copiesFolder, copiesIn, copyName, newestWhole, toPrune, type CopyFile } from './copy-files';
import { openCopies } from './copies';
import { proveCopy } from './prove';
import { restoreCopy } from './restore';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const databaseFile = () => join(folder, 'bar.sqlite');
const spoil = (file: string) => {
  const handle = openSync(file, 'r+');
  for (let at = 4096; at < 40_000; at += 512) writeSync(handle, Buffer.alloc(400, 0xa5), 0, 400, at);
  closeSync(handle);
};

test('a copy has all that was acknowledged, also what came while it was made, and its log makes the same state', async () => {
  await brewed(1);
  const making = bar.copies.make('by-hand');
  const posts = await Promise.all([1, 2, 3].map((n) => post(order(`o-${n}`, cup(`o-${n}-1`)))));
  expect(posts.map(({ status }) => status)).toEqual([200, 200, 200]);
  const made = await making;
  expect(made).toMatchObject({ ok: true, copy: { kind: 'by-hand' } });
  const listed = await request(http).get('/api/copies');
  expect(listed.body.copies).toHaveLength(1);
  expect((await request(http).get('/api/health')).body.copyAgeH).toBe(0);
  const copied = await openOver(
    await openDatabase(join(copiesFolder(databaseFile()), listed.body.copies[0].name)),
  );
  expect(copied.log.seq()).toBeGreaterThanOrEqual(16);
  expect((await copied.records.page({ limit: 10 })).records).toHaveLength(1);
  await copied.close();
});

test('a copy that is not whole, or whose log makes another state, counts for nothing and is told', async () => {
  await brewed(1);
  const folderOf = copiesFolder(databaseFile());
  const open = (prove: typeof proveCopy, state = bar.log.state()) =>
    openCopies({
      databaseFile: databaseFile(),
      second: null,
      now: () => ({ state, seq: bar.log.seq() }),
      prove,
      warn: (_detail, message) => warned.push(message),
      changed: () => undefined,
    });
  const spoiled = open((file) => (spoil(file), proveCopy(file)));
  expect(await spoiled.make('night')).toMatchObject({ ok: false });
  const other = open(proveCopy, { ...bar.log.state(), lastBadge: 25 });
  expect(await other.make('night')).toMatchObject({
    ok: false,
    reason: expect.stringContaining('another state'),
  });
  expect(copiesIn(folderOf)).toEqual([]);
  expect(readdirSync(folderOf)).toEqual([]);
  expect(warned).toEqual(['no copy of the bar could be made', 'no copy of the bar could be made']);
  expect(await open(proveCopy).make('night')).toMatchObject({ ok: true });
});

test('one is made every night, kept on the second disk as well, and its want is told after three days', async () => {
  let realMs = new Date(2026, 5, 1, 1, 0).getTime();
  const second = join(folder, 'other-disk');
  const copies = openCopies({
    databaseFile: databaseFile(),
    second,
    now: () => ({ state: bar.log.state(), seq: bar.log.seq() }),
    prove: proveCopy,
    realMs: () => realMs,
    warn: (_detail, message) => warned.push(message),
    changed: () => undefined,
  });
  const madeAt: number[] = [];
  for (let n = 0; n < 6 * 48; n += 1) {
    const before = copies.latestMs();
    await copies.look();
    if (copies.latestMs() !== before) madeAt.push(new Date(realMs).getHours());
    realMs += HOUR_MS / 6;
  }
  expect(madeAt).toEqual([3, 3]);
  expect(copiesIn(second).map(({ name }) => name)).toEqual(copies.list().map(({ name }) => name));
  expect(copies.isDue()).toBe(false);
  realMs += 3 * DAY_MS;
  expect(copies.isDue()).toBe(true);
  // A machine that sleeps at night makes it by day.
  realMs = new Date(2026, 5, 9, 1, 0).getTime();
  await copies.look();
  expect(copies.isDue()).toBe(false);
  // A disk that is not there costs nothing but a word.
  writeFileSync(join(folder, 'no-folder'), '');
  const elsewhere = openCopies({
    databaseFile: databaseFile(),
    second: join(folder, 'no-folder'),
    now: () => ({ state: bar.log.state(), seq: bar.log.seq() }),
    prove: proveCopy,
    realMs: () => realMs + HOUR_MS,
    warn: (_detail, message) => warned.push(message),
    changed: () => undefined,
  });
  expect(await elsewhere.make('night')).toMatchObject({ ok: true });
  expect(warned.at(-1)).toContain('as well');
});

test('of the nights seven days and eight weeks are kept, whatever nights there were', () => {
  const copyAt = (atMs: number): CopyFile => ({
    name: copyName('night', atMs),
    file: '',
    kind: 'night',
    atMs,
    bytes: 0,
  });
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 0, max: 300 }), { minLength: 1, maxLength: 120 }),
      (days) => {
        const copies = days.map((day) => copyAt(Date.UTC(2026, 0, 1, 3) + day * DAY_MS));
        const pruned = new Set(toPrune(copies));
        const kept = copies.filter((copy) => !pruned.has(copy)).sort((a, b) => b.atMs - a.atMs);
        const latest = copies.toSorted((a, b) => b.atMs - a.atMs);
        // The seven latest are among them, and no more than eight besides.
        expect(kept.slice(0, 7)).toEqual(latest.slice(0, 7));
        expect(kept.length).toBeLessThanOrEqual(15);
        // Pruning again prunes nothing.
        expect(toPrune(kept)).toEqual([]);
      },
    ),
  );
});

test('a copy is put in the place of the bar, which is copied before; pages go on from there', async () => {
  await brewed(1);
  await bar.copies.make('by-hand');
  const [copy] = bar.copies.list();
  await post(order('later', cup('later-1')));
  expect((await request(http).post('/api/copies/elsewhere.sqlite/restore')).status).toBe(404);
  // A server that nobody starts anew says so, and changes nothing.
  expect((await request(http).post(`/api/copies/${copy!.name}/restore`)).status).toBe(409);
  await close();
  const restored = await restoreCopy(databaseFile(), copy!.file);
  expect(restored).toMatchObject({ lost: 1, kept: expect.stringContaining('before-restore') });
  await open();
  expect(bar.log.state().orders['later']).toBeUndefined();
  expect(bar.log.state().orders['o1']).toBeDefined();
  // A page that has heard more than there is now loads the bar anew.
  expect((await request(http).get(`/api/live?after=${bar.log.seq() + 1}`)).status).toBe(422);
  await close();
  expect(await restoreCopy(databaseFile(), restored.kept!)).toMatchObject({ lost: 0 });
  await open();
  expect(bar.log.state().orders['later']).toBeDefined();
});

test('a damaged database names the newest good copy and what it lacks; restoring keeps the damaged file', async () => {
  await brewed(1);
  await bar.copies.make('by-hand');
  const good = bar.copies.list()[0]!;
  // A later copy that went bad on its disk is passed over.
  const bad = join(copiesFolder(databaseFile()), copyName('night', Date.now() + 60_000));
  copyFileSync(good.file, bad);
  spoil(bad);
  await post(order('later', cup('later-1')));
  expect(newestWhole(copiesFolder(databaseFile()))!.name).toBe(good.name);
  expect(goBack(databaseFile())).toContain(`The newest good copy is ${good.name}`);
  expect(goBack(databaseFile())).toContain('it lacks the latest 1 events');
  expect(
    (await request(http).post(`/api/copies/${copiesIn(copiesFolder(databaseFile()))[0]!.name}/restore`)).body
      .code ?? 409,
  ).toBe(409);
  await close();
  writeFileSync(databaseFile(), Buffer.alloc(50_000, 7));
  // What cannot be copied changes nothing: a bar with no database would begin anew in silence.
  await expect(restoreCopy(databaseFile(), join(folder, 'nowhere.sqlite'))).rejects.toThrow();
  expect(readFileSync(databaseFile())).toEqual(Buffer.alloc(50_000, 7));
  const { kept, lost } = await restoreCopy(databaseFile(), good.file);
  expect(lost).toBeNull();
  expect(readFileSync(kept!)).toEqual(Buffer.alloc(50_000, 7));
  await open();
  expect(bar.log.state().orders['o1']).toBeDefined();
});

test('a database of an earlier version is copied before it is changed, and that copy is the way back to it', async () => {
  const earlier = gunzipSync(readFileSync(join(__dirname, '../store/fixtures/version-0.1-life.sqlite.gz')));
  mkdirSync(join(folder, 'old'));
  const file = join(folder, 'old', 'bar.sqlite');
  writeFileSync(file, earlier);
  const tables = (of: string) => {
    const db = new BetterSqlite3(of, { readonly: true });
    const migrations = db.prepare('SELECT name FROM migrations ORDER BY name').all();
    const events = db.prepare('SELECT seq, id, body FROM event ORDER BY seq').all();
    db.close();
    return { migrations, events };
  };
  const was = tables(file);
  const upgraded = await openDatabase(file, { copiesTo: copiesFolder(file) });
  await upgraded.destroy();
  expect(tables(file).migrations.length).toBeGreaterThan(was.migrations.length);
  const [copy] = copiesIn(copiesFolder(file));
  expect(copy).toMatchObject({ kind: 'before-migration' });
  await restoreCopy(file, copy!.file);
  expect(tables(file)).toEqual(was);
  // The second start of the same version copies nothing.
  await (await openDatabase(file, { copiesTo: copiesFolder(file) })).destroy();
  await (await openDatabase(file, { copiesTo: copiesFolder(file) })).destroy();
  expect(copiesIn(copiesFolder(file)).filter(({ kind }) => kind === 'before-migration')).toHaveLength(2);
});
