/**
 * A server with a long log: how soon it is up, and for how long each of its routes, asked for the most that it takes,
 * keeps all others waiting. Run by `npm run bench -- routes`; EVENTS changes the log's length.
 */
import { readFileSync } from 'node:fs';
import { v7 as uuid } from 'uuid';
import type { BarEvent } from '@even-kettle/core/brew';
import { LANTERN_PIER, twoWeeksBefore } from '../src/demo/benches';
import { writeBar } from '../src/bench';
import { canonical } from '../src/store/canonical';
import { openDatabase } from '../src/store/database';
import { openServer, type ServerProcess } from '../soak/server-process';

const EVENTS = Number(process.env['EVENTS'] ?? 500_000);
const WEEKS_MS = 14 * 86_400_000;
const IDLE_MS = Number(process.env['IDLE_MS'] ?? 20_000);
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Fills a log with weeks of a bar's life, one lot before the other. */
async function fill(file: string): Promise<void> {
  const source = await openDatabase(file);
  await source.query('PRAGMA synchronous = OFF');
  await writeBar(source.manager, LANTERN_PIER);
  const pattern = twoWeeksBefore(Date.now(), LANTERN_PIER).sort((a, b) => a.atMs - b.atMs);
  const rounds = Math.ceil(EVENTS / pattern.length);
  for (let round = rounds - 1; round >= 0; round -= 1) {
    await source.transaction(async (manager) => {
      for (const event of pattern.map((each) => moved(each, round))) {
        await manager.query('INSERT INTO event (id, type, at_ms, received_ms, body) VALUES (?, ?, ?, ?, ?)', [
          event.id,
          event.type,
          event.atMs,
          event.atMs,
          canonical(event),
        ]);
      }
    });
  }
  await source.destroy();
}

/** The same event so many fortnights earlier, of other orders, cups and brews. */
function moved(event: BarEvent, round: number): BarEvent {
  const text = JSON.stringify({ ...event, id: uuid() }).replace(
    /"(orderId|cupId|brewId|fromOrderId|fromCupId|otherBrewId|fromBrewId)":"/g,
    `"$1":"r${round}-`,
  );
  const read = JSON.parse(text) as BarEvent;
  return { ...read, atMs: Math.round(read.atMs - round * WEEKS_MS) };
}

/** How long the server lets a small question wait, while it works on something else, milliseconds. */
async function longestWait(
  url: string,
  work: () => Promise<unknown>,
): Promise<{ waitMs: number; tookMs: number }> {
  let over = false;
  let waitMs = 0;
  const probing = (async () => {
    while (!over) {
      const fromMs = performance.now();
      await fetch(`${url}/api/clock`).then((answer) => answer.arrayBuffer());
      waitMs = Math.max(waitMs, performance.now() - fromMs);
      await pause(3);
    }
  })();
  await pause(30);
  waitMs = 0;
  const fromMs = performance.now();
  await work();
  const tookMs = performance.now() - fromMs;
  over = true;
  await probing;
  return { waitMs, tookMs };
}

const whole = async (url: string, path: string, init: RequestInit = {}) => {
  const answer = await fetch(`${url}${path}`, init);
  let bytes = 0;
  for await (const chunk of answer.body as unknown as AsyncIterable<Uint8Array>) bytes += chunk.length;
  return { status: answer.status, bytes };
};

async function routes(url: string): Promise<void> {
  const { barMs, seq } = (await (await fetch(`${url}/api/state`)).json()) as { barMs: number; seq: number };
  const dayMs = 86_400_000;
  const csv = (body: string) => ({ method: 'POST', headers: { 'Content-Type': 'text/csv' }, body });
  const json = (method: string, body: unknown) => ({
    method,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  const weighed = (n: number) => ({
    id: uuid(),
    type: 'coffee-weighed',
    atMs: Math.round(barMs),
    coffee: `Fog ${n % 40}`,
    stockG: n,
  });
  const fromOutside = (cups: number) => ({
    key: `bench-${cups}-${uuid()}`,
    cups: Array.from({ length: cups }, () => ({ menuLineId: LANTERN_PIER.menu![0]!.id })),
  });
  const asked: [string, RequestInit?][] = [
    ['/api/state'],
    ['/api/recipes'],
    ['/api/bar'],
    ['/api/plan'],
    ['/api/openapi.json'],
    ['/api/schemas/recipe.json'],
    ['/api/health'],
    ['/api/log?limit=200'],
    ['/api/log?limit=200&search=nobody%20said%20this'],
    ['/api/learnt?recipeId=cone-thirds&coffee=Saltmarsh'],
    [`/api/day?fromMs=${Math.round(barMs - 3 * dayMs)}&toMs=${Math.round(barMs)}`],
    ['/api/hands'],
    ['/api/house'],
    ['/api/files/log.csv'],
    ['/api/files/log.jsonl'],
    ['/api/files/care.ics'],
    ['/api/files/archive.json'],
    ['/api/imports'],
    ['/api/events', json('POST', { events: Array.from({ length: 200 }, (_, n) => weighed(n)) })],
    ['/api/orders', json('POST', fromOutside(1))],
    ['/api/orders', json('POST', fromOutside(6))],
    ['/api/bar', json('PATCH', { coffees: LANTERN_PIER.coffees })],
    ['/api/files/roasts?take=1', csv(`coffee,roast\n${'Fog,blue\n'.repeat(28_000)}`)],
    ['/api/files/orders?take=1', csv(`coffee,recipe,ml\n${'Nowhere,cone-thirds,250\n'.repeat(10_000)}`)],
  ];
  console.log(`  ${'route'.padEnd(52)} ${'answered'.padStart(12)} ${'others wait'.padStart(12)}`);
  const show = (what: string, { waitMs, tookMs }: { waitMs: number; tookMs: number }, rest: string) =>
    console.log(
      `  ${what.padEnd(52)} ${`${tookMs.toFixed(0)} ms`.padStart(12)} ${`${waitMs.toFixed(0)} ms`.padStart(12)}  ${rest}`,
    );
  for (const [path, init] of asked) {
    let found = { status: 0, bytes: 0 };
    const waited = await longestWait(url, async () => (found = await whole(url, path, init)));
    const kb = Math.round(found.bytes / 1000);
    show(`${init?.method ?? 'GET'} ${path.split('?')[0]}`, waited, `${found.status}, ${kb} KB`);
  }
  const behind = Math.max(0, seq - 4900);
  const abort = new AbortController();
  const streamed = await longestWait(url, async () => {
    const answer = await fetch(`${url}/api/live?after=${behind}`, { signal: abort.signal });
    let text = '';
    for await (const chunk of answer.body as unknown as AsyncIterable<Uint8Array>) {
      text = text.slice(-40) + Buffer.from(chunk).toString();
      if (text.includes(`id: ${seq}\n`)) break;
    }
  });
  abort.abort();
  show('GET /api/live, 4,900 events behind', streamed, '');
}

/** Seconds of processor time that a process has had. */
function cpuS(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

async function idle(server: ServerProcess): Promise<void> {
  const before = cpuS(server.pid());
  await pause(IDLE_MS);
  const share = ((cpuS(server.pid()) - before) / (IDLE_MS / 1000)) * 100;
  console.log(`  nobody touches the bar: ${share.toFixed(1)} % of a core over ${IDLE_MS / 1000} s`);
}

const timed = async (work: () => Promise<void>): Promise<string> => {
  const fromMs = performance.now();
  await work();
  return `${((performance.now() - fromMs) / 1000).toFixed(1)} s`;
};

const server = await openServer({ idle: true });
console.log(`  ${EVENTS} events written in ${await timed(() => fill(server.file))}`);
console.log(`  first start, every event lived: up after ${await timed(server.start)}`);
const post = { events: [{ id: uuid(), type: 'coffee-weighed', atMs: Date.now(), coffee: 'Fog', stockG: 1 }] };
await fetch(`${server.url}/api/events`, {
  method: 'POST',
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(post),
});
await pause(3000);
await server.stop();
console.log(`  started again: up after ${await timed(server.start)}`);
await routes(server.url);
await pause(4000);
await idle(server);
await server.close();
