/** A file that came to harm, is held by another, or is of another time: what still works goes on, and the rest is said. */
import { closeSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import BetterSqlite3 from 'better-sqlite3';
import request from 'supertest';
import { CannotStart } from '../cannot-start';
import {
  bar,
  brewed,
  close,
  cup,
  done,
  folder,
  get,
  http,
  newId,
  now,
  open,
  openOver,
  order,
  post,
  start,
  textOf,
  warned,
} from '../testing/bar';
import { whyNoStart } from './cannot-open';
import { lockDatabase, openDatabase } from './database';

const file = () => join(folder, 'bar.sqlite');
/** Changes the file by hand, while no server has it. */
function byHand(change: (db: BetterSqlite3.Database) => void): void {
  const db = new BetterSqlite3(file());
  change(db);
  db.close();
}

/** Writes over pages of the closed file. */
function harmPages(found: string): void {
  byHand((db) => db.pragma('wal_checkpoint(TRUNCATE)'));
  const db = new BetterSqlite3(file(), { readonly: true });
  const pages = db.prepare<[], { page: number }>(found).all();
  const size = db.pragma('page_size', { simple: true }) as number;
  db.close();
  const at = openSync(file(), 'r+');
  for (const { page } of pages) writeSync(at, Buffer.alloc(size, 0xff), 0, size, (page - 1) * size);
  closeSync(at);
}

test('a record of a brew that cannot be read is made anew from the log, and the Log answers meanwhile', async () => {
  await brewed(1);
  const second = await brewed(2);
  const whole = await get(`/api/brews/${second}`);
  await close();
  byHand((db) => db.prepare('UPDATE brew_record SET body = ? WHERE brew_id = ?').run('{"brewId":', second));
  await open();
  const page = await request(http).get('/api/log');
  expect([page.status, page.body.records.length >= 1]).toEqual([200, true]);
  await bar.log.rebuildRecords();
  expect(await get(`/api/brews/${second}`)).toEqual(whole);
  expect(warned.join()).toMatch(/made anew from the log/);
  expect((await post(order('N', cup('n1')))).status).toBe(200);
});

test('an event that cannot be read is left out and named; the rest of the bar goes on', async () => {
  await post(order('A', cup('a1')), order('B', cup('b1')), order('C', cup('c1')));
  await close();
  byHand((db) => {
    db.exec('DROP TRIGGER event_kept');
    db.prepare('UPDATE event SET body = ? WHERE seq = 2').run('{"id": "torn');
  });
  await open();
  expect(Object.keys(bar.log.state().orders)).toEqual(['A', 'C']);
  const { faults } = (await request(http).get('/api/health')).body;
  expect(faults[0]).toMatch(/^Event 2 of the log was left out: .*There is no good copy/);
  expect((await post(order('D', cup('d1')))).status).toBe(200);
});

test('where pages of the log are damaged, what can be read is shown, nothing is stored, and the way back is said', async () => {
  const weighed = (n: number) => ({
    id: newId(),
    type: 'coffee-weighed',
    atMs: now(),
    coffee: `Fog ${n}`,
    stockG: 500,
  });
  await post(...Array.from({ length: 120 }, (_, n) => weighed(n)));
  await close();
  harmPages(`SELECT pageno AS page FROM dbstat WHERE name = 'event' AND pagetype = 'leaf' LIMIT 1 OFFSET 2`);
  await open();
  const shown = bar.log.state().houseEvents!.length;
  expect(shown).toBeGreaterThan(60);
  expect(shown).toBeLessThan(120);
  const health = await request(http).get('/api/health');
  expect(health.status).toBe(503);
  expect(health.body.faults.join()).toMatch(
    /damaged.*There is no good copy.*Event \d+ of the log was left out/,
  );
  const refused = await post(order('N', cup('n1')));
  expect([refused.status, refused.body.type]).toEqual([503, 'urn:even-kettle:problem:store-damaged']);
});

test('archive and table of a damaged bar give what can be read, and say at their end what could not be', async () => {
  for (let n = 1; n <= 12; n += 1) await brewed(n);
  await close();
  // A leaf of each of the tables' own trees: of the log, and of the records.
  harmPages(
    `SELECT MIN(pageno) AS page FROM dbstat WHERE name IN ('event', 'brew_record') AND pagetype = 'leaf' AND ncell > 1 AND path <> '/' GROUP BY name`,
  );
  await open();
  const archive = JSON.parse(await textOf('/api/files/archive.json')) as {
    events: object[];
    unreadable: { part: string; of: string }[];
  };
  const lost = archive.unreadable.filter(({ part }) => part === 'events').length;
  expect(lost).toBeGreaterThan(0);
  expect(archive.events.length + lost).toBe(12 * 14);
  const lines = (await textOf('/api/files/log.csv')).trim().split('\r\n');
  expect(lines.at(-1)).toMatch(/could not be read: the database is damaged there/);
  expect(lines.length).toBeGreaterThan(4);
});

test('a bar whose database cannot be opened at all, or has no room to, says so and does not try for ever', async () => {
  await post(order('A', cup('a1')));
  await close();
  harmPages('SELECT pageno AS page FROM dbstat WHERE pageno > 1');
  const opening = async () => openOver(await openDatabase(file()));
  await expect(opening()).rejects.toThrow(CannotStart);
  await expect(opening()).rejects.toThrow(/damaged.*There is no good copy/);
  expect(whyNoStart(Object.assign(new Error('full'), { code: 'SQLITE_FULL' }), file())?.message).toMatch(
    /disk is full.*[Mm]ake room/,
  );
  const readOnly = Object.assign(new Error('read-only'), { code: 'SQLITE_READONLY_DIRECTORY' });
  expect(whyNoStart(readOnly, file())?.message).toMatch(/may not write in .*EVEN_KETTLE_DB/);
  expect(whyNoStart(new Error('anything else'), file())).toBeNull();
  rmSync(file());
  await open();
});

test('settings that cannot be read do not keep the bar shut', async () => {
  await request(http).patch('/api/bar').send({ name: 'Pier' });
  await close();
  byHand((db) => db.exec(`UPDATE setting SET body = 'torn' WHERE name = 'bar'`));
  await open();
  expect((await request(http).get('/api/bar')).body.name).toBe('New bar');
  expect(warned.join()).toMatch(/settings cannot be read/);
});

test('a database of a newer version, and a file that is none, are refused in words', async () => {
  await close();
  byHand((db) => db.exec(`INSERT INTO migrations (timestamp, name) VALUES (9e12, 'Tomorrow9000000000000')`));
  await expect(openDatabase(file())).rejects.toThrow(/newer version of Even Kettle/);
  byHand((db) => db.exec(`DELETE FROM migrations WHERE name LIKE 'Tomorrow%'`));
  await open();
  await expect(openDatabase(__filename)).rejects.toThrow(CannotStart);
});

test('a second server on the same file is refused, and gets it once the first is gone', () => {
  const release = lockDatabase(file());
  expect(() => lockDatabase(file())).toThrow(/Another server has/);
  release();
  lockDatabase(file())();
});

test('while another program holds the file, a post waits without keeping the thread, and is then stored', async () => {
  const other = new BetterSqlite3(file());
  other.exec('BEGIN IMMEDIATE');
  const posted = post(order('A', cup('a1'))).then((answer) => answer.status);
  const turns: number[] = [];
  let lastMs = performance.now();
  const looking = setInterval(() => {
    turns.push(performance.now() - lastMs);
    lastMs = performance.now();
  }, 5);
  await new Promise((resolve) => setTimeout(resolve, 600));
  expect((await request(http).get('/api/clock')).status).toBe(200);
  other.exec('COMMIT');
  other.close();
  expect(await posted).toBe(200);
  clearInterval(looking);
  expect(Math.max(...turns)).toBeLessThan(400);
});

test('an order’s id is not used again, however long ago it was closed', async () => {
  const brewId = await brewed(1);
  // Half a day later the live state has forgotten it.
  await close();
  await open(2000);
  await new Promise((resolve) => setTimeout(resolve, 25_000 / 1000));
  const again = await post(order('o1', cup('other')));
  const cupAgain = await post(order('new', cup('c1')));
  expect([again.status, again.body.type]).toEqual([409, 'urn:even-kettle:problem:already-exists']);
  expect(cupAgain.status).toBe(409);
  expect((await get(`/api/brews/${brewId}`)).record.orderId).toBe('o1');
});

test('the state is kept now and then, checked against the log, and taken up at the next start', async () => {
  await post(order('A', cup('a1')), start('a1', 'A'), done('a1.1', 'fill'));
  for (let n = 0; n < 12; n += 1)
    await post(
      ...Array.from({ length: 200 }, (_, k) => ({
        id: newId(),
        type: 'coffee-weighed',
        atMs: now(),
        coffee: 'Fog',
        stockG: n * 200 + k,
      })),
    );
  await bar.log.settled();
  const before = { seq: bar.log.seq(), state: bar.log.state() };
  await close();
  let kept: { seq: number; body: string } | undefined;
  byHand(
    (db) =>
      (kept = db.prepare<[], { seq: number; body: string }>('SELECT seq, body FROM state_snapshot').get()),
  );
  expect(kept!.seq).toBeGreaterThanOrEqual(2000);
  await open();
  expect({ seq: bar.log.seq(), state: bar.log.state() }).toEqual(before);

  // One that does not say what the log makes is not believed.
  await close();
  byHand((db) =>
    db.prepare('UPDATE state_snapshot SET body = ?').run(kept!.body.replace('Saltmarsh', 'Seawater')),
  );
  await open();
  expect(bar.log.state()).toEqual(before.state);
  expect(readFileSync(file()).length).toBeGreaterThan(0);
});
