/**
 * `npm run soak`: while a scripted bar works over HTTP, the server is killed (SIGKILL) again and again at random moments;
 * then the same with the client's network cut. Nothing acknowledged may be lost or doubled.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, connect, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import {
  forgetClosed,
  holdsStation,
  reduce,
  timelineAt,
  type BarEvent,
  type BarState,
} from '@even-kettle/core/brew';
import type { Snapshot } from '@even-kettle/core/contract';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { seededRandom } from '@even-kettle/core/rush';
import { FIRST_BAR } from '../bench';
import { openDatabase } from '../store/database';
import { scriptedBar, type ScriptedBar } from './scripted-bar';

const KILLS = Number(process.env['KILLS'] ?? 200);
const CUTS = Number(process.env['CUTS'] ?? 200);
const SEED = Number(process.env['SOAK_SEED'] ?? Date.now() % 1_000_000);
const RATE = 600;
const main = fileURLToPath(new URL('./main.js', import.meta.url));
const random = seededRandom(SEED);
const between = (from: number, to: number) => from + random() * (to - from);
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

type Running = {
  url: string;
  file: string;
  kill: () => Promise<void>;
  start: () => Promise<void>;
  close: () => Promise<void>;
};

async function openServer(): Promise<Running> {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-soak-'));
  const file = join(folder, 'bar.sqlite');
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  let child: ChildProcess | null = null;
  const start = async () => {
    child = spawn(process.execPath, [main], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: {
        ...process.env,
        PORT: String(port),
        EVEN_KETTLE_DB: file,
        BAR_CLOCK_RATE: String(RATE),
        LOG_LEVEL: 'fatal',
      },
    });
    for (let tries = 0; tries < 400; tries += 1) {
      if (
        await fetch(`${url}/api/health`).then(
          ({ ok }) => ok,
          () => false,
        )
      )
        return;
      await pause(25);
    }
    throw new Error('The server did not come up in 10 s.');
  };
  const kill = async () => {
    const dying = child;
    if (!dying || dying.exitCode !== null || dying.signalCode !== null) return;
    const gone = new Promise((resolve) => dying.once('exit', resolve));
    dying.kill('SIGKILL');
    await gone;
  };
  await start();
  return {
    url,
    file,
    start,
    kill,
    close: async () => (await kill(), rmSync(folder, { recursive: true, force: true })),
  };
}

/** What stands between a client and the server, and can be cut in mid-word. */
async function openProxy(to: string) {
  const port = Number(new URL(to).port);
  const open = new Set<Socket>();
  let up = true;
  const server = createServer((near) => {
    if (!up) return void near.destroy();
    const far = connect(port, '127.0.0.1');
    for (const [one, other] of [
      [near, far],
      [far, near],
    ] as const) {
      open.add(one);
      one.on('error', () => one.destroy());
      one.on('close', () => (open.delete(one), other.destroy()));
      one.pipe(other);
    }
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  return {
    url: `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`,
    cut: () => {
      up = false;
      for (const socket of open) socket.destroy();
    },
    join: () => (up = true),
    close: () => server.close(),
  };
}

/** What is wrong with what was kept; empty where nothing is. */
async function faultsOf(server: Running, bar: ScriptedBar): Promise<string[]> {
  const faults: string[] = [];
  const { state: served } = (await (await fetch(`${server.url}/api/state`)).json()) as Snapshot;
  await server.kill();
  const source = await openDatabase(server.file);
  const [check] = await source.query('PRAGMA integrity_check');
  if (check.integrity_check !== 'ok') faults.push(`SQLite: ${check.integrity_check}`);
  const rows = (await source.query('SELECT seq, id, body FROM event ORDER BY seq')) as {
    seq: number;
    id: string;
    body: string;
  }[];
  await source.destroy();
  const ids = new Set(rows.map(({ id }) => id));
  if (ids.size !== rows.length) faults.push(`${rows.length - ids.size} events stored twice`);
  rows.forEach(({ seq }, index) => {
    if (seq !== index + 1) faults.push(`a gap in the log at ${index + 1}`);
  });
  const lost = [...bar.acknowledged].filter((id) => !ids.has(id));
  if (lost.length > 0) faults.push(`${lost.length} acknowledged events lost`);
  const back = [...bar.refused.keys()].filter((id) => ids.has(id));
  if (back.length > 0) faults.push(`${back.length} refused events stored`);
  const { state, refused } = reduce(
    rows.map(({ body }) => JSON.parse(body) as BarEvent),
    bookOf(SCHOOLS),
  );
  if (refused.length > 0) faults.push(`${refused.length} stored events that the rules refuse`);
  faults.push(...impossible(state));
  const lastMs = Math.max(...rows.map(({ body }) => (JSON.parse(body) as BarEvent).atMs));
  const same = (a: BarState, b: BarState) =>
    sorted(forgetClosed(a, lastMs)) === sorted(forgetClosed(b, lastMs));
  if (!same(state, served)) faults.push('what the server shows is not what its log makes');
  if (!same(bar.state(), served)) faults.push('the client ended with another state than the server');
  if (bar.waiting() > 0) faults.push(`${bar.waiting()} taps still wait`);
  console.log(
    `  ${rows.length} events stored, ${bar.acknowledged.size} acknowledged, ${bar.refused.size} refused and told, ${bar.tries()} posts; ${Object.keys(state.orders).length} orders, ${Object.values(state.brews).filter(({ status }) => status === 'cleaned').length} cups out`,
  );
  return faults;
}

function impossible(state: BarState): string[] {
  const brews = Object.values(state.brews);
  const held = brews.filter(holdsStation).map(({ stationId }) => stationId);
  const faults = new Set(held).size === held.length ? [] : ['two brews hold one station'];
  for (const order of Object.values(state.orders))
    for (const cup of order.cups) {
      const running = cup.brewIds.filter((id) => state.brews[id]?.status === 'running').length;
      if (running !== (cup.status === 'brewing' ? 1 : 0))
        faults.push(`cup ${cup.cupId} has ${running} running brews`);
    }
  for (const brew of brews) {
    let endMs = brew.startedMs;
    for (const { status, startMs, endMs: overMs } of timelineAt(brew, brew.lastMs)) {
      if (status !== 'done' || brew.abandoned) continue;
      if (startMs < endMs || overMs < startMs) faults.push(`${brew.id} runs backwards`);
      endMs = overMs;
    }
  }
  return faults;
}

/** JSON with its keys in order, so that the same state is the same text. */
const sorted = (value: unknown): string =>
  JSON.stringify(value, (_key, inner: unknown) =>
    inner !== null && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

async function killed(): Promise<string[]> {
  console.log(`▸ ${KILLS} times SIGKILL at random moments`);
  const server = await openServer();
  const bar = scriptedBar(server.url, FIRST_BAR, random);
  let over = false;
  const working = bar.work(() => over);
  for (let kills = 0; kills < KILLS; kills += 1) {
    await pause(between(15, 450));
    await server.kill();
    await pause(between(0, 60));
    await server.start();
    if ((kills + 1) % 50 === 0)
      console.log(`  ${kills + 1} kills, ${bar.acknowledged.size} events acknowledged`);
  }
  over = true;
  await working;
  await bar.settle();
  const faults = await faultsOf(server, bar);
  await server.close();
  return faults;
}

async function cut(): Promise<string[]> {
  console.log(`▸ the client’s network cut ${CUTS} times`);
  const server = await openServer();
  const proxy = await openProxy(server.url);
  const bar = scriptedBar(proxy.url, FIRST_BAR, random);
  let over = false;
  const working = bar.work(() => over);
  for (let cuts = 0; cuts < CUTS; cuts += 1) {
    await pause(between(10, 300));
    proxy.cut();
    await pause(between(5, 150));
    proxy.join();
  }
  over = true;
  await working;
  await bar.settle();
  const faults = await faultsOf(server, bar);
  proxy.close();
  await server.close();
  return faults;
}

console.log(`Soak, seed ${SEED}`);
const faults = [...(await killed()), ...(await cut())];
for (const fault of faults) console.error(`✗ ${fault}`);
console.log(faults.length === 0 ? '✓ nothing lost, doubled or impossible' : `${faults.length} faults`);
process.exit(faults.length === 0 ? 0 : 1);
