/** Logs from elsewhere, read in by the real worker while the bar goes on. */
import { once } from 'node:events';
import { readdirSync } from 'node:fs';
import { request as httpRequest, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { text } from 'node:stream/consumers';
import request from 'supertest';
import type { ImportJob } from '@even-kettle/core/contract';
import {
  bar,
  brewed,
  buildImportWorker,
  close,
  cup,
  folder,
  get,
  http,
  open,
  order,
  post,
  sendFile,
  takeFile,
  taste,
  textOf,
} from '../testing/bar';

beforeAll(buildImportWorker);

test('a log from elsewhere is looked at row by row, counts when all of it is there, is known again, and can be taken out', async () => {
  const here = await brewed(1, { by: 'noor' });
  await taste(here, { balance: 1, strength: -1, seen: ['wall', 'clumps'], words: '=walnut', tdsPct: 1.35 });
  const csv = (await request(http).get('/api/files/log.csv')).text;
  const theirs = csv.replaceAll('c1.1', 'theirs-1').replaceAll('o1', 'order-x');
  const [head, row] = theirs.split('\r\n') as [string, string];
  const columns = head.split(',');
  const short = `ended,coffee,recipe,dose_g,brew_s\n2026-02-01T08:00:00Z,Saltmarsh,cone-thirds,18,191\n`;
  const wrong = `${theirs}${row.replace('theirs-1', 'theirs-2').replace(',light,', ',pale,')}\r\n`;

  const faulty = await sendFile('log', wrong, 'theirs.csv');
  expect(faulty).toMatchObject({
    phase: 'looked',
    name: 'theirs.csv',
    found: { rows: 2, faulty: 1, shows: [{ line: 2, shows: 'Saltmarsh, cone-thirds, 17.6 g' }] },
  });
  expect(faulty.found!.faults[0]).toEqual({
    line: 3,
    reason: expect.stringMatching(/^roast must be one of very light, light/),
  });
  await expect(takeFile(faulty.id)).rejects.toThrow('none was');
  expect(await takeFile(faulty.id, '?faulty=leave-out')).toMatchObject({
    phase: 'taken',
    taken: 1,
    known: 0,
  });

  // Everything but its steps is as it was brewed; those nobody knows.
  const record = (await get('/api/brews/theirs-1')).record;
  const own = (await get(`/api/brews/${here}`)).record;
  for (const name of [
    'badge',
    'brewId',
    'orderId',
    'steps',
    'fromFile',
    'zeroMs',
    'taste',
    'lossG',
    'plannedBeverageG',
  ])
    delete own[name];
  expect(record).toMatchObject(own);
  expect(record).toMatchObject({
    fromFile: true,
    steps: [],
    taste: { balance: 1, seen: ['wall', 'clumps'], words: '=walnut' },
  });
  expect(columns).toEqual(expect.arrayContaining(['station_id', 'hands_s']));

  // What a short row leaves out is as the recipe's card has it; the same file again is known.
  const little = await sendFile('log', short);
  expect(await takeFile(little.id)).toMatchObject({ phase: 'taken', taken: 1, known: 0 });
  const again = await sendFile('log', short);
  expect(await takeFile(again.id)).toMatchObject({ phase: 'taken', taken: 0, known: 1 });
  const [oldest] = (await get('/api/log')).records.slice(-1);
  expect(oldest).toMatchObject({
    method: 'cone',
    roast: 'medium',
    windowFromS: 170,
    windowToS: 205,
    realBrewS: 191,
  });
  expect((await get('/api/learnt?recipeId=cone-thirds&coffee=Saltmarsh')).run).toHaveLength(3);

  // Tasted here, it keeps its import.
  await taste('theirs-1', { balance: -1 });
  expect((await get('/api/brews/theirs-1')).record).toMatchObject({
    taste: { balance: -1 },
    fromFile: true,
    beverageG: record.beverageG,
  });

  // It is carried in an archive, and a rebuilt log keeps it.
  await bar.log.rebuildRecords();
  const log = await get('/api/log');
  const archive = await textOf('/api/files/archive.json');
  await close();
  await open(1, true);
  const orphaned = await sendFile('archive', archive.replace(/"importId":"[^"]+"/, '"importId":"nobody"'));
  expect(await takeFile(orphaned.id)).toMatchObject({
    phase: 'refused',
    reason: 'records: one belongs to an import that the file does not contain.',
  });
  expect(bar.log.seq()).toBe(0);
  await takeFile((await sendFile('archive', archive)).id);
  expect(await get('/api/log')).toEqual(log);

  const { kept } = (await get('/api/imports')) as { kept: { id: string; brews: number; name: string }[] };
  expect(kept.map(({ brews }) => brews)).toEqual([1, 1]);
  const { id } = kept.find(({ name }) => name === 'theirs.csv')!;
  await request(http).delete(`/api/imports/${id}`).expect(204);
  for (let tries = 0; tries < 200 && (await get('/api/imports')).current; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 20));
  expect((await get('/api/imports')).kept).toHaveLength(1);
  expect((await get('/api/log')).records).toHaveLength(2);
});

test('an import that is stopped, or broken off with the server, leaves nothing', async () => {
  const rows = Array.from(
    { length: 15_000 },
    (_, n) =>
      `${new Date(1_700_000_000_000 + n * 1000).toISOString()},Coffee ${n % 9},cone-thirds,18,${180 + (n % 20)}`,
  );
  const csv = `ended,coffee,recipe,dose_g,brew_s\n${rows.join('\n')}\n`;
  const looked = await sendFile('log', csv);
  expect(looked.found).toMatchObject({ rows: 15_000, faulty: 0 });
  await request(http).post(`/api/imports/${looked.id}/take`).expect(202);
  const under = async () => {
    for (let tries = 0; tries < 200; tries += 1) {
      const { current } = (await get('/api/imports')) as { current: { share: number } };
      if (current.share > 0.05) return current.share;
      await new Promise((resolve) => setTimeout(resolve, 10));
    }
    return 0;
  };
  // A part of it is written, and none of it counts.
  expect(await under()).toBeLessThan(1);
  expect((await get('/api/log')).records).toEqual([]);
  expect(
    (await request(http).post('/api/imports?kind=log').set('Content-Type', 'text/csv').send(csv)).status,
  ).toBe(409);
  // The bar is worked meanwhile.
  expect((await post(order('A', cup('a1')))).status).toBe(200);
  await request(http).delete(`/api/imports/${looked.id}`).expect(204);
  expect(await get('/api/imports')).toEqual({ current: null, kept: [] });
  expect((await get('/api/log')).records).toEqual([]);

  const second = await sendFile('log', csv);
  await request(http).post(`/api/imports/${second.id}/take`).expect(202);
  await under();
  await close();
  await open();
  expect((await get('/api/log')).records).toEqual([]);
  for (let tries = 0; tries < 400 && (await get('/api/imports')).current; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 25));
  expect(await get('/api/imports')).toEqual({ current: null, kept: [] });
  expect((await get('/api/log')).records).toEqual([]);
});

test('a file that is stopped while it is sent, or whose sender goes away, is forgotten and makes room for the next', async () => {
  const sending = () => {
    const { port } = http.address() as AddressInfo;
    const sent = httpRequest({
      host: '127.0.0.1',
      port,
      method: 'POST',
      path: '/api/imports?kind=log&name=half',
      headers: { 'Content-Type': 'text/csv' },
    });
    sent.write('ended,coffee,recipe,dose_g\n'.padEnd(200_000, '#'));
    return sent;
  };
  const current = async () => ((await get('/api/imports')) as { current: ImportJob | null }).current;
  const until = async (there: (job: ImportJob | null) => boolean) => {
    for (let tries = 0; tries < 400; tries += 1) {
      const job = await current();
      if (there(job)) return job;
      await new Promise((resolve) => setTimeout(resolve, 10));
    }
    throw new Error('The import never came there.');
  };
  const left = () => readdirSync(join(folder, 'coming-in'));

  const stopped = sending();
  const answered = once(stopped, 'response');
  const job = (await until((now) => (now?.bytes ?? 0) > 0))!;
  await until(() => left().includes(job.id));
  await request(http).delete(`/api/imports/${job.id}`).expect(204);
  expect(await current()).toBeNull();
  stopped.end();
  const [response] = (await answered) as [IncomingMessage];
  expect([response.statusCode, JSON.parse(await text(response)).phase]).toEqual([202, 'stopped']);
  expect([await current(), left()]).toEqual([null, []]);

  const gone = sending();
  gone.on('error', () => undefined);
  await until((now) => (now?.bytes ?? 0) > 0);
  gone.destroy();
  await until((now) => now === null);
  expect(left()).toEqual([]);
  const next = await sendFile('log', 'ended,coffee,recipe,dose_g\n2026-02-01T08:00:00Z,Fog,cone-thirds,18\n');
  expect(next).toMatchObject({ phase: 'looked', found: { rows: 1 } });
});
