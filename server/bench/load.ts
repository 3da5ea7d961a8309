/**
 * A server under more than a bar's load: pages that listen, events that come, questions over a long log, and devices that ask and
 * then say nothing. Run by `npm run bench -- load`; MINUTES, PER_S, STREAMS and BREWS change it.
 */
import { readFileSync } from 'node:fs';
import { connect, type Socket } from 'node:net';
import { openDatabase } from '../src/store/database';
import { reduce } from '@even-kettle/core/brew';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { LANTERN_PIER, twoWeeksBefore } from '../src/demo/benches';
import { writeBar } from '../src/bench';
import { recordOf } from '../src/record';
import { rowOfRecord } from '../src/store/records';
import { BrewRecordRow, FileImportRow } from '../src/store/rows';
import { openServer, type ServerProcess } from '../soak/server-process';
import { livesOfOneCup } from './lives';

const MINUTES = Number(process.env['MINUTES'] ?? 8);
const PER_S = Number(process.env['PER_S'] ?? 20);
const STREAMS = Number(process.env['STREAMS'] ?? 30);
const BREWS = Number(process.env['BREWS'] ?? 100_000);
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const lives = livesOfOneCup(Date.now());
let next = 0;

/** Posts events one by one at their pace for some time; gives how long each took to be acknowledged, milliseconds. */
async function posted(url: string, forS: number): Promise<number[]> {
  const times: number[] = [];
  const untilMs = performance.now() + forS * 1000;
  let dueMs = performance.now();
  while (performance.now() < untilMs) {
    for (const event of lives((next += 1), Date.now())) {
      dueMs += 1000 / PER_S;
      await pause(Math.max(0, dueMs - performance.now()));
      const fromMs = performance.now();
      const answer = await fetch(`${url}/api/events`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ events: [{ ...event, atMs: Date.now() }] }),
      });
      if (!answer.ok) throw new Error(await answer.text());
      times.push(performance.now() - fromMs);
    }
  }
  return times;
}

const at = (times: number[], share: number) =>
  `${[...times].sort((a, b) => a - b)[Math.floor(share * (times.length - 1))]!.toFixed(0)} ms`;
const shown = (times: number[]) =>
  `${times.length} events, acknowledged p50 ${at(times, 0.5)}, p99 ${at(times, 0.99)}, worst ${at(times, 1)}`;
const memoryMb = (server: ServerProcess): string =>
  `${Math.round(Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid()}/status`, 'utf8'))![1]) / 1024)} MB`;

function listen(url: string, signal: AbortSignal): void {
  void (async () => {
    const answer = await fetch(`${url}/api/live`, { signal });
    for await (const _part of answer.body as unknown as AsyncIterable<Uint8Array>);
  })().catch(() => undefined);
}

async function steady(server: ServerProcess): Promise<void> {
  const leaving = new AbortController();
  for (let n = 0; n < STREAMS; n += 1) listen(server.url, leaving.signal);
  for (let minute = 1; minute <= MINUTES; minute += 1)
    console.log(`  minute ${minute}: ${shown(await posted(server.url, 60))}; memory ${memoryMb(server)}`);
  leaving.abort();
}

/** Brews as if from a table of another program. */
async function importBrews(file: string): Promise<void> {
  const source = await openDatabase(file);
  await source.query('PRAGMA synchronous = OFF');
  await writeBar(source.manager, LANTERN_PIER);
  const { state } = reduce(twoWeeksBefore(Date.now()), bookOf(SCHOOLS));
  const patterns = Object.values(state.brews).flatMap((brew) => recordOf(state, brew) ?? []);
  await source.manager.insert(FileImportRow, {
    id: 'table',
    name: 'table.csv',
    state: 'kept',
    brews: BREWS,
    atMs: 0,
  });
  for (let first = 0; first < BREWS; first += 500)
    await source.transaction(async (manager) => {
      const rows = Array.from({ length: Math.min(500, BREWS - first) }, (_, k) => {
        const pattern = patterns[(first + k) % patterns.length]!;
        const brewId = `table-${first + k}`;
        return rowOfRecord(
          { ...pattern, brewId, endedMs: Math.round(Date.now() - (first + k) * 432_000) },
          'table',
        );
      });
      await manager.insert(BrewRecordRow, rows);
    });
  await source.destroy();
}

async function asked(server: ServerProcess): Promise<void> {
  const paths = [
    '/api/log?limit=200',
    '/api/log?limit=200&search=nobody%20said%20this',
    '/api/log?coffee=Saltmarsh&taste=bitter',
    '/api/learnt?recipeId=cone-thirds&coffee=Saltmarsh',
    `/api/day?fromMs=${Date.now() - 2 * 86_400_000}&toMs=${Date.now()}`,
    '/api/house',
    '/api/hands',
  ];
  let over = false;
  const took: number[] = [];
  const asking = (async () => {
    for (let n = 0; !over; n += 1) {
      const fromMs = performance.now();
      await (await fetch(`${server.url}${paths[n % paths.length]!}`)).arrayBuffer();
      took.push(performance.now() - fromMs);
    }
  })();
  const times = await posted(server.url, 30);
  over = true;
  await asking;
  console.log(
    `  asked ${took.length} times meanwhile (p50 ${at(took, 0.5)}, worst ${at(took, 1)}): ${shown(times)}`,
  );
}

/** Bodies that come a byte a second, and sockets that say nothing at all. */
async function slow(server: ServerProcess): Promise<void> {
  const port = Number(new URL(server.url).port);
  const sockets: Socket[] = [];
  const open = (greeting: string) => {
    const socket = connect(port, '127.0.0.1').on('error', () => undefined);
    if (greeting) socket.write(greeting);
    sockets.push(socket);
    return socket;
  };
  const head = `POST /api/events HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Type: application/json\r\nContent-Length: 200000\r\n\r\n{`;
  const dripping = Array.from({ length: 400 }, () => open(head));
  for (let n = 0; n < 300; n += 1) open('');
  const drip = setInterval(() => dripping.forEach((socket) => socket.writable && socket.write(' ')), 1000);
  const times = await posted(server.url, 30);
  clearInterval(drip);
  console.log(`  400 bodies that drip and 300 silent sockets: ${shown(times)}; memory ${memoryMb(server)}`);
  for (const socket of sockets) socket.destroy();
}

const server = await openServer();
console.log(`  ${STREAMS} pages listen, ${PER_S} events a second`);
await steady(server);
await slow(server);
await server.close();
const long = await openServer({ idle: true });
await importBrews(long.file);
await long.start();
console.log(`  ${BREWS} brews from a table`);
await asked(long);
await long.close();
