/**
 * A real server on a port and a database file of its own, that a test can kill and start again.
 */
import { fork, spawn, type ChildProcess } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { test as base, type Browser, type BrowserContext } from '@playwright/test';

const root = fileURLToPath(new URL('../..', import.meta.url));

export type RunningBar = {
  url: string;
  /** SIGKILL: no goodbye, nothing flushed. */
  kill: () => Promise<void>;
  start: () => Promise<void>;
  get: <Answer>(path: string) => Promise<Answer>;
  post: (events: object[]) => Promise<{ status: number; body: unknown }>;
  /** Changes settings of the bench. */
  set: (change: object) => Promise<void>;
  /** Starts or stops the simulated order feed. */
  runFeed: (running: boolean) => Promise<void>;
  /** Asks something of a scale or kettle. */
  order: (device: string, order: object) => Promise<void>;
  /** Bar time goes on by so many seconds at once; every page, scale and kettle follows. Gives the time that it is then, milliseconds. */
  skip: (seconds: number) => Promise<number>;
  /**
   * People who need no screen work its orders off, as the cards say, their time skipped; up to where a card shows this step, or
   * for what is seen in it. For tests that are about what is there then.
   */
  work: (until?: string) => Promise<void>;
};

/**
 * The demo's bar in the middle of a burst with its two weeks of log; only those `weeks`, or only its `bench`; a plain bench
 * (`false`); or a bar that nobody has set up. The burst has to be played up to this moment, which takes as long as some tests.
 */
export type Demo = boolean | 'weeks' | 'bench' | 'new';

export async function makeDemo(
  file: string,
  events: 'none' | 'weeks' | 'shift',
  bench = 'lantern-pier',
): Promise<void> {
  const made = spawn(process.execPath, [join(root, 'server/dist/demo.js')], {
    env: { ...process.env, EVEN_KETTLE_DB: file, DEMO_EVENTS: events, DEMO_BAR: bench },
    stdio: 'ignore',
  });
  const code = await new Promise<number | null>((resolve) => made.once('exit', resolve));
  if (code !== 0) throw new Error(`The demo’s data could not be made (code ${code}).`);
}

/** The process that has the bars of this worker, one after the other; a new one where the last was killed. */
let hosting: ChildProcess | null = null;

function hostOfBars(): ChildProcess {
  if (hosting?.connected) return hosting;
  const host = fork(join(root, 'server/dist/bars.js'), { stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
  hosting = host;
  // A worker that has come to its end does not wait for it; it goes with the worker.
  host.unref();
  host.channel?.unref();
  return host;
}

/** What that process is asked (`server/soak/bars.ts`); a bar is named by its port. */
type AskedOfBars =
  | { open: Record<string, string> }
  | { close: number }
  | { skip: number; byMs: number }
  | { work: number; until?: string | undefined };

let jobs = 0;

/** Has the host open, work at or close a bar, or skip its time. */
function tell(host: ChildProcess, asked: AskedOfBars): Promise<number> {
  const job = (jobs += 1);
  return new Promise((resolve, reject) => {
    const ended = () => reject(new Error('The process of the bars has ended.'));
    const hear = (answer: { job: number; is: number; error?: string }) => {
      if (answer.job !== job) return;
      host.off('message', hear);
      host.off('exit', ended);
      if (answer.error) reject(new Error(answer.error));
      else resolve(answer.is);
    };
    host.on('message', hear);
    host.once('exit', ended);
    host.send({ job, ...asked });
  });
}

/** What is the same for every test of a run is made once, before the first (`global-setup.ts`). */
export const madeOnce = (demo: Exclude<Demo, 'new'>): string =>
  join(process.env['E2E_MADE_ONCE']!, `${demo === true ? 'weeks' : demo || 'plain'}.sqlite`);

let standing: RunningBar | null = null;
/** The bar of the test that runs, where its time is skipped; a worker runs one test at a time. */
export const skippingBar = (): RunningBar | null => standing;

type Opening = {
  rate?: number;
  demo?: Demo;
  /** The built app, where it is not the one that was built last. */
  appDir?: string;
  port?: number;
};

/**
 * How fast bar time runs by itself where a test skips it: so slowly that no machine comes too late for a card.
 */
const STANDING = 0.1;

export async function openBar({
  rate = STANDING,
  demo = false,
  appDir = join(root, 'app/dist'),
  port: givenPort,
}: Opening = {}): Promise<RunningBar & { close: () => Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-e2e-'));
  const port = givenPort ?? (await freePort());
  const url = `http://127.0.0.1:${port}`;
  const env = {
    PORT: String(port),
    BAR_CLOCK_RATE: String(rate),
    EVEN_KETTLE_DB: join(folder, 'bar.sqlite'),
    EVEN_KETTLE_APP_DIR: appDir,
  };
  let host: ChildProcess | null = null;
  const start = async () => {
    host = hostOfBars();
    await tell(host, { open: env });
  };
  const kill = async () => {
    const dying = host;
    host = null;
    if (!dying) return;
    hosting = null;
    const gone = new Promise((resolve) => dying.once('exit', resolve));
    dying.kill('SIGKILL');
    await gone;
  };
  if (demo !== 'new') copyFileSync(madeOnce(demo), env.EVEN_KETTLE_DB);
  // The burst that is going on just now.
  if (demo === true) await makeDemo(env.EVEN_KETTLE_DB, 'shift');
  await start();
  const send = async (method: string, path: string, body: object) => {
    const answer = await fetch(`${url}${path}`, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(await answer.text());
  };
  // The bench alone, as one pair of hands stands at it; tests that want more set it.
  if (demo === 'bench') await send('PATCH', '/api/bar', { hands: 1, menu: [], queues: [] });
  const bar: RunningBar = {
    url,
    start,
    kill,
    get: async <Answer>(path: string) => (await fetch(`${url}${path}`)).json() as Promise<Answer>,
    post: async (events) => {
      const answer = await fetch(`${url}/api/events`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ events }),
      });
      return { status: answer.status, body: await answer.json() };
    },
    set: (change) => send('PATCH', '/api/bar', change),
    runFeed: (running) => send('POST', '/api/feed', { running }),
    order: (device, order) => send('POST', `/api/devices/${device}`, order),
    skip: (seconds) => tell(host!, { skip: port, byMs: seconds * 1000 }),
    work: async (until) => {
      await tell(host!, { work: port, until });
    },
  };
  // At another rate nobody skips: it is what such a test is about.
  standing = rate === STANDING ? bar : null;
  return {
    ...bar,
    close: async () => {
      standing = null;
      if (host) await tell(host, { close: port });
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() =>
        typeof address === 'object' && address ? resolve(address.port) : reject(new Error('no port')),
      );
    });
  });
}

/**
 * A worker's home: one port and one browsing context for the bars of all its tests, one after the other. Opening the app costs three
 * seconds of a processor where its scripts are new to the browser, and one where a page of the same address has run them.
 */
type Home = { port: number; context: BrowserContext; clear: () => Promise<void> };

async function openHome(browser: Browser): Promise<Home> {
  const port = await freePort();
  const origin = `http://127.0.0.1:${port}`;
  const context = await browser.newContext({ locale: 'en-GB', serviceWorkers: 'block' });
  // An empty page of that address, so that the process that knows the scripts stays between two tests.
  const stays = await context.newPage();
  await stays.route('**/*', (route) => route.fulfill({ contentType: 'text/html', body: '' }));
  await stays.goto(origin);
  const devtools = await context.newCDPSession(stays);
  return {
    port,
    context,
    clear: async () => {
      await Promise.all(context.pages().map((page) => (page === stays ? undefined : page.close())));
      await devtools.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' });
      await context.setOffline(false);
      await context.clearPermissions();
    },
  };
}

/**
 * `test` with a `bar`: a fresh server whose time is skipped, or runs at the rate that `test.use({ rate })` asks for, and a page that knows nothing of the tests
 * before. A test of the service worker has a context of its own.
 */
export const test = base.extend<{ rate: number; demo: Demo; bar: RunningBar }, { home: Home }>({
  rate: [STANDING, { option: true }],
  demo: [false, { option: true }],
  home: [
    async ({ browser }, use) => {
      const home = await openHome(browser);
      await use(home);
      await home.context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ home, browser, serviceWorkers, viewport, locale }, use) => {
    if (serviceWorkers === 'allow') {
      const context = await browser.newContext({ serviceWorkers, viewport, locale });
      await use(context);
      return context.close();
    }
    await use(home.context);
    await home.clear();
  },
  page: async ({ context, viewport }, use) => {
    const page = await context.newPage();
    if (viewport) await page.setViewportSize(viewport);
    await use(page);
  },
  bar: async ({ rate, demo, home }, use) => {
    const bar = await openBar({ rate, demo, port: home.port });
    await use(bar);
    await bar.close();
  },
});
export { expect } from '@playwright/test';
