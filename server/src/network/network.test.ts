/** The bar on a network: a certificate that browsers can trust, on one port with what is said in the clear. */
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { get as plainGet, type IncomingMessage } from 'node:http';
import { get as secureGet } from 'node:https';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import express from 'express';
import { pino } from 'pino';
import { accessPolicy } from '../access/hosts';
import { readSettings } from '../settings';
import { openCertificates } from './certificate';
import { cupPages } from './cup-page';
import { networkText } from './invitation-text';
import { openNetwork, type Network } from './network';
import type { OnePort } from './one-port';
import { secretIn } from './secret';

const DAY_MS = 86_400_000;
let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'even-kettle-net-'))));
afterEach(() => rmSync(folder, { recursive: true }));

const modeOf = (name: string) => statSync(join(folder, name)).mode & 0o777;

test('an authority is made once, and gives certificates for the names of the day, renewed by themselves', async () => {
  let names = ['bar.local', '192.0.2.7'];
  let nowMs = Date.now();
  const open = () =>
    openCertificates(
      folder,
      () => names,
      () => nowMs,
    );
  const certificates = await open();
  const [leaf, root] = certificates
    .tls()
    .cert.split(/(?<=-----END CERTIFICATE-----\n)/)
    .map((pem) => new X509Certificate(pem)) as [X509Certificate, X509Certificate];
  expect(leaf.verify(root.publicKey) && leaf.checkIssued(root)).toBe(true);
  expect([root.ca, leaf.ca]).toEqual([true, false]);
  expect([leaf.checkHost('bar.local'), leaf.checkIP('192.0.2.7')]).toEqual(['bar.local', '192.0.2.7']);
  expect(leaf.checkIP('192.0.2.8')).toBeUndefined();
  // What browsers take: no longer than 398 days, and not of SHA-1.
  expect(Date.parse(leaf.validTo) - Date.parse(leaf.validFrom)).toBeLessThan(398 * DAY_MS);
  for (const key of ['authority-key.pem', 'server-key.pem']) expect(modeOf(key)).toBe(0o600);
  expect(modeOf('.')).toBe(0o700);
  // The same after a start anew; another for another address; another when it is due.
  expect((await open()).tls()).toEqual(certificates.tls());
  expect(await certificates.refresh()).toBe(false);
  names = ['bar.local', '192.0.2.8'];
  expect(await certificates.refresh()).toBe(true);
  expect(new X509Certificate(certificates.tls().cert).checkIP('192.0.2.8')).toBe('192.0.2.8');
  nowMs += 370 * DAY_MS;
  expect(await certificates.refresh()).toBe(true);
  expect(certificates.untilMs()).toBeGreaterThan(nowMs + 300 * DAY_MS);
  // Devices go on trusting it.
  expect(certificates.fingerprint()).toBe(root.fingerprint256);
  // A damaged file is made anew.
  writeFileSync(join(folder, 'server.pem'), 'not a certificate');
  expect(new X509Certificate((await open()).tls().cert).checkIP('192.0.2.8')).toBe('192.0.2.8');
});

describe('on one port', () => {
  let network: Network;
  let listening: OnePort;
  let port: number;
  beforeEach(async () => {
    const settings = { ...readSettings({ EVEN_KETTLE_NETWORK: 'on' }), port: 0 };
    network = await openNetwork(settings, folder, accessPolicy(), pino({ level: 'silent' }), [cupPages()]);
    const app = express();
    for (const each of network.pages) app.use(each);
    app.get('/api/state', (_request, response) => void response.send('the bar'));
    ({ listening } = network.serve(app));
    await new Promise<void>((resolve) => listening.listen(0, '127.0.0.1', resolve));
    port = (listening.address() as AddressInfo).port;
    network.listens(port);
  });
  afterEach(async () => {
    await network.close();
    listening.closeAllConnections();
    await new Promise((resolve) => listening.close(resolve));
  });
  const read = (answer: IncomingMessage) =>
    new Promise<{ status: number; location: string | undefined; type: string; body: string }>((resolve) => {
      const parts: Buffer[] = [];
      answer.on('data', (part: Buffer) => parts.push(part));
      answer.on('end', () =>
        resolve({
          status: answer.statusCode!,
          location: answer.headers.location,
          type: answer.headers['content-type'] ?? '',
          body: Buffer.concat(parts).toString('latin1'),
        }),
      );
    });
  const options = (path: string, headers = {}) => ({
    host: '127.0.0.1',
    port,
    path,
    headers,
    agent: false as const,
  });
  const plain = (path: string, headers = {}) =>
    new Promise<IncomingMessage>((resolve, reject) =>
      plainGet(options(path, headers), resolve).on('error', reject),
    ).then(read);
  const secure = (path: string, ca: string | undefined) =>
    new Promise<IncomingMessage>((resolve, reject) =>
      secureGet({ ...options(path), ...(ca === undefined ? {} : { ca }) }, resolve).on('error', reject),
    ).then(read);

  test('a device that trusts the authority is let in over HTTPS, one that does not is warned', async () => {
    const ca = readFileSync(join(folder, 'authority.pem'), 'utf8');
    expect(await secure('/api/state', ca)).toMatchObject({ status: 200, body: 'the bar' });
    await expect(secure('/api/state', undefined)).rejects.toMatchObject({
      code: 'SELF_SIGNED_CERT_IN_CHAIN',
    });
  });

  test('in the clear there are only the way to trust and a guest’s page', async () => {
    expect(await plain('/')).toMatchObject({ status: 302, location: '/trust' });
    expect(await plain('/orders')).toMatchObject({ status: 302, location: '/trust' });
    expect((await plain('/api/state')).status).toBe(426);
    expect(await plain('/cup/abc')).toMatchObject({ status: 200 });
    // By another name somebody else's page could point here.
    expect((await plain('/trust', { Host: 'elsewhere.example' })).status).toBe(421);
  });

  test.each([
    ['iPhone', 'ios', 'mobileconfig', 'application/x-apple-aspen-config'],
    ['Android', 'android', 'crt', 'application/x-x509-ca-cert'],
    ['Windows NT', 'windows', 'cer', 'application/x-x509-ca-cert'],
    ['Macintosh', 'macos', 'crt', 'application/x-x509-ca-cert'],
    ['X11; Linux', 'linux', 'crt', 'application/x-x509-ca-cert'],
  ])('%s is shown its own steps, and loads the authority as it wants it', async (agent, id, ending, type) => {
    const { body } = await plain('/trust', { 'User-Agent': `Mozilla/5.0 (${agent})` });
    expect(body).toContain(`<details id="${id}" open>`);
    expect(body.replace(/ |<wbr>/g, '')).toContain(network.fingerprint()!.replaceAll(':', ''));
    const file = new RegExp(`id="${id}"[^]*?href="(/trust/[^"]+\\.${ending})"`).exec(body)![1]!;
    const loaded = await plain(file);
    expect([loaded.status, loaded.type.split(';')[0]]).toEqual([200, type]);
    const inProfile = /<data>([^<]+)<\/data>/.exec(loaded.body)?.[1];
    const given = inProfile ? Buffer.from(inProfile, 'base64') : Buffer.from(loaded.body, 'latin1');
    expect(new X509Certificate(given).fingerprint256).toBe(network.fingerprint());
  });

  test('whoever connects and says nothing, or nonsense, keeps nobody waiting', async () => {
    const silent = connect(port, '127.0.0.1');
    const nonsense = connect(port, '127.0.0.1', () => nonsense.write('\u0000\u0001nonsense\r\n\r\n'));
    for (const socket of [silent, nonsense]) socket.on('error', () => undefined);
    expect((await plain('/trust')).status).toBe(200);
    // Nor do they keep the server from ending (afterEach).
    expect(silent.destroyed).toBe(false);
  });

  test('the terminal says where the bar is, with the link that makes a device the lead’s', async () => {
    const text = await networkText({
      addresses: network.addresses(),
      fingerprint: network.fingerprint(),
      secret: 'a-secret',
    });
    expect(text).toContain(`https://127.0.0.1:${port}/pair#a-secret`);
    expect(text).toContain(`http://127.0.0.1:${port}/trust`);
    expect(text).toContain(network.fingerprint());
  });
});

test('a secret is made once, for its owner alone', () => {
  const made = secretIn(folder, 'guests.secret');
  expect(secretIn(folder, 'guests.secret')).toBe(made);
  expect([made.length, modeOf('guests.secret')]).toEqual([43, 0o600]);
});

test('a bar that others reach is on a network, whatever else is set', () => {
  expect(readSettings({}).network).toBe(false);
  expect(readSettings({ HOST: '0.0.0.0' }).network).toBe(true);
  expect(() => readSettings({ HOST: '0.0.0.0', EVEN_KETTLE_NETWORK: 'off' })).toThrow(
    /Leave EVEN_KETTLE_NETWORK out/,
  );
  expect(() => readSettings({ EVEN_KETTLE_CERT: 'a.pem' })).toThrow(/give both/);
  expect(() => readSettings({ EVEN_KETTLE_NAME: 'Bar' })).toThrow(/ends with .local/);
});
