/** What whoever opens or takes over the bar is told by the log: the same hours of earlier weeks, drifts, changes, water through the kettles. */
import request from 'supertest';
import type { BrewRecord, Today } from '@even-kettle/core/contract';
import { rowOfRecord } from '../store/records';
import { BrewRecordRow } from '../store/rows';
import { bar, brewed, close, get, http, newId, now, open, post, source } from '../testing/bar';

const HOUR_MS = 3600_000;
const DAY_MS = 24 * HOUR_MS;

/** A brew like one that was brewed, at another time. */
const lived = async (like: BrewRecord, orderedMs: number, change: Partial<BrewRecord> = {}) => {
  const record = {
    ...like,
    brewId: newId(),
    orderedMs,
    startedMs: orderedMs,
    endedMs: orderedMs + 400_000,
    ...change,
  };
  await source.manager.upsert(BrewRecordRow, rowOfRecord(record), ['brewId']);
};
const today = async (): Promise<Today> => get(`/api/today?fromMs=${now()}&toMs=${now() + 2 * HOUR_MS}`);

test('the same hours of the weeks before are expected again; samples and other hours are not', async () => {
  const { record } = (await get(`/api/brews/${await brewed(1)}`)) as { record: BrewRecord };
  const soon = now() + HOUR_MS;
  for (let cup = 0; cup < 3; cup += 1) await lived(record, soon - 7 * DAY_MS + cup * 60_000);
  await lived(record, soon - 14 * DAY_MS);
  await lived(record, soon - 7 * DAY_MS + 3 * HOUR_MS);
  await lived(record, soon - 7 * DAY_MS, { sample: { roundId: 'r', letter: 'A' } });
  await lived(record, soon - 7 * DAY_MS, { outcome: 'abandoned', reason: 'spilt' });
  const { rush } = await today();
  expect(rush).toEqual({
    doses: [{ coffee: 'Saltmarsh', method: 'cone', doseG: 17.6, brews: 2 }],
    cups: 2,
    weeks: 2,
  });
});

test('settings that were changed are told with their time, also after a restart', async () => {
  await request(http).patch('/api/bar').send({ hands: 2 });
  await request(http).patch('/api/bar').send({ tapC: 20, roomC: 18 });
  await request(http).patch('/api/bar').send({ hands: 9 });
  const named = (of: Today) => of.changes.map(({ settings }) => settings);
  expect(named(await today())).toEqual([['pairs of hands'], ['room', 'filling temperature']]);
  await close();
  await open();
  expect(named(await today())).toEqual([['pairs of hands'], ['room', 'filling temperature']]);
});

test('water through the kettles counts from when they were descaled last, however long ago that was', async () => {
  const { record } = (await get(`/api/brews/${await brewed(1)}`)) as { record: BrewRecord };
  for (let brew = 0; brew < 40; brew += 1) await lived(record, now() - 20 * DAY_MS + brew * 60_000);
  // 41 fillings of 446 g.
  expect((await today()).kettles).toEqual({ litres: 18, descaleAfterL: 300, descaledMs: null });
  const atMs = Math.round(now() - DAY_MS / 2);
  await post({ id: newId(), type: 'task-done', atMs, list: 'closing', taskId: 'descale', by: 'noor' });
  expect((await today()).kettles).toEqual({ litres: 0, descaleAfterL: 300, descaledMs: atMs });
  expect(bar.log.state().houseEvents).toHaveLength(1);
});

test('a stretch that is no stretch is refused at its field', async () => {
  const { status, body } = await request(http).get('/api/today?fromMs=5&toMs=5');
  expect([status, body.errors[0].field]).toEqual([422, 'toMs']);
});
