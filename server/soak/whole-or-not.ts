/**
 * Long writes that a kill may cut in two: guests that are forgotten a few at once, and an archive that comes in as a whole. After
 * each kill everything is there that was, and in the end it is done.
 */
import { readFileSync } from 'node:fs';
import type { ImportJob, Imports, Snapshot } from '@even-kettle/core/contract';
import { canonical } from '../src/store/canonical';
import { openDatabase } from '../src/store/database';
import { writeSetting } from '../src/store/settings-table';
import { openServer, type ServerProcess } from './server-process';

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const ORDERS = 4000;
const DAY_MS = 86_400_000;
type Between = (from: number, to: number) => number;

/** Fills a log with orders of forty days ago, each with a guest. */
async function fillWithGuests(file: string): Promise<void> {
  const source = await openDatabase(file);
  const firstMs = Date.now() - 45 * DAY_MS;
  await source.transaction(async (manager) => {
    await writeSetting(manager, 'guests-forgotten-from', { atMs: 1 });
    for (let n = 0; n < ORDERS; n += 1) {
      // One a minute, as a bar has them.
      const atMs = firstMs + n * 60_000;
      const cup = {
        cupId: `c${n}`,
        recipeId: 'cone-thirds',
        recipeVersion: 2,
        coffee: 'Fog',
        roast: 'light',
        cupMl: 250,
      };
      const base = { atMs, orderId: `o${n}` };
      const events = [
        {
          ...base,
          id: `01890000-0000-7000-8000-${String(2 * n).padStart(12, '0')}`,
          type: 'order-taken',
          name: `Guestname ${n}`,
          cups: [cup],
        },
        { ...base, id: `01890000-0000-7000-8000-${String(2 * n + 1).padStart(12, '0')}`, type: 'guest-left' },
      ];
      for (const event of events)
        await manager.query('INSERT INTO event (id, type, at_ms, received_ms, body) VALUES (?, ?, ?, 0, ?)', [
          event.id,
          event.type,
          atMs,
          canonical(event),
        ]);
    }
  });
  await source.destroy();
}

const namedIn = (server: ServerProcess): boolean =>
  [server.file, `${server.file}-wal`].some((file) => {
    try {
      return readFileSync(file, 'latin1').includes('Guestname');
    } catch {
      return false;
    }
  });

export async function guestsForgotten(kills: number, between: Between): Promise<string[]> {
  console.log(`▸ while guests are forgotten: ${kills} times SIGKILL at random moments`);
  const server = await openServer({ idle: true });
  await fillWithGuests(server.file);
  const faults: string[] = [];
  for (let n = 0; n < kills; n += 1) {
    await server.start();
    await pause(between(0, 40));
    await server.kill();
  }
  await server.start();
  for (let tries = 0; namedIn(server) && tries < 200; tries += 1) await pause(50);
  if (namedIn(server)) faults.push('a guest is still in the file');
  await server.stop();
  const source = await openDatabase(server.file);
  const rows = await source.query<{ seq: number; body: string }[]>(
    'SELECT seq, body FROM event ORDER BY seq',
  );
  await source.destroy();
  const whole = rows.filter(({ seq, body }, n) => {
    const event = JSON.parse(body) as { orderId?: string; name?: string };
    return seq === n + 1 && event.orderId === `o${n >> 1}` && event.name === undefined;
  });
  if (whole.length !== 2 * ORDERS) faults.push(`${2 * ORDERS - whole.length} events are not what they were`);
  if (server.died() > 0) faults.push(`the server ended by itself ${server.died()} times`);
  console.log(`  ${rows.length} events, no guest in them`);
  await server.close();
  return faults.map((fault) => `while guests are forgotten: ${fault}`);
}

/** @param from a bar that has lived; its archive is taken in again and again */
export async function archiveComesIn(from: string, kills: number, between: Between): Promise<string[]> {
  const archive = await (await fetch(`${from}/api/files/archive.json`)).text();
  const { seq } = (await (await fetch(`${from}/api/state`)).json()) as Snapshot;
  console.log(`▸ while an archive of ${seq} events comes in: ${kills} times SIGKILL at random moments`);
  const faults: string[] = [];
  const came = { whole: 0, none: 0 };
  let tookMs = 0;
  for (let n = 0; n < kills; n += 1) {
    const server = await openServer();
    const ask = async <Answer>(path: string, init?: RequestInit) =>
      (await (await fetch(`${server.url}${path}`, init)).json()) as Answer;
    const headers = { 'Content-Type': 'application/json' };
    const { id } = await ask<ImportJob>('/api/imports?kind=archive&name=a', {
      method: 'POST',
      headers,
      body: archive,
    });
    for (
      let tries = 0;
      (await ask<Imports>('/api/imports')).current?.phase === 'looking' && tries < 400;
      tries += 1
    )
      await pause(5);
    const takenAt = performance.now();
    await ask(`/api/imports/${id}/take`, { method: 'POST' });
    // Half are killed while it comes in; the others, of which the first tells how long that takes, just after it is in.
    const isAwaited = n % 2 === 0;
    const seqNow = async () => (await ask<Snapshot>('/api/state')).seq;
    if (isAwaited) {
      for (let tries = 0; (await seqNow()) === 0 && tries < 6000; tries += 1) await pause(5);
      tookMs = performance.now() - takenAt;
      await pause(between(0, 100));
    } else await pause(between(0, tookMs));
    await server.kill();
    await server.start();
    const now = await seqNow();
    if ((isAwaited || now !== 0) && now !== seq) faults.push(`an archive of ${seq} events came in as ${now}`);
    came[now === 0 ? 'none' : 'whole'] += 1;
    const { status } = await ask<{ status: string }>('/api/health');
    if (status !== 'ok') faults.push('the server is not well after it');
    await server.close();
  }
  console.log(`  came in whole ${came.whole} times, not at all ${came.none} times`);
  return faults;
}
