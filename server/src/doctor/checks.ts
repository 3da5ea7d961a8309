/** What a machine needs to serve a bar, looked at one by one: what is well, what is not, and what to do about it. */
import { execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { accessSync, constants, existsSync, mkdirSync, readFileSync, statfsSync } from 'node:fs';
import { lookup } from 'node:dns/promises';
import { dirname, join } from 'node:path';
import { connect as connectSecure } from 'node:tls';
import { connect as connectPlain, isIP } from 'node:net';
import { copiesFolder, newestWhole, summaryOf } from '../copies/copy-files';
import { networkFolder, ownAddresses } from '../network/names';
import type { Settings } from '../settings';

export type Finding = {
  what: string;
  /** `note`: it works, and something is worth knowing. */
  state: 'well' | 'note' | 'wrong';
  says: string;
};

export type Machine = {
  nodeVersion: string;
  nowMs: number;
  freeBytes: (folder: string) => number;
  /** Whether the system's clock is set by the network's time; null where the system does not say. */
  isClockSet: () => boolean | null;
};

const LEAST_NODE = [20, 19] as const;
const ROOM_BYTES = 1e9;
const DAY_MS = 86_400_000;
const COPY_DAYS = 3;
/** When this version was made: a clock before it is wrong. */
const MADE_MS = Date.UTC(2026, 11, 1);
const WAIT_MS = 2000;

const well = (what: string, says: string): Finding => ({ what, state: 'well', says });
const note = (what: string, says: string): Finding => ({ what, state: 'note', says });
const wrong = (what: string, says: string): Finding => ({ what, state: 'wrong', says });

export async function checkMachine(settings: Settings, machine: Machine): Promise<Finding[]> {
  const { databaseFile } = settings;
  return [
    nodeFinding(machine.nodeVersion),
    folderFinding(databaseFile),
    diskFinding(machine.freeBytes(dirname(databaseFile))),
    clockFinding(machine, databaseFile),
    databaseFinding(databaseFile),
    copyFinding(databaseFile, machine.nowMs),
    await portFinding(settings),
    ...(await networkFindings(settings, machine.nowMs)),
  ];
}

function nodeFinding(version: string): Finding {
  const [major = 0, minor = 0] = version.replace(/^v/, '').split('.').map(Number);
  const [least, leastMinor] = LEAST_NODE;
  return major > least || (major === least && minor >= leastMinor)
    ? well('Node.js', `Version ${version}.`)
    : wrong('Node.js', `Version ${version} is too old. Install ${least}.${leastMinor} or later.`);
}

function folderFinding(databaseFile: string): Finding {
  const folder = dirname(databaseFile);
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
    return well('Data folder', `${folder} can be written to.`);
  } catch {
    return wrong(
      'Data folder',
      `${folder} cannot be written to. Give the server’s user the right to, or set EVEN_KETTLE_DB.`,
    );
  }
}

function diskFinding(freeBytes: number): Finding {
  const gigabytes = (freeBytes / 1e9).toFixed(1);
  return freeBytes >= ROOM_BYTES
    ? well('Disk', `${gigabytes} GB are free.`)
    : wrong(
        'Disk',
        `Only ${gigabytes} GB are free. Make room: a year of a busy bar with its copies takes about a gigabyte.`,
      );
}

function clockFinding({ nowMs, isClockSet }: Machine, databaseFile: string): Finding {
  const shown = new Date(nowMs).toISOString().slice(0, 16).replace('T', ' ');
  if (nowMs < MADE_MS)
    return wrong(
      'Clock',
      `It says ${shown} UTC, which is before this version was made. Set the machine’s clock.`,
    );
  const isSet = isClockSet();
  if (isSet === false)
    return note(
      'Clock',
      `It says ${shown} UTC and is not set by the network. Turn that on, with timedatectl set-ntp true for example.`,
    );
  return existsSync(databaseFile) || isSet
    ? well('Clock', `It says ${shown} UTC${isSet ? ', set by the network' : ''}.`)
    : note('Clock', `It says ${shown} UTC. Whether the network sets it cannot be seen on this system.`);
}

function databaseFinding(databaseFile: string): Finding {
  if (!existsSync(databaseFile))
    return note('Database', `There is none at ${databaseFile} yet. The first start makes it.`);
  const summary = summaryOf(databaseFile);
  return summary?.isWhole
    ? well('Database', `${databaseFile} is whole, with ${summary.events} events.`)
    : wrong('Database', `${databaseFile} is damaged. npm run restore lists the copies that are whole.`);
}

function copyFinding(databaseFile: string, nowMs: number): Finding {
  const copy = newestWhole(copiesFolder(databaseFile));
  if (!copy)
    return existsSync(databaseFile)
      ? note('Copies', 'There is none yet. The server makes one every night; npm run backup makes one now.')
      : well('Copies', 'None are needed yet.');
  const days = (nowMs - copy.atMs) / DAY_MS;
  return days < COPY_DAYS
    ? well('Copies', `${copy.name} is whole and ${(days * 24).toFixed(0)} hours old.`)
    : wrong(
        'Copies',
        `The newest whole copy is ${days.toFixed(0)} days old. Look at the server’s log for why, and make one with npm run backup.`,
      );
}

async function portFinding({ port, host, network }: Settings): Promise<Finding> {
  const address = host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host;
  const isTaken = await new Promise<boolean>((resolve) => {
    const socket = connectPlain({ port, host: address, timeout: WAIT_MS });
    const end = (taken: boolean) => (socket.destroy(), resolve(taken));
    socket
      .once('connect', () => end(true))
      .once('error', () => end(false))
      .once('timeout', () => end(false));
  });
  if (!isTaken) return well('Port', `${port} is free.`);
  const is = network ? 'https' : 'http';
  return note(
    'Port',
    `Something answers at ${is}://${address}:${port}. If that is not the bar’s server, set PORT to another.`,
  );
}

async function networkFindings(settings: Settings, nowMs: number): Promise<Finding[]> {
  const folder = networkFolder(settings.databaseFile);
  const file = settings.certificate?.certFile ?? join(folder, 'server.pem');
  const addresses = ownAddresses();
  if (!settings.network && !existsSync(file))
    return [
      note(
        'Network',
        'The bar is served to this machine alone. npm start -- --network opens it to the devices around it.',
      ),
    ];
  const found =
    addresses.length > 0
      ? well('Addresses', addresses.join(', '))
      : wrong(
          'Addresses',
          'This machine has none on a network. Connect it, by cable where that is possible.',
        );
  return [
    found,
    await nameFinding(settings.networkName),
    certificateFinding(file, addresses, nowMs),
    await trustFinding(settings, folder),
  ];
}

async function nameFinding(name: string): Promise<Finding> {
  const address = await Promise.race([
    lookup(name).then(
      ({ address: found }) => found,
      () => null,
    ),
    new Promise<null>((resolve) => setTimeout(() => resolve(null), WAIT_MS).unref()),
  ]);
  return address === null
    ? note(
        'Name',
        `${name} is not found from here. Where the network does not carry such names, use the address.`,
      )
    : well('Name', `${name} is ${address}.`);
}

function certificateFinding(file: string, addresses: readonly string[], nowMs: number): Finding {
  try {
    const cert = new X509Certificate(readFileSync(file));
    const days = (Date.parse(cert.validTo) - nowMs) / DAY_MS;
    const missing = addresses.filter((address) => isIP(address) && cert.checkIP(address) === undefined);
    if (days < 0)
      return wrong(
        'Certificate',
        'It has expired. Start the server, which makes another; one from elsewhere you renew there.',
      );
    if (missing.length > 0)
      return note(
        'Certificate',
        `It does not hold ${missing.join(', ')}. The running server makes another within a minute.`,
      );
    return well('Certificate', `It holds this machine’s addresses, for ${days.toFixed(0)} more days.`);
  } catch {
    return note('Certificate', `There is none at ${file} yet. The first start with --network makes it.`);
  }
}

/** Whether a device that knows the authority would trust the server that runs. */
function trustFinding({ port, certificate }: Settings, folder: string): Promise<Finding> {
  const authority = join(folder, 'authority.pem');
  if (certificate || !existsSync(authority))
    return Promise.resolve(
      note(
        'Trust',
        'The certificate is from elsewhere, or not made yet: whether devices trust it is seen on them.',
      ),
    );
  return new Promise((resolve) => {
    const socket = connectSecure({ port, host: '127.0.0.1', ca: readFileSync(authority), timeout: WAIT_MS });
    const end = (finding: Finding) => (socket.destroy(), resolve(finding));
    socket
      .once('secureConnect', () =>
        end(
          well(
            'Trust',
            `A device that knows the authority trusts the server. Its fingerprint: ${new X509Certificate(readFileSync(authority)).fingerprint256}`,
          ),
        ),
      )
      .once('timeout', () => end(note('Trust', 'The server does not answer.')))
      .once('error', (error: NodeJS.ErrnoException) =>
        end(
          error.code === 'ECONNREFUSED'
            ? note('Trust', 'The server does not run, so it cannot be tried.')
            : wrong('Trust', `A device would not trust the server: ${error.message}. Start the server anew.`),
        ),
      );
  });
}

/** The machine that this runs on. */
export const thisMachine = (): Machine => ({
  nodeVersion: process.version,
  nowMs: Date.now(),
  freeBytes: (folder) => {
    const { bavail, bsize } = statfsSync(existsSync(folder) ? folder : '.');
    return bavail * bsize;
  },
  isClockSet: () => {
    try {
      const said = execFileSync('timedatectl', ['show', '--property=NTPSynchronized', '--value'], {
        timeout: WAIT_MS,
        stdio: ['ignore', 'pipe', 'ignore'],
      });
      return said.toString().trim() === 'yes';
    } catch {
      return null;
    }
  },
});
