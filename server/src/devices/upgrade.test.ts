/** Requests to open a socket that no bridge would make: the process must outlive each of them. */
import { connect, type AddressInfo } from 'node:net';
import request from 'supertest';
import { WebSocket } from 'ws';
import { openGate } from '../access/gate';
import { accessPolicy } from '../access/hosts';
import { bar, http, warned } from '../testing/bar';

const port = () => (http.address() as AddressInfo).port;
beforeEach(() => bar.devices.attach(http, accessPolicy(), openGate(null, false)));

/** Sends text as it is; gives the first line that comes back. `reset` cuts the line at once, with no goodbye. */
const raw = (text: string, reset = false) =>
  new Promise<string>((resolve) => {
    const socket = connect(port(), '127.0.0.1', () => {
      socket.write(text);
      if (reset) setTimeout(() => (socket.resetAndDestroy(), resolve('')), 5);
    });
    let answer = '';
    socket.on('data', (data) => (answer += data.toString()));
    socket.on('error', () => undefined);
    socket.on('close', () => resolve(answer.split('\r\n')[0]!));
  });
const upgrade = (path: string, host = '127.0.0.1') =>
  `GET ${path} HTTP/1.1\r\nHost: ${host}\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n\r\n`;

test.each([
  ['//', '404 Not Found'],
  ['///api/bridge', '404 Not Found'],
  ['http://[', '404 Not Found'],
  ['*', '404 Not Found'],
  ['/%', '404 Not Found'],
  ['/api/bridge/', '404 Not Found'],
])('an upgrade of %s is refused, and the server goes on', async (path, status) => {
  expect(await raw(upgrade(path))).toBe(`HTTP/1.1 ${status}`);
  expect((await request(http).get('/api/clock')).status).toBe(200);
});

test('an upgrade under another name is refused before its path is looked at', async () => {
  expect(await raw(upgrade('/api/bridge', 'evil.example'))).toBe('HTTP/1.1 421 Misdirected Request');
});

test('an upgrade that is reset before it is answered leaves the server as it was', async () => {
  for (let n = 0; n < 25; n += 1) await raw(upgrade('/nowhere'), true);
  await raw(upgrade('/api/bridge'), true);
  expect((await request(http).get('/api/clock')).status).toBe(200);
  expect(warned).toEqual([]);
});

test('a second hello on one line is told to be wrong, and the first device stays where it is', async () => {
  await bar.change({
    stations: bar
      .bar()
      .stations.map((station, n) => (n < 2 ? { ...station, scale: 'bridge' as const } : station)),
  });
  const socket = new WebSocket(`ws://127.0.0.1:${port()}/api/bridge`);
  const heard: { type: string; reason?: string }[] = [];
  socket.on('message', (data) => heard.push(JSON.parse(String(data)) as (typeof heard)[number]));
  await new Promise((resolve) => socket.once('open', resolve));
  const hello = (id: string) =>
    socket.send(JSON.stringify({ type: 'hello', protocol: 'even-kettle/devices@1', device: 'scale', id }));
  hello('cone-1');
  hello('cone-2');
  await new Promise<void>((resolve) => socket.on('message', () => heard.length >= 2 && resolve()));
  expect(heard.map(({ type }) => type)).toEqual(['welcome', 'error']);
  const { scales } = bar.devices.shown();
  expect(scales.map(({ stationId, connected }) => [stationId, connected])).toEqual([
    ['cone-1', true],
    ['cone-2', false],
  ]);
  socket.close();
});
