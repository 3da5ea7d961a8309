/** A real server over a real SQLite file, anew for each test, and what is posted to it. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pathToFileURL } from 'node:url';
import { pino } from 'pino';
import request from 'supertest';
import { CARD_VERSION } from '@even-kettle/core/recipe';
import type { DataSource } from 'typeorm';
import type { ImportJob, ImportKind, Imports } from '@even-kettle/core/contract';
import { solve, type PlanProblem } from '@even-kettle/core/plan';
import { openGate } from '../access/gate';
import { accessPolicy } from '../access/hosts';
import { httpApp } from '../http/app';
import { readSetting } from '../store/settings-table';
import { proveCopy } from '../copies/prove';
import { quoterHere } from '../planning/quoter';
import { PLAIN_BAR, writeBar } from '../bench';
import { openBar, type BarServer, type BarServerParts } from '../server';
import { openDatabase } from '../store/database';

export const solver = {
  solve: (problem: PlanProblem) => {
    const plan = solve(problem);
    return Promise.resolve({ plan, cost: plan.cost, standsCost: plan.cost });
  },
  close: () => Promise.resolve(),
};
/** Where `buildImportWorker` puts the worker that reads large files in. */
const workerFile = join(__dirname, '../../dist/test/import.worker.js');
export const importWorker = pathToFileURL(workerFile);
/** The real worker, as the server's own build makes it. */
export function buildImportWorker(): void {
  const entry = join(__dirname, '../imports/import.worker.ts');
  execFileSync(process.execPath, [join(__dirname, '../../build.mjs'), entry, dirname(workerFile)]);
}
export let folder: string;
export let bar: BarServer;
/** The database behind it. */
export let source: DataSource;
/** What the bar told its log, and that it cannot go on. */
export const warned: string[] = [];
export const fatal: Error[] = [];
export let http: Server;

/** A bar over a database, without HTTP. */
export const openOver = (over: DataSource, parts: Partial<BarServerParts> = {}): Promise<BarServer> =>
  openBar({
    source: over,
    solver,
    quoter: quoterHere,
    importWorker,
    proveCopy,
    clockRate: 1,
    warn: (_detail, message) => warned.push(message),
    rules: 'test',
    fatal: (error) => fatal.push(error),
    ...parts,
  });

/** @param anew in a folder of its own, as a bar that has nothing yet */
export async function open(clockRate = 1, anew = false): Promise<void> {
  if (anew) {
    rmSync(folder, { recursive: true });
    folder = mkdtempSync(join(tmpdir(), 'even-kettle-'));
  }
  source = await openDatabase(join(folder, 'bar.sqlite'), { busyMs: 20 });
  // A bench to brew at, where the test brings none.
  const stored = await readSetting(source.manager, 'bar').catch(() => undefined);
  if (stored === null) await writeBar(source.manager, PLAIN_BAR);
  bar = await openOver(source, { clockRate });
  // Listening does not wait for a plan; most tests ask for one.
  await bar.planning.replan('bench');
  http = createServer(
    httpApp(bar, {
      checksAnswers: true,
      appDir: null,
      logger: pino({ level: 'silent' }),
      version: 'test',
      requestsPerMinute: 10_000,
      access: accessPolicy(),
      gate: openGate(null, false),
      pairing: null,
    }),
  );
  await new Promise<void>((resolve) => http.listen(0, '127.0.0.1', resolve));
}
export async function close(): Promise<void> {
  http.closeAllConnections();
  await new Promise((resolve) => http.close(resolve));
  await bar.close();
}
beforeEach(async () => {
  warned.length = fatal.length = 0;
  folder = mkdtempSync(join(tmpdir(), 'even-kettle-'));
  await open();
});
afterEach(async () => {
  await close();
  rmSync(folder, { recursive: true });
});

let ids = 0;
export const newId = () => `01890000-0000-7000-8000-${String((ids += 1)).padStart(12, '0')}`;
export const now = () => bar.clock.nowMs();
export const cup = (cupId: string, change: object = {}) => ({
  cupId,
  recipeId: 'cone-thirds',
  recipeVersion: 2,
  coffee: 'Saltmarsh',
  roast: 'light',
  cupMl: 250,
  ...change,
});
export const order = (orderId: string, ...cups: object[]) => ({
  id: newId(),
  type: 'order-taken',
  atMs: now(),
  orderId,
  cups,
});
export const start = (cupId: string, orderId: string, change: object = {}) => ({
  id: newId(),
  type: 'brew-started',
  atMs: now(),
  brewId: `${cupId}.1`,
  orderId,
  cupId,
  stationId: 'cone-1',
  stationName: 'Cone 1',
  brewerId: 'cone-m',
  altitudeM: 0,
  kettlePowerW: 1200,
  kettleFilledAtC: 90,
  prepVersion: CARD_VERSION,
  ...change,
});
export const done = (brewId: string, stepId: string, change: object = {}) => ({
  id: newId(),
  type: 'step-done',
  atMs: now(),
  brewId,
  stepId,
  ...change,
});
export const post = (...events: object[]) => request(http).post('/api/events').send({ events });
export const stored = async () => (await bar.log.after(0)).length;

/** Sends a large file, as it comes, and waits until it was looked at. */
export async function sendFile(kind: ImportKind, body: string | Buffer, name = 'a file'): Promise<ImportJob> {
  const sent = await request(http)
    .post(`/api/imports?${new URLSearchParams({ kind, name }).toString()}`)
    .set('Content-Type', kind === 'log' ? 'text/csv' : 'application/json')
    .send(body);
  return sent.status === 202 ? settled() : Promise.reject(new Error(JSON.stringify(sent.body)));
}
export async function takeFile(id: string, query = ''): Promise<ImportJob> {
  const taken = await request(http).post(`/api/imports/${id}/take${query}`);
  return taken.status === 202 ? settled() : Promise.reject(new Error(JSON.stringify(taken.body)));
}
/** The import once nothing goes on with it. */
async function settled(): Promise<ImportJob> {
  for (let tries = 0; tries < 400; tries += 1) {
    const { current } = (await request(http).get('/api/imports')).body as Imports;
    if (current && !['looking', 'taking', 'taking-out'].includes(current.phase)) return current;
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
  throw new Error('The import goes on and on.');
}

const STEPS = ['fill', 'set-filter', 'weigh', 'load', 'bloom', 'pour-2', 'pour-3', 'pour-4', 'drawdown'];

/** A brew from order to clean. The bar's clock stands still for it: each step is at its own time before now. */
export async function brewed(
  n: number,
  change: {
    brewS?: number;
    setting?: number;
    cup?: object;
    by?: string;
    guests?: (atMs: number) => object[];
  } = {},
) {
  const [orderId, cupId] = [`o${n}`, `c${n}`];
  // Ten minutes apart, so that one pair of hands can have brewed them all.
  const endMs = Math.round(now()) - 60_000 - (30 - n) * 600_000;
  const brewMs = (change.brewS ?? 187) * 1000;
  const firstMs = endMs - brewMs;
  const at = (stepId: string) =>
    ({
      fill: -90,
      'set-filter': -70,
      weigh: -40,
      load: -10,
      bloom: 10,
      'pour-2': 60,
      'pour-3': 90,
      'pour-4': 120,
    })[stepId];
  const by = change.by === undefined ? {} : { by: change.by };
  const posted = await post(
    { ...order(orderId, cup(cupId, change.cup)), atMs: firstMs - 120_000, name: `guest ${n}` },
    ...(change.guests?.(firstMs - 115_000) ?? []),
    start(cupId, orderId, {
      atMs: firstMs - 110_000,
      grinderId: 'grinder-1',
      grindSetting: change.setting ?? 20,
      roastedOn: '2026-01-01',
      ...by,
    }),
    ...STEPS.slice(0, 4).map((id) => done(`${cupId}.1`, id, { atMs: firstMs + at(id)! * 1000, ...by })),
    { id: newId(), type: 'step-begun', atMs: firstMs, brewId: `${cupId}.1`, stepId: 'bloom', ...by },
    ...STEPS.slice(4).map((id) =>
      done(`${cupId}.1`, id, { atMs: id === 'drawdown' ? endMs : firstMs + at(id)! * 1000, ...by }),
    ),
    { id: newId(), type: 'brew-served', atMs: endMs + 10_000, brewId: `${cupId}.1`, ...by },
    done(`${cupId}.1`, 'clean', { atMs: endMs + 40_000, ...by }),
  );
  expect(posted.body.errors ?? []).toEqual([]);
  return `${cupId}.1`;
}
/** Reads an archive into an empty bar, as the Bench does it. */
export async function restoreInto(other: BarServer, archive: string): Promise<void> {
  const until = async (wanted: string) => {
    for (let tries = 0; ; tries += 1) {
      const { phase, reason } = (await other.imports.shown()).current!;
      if (phase === wanted) return;
      if (reason || tries > 400) throw new Error(`${phase}: ${reason}`);
      await new Promise((resolve) => setTimeout(resolve, 25));
    }
  };
  const received = await other.imports.receive('archive', 'an archive', Readable.from([archive]));
  if (!received.ok) throw new Error(received.why);
  await until('looked');
  await other.imports.take(received.answer.id, false);
  await until('taken');
}
export const taste = (brewId: string, said: object) =>
  post({ id: newId(), type: 'cup-tasted', atMs: now(), brewId, taste: said });
export const get = async (path: string) => (await request(http).get(path)).body;
/** A file that the bar gives out, as text whatever its type. */
export const textOf = async (path: string): Promise<string> =>
  (await request(http).get(path).buffer(true).parse(textParser)).body as unknown as string;
const textParser = (response: request.Response, done: (error: Error | null, body: string) => void) => {
  const stream = response as unknown as NodeJS.ReadableStream;
  let text = '';
  stream.on('data', (part: Buffer) => (text += part.toString('utf8')));
  stream.on('end', () => done(null, text));
};
