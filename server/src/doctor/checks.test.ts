/** What the doctor finds, on machines that lack this and that; each finding says what to do. */
import { copyFileSync, mkdirSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { createServer as createSecure } from 'node:https';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { bar, brewed, close, folder, open } from '../testing/bar';
import { copiesFolder, copyName } from '../copies/copy-files';
import { openCertificates } from '../network/certificate';
import { networkFolder, ownNames } from '../network/names';
import { readSettings, type Settings } from '../settings';
import { checkMachine, thisMachine, type Machine } from './checks';

const DAY_MS = 86_400_000;
const WELL: Machine = {
  nodeVersion: 'v20.19.0',
  nowMs: Date.UTC(2027, 0, 10),
  freeBytes: () => 50e9,
  isClockSet: () => true,
};
const file = () => join(folder, 'bar.sqlite');
const settings = (change: Partial<Settings> = {}): Settings => ({
  ...readSettings({ EVEN_KETTLE_DB: file(), PORT: '1' }),
  ...change,
});
async function found(machine: Partial<Machine> = {}, change: Partial<Settings> = {}) {
  const findings = await checkMachine(settings(change), { ...WELL, ...machine });
  return Object.fromEntries(findings.map(({ what, state, says }) => [what, `${state}: ${says}`]));
}

test('a machine that is well is told so', async () => {
  await brewed(1);
  await bar.copies.make('by-hand');
  const all = await found({ nowMs: Date.now() + 60_000 });
  expect(all).toMatchObject({
    'Node.js': 'well: Version v20.19.0.',
    Disk: 'well: 50.0 GB are free.',
    Database: expect.stringMatching(/^well: .* is whole, with 14 events/),
    Copies: expect.stringMatching(/^well: even-kettle-.* is whole and 0 hours old/),
    Port: 'well: 1 is free.',
    Network: expect.stringContaining('npm start -- --network'),
  });
  expect(all['Clock']).toMatch(/^well: .*, set by the network/);
  // Of the machine that this test runs on nothing is made up.
  expect(thisMachine().freeBytes(folder)).toBeGreaterThan(0);
  expect(Math.abs(thisMachine().nowMs - Date.now())).toBeLessThan(60_000);
});

test('what is missing is said, with what to do', async () => {
  expect((await found({ nodeVersion: 'v18.20.0' }))['Node.js']).toMatch(/^wrong: .*Install 20.19/);
  expect((await found({ freeBytes: () => 4e8 }))['Disk']).toMatch(/^wrong: Only 0.4 GB .*Make room/);
  expect((await found({ nowMs: 0 }))['Clock']).toMatch(/^wrong: .*Set the machine’s clock/);
  expect((await found({ isClockSet: () => false }))['Clock']).toMatch(/^note: .*timedatectl set-ntp true/);
  const nowhere = { databaseFile: join(folder, 'none', 'bar.sqlite') };
  expect(await found({}, nowhere)).toMatchObject({
    Database: expect.stringMatching(/^note: There is none/),
    Copies: 'well: None are needed yet.',
  });
  const inAFile = { databaseFile: join(file(), 'bar.sqlite') };
  expect((await found({}, inAFile))['Data folder']).toMatch(/^wrong: .*EVEN_KETTLE_DB/);
});

test('a damaged database and an old copy are wrong; a later copy that is damaged counts for nothing', async () => {
  await brewed(1);
  await bar.copies.make('by-hand');
  const [copy] = bar.copies.list();
  expect((await found({ nowMs: copy!.atMs + 5 * DAY_MS }))['Copies']).toMatch(/^wrong: .* 5 days old/);
  writeFileSync(join(copiesFolder(file()), copyName('night', copy!.atMs + 4 * DAY_MS)), 'not a database');
  expect((await found({ nowMs: copy!.atMs + 5 * DAY_MS }))['Copies']).toMatch(/^wrong: .* 5 days old/);
  await close();
  copyFileSync(file(), `${file()}.kept`);
  writeFileSync(file(), Buffer.alloc(20_000, 1));
  expect((await found())['Database']).toMatch(/^wrong: .*npm run restore/);
  copyFileSync(`${file()}.kept`, file());
  await open();
});

test('a port that is taken is noted, and a server on the network is tried as a device would', async () => {
  const other = createServer();
  await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
  const { port } = other.address() as AddressInfo;
  expect((await found({}, { port }))['Port']).toContain(
    `note: Something answers at http://127.0.0.1:${port}`,
  );
  await new Promise((resolve) => other.close(resolve));

  mkdirSync(networkFolder(file()), { recursive: true });
  const certificates = await openCertificates(networkFolder(file()), () => ownNames([]));
  const secure = createSecure(certificates.tls());
  await new Promise<void>((resolve) => secure.listen(0, '127.0.0.1', resolve));
  const on = { network: true, port: (secure.address() as AddressInfo).port };
  const now = { nowMs: Date.now() };
  const well = await found(now, on);
  expect(well['Trust']).toContain(certificates.fingerprint());
  expect(well['Certificate']).toMatch(/^well: /);
  expect((await found({ nowMs: Date.now() + 500 * DAY_MS }, on))['Certificate']).toMatch(
    /^wrong: It has expired/,
  );
  // Another authority than the one that devices took.
  secure.setSecureContext((await openCertificates(join(folder, 'another'), () => ownNames([]))).tls());
  expect((await found(now, on))['Trust']).toMatch(/^wrong: A device would not trust the server/);
  await new Promise((resolve) => secure.close(resolve));
  expect((await found(now, on))['Trust']).toMatch(/^note: The server does not run/);
});
