/** Who may do what: every route and every kind of event with every role and with none, and how each comes in and goes. */
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createServer, get as getOf, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { WebSocket } from 'ws';
import { EVENT_KINDS, type BarEventType } from '@even-kettle/core/brew';
import { ADDRESSES, addressOf, type RouteId } from '@even-kettle/core/contract/addresses';
import {
  DEVICE_ROLES,
  EVENT_ROLES,
  KEY_ROLES,
  ROLES,
  ROUTE_ROLES,
  type Asker,
} from '@even-kettle/core/contract/roles';
import { accessPolicy } from './hosts';
import { openAccessDatabase } from './credential-rows';
import { INVITATION_MS, openCredentials, type Credentials } from './credentials';
import { openGate } from './gate';
import { httpApp } from '../http/app';
import { bar, folder, order, cup } from '../testing/bar';

const DAY_MS = 86_400_000;
let credentials: Credentials;
let server: Server;
let realMs: number;
let written: string[];

beforeEach(async () => {
  realMs = Date.UTC(2026, 5, 1);
  written = [];
  credentials = await openCredentials(
    await openAccessDatabase(join(folder, 'network', 'access.sqlite')),
    () => realMs,
  );
  const gate = openGate(credentials, true);
  server = createServer(
    httpApp(bar, {
      checksAnswers: true,
      appDir: null,
      logger: pino({ level: 'debug' }, { write: (line: string) => void written.push(line) }),
      version: 'test',
      requestsPerMinute: 100_000,
      access: accessPolicy(),
      gate,
      pairing: { credentials, addresses: () => ['https://bar.local'], fingerprint: () => null },
    }),
  );
  bar.devices.attach(server, accessPolicy(), gate);
  credentials.onEnded((id) => {
    bar.broadcaster.expel(id);
    bar.outlookStreams.expel(id);
    bar.devices.expel(id);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterEach(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await credentials.close();
});

const COOKIE = '__Host-even-kettle';
type Headers = Record<string, string>;
/** A device or key of a role, with what it sends along. */
async function joined(role: Asker): Promise<{ id: string; token: string; headers: Headers }> {
  if (role === 'nobody') return { id: '', token: '', headers: {} };
  const key = KEY_ROLES.find((each) => each === role);
  if (key) {
    const made = (await credentials.makeKey(key, key))!;
    return { id: made.id, token: made.key, headers: { Authorization: `Bearer ${made.key}` } };
  }
  const device = DEVICE_ROLES.find((each) => each === role)!;
  const { link } = await credentials.invite({ role: device, name: device }, 'link');
  realMs += 60_001;
  const paired = await credentials.pair(link);
  if (!paired.ok) throw new Error(paired.why);
  return { id: paired.known.id, token: paired.token, headers: { Cookie: `${COOKIE}=${paired.token}` } };
}
const asked = (headers: Headers, method: string, path: string, body?: object) => {
  const verb = method.toLowerCase() as 'get' | 'post' | 'patch' | 'delete';
  const sent = request(server)[verb](path).set(headers);
  return body ? sent.send(body) : sent;
};
const codeOf = (text: string) => /urn:even-kettle:problem:([\w-]+)/.exec(text)?.[1];
/** The status of a request, and why; a stream is left as soon as it has begun. */
const outcome = (headers: Headers, id: RouteId): Promise<{ status: number; code: string | undefined }> =>
  new Promise((resolve, reject) => {
    const { method, path } = addressOf(id);
    if (!/^live/.test(id))
      return asked(headers, method, path.replace('{id}', 'x'), method === 'GET' ? undefined : {})
        .buffer(true)
        .then(({ status, text }) => resolve({ status, code: codeOf(text ?? '') }), reject);
    const { port } = server.address() as AddressInfo;
    getOf({ port, path: path.replace('{id}', 'x'), headers }, (answer: IncomingMessage) => {
      resolve({ status: answer.statusCode!, code: undefined });
      answer.destroy();
    }).on('error', reject);
  });

test.each([...ROLES, 'nobody'] as const)('%s may use the routes of its table, and no other', async (role) => {
  const { headers, id: own } = await joined(role);
  // So that nothing that is taken away is the last of its kind.
  if (role !== 'lead') await joined('lead');
  for (const id of Object.keys(ADDRESSES) as RouteId[]) {
    const { status, code } = await outcome(headers, id);
    const refused = status === 401 || (status === 403 && code !== 'wrong-code');
    expect([id, refused ? status : 'let in']).toEqual([
      id,
      ROUTE_ROLES[id].includes(role) ? 'let in' : role === 'nobody' ? 401 : 403,
    ]);
  }
  expect(credentials.all().some(({ id }) => id === own)).toBe(role !== 'nobody');
});

test.each([...ROLES, 'nobody'] as const)(
  '%s may post the events of its table, and no other',
  async (role) => {
    const { headers } = await joined(role);
    for (const type of Object.keys(EVENT_KINDS) as BarEventType[]) {
      const { status } = await asked(headers, 'POST', '/api/events', { events: [{ type }] });
      const may = EVENT_ROLES[EVENT_KINDS[type].moves].includes(role);
      expect([type, status]).toEqual([type, may ? 422 : role === 'nobody' ? 401 : 403]);
    }
    const real = await asked(headers, 'POST', '/api/events', { events: [order('a', cup('a-1'))] });
    expect(real.status === 200).toBe(role === 'lead' || role === 'barista');
  },
);

test('a code pairs one device, within five minutes; ten tries a minute are looked at, from everybody together', async () => {
  const lead = await joined('lead');
  const invite = async () =>
    (
      await asked(lead.headers, 'POST', '/api/access/invitations', {
        role: 'barista',
        name: 'Phone',
        person: 'noor',
      })
    ).body as { code: string; link: string; untilMs: number };
  const pair = (secret: string) => asked({}, 'POST', '/api/pair', { secret });
  const first = await invite();
  expect(first.code).toMatch(/^\d{6}$/);
  const paired = await pair(first.code);
  expect(paired.body.device).toMatchObject({ name: 'Phone', role: 'barista', person: 'noor' });
  const cookie = paired.get('Set-Cookie')![0]!;
  expect(cookie).toMatch(
    /^__Host-even-kettle=[\w-]{43}; Max-Age=\d+; Path=\/; HttpOnly; Secure; SameSite=Strict$/,
  );
  // Good once, by its code and by its link.
  expect((await pair(first.code)).status).toBe(403);
  expect((await pair(first.link.split('#')[1]!)).status).toBe(403);
  const late = await invite();
  realMs += INVITATION_MS + 1;
  expect((await pair(late.code)).status).toBe(403);
  const good = await invite();
  for (let n = 0; n < 9; n += 1)
    expect((await pair(`${(Number(good.code) + 1 + n) % 1e6}`.padStart(6, '0'))).status).toBe(403);
  expect((await pair(good.code)).status).toBe(429);
  realMs += 60_001;
  expect((await pair(good.code)).status).toBe(201);
  // Neither tokens nor codes are on the disk, nor in what is written down.
  const token = /=([\w-]{43});/.exec(cookie)![1]!;
  const disk = ['access.sqlite', 'access.sqlite-wal'].map((name) =>
    readFileSync(join(folder, 'network', name), 'latin1'),
  );
  for (const text of [...disk, ...written]) {
    expect(text).not.toContain(token);
    expect(text).not.toContain(lead.token);
  }
  expect(written.length).toBeGreaterThan(10);
});

test('a device that is revoked is out at once: its streams end, its taps are refused, and it is told so', async () => {
  const lead = await joined('lead');
  const phone = await joined('barista');
  const { port } = server.address() as AddressInfo;
  const stream = await new Promise<IncomingMessage>((resolve) =>
    getOf({ port, path: '/api/live', headers: phone.headers }, resolve),
  );
  let heard = '';
  stream.on('data', (data: Buffer) => (heard += data.toString()));
  const ended = once(stream, 'end');
  expect((await asked(lead.headers, 'DELETE', `/api/access/${phone.id}`)).status).toBe(204);
  await ended;
  expect(heard).toContain('event: me\n');
  const refused = await asked(phone.headers, 'POST', '/api/events', { events: [order('a', cup('a-1'))] });
  expect([refused.status, codeOf(refused.text)]).toEqual([401, 'revoked']);
  expect(bar.log.state().orders).toEqual({});
  // It stays out when the server is started anew.
  const again = await openCredentials(
    await openAccessDatabase(join(folder, 'network', 'access.sqlite')),
    () => realMs,
  );
  expect(again.find(phone.token, false)).toEqual({ ok: false, why: 'revoked' });
  expect(again.find(lead.token, false)).toMatchObject({ ok: true });
  await again.close();
  // Somebody must be able to let others in.
  expect((await asked(lead.headers, 'DELETE', `/api/access/${lead.id}`)).status).toBe(409);
  expect((await asked(lead.headers, 'PATCH', `/api/access/${lead.id}`, { role: 'board' })).status).toBe(409);
});

test('a device that gets another role has it at once', async () => {
  const lead = await joined('lead');
  const phone = await joined('barista');
  expect((await asked(phone.headers, 'PATCH', '/api/bar', { roomC: 20 })).status).toBe(403);
  await asked(lead.headers, 'PATCH', `/api/access/${phone.id}`, { role: 'lead', name: 'Noor’s phone' });
  expect((await asked(phone.headers, 'PATCH', '/api/bar', { roomC: 20 })).status).toBe(200);
  expect((await asked(phone.headers, 'GET', '/api/state')).body.me.device).toMatchObject({
    name: 'Noor’s phone',
    role: 'lead',
  });
});

test('a token is renewed after a week; the one before goes on until its successor has arrived', async () => {
  const phone = await joined('barista');
  const look = (headers: Headers) => asked(headers, 'GET', '/api/clock');
  expect((await look(phone.headers)).get('Set-Cookie')).toBeUndefined();
  realMs += 8 * DAY_MS;
  const renewed = await look(phone.headers);
  const next = { Cookie: renewed.get('Set-Cookie')![0]!.split(';')[0]! };
  // The answer was lost: the old one still does, and gets another successor a while later.
  expect((await look(phone.headers)).get('Set-Cookie')).toBeUndefined();
  realMs += 61_000;
  const other = { Cookie: (await look(phone.headers)).get('Set-Cookie')![0]!.split(';')[0]! };
  expect((await look(next)).status).toBe(401);
  expect((await look(other)).status).toBe(200);
  expect((await look(phone.headers)).status).toBe(200);
  realMs += 61_000;
  expect((await look(phone.headers)).status).toBe(401);
  expect((await look(other)).status).toBe(200);
  // One that was not here for more than a year is paired anew.
  realMs += 401 * DAY_MS;
  expect((await look(other)).status).toBe(401);
});

test('a till posts orders by its key and reads its own, and nothing else; the order says which till it was', async () => {
  const lead = await joined('lead');
  const made = await asked(lead.headers, 'POST', '/api/access/keys', { role: 'till', name: 'Counter till' });
  const till = { Authorization: `Bearer ${made.body.key as string}` };
  const other = (await joined('till')).headers;
  const asks = { key: 'bill-7', cups: [{ coffeeId: 'saltmarsh', recipeId: 'cone-thirds', cupMl: 250 }] };
  await bar.change({
    coffees: [{ id: 'saltmarsh', name: 'Saltmarsh', roast: 'light', notes: '', decaf: false }],
  });
  const taken = await asked(till, 'POST', '/api/orders', asks);
  expect(taken.status).toBe(201);
  const [placed] = Object.values(bar.log.state().orders);
  expect(placed!.events[0]).toMatchObject({ till: 'Counter till' });
  expect((await asked(till, 'GET', '/api/orders/bill-7')).body).toMatchObject({
    orderId: taken.body.orderId,
    cups: ['waiting'],
  });
  expect((await asked(other, 'GET', '/api/orders/bill-7')).status).toBe(404);
  // One that asks too often waits, and no other with it.
  for (let n = 0; n < 60; n += 1) await asked(other, 'GET', '/api/orders/bill-7');
  expect((await asked(other, 'GET', '/api/orders/bill-7')).status).toBe(429);
  expect((await asked(till, 'GET', '/api/orders/bill-7')).status).toBe(200);
  // The guest follows it by the address of the slip, with no key and no device; nobody follows another.
  const follow = new URL(taken.body.follow as string).pathname.replace('/cup/', '/api/cups/');
  expect((await asked({}, 'GET', follow)).body).toMatchObject({
    cups: [{ coffee: 'Saltmarsh', status: 'waiting' }],
  });
  expect((await asked({}, 'GET', `${follow.slice(0, -1)}~`)).status).toBe(404);
  // A key in a browser's cookie, or a device's token as a key, is none.
  const asCookie = { Cookie: `${COOKIE}=${made.body.key as string}` };
  expect((await asked(asCookie, 'POST', '/api/orders', asks)).status).toBe(401);
  const asKey = { Authorization: `Bearer ${lead.token}` };
  expect((await asked(asKey, 'GET', '/api/state')).status).toBe(401);
});

test('a bridge speaks for devices by its key, and is cut off when that is revoked', async () => {
  const { port } = server.address() as AddressInfo;
  const open = (headers: Headers) => new WebSocket(`ws://127.0.0.1:${port}/api/bridge`, { headers });
  for (const [role, status] of [
    ['nobody', '401'],
    ['till', '403'],
  ] as const) {
    const [error] = (await once(open((await joined(role)).headers), 'error')) as [Error];
    expect(error.message).toContain(status);
  }
  const bridge = await joined('bridge');
  const socket = open(bridge.headers);
  await once(socket, 'open');
  const closed = once(socket, 'close');
  await credentials.change(bridge.id, { name: 'renamed' });
  expect(await credentials.change(bridge.id, { role: 'lead' })).toBe('key-role');
  await credentials.revoke(bridge.id);
  await closed;
});

test('a monitor reads the figures by its key: counts of the bar, and requests by their route and not by what is in them', async () => {
  const monitor = await joined('monitor');
  const lead = await joined('lead');
  await asked(lead.headers, 'POST', '/api/events', { events: [order('a', cup('a-1'))] });
  await asked(lead.headers, 'GET', '/api/brews/of-a-guest');
  const { text } = await asked(monitor.headers, 'GET', '/api/metrics').buffer(true);
  expect(text).toMatch(/^even_kettle_open_orders 1$/m);
  expect(text).toMatch(/^even_kettle_log_events 1$/m);
  expect(text).toMatch(/even_kettle_http_seconds_count\{method="GET",route="\/brews\/:id",status="404"\} 1/);
  expect(text).not.toContain('of-a-guest');
  // There is no copy whose age could be told.
  expect(text).not.toMatch(/^even_kettle_copy_age_seconds \d/m);
});

test('what guests’ requests were, and who asked, is written down without words and tokens', async () => {
  const lead = await joined('lead');
  await asked(lead.headers, 'GET', '/api/log?search=quill');
  await asked(lead.headers, 'GET', '/api/cups/abcdefghijklmnopqrstuv');
  const text = written.join('');
  expect(text).toContain('/api/log');
  for (const secret of ['quill', 'abcdefghijklmnop', lead.token]) expect(text).not.toContain(secret);
});
