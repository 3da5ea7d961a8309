/** Guests are forgotten in the log, the records and the snapshots after the time that the bar sets; files can leave them out before. */
import { mkdirSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import BetterSqlite3 from 'better-sqlite3';
import type { BarEvent } from '@even-kettle/core/brew';
import {
  bar,
  brewed,
  close,
  cup,
  folder,
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
import { connectionOf } from './transaction';

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

test('as long as one of the orders that cups link in a chain is not due, the guests of all of them stay', async () => {
  const move = (orderId: string, toOrderId: string, name: string, ...cupIds: string[]) => ({
    id: newId(),
    type: 'cups-moved',
    orderId,
    toOrderId,
    name,
    cups: cupIds.map((id) => cup(id)),
  });
  const chain = { ...taken('k1', 'lighthouse'), cups: ['k-1', 'k-2', 'k-3', 'k-4'].map((id) => cup(id)) };
  await earlier(40, chain);
  await earlier(39.9, move('k1', 'k2', 'ropewalk', 'k-1', 'k-2', 'k-3'), left('k1'));
  await earlier(39.8, move('k2', 'k3', 'slipway', 'k-1', 'k-2'), left('k2'));
  await earlier(29, move('k3', 'k4', 'bollard', 'k-1'), left('k3'), left('k4'));
  await bar.log.forgetGuests(now() - 30 * DAY_MS);
  expect(await bodies()).toMatch(/lighthouse[\s\S]*ropewalk[\s\S]*slipway[\s\S]*bollard/);
  await bar.log.forgetGuests(now() - 28 * DAY_MS);
  expect(await bodies()).not.toMatch(/lighthouse|ropewalk|slipway|bollard/);
});

test('records lose their guests with the log, and are no more found by their names', async () => {
  const brewId = await brewed(1);
  expect((await get('/api/log?search=guest')).records).toHaveLength(1);
  await bar.log.forgetGuests(now() + DAY_MS);
  expect((await get(`/api/brews/${brewId}`)).record.guest).toBeNull();
  expect((await get('/api/log?search=guest')).records).toEqual([]);
  expect(await bodies()).not.toMatch(/guest 1/);
  // An order that is open keeps its guest, and so does what is on the record of it.
  await post({ ...order('w', cup('w1'), cup('w2')), name: 'harbour office' });
  await bar.log.forgetGuests(now() + DAY_MS);
  expect(await bodies()).toMatch(/harbour office/);
});

test('no trace is left in the file, in what is written beside it, in a copy or in what the server says: running and stopped', async () => {
  const words = Array.from({ length: 300 }, (_, n) => `guest-${String(n).padStart(4, '0')}-q`);
  for (const [n, name] of words.entries()) {
    const renamed = { id: newId(), type: 'order-renamed', orderId: `g${n}`, name: `${name} again` };
    await earlier(
      40,
      taken(`g${n}`, name),
      ...Array.from({ length: 5 }, () => ({ ...renamed, id: newId() })),
      left(`g${n}`),
    );
  }
  await brewed(1);
  const copy = join(folder, 'backups', 'copy.sqlite');
  mkdirSync(join(folder, 'backups'));
  await connectionOf(source).backup(copy);
  const traces = () => {
    const files = [folder, join(folder, 'backups')].flatMap((at) =>
      readdirSync(at, { withFileTypes: true }).flatMap((each) =>
        each.isFile() ? [join(at, each.name)] : [],
      ),
    );
    const text = files.map((file) => readFileSync(file, 'latin1')).join('') + warned.join('');
    return words.filter((word) => text.includes(word)).length;
  };
  expect(traces()).toBe(300);
  // More than 2,000 events: a snapshot is stored, with the guests in it.
  await close();
  await open();
  await close();
  await open();
  for (let tries = 0; traces() > 0 && tries < 400; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 25));
  expect(traces()).toBe(0);
  await close();
  expect(traces()).toBe(0);
  const read = new BetterSqlite3(copy, { readonly: true });
  expect(read.prepare('SELECT COUNT(*) AS many FROM event').get()).toMatchObject({ many: 2114 });
  expect(read.prepare(`SELECT COUNT(*) AS many FROM event WHERE body LIKE '%guest 1%'`).get()).toMatchObject({
    many: 1,
  });
  read.close();
  await open();
});

test('a bar of an earlier version is told a day before what will be forgotten, once, and may set other days before', async () => {
  await earlier(40, taken('a', 'pilot'), left('a'));
  await earlier(100, taken('b', 'window'), left('b'));
  // As an earlier version leaves it: it knows nothing of a notice.
  await source.query(`DELETE FROM setting WHERE name = 'guests-forgotten-from'`);
  await close();
  await open();
  expect(warned.join()).toMatch(/guests of 2 earlier orders will be forgotten in a day/);
  const { guestsDue } = bar.bar();
  expect(guestsDue).toMatchObject({ orders: 2 });
  expect((guestsDue!.atMs - now()) / DAY_MS).toBeCloseTo(1, 1);
  expect(await bodies()).toMatch(/pilot/);
  await bar.change({ guestsKeptDays: 90 });
  for (let tries = 0; bar.bar().guestsDue?.orders !== 1 && tries < 100; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 10));
  expect(bar.bar().guestsDue).toMatchObject({ orders: 1 });
  // A day later: the time is in the database.
  await source.query(`UPDATE setting SET body = '{"atMs":1}' WHERE name = 'guests-forgotten-from'`);
  warned.length = 0;
  await close();
  await open();
  await close();
  await open();
  expect([warned, bar.bar().guestsDue]).toEqual([[], undefined]);
  expect(await bodies()).toMatch(/pilot/);
  expect(await bodies()).not.toMatch(/window/);
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
