/** Guests are forgotten in the log, the records and the snapshots after the time that the bar sets; files can leave them out before. */
import type { BarEvent } from '@even-kettle/core/brew';
import {
  bar,
  brewed,
  close,
  cup,
  get,
  newId,
  now,
  open,
  order,
  post,
  source,
  textOf,
  warned,
} from '../testing/bar';

const DAY_MS = 86_400_000;
/** Events that happened so many days ago, as no device could post them any more. */
const earlier = (days: number, ...events: object[]) =>
  bar.log.append(events.map((event) => ({ ...event, atMs: now() - days * DAY_MS })));
const bodies = async () =>
  ((await source.query('SELECT body FROM event ORDER BY seq')) as { body: string }[])
    .map(({ body }) => body)
    .join('\n');
const taken = (orderId: string, name: string): object => ({
  ...order(orderId, cup(`${orderId}-1`, { allergy: `nuts of ${name}` })),
  name,
});
const left = (orderId: string) => ({ id: newId(), type: 'guest-left', orderId });

test('what is older than the bar’s days is forgotten in every event of linked orders; what was brewed stays', async () => {
  await earlier(40, taken('a', 'pilot'), taken('b', 'window'));
  // Cups that go over link two orders; the second lives on for a day, and is forgotten with the first.
  const moved = { id: newId(), type: 'cups-moved', orderId: 'a', toOrderId: 'c', name: 'mate' };
  const second = { ...taken('a2', 'x'), cups: [cup('a-2'), cup('a-3')] };
  await earlier(39.9, second, { ...moved, orderId: 'a2', cups: [cup('a-2')] });
  await earlier(39.8, left('a'), left('b'), left('a2'), left('c'));
  await earlier(20, taken('d', 'rucksack'), left('d'));
  const brewId = await brewed(1);
  await close();
  await open();
  await bar.log.forgetGuests(now() - 30 * DAY_MS);
  const text = await bodies();
  expect(text).not.toMatch(/pilot|window|mate/);
  expect(text).toMatch(/rucksack/);
  expect(text).toMatch(/guest 1/);
  expect(bar.log.seq()).toBe((await bar.log.after(0)).length);
  const { guest, coffee } = (await get(`/api/brews/${brewId}`)).record;
  expect([guest, coffee]).toEqual(['guest 1', 'Saltmarsh']);
  // A start folds the forgotten log to the same state, with nothing passed over.
  const state = JSON.stringify(bar.log.state());
  await close();
  warned.length = 0;
  await open();
  expect([JSON.stringify(bar.log.state()), warned]).toEqual([state, []]);
});

test('records lose their guests with the log, and are no more found by their names', async () => {
  const brewId = await brewed(1);
  expect((await get('/api/log?search=guest')).records).toHaveLength(1);
  await bar.log.forgetGuests(now() + DAY_MS);
  expect((await get(`/api/brews/${brewId}`)).record.guest).toBeNull();
  expect((await get('/api/log?search=guest')).records).toEqual([]);
  // The order is still in the live state, where a cup of it may come back: the log keeps it that long.
  expect(await bodies()).toMatch(/guest 1/);
});

test('nothing else of an event can be changed, and a guest is forgotten once', async () => {
  await earlier(40, taken('a', 'pilot'), left('a'));
  await brewed(1);
  await close();
  await open();
  const change = (set: string) => source.query(`UPDATE event SET ${set} WHERE seq = 1`);
  await expect(change(`body = '{}'`)).rejects.toThrow('events are never changed');
  await expect(change(`forgotten_ms = 1, at_ms = 5`)).rejects.toThrow('events are never changed');
  await bar.log.forgetGuests(now() - 30 * DAY_MS);
  await expect(change(`forgotten_ms = 2, body = '{}'`)).rejects.toThrow('events are never changed');
  await expect(source.query('DELETE FROM event WHERE seq = 1')).rejects.toThrow('events are never deleted');
});

test('a table, the records and the whole bar can be taken along without guests', async () => {
  await brewed(1);
  await post({ ...order('w', cup('w1', { note: 'not too hot for her' })), name: 'harbour office' });
  for (const file of ['log.csv', 'log.jsonl', 'archive.json']) {
    const whole = await textOf(`/api/files/${file}`);
    const without = await textOf(`/api/files/${file}?guests=without`);
    expect([file, /guest 1/.test(whole)]).toEqual([file, true]);
    expect([file, /guest 1|harbour office|not too hot/.exec(without)]).toEqual([file, null]);
    expect(without.split('\n').length).toBe(whole.split('\n').length);
  }
  const archive = JSON.parse(await textOf('/api/files/archive.json?guests=without')) as {
    events: BarEvent[];
  };
  expect(archive.events.filter(({ type }) => type === 'order-taken')).toHaveLength(2);
});
