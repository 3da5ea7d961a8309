/** A disk that takes no more, at every point of a transaction: what is acknowledged is there, and what is not there is told. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import BetterSqlite3 from 'better-sqlite3';
import request from 'supertest';
import { bar, cup, fatal, folder, http, newId, openOver, order, post, source, now } from '../testing/bar';
import { openDatabase } from './database';
import { connectionOf } from './transaction';

type Harm = 'fails' | 'rolls back by itself';

/** From now on statements like this fail as on a full disk, until it is told that there is room. */
function fullAt(statement: RegExp, harm: Harm = 'fails'): { makeRoom: () => void } {
  const connection = connectionOf(source);
  const prepare = connection.prepare.bind(connection) as (sql: string) => BetterSqlite3.Statement;
  let isFull = true;
  const failing = (sql: string) => {
    const real = prepare(sql);
    if (!statement.test(sql)) return real;
    const attempt =
      (does: 'run' | 'all') =>
      (...values: unknown[]) => {
        if (!isFull) return real[does](...values);
        if (harm === 'rolls back by itself') connection.exec('ROLLBACK');
        throw new BetterSqlite3.SqliteError('database or disk is full', 'SQLITE_FULL');
      };
    return { reader: real.reader, run: attempt('run'), all: attempt('all') };
  };
  Object.defineProperty(connection, 'prepare', { value: failing, configurable: true });
  // Statements that were prepared before are prepared anew.
  Object.assign(source.driver, { queryRunner: undefined });
  return { makeRoom: () => (isFull = false) };
}

/** What another program reads in the file. */
function inTheFile(): string[] {
  const other = new BetterSqlite3(join(folder, 'bar.sqlite'), { readonly: true });
  const ids = other.prepare<[], { id: string }>('SELECT id FROM event ORDER BY seq').all();
  other.close();
  return ids.map(({ id }) => id);
}

test.each<[string, RegExp, Harm]>([
  ['BEGIN', /^BEGIN/, 'fails'],
  ['INSERT', /^INSERT INTO "event"/, 'fails'],
  ['INSERT, and SQLite rolls back by itself', /^INSERT INTO "event"/, 'rolls back by itself'],
  ['COMMIT', /^COMMIT/, 'fails'],
  ['COMMIT, and SQLite rolls back by itself', /^COMMIT/, 'rolls back by itself'],
])(
  'full at %s: the post is answered 507, and the next one is stored as it is told',
  async (_at, statement, harm) => {
    const first = order('A', cup('a1'));
    expect((await post(first)).status).toBe(200);
    const disk = fullAt(statement, harm);
    const second = order('B', cup('b1'));
    for (let tries = 0; tries < 3; tries += 1) {
      const answer = await post(second);
      expect([answer.status, answer.body.type]).toEqual([507, 'urn:even-kettle:problem:store-full']);
    }
    expect([inTheFile(), bar.log.seq(), Object.keys(bar.log.state().orders)]).toEqual([[first.id], 1, ['A']]);
    disk.makeRoom();
    const acknowledged = [];
    for (const event of [second, order('C', cup('c1')), order('D', cup('d1'))]) {
      const answer = await post(event);
      expect([answer.status, answer.body.accepted]).toEqual([200, [event.id]]);
      acknowledged.push(event.id);
    }
    expect(inTheFile()).toEqual([first.id, ...acknowledged]);
    expect(fatal).toEqual([]);
  },
);

test('a transaction that cannot be ended at all ends the process, and nothing more is answered as stored', async () => {
  const connection = connectionOf(source);
  Object.defineProperty(connection, 'exec', {
    value: () => {
      throw new Error('gone');
    },
    configurable: true,
  });
  fullAt(/^(COMMIT|ROLLBACK)/);
  expect((await post(order('A', cup('a1')))).status).toBe(503);
  expect(fatal).toHaveLength(1);
  expect((await post(order('B', cup('b1')))).status).toBe(503);
  Reflect.deleteProperty(connection, 'exec');
  connection.exec('ROLLBACK');
  expect(inTheFile()).toEqual([]);
});

test('a setting that cannot be stored is not shown as changed, and health says that nothing can be written', async () => {
  const disk = fullAt(/^(INSERT|UPDATE)/);
  const answer = await request(http).patch('/api/bar').send({ name: 'Elsewhere' });
  expect(answer.status).toBe(507);
  expect((await request(http).get('/api/bar')).body.name).toBe('Brew bar');
  const health = await request(http).get('/api/health');
  expect([health.status, health.body.store]).toEqual([503, 'failing']);
  expect(health.body.faults[0]).toMatch(/cannot be written to/);
  disk.makeRoom();
  await bar.post([order('A', cup('a1'))]);
  await new Promise((resolve) => setTimeout(resolve, 1050));
  expect((await request(http).get('/api/health')).status).toBe(200);
});

test('a weight that cannot be stored is stored with the next one', async () => {
  const disk = fullAt(/"brew_trace"/);
  bar.traces.add('x.1', { atMs: now(), massG: 12 });
  await expect(bar.traces.flush()).rejects.toThrow(/full/);
  disk.makeRoom();
  await bar.traces.flush();
  expect(await bar.traces.read('x.1')).toHaveLength(1);
  expect((await post(order('A', cup('a1')))).status).toBe(200);
});

/** A file system of two megabytes, where this may be made; null where it may not. */
function smallDisk(): { at: string; remove: () => void } | null {
  const at = mkdtempSync(join(tmpdir(), 'even-kettle-small-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=2m', 'tmpfs', at], { stdio: 'ignore' });
  } catch {
    rmSync(at, { recursive: true });
    return null;
  }
  return { at, remove: () => (execFileSync('umount', [at]), rmSync(at, { recursive: true })) };
}

test('on a real small disk that fills up, every acknowledged event is there, before and after there is room', async () => {
  const disk = smallDisk();
  if (!disk) return console.info('no file system can be mounted here: the failing driver has to do');
  const file = join(disk.at, 'bar.sqlite');
  const opened = await openDatabase(file, { busyMs: 20 });
  const small = await openOver(opened);
  const acknowledged: string[] = [];
  const ballast = join(disk.at, 'ballast');
  writeFileSync(ballast, Buffer.alloc(900_000));
  const take = async (n: number) => {
    const event = {
      id: newId(),
      type: 'coffee-weighed',
      atMs: small.clock.nowMs(),
      coffee: 'Fog',
      stockG: n,
    };
    const result = await small.post([event]).catch(() => null);
    if (result?.ok) acknowledged.push(event.id);
    return result?.ok === true;
  };
  let refused = 0;
  for (let n = 0; n < 4000 && refused < 5; n += 1) if (!(await take(n))) refused += 1;
  expect(refused).toBe(5);
  expect((await small.health()).store).toBe('failing');
  rmSync(ballast);
  expect(await take(1)).toBe(true);
  const other = new BetterSqlite3(file, { readonly: true });
  const stored = other.prepare<[], { id: string }>('SELECT id FROM event ORDER BY seq').all();
  other.close();
  expect(stored.map(({ id }) => id)).toEqual(acknowledged);
  await small.close();
  disk.remove();
});
