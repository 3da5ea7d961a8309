/** A built server as a process of its own, on a free port with a database of its own, that can be killed and started again. */
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { PLAIN_BAR, writeBar } from '../src/bench';
import { openDatabase } from '../src/store/database';

export type ServerProcess = {
  url: string;
  file: string;
  /** Ends at once, with nothing closed. */
  kill: () => Promise<void>;
  /** Ends as it is meant to. Gives its exit code. */
  stop: () => Promise<number | null>;
  start: () => Promise<void>;
  /** Puts the system's clock, as the process sees it, so far off the true one, milliseconds. */
  setClock: (offMs: number) => void;
  /** The process's number. */
  pid: () => number;
  /** How often it ended without being told to. */
  died: () => number;
  close: () => Promise<void>;
};

export type ServerOptions = {
  /** Bar seconds in a real one. */
  rate?: number;
  /** Where the database is; a new folder otherwise. */
  folder?: string;
  env?: Record<string, string>;
  /** Over HTTPS, with devices that are paired. */
  isOnNetwork?: boolean;
  /** Not started yet. */
  idle?: boolean;
  /** The script of the server; another one for tests of what it is made of. */
  main?: string;
};

const MAIN = fileURLToPath(new URL('./main.js', import.meta.url));
const PAUSE_MS = 25;
const NOT_AGAIN = 78;
const START_TRIES = 6000;

/** Has the process ask a file how far its clock is off. */
const CLOCK_SCRIPT = (file: string) => `
import { readFileSync } from 'node:fs';
const real = Date.now.bind(Date);
let offMs = 0;
const look = () => { try { offMs = Number(readFileSync(${JSON.stringify(file)}, 'utf8')) || 0; } catch {} };
look();
setInterval(look, 20).unref();
Date.now = () => real() + offMs;
`;

export async function openServer({
  rate = 1,
  folder: given,
  env = {},
  main = MAIN,
  idle = false,
  isOnNetwork = false,
}: ServerOptions = {}): Promise<ServerProcess> {
  const folder = given ?? mkdtempSync(join(tmpdir(), 'even-kettle-soak-'));
  const file = join(folder, 'bar.sqlite');
  if (!existsSync(file)) {
    // A bench to work at.
    const source = await openDatabase(file);
    await writeBar(source.manager, PLAIN_BAR);
    await source.destroy();
  }
  const aside = mkdtempSync(join(tmpdir(), 'even-kettle-clock-'));
  const [clockFile, clockScript] = [join(aside, 'off'), join(aside, 'clock.mjs')];
  writeFileSync(clockScript, CLOCK_SCRIPT(clockFile));
  const port = await freePort();
  const url = `${isOnNetwork ? 'https' : 'http'}://127.0.0.1:${port}`;
  let child: ChildProcess | null = null;
  let wanted = false;
  let died = 0;

  const run = () => {
    const started = spawn(process.execPath, ['--import', pathToFileURL(clockScript).href, main], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: {
        ...process.env,
        PORT: String(port),
        EVEN_KETTLE_DB: file,
        BAR_CLOCK_RATE: String(rate),
        LOG_LEVEL: 'silent',
        REQUESTS_PER_MINUTE: '1000000',
        ...(isOnNetwork ? { EVEN_KETTLE_NETWORK: 'on' } : {}),
        ...env,
      },
    });
    child = started;
    wanted = true;
    started.once('exit', () => {
      if (wanted && child === started) died += 1;
    });
  };
  const start = async () => {
    run();
    for (let tries = 0; tries < START_TRIES; tries += 1) {
      // As whoever serves it would: one that could not start is started again.
      if (child!.exitCode !== null) {
        if (child!.exitCode === NOT_AGAIN) throw new Error('The server says that it cannot start.');
        died -= 1;
        run();
      }
      const isUp = await fetch(`${url}/api/me`).then(
        ({ ok }) => ok,
        () => false,
      );
      if (isUp) return;
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
    throw new Error(`The server did not come up in ${(START_TRIES * PAUSE_MS) / 1000} s.`);
  };
  const end = async (signal: NodeJS.Signals): Promise<number | null> => {
    const dying = child;
    wanted = false;
    if (!dying || dying.exitCode !== null || dying.signalCode !== null) return dying?.exitCode ?? null;
    const gone = new Promise<number | null>((resolve) => dying.once('exit', resolve));
    dying.kill(signal);
    return gone;
  };
  if (!idle) await start();
  return {
    url,
    file,
    start,
    kill: async () => void (await end('SIGKILL')),
    stop: () => end('SIGTERM'),
    setClock: (offMs) => writeFileSync(clockFile, String(offMs)),
    pid: () => child?.pid ?? 0,
    died: () => died,
    close: async () => {
      await end('SIGKILL');
      // A folder that was given is its giver's to remove.
      for (const each of given === undefined ? [folder, aside] : [aside])
        rmSync(each, { recursive: true, force: true });
    },
  };
}

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}
