/** What is asked of an event at the door: a time that can be true, ids that are nobody else's, no more than a bar holds. */
import request from 'supertest';
import { bar, cup, done, http, newId, now, order, post, start, stored } from '../testing/bar';

const DAY = 86_400_000;

test('a tap of a device whose clock ran ahead is taken at the bar’s time, and the same tap again is no other', async () => {
  const ahead = { ...order('A', cup('a1')), atMs: now() + 16_000 };
  const first = await post(ahead);
  expect([first.status, first.body.accepted]).toEqual([200, [ahead.id]]);
  expect(bar.log.state().orders['A']!.takenMs).toBeLessThanOrEqual(now());
  const again = await post(ahead);
  expect([again.status, again.body.duplicates]).toEqual([200, [ahead.id]]);
  const other = await post({ ...ahead, name: 'Ann' });
  expect([other.status, other.body.type]).toEqual([409, 'urn:even-kettle:problem:id-taken']);
});

test('a device that was away keeps the taps of a day, and no older ones', async () => {
  expect((await post({ ...order('A', cup('a1')), atMs: now() - DAY + 60_000 })).status).toBe(200);
  const old = await post({ ...order('B', cup('b1')), atMs: now() - DAY - 60_000 });
  expect([old.status, old.body.type]).toEqual([422, 'urn:even-kettle:problem:too-long-ago']);
  const future = await post({ ...order('C', cup('c1')), atMs: now() + DAY + 60_000 });
  expect([future.status, future.body.type]).toEqual([422, 'urn:even-kettle:problem:in-the-future']);
});

test.each<[string, () => object, string]>([
  ['a promise of 1970', () => ({ ...order('A', cup('a1')), promisedMs: 0 }), 'promisedMs'],
  ['a promise of the year 2100', () => ({ ...order('A', cup('a1')), promisedMs: 4e12 }), 'promisedMs'],
  [
    'a break of the year 2100',
    () => ({ id: newId(), type: 'hands-away', atMs: now(), fromMs: 4e12, toMs: 4e12 + 1000 }),
    'fromMs',
  ],
  [
    'a break at the end of all time',
    () => ({ id: newId(), type: 'hands-away', atMs: now(), fromMs: 8e15, toMs: 8e15 + 1000 }),
    'fromMs',
  ],
  ['an order with a name that objects have', () => order('toString', cup('a1')), 'orderId'],
  ['a cup with a name that objects have', () => order('A', cup('constructor')), 'cups.0.cupId'],
  ['a brew of an order with such a name', () => start('a1', 'hasOwnProperty'), 'orderId'],
  ['a step with such a name', () => done('a1.1', 'valueOf'), 'stepId'],
  ['a time of a fraction', () => ({ ...order('A', cup('a1')), atMs: now() + 0.5 }), 'atMs'],
])('%s is refused at its field', async (_what, event, field) => {
  const answer = await post(event());
  expect([answer.status, answer.body.errors?.[0].field]).toEqual([422, `events.0.${field}`]);
  expect(await stored()).toBe(0);
});

test('a post that the schema refuses says which of its events it is, by its id', async () => {
  const [good, bad] = [order('A', cup('a1')), order('B', cup('b1', { cupMl: 'large' }))];
  const answer = await post(good, bad);
  expect([answer.status, answer.body.errors]).toEqual([
    422,
    [expect.objectContaining({ field: 'events.1.cups.0.cupMl', eventId: bad.id })],
  ]);
  expect(await stored()).toBe(0);
  const odd = await post({ ...good, id: { toString: 1 } });
  expect([odd.status, odd.body.errors[0].field]).toEqual([422, 'events.0.id']);
  const none = await request(http)
    .post('/api/events')
    .send({ events: ['not an event'] });
  expect([none.status, none.body.errors[0].field]).toEqual([422, 'events.0']);
});

test('a bar holds two hundred open orders, and a brew sixty remarks of a kind', async () => {
  // One plan in the end is enough.
  const orders = Array.from({ length: 200 }, (_, n) => order(`o${n}`, cup(`c${n}`)));
  expect((await post(...orders)).status).toBe(200);
  const more = await post(order('more', cup('more')));
  expect([more.status, more.body.type]).toEqual([422, 'urn:even-kettle:problem:too-many']);
  await post(start('c0', 'o0'));
  const note = () => ({ id: newId(), type: 'brew-noted', atMs: now(), brewId: 'c0.1', note: 'stalled' });
  expect((await post(...Array.from({ length: 60 }, note))).status).toBe(200);
  expect((await post(note())).body.type).toBe('urn:even-kettle:problem:too-many');
});

test('of two devices that each add a coffee, the second is told that the bench has changed, and nothing is lost', async () => {
  const seen = await request(http).get('/api/bar');
  const add = (name: string, version: string | undefined) =>
    request(http)
      .patch('/api/bar')
      .set(version === undefined ? {} : { 'If-Match': version })
      .send({
        coffees: [...seen.body.coffees, { id: name, name, roast: 'light', notes: '', decaf: false }],
      });
  const first = await add('gull', seen.headers['etag']);
  expect(first.status).toBe(200);
  const second = await add('tern', seen.headers['etag']);
  expect([second.status, second.body.type]).toEqual([412, 'urn:even-kettle:problem:changed-since']);
  const now = await request(http).get('/api/bar');
  expect(now.body.coffees.map(({ id }: { id: string }) => id)).toEqual(['house', 'gull']);
  expect(now.headers['etag']).toBe(first.headers['etag']);
});

test('a station that a waiting cup needs is not taken off the bench without saying whose cup it is', async () => {
  await post(order('A', cup('a1', { recipeId: 'press-long', cupMl: 240 })));
  const { stations } = bar.bar();
  const without = stations.filter(({ brewerId }) => brewerId !== 'press-350');
  const refused = await request(http).patch('/api/bar').send({ stations: without });
  expect([refused.status, refused.body.detail]).toEqual([
    409,
    'A cup that waits could then not be brewed: order A, Saltmarsh, 240 ml. Brew or cancel it first.',
  ]);
  expect(bar.bar().stations).toHaveLength(stations.length);
  await post({ id: newId(), type: 'cup-cancelled', atMs: now(), orderId: 'A', cupId: 'a1' });
  expect((await request(http).patch('/api/bar').send({ stations: without })).status).toBe(200);
});
