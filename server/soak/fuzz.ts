/**
 * `npm run fuzz`: thousands of requests made from the API's own description, most of them wrong in some way. A refusal
 * changes nothing; nothing is answered 5xx, hangs for over a second or is written by halves; and a server that is started
 * anew is the same bar.
 */
import { createHash } from 'node:crypto';
import { connect } from 'node:net';
import { openOrders, type BarEvent } from '@even-kettle/core/brew';
import type { Snapshot } from '@even-kettle/core/contract';
import { seededRandom } from '@even-kettle/core/rush';
import type { RouteId } from '@even-kettle/core/contract/addresses';
import { ROUTE_ROLES, type Asker } from '@even-kettle/core/contract/roles';
import { canonical } from '../src/store/canonical';
import { openDatabase } from '../src/store/database';
import { AT_THE_MACHINE, pairedAskers, type Askers } from './askers';
import { requestMaker, type ApiDocument, type Pool, type RandomRequest } from './random-requests';
import { openServer, type ServerProcess } from './server-process';

const REQUESTS = Number(process.env['REQUESTS'] ?? 20_000);
const SEED = Number(process.env['FUZZ_SEED'] ?? Date.now() % 1_000_000);
const HANG_MS = 1000;
/** As many orders as a bar in a rush has. */
const OPEN_ORDERS = 12;
const random = seededRandom(SEED);
const pick = <Item>(items: readonly Item[]): Item => items[Math.floor(random() * items.length)]!;

type Answer = { status: number; ms: number; body: unknown };

/** What streams goes on for as long as it is read. */
const STREAMS: ReadonlySet<string> = new Set(['live', 'liveBoard', 'liveCup']);
/** Each request is of another role, or of none (`server/soak/askers.ts`). */
const asRoles = process.env['ROLES'] === 'on';
const faults: string[] = [];
const counts = new Map<string, number>();
const slowest = new Map<string, number>();

async function ask(
  url: string,
  { method, path, headers, body }: Omit<RandomRequest, 'operation'>,
): Promise<Answer> {
  const fromMs = performance.now();
  const answer = await fetch(`${url}${path}`, {
    method,
    headers,
    ...(body === undefined ? {} : { body }),
    signal: AbortSignal.timeout(10_000),
  });
  const text = await answer.text();
  return { status: answer.status, ms: performance.now() - fromMs, body: parsed(text) };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

/** Everything that a refusal may not change. */
async function hashOf(url: string): Promise<{ hash: string; snapshot: Snapshot }> {
  const { body } = await ask(url, { method: 'GET', path: '/api/state', headers: askers.lead });
  const snapshot = body as Snapshot;
  const { pace: _pace, beds: _beds, promiseShares: _promiseShares, ...bar } = snapshot.bar;
  const kept = { seq: snapshot.seq, state: snapshot.state, bar, recipes: snapshot.recipes };
  return { hash: createHash('sha256').update(canonical(kept)).digest('hex'), snapshot };
}

function poolOf({ state, bar, recipes, barMs }: Snapshot): Pool {
  const orders = Object.values(state.orders);
  return {
    nowMs: Math.round(barMs),
    ids: [
      'cone-thirds',
      'press-long',
      ...orders
        .flatMap(({ id, cups }) => [id, ...cups.flatMap(({ cupId, brewIds }) => [cupId, ...brewIds])])
        .slice(-60),
      ...Object.values(state.brews)
        .flatMap(({ card }) => card.steps.map(({ id }) => id))
        .slice(-20),
      ...bar.stations.map(({ id }) => id),
      ...bar.kettles.map(({ id }) => id),
      ...recipes.map(({ id }) => id).slice(-5),
    ],
  };
}

/** Sensible orders now and then, so that there is a bar to be wrong about. */
const anOrder = (nowMs: number, n: number) => ({
  events: [
    {
      id: `01890000-0000-7000-9000-${String(n).padStart(12, '0')}`,
      type: 'order-taken',
      atMs: nowMs,
      orderId: `order-${n}`,
      cups: [
        {
          cupId: `cup-${n}`,
          recipeId: pick(['cone-thirds', 'press-long']),
          recipeVersion: 1,
          coffee: 'House coffee',
          roast: 'medium',
          cupMl: 250,
        },
      ],
    },
  ],
});

/** Lines that no program sends. The connection may be cut; the server may not end. */
const RAW = [
  'GET // HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n\r\n',
  'GET /api/bridge HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: Upgrade\r\nUpgrade: h2c\r\n\r\n',
  'GET /nowhere HTTP/1.1\r\nHost: evil.example\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n\r\n',
  'POST /api/events HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 99999999\r\n\r\n{',
  'GET /api/%zz HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n',
  'GET /api/state HTTP/9.9\r\n\r\n',
  '\u0000\u0001\u0002\r\n\r\n',
];
const raw = (url: string, text: string): Promise<void> =>
  new Promise((resolve) => {
    const socket = connect(Number(new URL(url).port), '127.0.0.1', () => socket.write(text));
    socket.on('error', () => undefined);
    socket.on('close', () => resolve());
    setTimeout(() => socket.resetAndDestroy(), 5);
  });

const accepted = new Set<string>();
const refused = new Set<string>();

function note(request: RandomRequest, answer: Answer): void {
  const kind = `${request.method} ${request.operation}`;
  const class_ = `${Math.floor(answer.status / 100)}xx`;
  counts.set(class_, (counts.get(class_) ?? 0) + 1);
  slowest.set(kind, Math.max(slowest.get(kind) ?? 0, answer.ms));
  const said = `${kind} ${request.path.slice(0, 120)} ${request.body?.slice(0, 400) ?? ''}`;
  if (answer.status >= 500)
    faults.push(`${answer.status}: ${said} ${JSON.stringify(answer.body).slice(0, 300)}`);
  if (answer.ms > HANG_MS) faults.push(`${Math.round(answer.ms)} ms: ${said}`);
  if (answer.status >= 400 && typeof (answer.body as { detail?: unknown } | null)?.detail !== 'string')
    faults.push(`${answer.status} without a reason: ${said}`);
  if (request.operation !== 'postEvents') return;
  const ids = idsOf(request.body);
  const into = answer.status === 200 ? accepted : refused;
  for (const id of ids) into.add(id);
}

function idsOf(body: string | undefined): string[] {
  const events = (parsed(body ?? '') as { events?: unknown } | null)?.events;
  if (!Array.isArray(events)) return [];
  return events.flatMap((event: { id?: unknown } | null) =>
    typeof event?.id === 'string' ? [event.id] : [],
  );
}

/** Whoever may not is refused, and whoever may is not refused for their role. */
function judge({ operation, method, path, body }: RandomRequest, asker: Asker, answer: Answer): void {
  const may = ROUTE_ROLES[operation as RouteId].includes(asker);
  const isForRole = answer.status === 401 || codeOf(answer) === 'not-for-this-role';
  if (may ? isForRole : answer.status < 400)
    faults.push(`${asker} was answered ${answer.status}: ${method} ${path} ${body?.slice(0, 300) ?? ''}`);
}

const codeOf = ({ body }: Answer): string | undefined =>
  (body as { type?: string } | null)?.type?.split(':').at(-1);

async function attack(server: ServerProcess): Promise<void> {
  const document = (await ask(server.url, { method: 'GET', path: '/api/openapi.json', headers: askers.lead }))
    .body as ApiDocument;
  const make = requestMaker(document, random);
  let { hash, snapshot } = await hashOf(server.url);
  for (let n = 0; n < REQUESTS; n += 1) {
    if (n % 50 === 0) ({ hash, snapshot } = await hashOf(server.url));
    if (n % 97 === 0) await raw(server.url, pick(RAW));
    const request: RandomRequest =
      n % 40 === 0 && openOrders(snapshot.state).length < OPEN_ORDERS
        ? {
            operation: 'postEvents',
            method: 'POST',
            path: '/api/events',
            headers: { 'Content-Type': 'application/json' },
            body: JSON.stringify(anOrder(Math.round(snapshot.barMs), n)),
          }
        : make(poolOf(snapshot));
    if (STREAMS.has(request.operation)) continue;
    const asker = asRoles ? pick(Object.keys(askers) as Asker[]) : 'lead';
    Object.assign(request.headers, askers[asker]);
    const answer = await ask(server.url, request).catch((error: unknown) => {
      faults.push(
        `no answer: ${request.method} ${request.path} ${request.body?.slice(0, 300) ?? ''}: ${String(error)}`,
      );
      return null;
    });
    if (!answer) continue;
    note(request, answer);
    if (asRoles) judge(request, asker, answer);
    if (request.method === 'GET') continue;
    const now = await hashOf(server.url);
    if (answer.status >= 400 && now.hash !== hash)
      faults.push(
        `a refusal changed the bar: ${request.method} ${request.path} ${request.body?.slice(0, 400) ?? ''}`,
      );
    ({ hash, snapshot } = now);
    if ((n + 1) % 5000 === 0) console.log(`  ${n + 1} requests, ${faults.length} faults`);
  }
}

async function afterwards(server: ServerProcess): Promise<void> {
  const before = await hashOf(server.url);
  const code = await server.stop();
  if (code !== 0) faults.push(`the server ended with code ${code}`);
  await server.start();
  const after = await hashOf(server.url);
  if (after.hash !== before.hash) faults.push('a server that is started anew shows another bar');
  await server.stop();
  const source = await openDatabase(server.file);
  const rows = await source.query<{ id: string; body: string }[]>('SELECT id, body FROM event');
  const stored = new Map(rows.map(({ id, body }) => [id, JSON.parse(body) as BarEvent]));
  await source.destroy();
  for (const id of accepted) if (!stored.has(id)) faults.push(`acknowledged and not stored: ${id}`);
  for (const id of refused) if (stored.has(id) && !accepted.has(id)) faults.push(`refused and stored: ${id}`);
  console.log(`  ${rows.length} events stored, ${accepted.size} acknowledged, ${refused.size} refused`);
  if (server.died() > 0) faults.push(`the server ended by itself ${server.died()} times`);
}

console.log(`Fuzz, seed ${SEED}, ${REQUESTS} requests`);
const fromMs = performance.now();
let askers: Askers = AT_THE_MACHINE;
const server = await openServer({ isOnNetwork: asRoles, idle: asRoles });
if (asRoles) {
  askers = await pairedAskers(server.file);
  await server.start();
}
await attack(server);
await afterwards(server);
await server.close();
console.log(
  `  ${[...counts]
    .sort()
    .map(([kind, many]) => `${kind} ${many}`)
    .join(', ')}; ${Math.round((performance.now() - fromMs) / 1000)} s`,
);
for (const [kind, ms] of [...slowest].sort(([, a], [, b]) => b - a).slice(0, 5))
  console.log(`  slowest: ${kind} ${Math.round(ms)} ms`);
for (const fault of faults.slice(0, 20)) console.error(`✗ ${fault}`);
console.log(faults.length === 0 ? '✓ no 5xx, no hang, nothing by halves' : `${faults.length} faults`);
process.exit(faults.length === 0 ? 0 : 1);
