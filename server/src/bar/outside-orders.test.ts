/** Orders from outside, against a real server: by the menu, once for each key, refused where they are not offered. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import request from 'supertest';
import { PLAIN_BAR } from '../bench';
import { workerQuoter } from '../planning/quoter';
import { openDatabase } from '../store/database';
import { bar, cup, folder, http, newId, now, openOver, order } from '../testing/bar';

const MENU = [
  { id: 'm1', coffeeId: 'house', recipeId: 'cone-thirds', sizesMl: [250, 300] },
  { id: 'm2', coffeeId: 'house', recipeId: 'press-long', sizesMl: [250], off: true },
];
const take = (body: object) => request(http).post('/api/orders').send(body);
beforeEach(async () => {
  const changed = await bar.change({
    menu: MENU,
    queues: [
      { id: 'counter', name: 'Counter', promise: 'soon' },
      { id: 'boat', name: 'For the boat', promise: 'pick-up', stroke: 'double' },
    ],
  });
  expect(changed.ok).toBe(true);
});

test('an order by the menu is answered with its badge and a promise, and the same key again is the same order', async () => {
  const asked = {
    key: 'terminal-7.1',
    name: 'pilot',
    cups: [
      { menuLineId: 'm1', allergy: 'nuts', milk: 'oat' },
      { menuLineId: 'm1', cupMl: 300 },
    ],
  };
  const first = await take(asked);
  expect([first.status, first.body.badge, first.body.isNew]).toEqual([
    201,
    { letter: 'A', stroke: 'solid' },
    true,
  ]);
  expect(first.body.promisedMs).toBeGreaterThan(first.body.expectedMs);
  // Twice at once, and once more: one order.
  const again = await Promise.all([take(asked), take(asked)]);
  for (const { status, body } of again)
    expect([status, body]).toEqual([200, { ...first.body, isNew: false }]);
  const orders = Object.values(bar.log.state().orders);
  expect(orders).toHaveLength(1);
  expect(orders[0]).toMatchObject({
    name: 'pilot',
    inQueue: { queueId: 'counter' },
    cups: [
      {
        coffee: 'House coffee',
        cupMl: 250,
        allergy: 'nuts',
        addition: 'milk',
        milk: 'oat',
        status: 'waiting',
      },
      { cupMl: 300 },
    ],
  });
});

test.each<[string, object, number, string, RegExp]>([
  ['what is sold out', { cups: [{ menuLineId: 'm2' }] }, 409, 'cups.0.menuLineId', /House coffee: sold out/],
  ['a line that is not there', { cups: [{ menuLineId: 'm9' }] }, 422, 'cups.0.menuLineId', /no line m9/],
  ['a coffee without a recipe', { cups: [{ coffeeId: 'house' }] }, 422, 'cups.0', /a coffee and a recipe/],
  [
    'a coffee that is not here',
    { cups: [{ coffeeId: 'x', recipeId: 'cone-thirds', cupMl: 250 }] },
    422,
    'cups.0.coffeeId',
    /no coffee x/,
  ],
  [
    'no size',
    { cups: [{ coffeeId: 'house', recipeId: 'cone-thirds' }] },
    422,
    'cups.0.cupMl',
    /size of the cup/,
  ],
  [
    'a queue that is not there',
    { queueId: 'roof', cups: [{ menuLineId: 'm1' }] },
    422,
    'queueId',
    /no queue roof/,
  ],
  [
    'a boat without a time',
    { queueId: 'boat', cups: [{ menuLineId: 'm1' }] },
    422,
    'wantedMs',
    /the time at which/,
  ],
  ['no cups', { cups: [] }, 422, 'cups', /at least one cup/],
])('%s is refused at its field, and nothing is stored', async (_what, part, status, field, reason) => {
  const { status: got, body } = await take({ key: `key-${field}`, ...part });
  expect([got, body.errors?.[0]?.field]).toEqual([status, field]);
  expect(body.errors[0].reason).toMatch(reason);
  expect(Object.keys(bar.log.state().orders)).toEqual([]);
});

test('the last doses are not sold twice: a coffee that has run out is off, also for whoever asks from outside', async () => {
  const weighed = { id: newId(), type: 'coffee-weighed', atMs: now(), coffee: 'House coffee', stockG: 20 };
  expect((await bar.post([weighed])).ok).toBe(true);
  const started = Date.now();
  while (bar.bar().stockG?.['House coffee'] === undefined && Date.now() - started < 3000)
    await new Promise((resolve) => setTimeout(resolve, 10));
  expect((await take({ key: 'one', cups: [{ menuLineId: 'm1' }] })).status).toBe(201);
  const second = await take({ key: 'two', cups: [{ menuLineId: 'm1' }] });
  expect([second.status, second.body.detail]).toEqual([409, 'House coffee: no coffee left.']);
});

test('an order for a boat is promised for its time', async () => {
  const wantedMs = now() + 3_600_000;
  const { status, body } = await take({
    key: 'for-the-boat',
    queueId: 'boat',
    wantedMs,
    cups: [{ menuLineId: 'm1' }],
  });
  expect([status, body.badge.stroke]).toEqual([201, 'double']);
  expect(wantedMs - body.expectedMs).toBeGreaterThanOrEqual(0);
  expect(wantedMs - body.expectedMs).toBeLessThanOrEqual(125_000);
  expect(body.promisedMs).toBe(wantedMs);
});

test('a quote is worked out beside: taps are stored meanwhile, and an order whose quote does not come is taken without its times', async () => {
  const file = join(folder, 'hangs.mjs');
  writeFileSync(
    file,
    `import { parentPort } from 'node:worker_threads'; parentPort.on('message', () => { for (;;); });`,
  );
  const failed: string[] = [];
  const quoter = workerQuoter(pathToFileURL(file), (error) => failed.push(String(error)), 400);
  const other = await openOver(await openDatabase(join(folder, 'other.sqlite')), { quoter });
  await other.change({ ...PLAIN_BAR, menu: MENU });
  const taking = other.takeOutside({ key: 'slow', cups: [{ menuLineId: 'm1' }] });
  const weighed = {
    id: newId(),
    type: 'coffee-weighed',
    atMs: other.clock.nowMs(),
    coffee: 'Fog',
    stockG: 1,
  };
  expect(await other.post([weighed])).toMatchObject({ ok: true, seq: 1 });
  expect(failed).toEqual([]);
  expect(await taking).toMatchObject({ ok: true, isNew: true, promisedMs: null, expectedMs: null });
  expect(failed.join()).toMatch(/had not answered within 400 ms/);
  await other.close();
});

test('a key is the same order for as long as the log has it', async () => {
  const asked = { key: 'long-ago', name: 'pilot', cups: [{ menuLineId: 'm1' }] };
  const { body: first } = await take(asked);
  const later = (hours: number) => Math.round(now() + hours * 3_600_000);
  const left = { id: newId(), type: 'guest-left', atMs: now(), orderId: first.orderId };
  const next = (hours: number) => ({ ...order(newId(), cup(newId())), atMs: later(hours) });
  expect(await bar.log.append([left, next(2)])).toMatchObject({ ok: true });
  expect((await take(asked)).body).toEqual({ ...first, isNew: false });
  expect((await bar.log.append([next(20)])).ok).toBe(true);
  expect(JSON.stringify(bar.log.state())).not.toContain(first.orderId);
  const { status, body } = await take(asked);
  // Nobody follows it any more.
  const { follow: _follow, ...rest } = first;
  expect([status, body]).toEqual([200, { ...rest, badge: null, isNew: false }]);
});

test('the feed is started and stopped, and says when its next boat lands', async () => {
  expect((await request(http).get('/api/feed')).body).toMatchObject({ running: false, nextBoatMs: null });
  const started = await request(http).post('/api/feed').send({ running: true });
  expect(started.body.nextBoatMs).toBeGreaterThan(now());
  expect(started.body.nextBoatMs - now()).toBeLessThanOrEqual(20 * 60_000);
  expect((await request(http).post('/api/feed').send({ running: 'yes' })).status).toBe(422);
  expect((await request(http).post('/api/feed').send({ running: false })).body.running).toBe(false);
});
