/** Requests that are as large as they may be, or ask for as much as there is: none of them keeps the others waiting. */
import { once } from 'node:events';
import { createServer, get as getOf } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import request from 'supertest';
import { openGate } from '../access/gate';
import { accessPolicy } from '../access/hosts';
import { bar, brewed, http, newId, now, order, cup, post, source, textOf } from '../testing/bar';
import { httpApp } from './app';
import { GAP_MAX } from './broadcaster';

/** A request's answer, and for how long the thread was kept by one thing while it was worked on, milliseconds. */
async function longestTurn<Answer>(
  work: () => PromiseLike<Answer>,
): Promise<{ answer: Answer; turnMs: number }> {
  let turnMs = 0;
  let lastMs = performance.now();
  const looking = setInterval(() => {
    turnMs = Math.max(turnMs, performance.now() - lastMs);
    lastMs = performance.now();
  }, 2);
  const answer = await work();
  turnMs = Math.max(turnMs, performance.now() - lastMs);
  clearInterval(looking);
  return { answer, turnMs };
}
const table = (what: 'roasts' | 'orders', text: string, query = '') =>
  request(http).post(`/api/files/${what}${query}`).set('Content-Type', 'text/csv').send(text);

test.each([
  ['names that are alike but for a sign', `coffee,roast\n${'!!!,light\n???,light\n'.repeat(1250)}`, 422],
  ['rows that are all faulty', `coffee,roast\n${'Fog,blue\n'.repeat(20_000)}`, 422],
  [
    'names that make one id',
    `coffee,roast\n${Array.from({ length: 59 }, (_, n) => `${'?'.repeat(1 + (n % 40))}${'!'.repeat(n < 40 ? 0 : 1)},light\n`).join('')}`,
    201,
  ],
])('roasts of %s are answered at once', async (_what, text, status) => {
  const { answer, turnMs } = await longestTurn(() => table('roasts', text, '?take=1'));
  expect(answer.status).toBe(status);
  expect(JSON.stringify(answer.body).length).toBeLessThan(30_000);
  expect(turnMs).toBeLessThan(1000);
});

test('of a table with many faults the first hundred are told', async () => {
  const { body } = await table('orders', `coffee,recipe,ml\n${'Nowhere,cone-thirds,250\n'.repeat(600)}`);
  expect(body.rows).toHaveLength(100);
  const taken = await table(
    'orders',
    `coffee,recipe,ml\n${'Nowhere,cone-thirds,250\n'.repeat(600)}`,
    '?take=1',
  );
  expect([taken.status, taken.body.errors.length]).toEqual([422, 100]);
});

test('a table of more than 256 KB is refused as too large', async () => {
  expect((await table('roasts', `coffee,roast\n${'x'.repeat(300_000)},light\n`)).status).toBe(413);
});

test('a guest’s name with a line’s end in it comes in as one line, and goes out in an archive that reads back', async () => {
  const text = 'guest,coffee,recipe,ml\n"Ann\nfrom table 4",House coffee,cone-thirds,250\n';
  expect((await table('orders', text, '?take=1')).status).toBe(201);
  expect(Object.values(bar.log.state().orders)[0]!.name).toBe('Ann from table 4');
});

test('a page that has missed more than the stream gives is told to load the state', async () => {
  const weighed = () => ({ id: newId(), type: 'coffee-weighed', atMs: now(), coffee: 'Fog', stockG: 1 });
  for (let n = 0; n <= GAP_MAX; n += 200) await post(...Array.from({ length: 200 }, weighed));
  const { answer, turnMs } = await longestTurn(() => request(http).get('/api/live?after=0'));
  expect([answer.status, answer.body.type]).toEqual([409, 'urn:even-kettle:problem:too-far-back']);
  expect(turnMs).toBeLessThan(1000);
});

test('streams are as many as the server has room for', async () => {
  const { port } = http.address() as AddressInfo;
  const until = async (count: number) => {
    for (let tries = 0; bar.broadcaster.listeners() !== count && tries < 300; tries += 1)
      await new Promise((resolve) => setTimeout(resolve, 10));
    expect(bar.broadcaster.listeners()).toBe(count);
  };
  const streams = Array.from({ length: 40 }, () =>
    getOf({ port, path: '/api/live', agent: false }).on('error', () => undefined),
  );
  await until(40);
  const more = await request(http).get('/api/live');
  expect([more.status, more.body.type]).toEqual([429, 'urn:even-kettle:problem:too-many-streams']);
  for (const stream of streams) stream.destroy();
  await until(0);
});

test.each([
  ['/api/files/log.csv?taste=purple', 422],
  ['/api/files/log.jsonl?method=wand', 422],
  ['/api/files/log.csv?fromMs=8e15', 422],
  ['/api/day?fromMs=0&toMs=7000000000000', 422],
  ['/api/day?fromMs=5&toMs=1', 422],
  ['/api/files/traces/%22%0d%0aX-Evil:1.csv', 404],
])('%s is answered as a problem', async (path, status) => {
  const answer = await request(http).get(path);
  expect([answer.status, answer.type]).toEqual([status, 'application/problem+json']);
});

test('a trace’s file has a name that a header can carry', async () => {
  bar.traces.add('say "hi"', { atMs: now(), massG: 1 });
  const answer = await request(http).get(`/api/files/traces/${encodeURIComponent('say "hi"')}.csv`);
  expect(answer.headers['content-disposition']).toBe('attachment; filename="trace-say \\"hi\\".csv"');
});

test('four files go out at once, one that nobody reads is ended, and none of them keeps the log of writes from being emptied', async () => {
  // So much that the network itself does not take it all.
  const words = 'x'.repeat(5000);
  await source.transaction(async (manager) => {
    for (let n = 0; n < 4000; n += 1) {
      const event = { id: newId(), type: 'coffee-weighed', atMs: 1, coffee: words, stockG: n };
      const row = [event.id, event.type, 1, 1, JSON.stringify(event)];
      await manager.query(
        'INSERT INTO event (id, type, at_ms, received_ms, body) VALUES (?, ?, ?, ?, ?)',
        row,
      );
    }
  });
  const app = httpApp(bar, {
    appDir: null,
    logger: pino({ level: 'silent' }),
    version: 'test',
    requestsPerMinute: 10_000,
    access: accessPolicy(),
    gate: openGate(null, false),
    pairing: null,
    downloadIdleMs: 3000,
  });
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  for (let n = 0; n < 4; n += 1) {
    const asked = getOf(
      { port, path: '/api/files/archive.json', agent: false, headers: { 'Accept-Encoding': 'identity' } },
      (answer) => answer.on('error', () => undefined),
    );
    asked.on('error', () => undefined);
    await once(asked, 'response');
  }
  const fifth = await request(server).get('/api/files/log.csv');
  expect([fifth.status, fifth.headers['retry-after'], fifth.body.type]).toEqual([
    503,
    '30',
    'urn:even-kettle:problem:too-many-downloads',
  ]);
  expect(fifth.headers['content-disposition']).toBeUndefined();
  expect(await source.query('PRAGMA wal_checkpoint(TRUNCATE)')).toMatchObject([{ busy: 0, log: 0 }]);
  let again = fifth;
  for (let tries = 0; again.status !== 200 && tries < 100; tries += 1) {
    await new Promise((resolve) => setTimeout(resolve, 50));
    again = await request(server).get('/api/files/log.csv');
  }
  expect(again.status).toBe(200);
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
});

test('a log of many brews goes out while the bar is asked, and no longer than it is read', async () => {
  for (let n = 1; n <= 20; n += 1) await brewed(n);
  const { answer, turnMs } = await longestTurn(() => textOf('/api/files/log.csv'));
  expect(answer.split('\r\n')).toHaveLength(22);
  expect(turnMs).toBeLessThan(1000);
  expect((await post(order('N', cup('n1')))).status).toBe(200);
});
