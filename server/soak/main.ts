/**
 * `npm run soak`: while a scripted bar works over HTTP, the server is killed (SIGKILL) again and again at random moments;
 * then while its disk fills up, while its clock jumps, while files come in, guests are forgotten and archives restored, with a planner that hangs; then the client's
 * network is cut. Nothing acknowledged may be lost or doubled.
 */
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { seededRandom } from '@even-kettle/core/rush';
import { PLAIN_BAR } from '../src/bench';
import { faultsOf } from './faults';
import { openProxy } from './proxy';
import { scriptedBar } from './scripted-bar';
import { archiveComesIn, guestsForgotten } from './whole-or-not';
import { openServer, type ServerOptions, type ServerProcess } from './server-process';

const KILLS = Number(process.env['KILLS'] ?? 200);
const CUTS = Number(process.env['CUTS'] ?? 200);
/** Kills of each of the bad days. */
const BAD_KILLS = Number(process.env['BAD_KILLS'] ?? 40);
const SEED = Number(process.env['SOAK_SEED'] ?? Date.now() % 1_000_000);
const RATE = 600;
const random = seededRandom(SEED);
const between = (from: number, to: number) => from + random() * (to - from);
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Works a bar while its server is killed so many times.
 * @param harm what else is done to it before each kill
 */
async function killed(
  what: string,
  kills: number,
  options: ServerOptions = {},
  harm: (server: ServerProcess, n: number) => Promise<void> | void = () => undefined,
  mend: (server: ServerProcess) => void = () => undefined,
): Promise<string[]> {
  console.log(`▸ ${what}: ${kills} times SIGKILL at random moments`);
  const server = await openServer({ rate: RATE, ...options });
  const bar = scriptedBar(server.url, PLAIN_BAR, random);
  let over = false;
  const working = bar.work(() => over);
  for (let n = 0; n < kills; n += 1) {
    await harm(server, n);
    await pause(between(15, 450));
    await server.kill();
    await pause(between(0, 60));
    await server.start();
    if ((n + 1) % 50 === 0) console.log(`  ${n + 1} kills, ${bar.acknowledged.size} events acknowledged`);
  }
  mend(server);
  await pause(1000);
  over = true;
  await working;
  await bar.settle();
  const faults = await faultsOf(server, bar);
  await server.close();
  return faults.map((fault) => `${what}: ${fault}`);
}

/** A disk of three megabytes that fills up and is emptied again; null where none can be mounted. */
async function fullDisk(): Promise<string[]> {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-small-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=6m', 'tmpfs', folder], { stdio: 'ignore' });
  } catch {
    rmSync(folder, { recursive: true });
    console.log('▸ no small disk can be mounted here: the disk does not fill up');
    return [];
  }
  const ballast = join(folder, 'ballast');
  const fill = () => {
    for (let bytes = 5_000_000; bytes > 4000; bytes = Math.floor(bytes * 0.8))
      try {
        return writeFileSync(ballast, Buffer.alloc(bytes));
      } catch {
        rmSync(ballast, { force: true });
      }
  };
  const empty = () => rmSync(ballast, { force: true });
  try {
    return await killed(
      'while the disk fills',
      BAD_KILLS,
      { folder },
      () => {
        fill();
        // Often there is room again only after the server was killed and started.
        setTimeout(empty, between(50, 900));
      },
      empty,
    );
  } finally {
    execFileSync('umount', [folder]);
    rmSync(folder, { recursive: true, force: true });
  }
}

const clockJumps = () =>
  killed(
    'while the clock jumps',
    BAD_KILLS,
    {},
    (server) => server.setClock(Math.round(between(-40_000, 40_000))),
    (server) => server.setClock(0),
  );

/** A log from elsewhere comes in, is looked at and taken, again and again. */
function filesComeIn(): Promise<string[]> {
  const row = (n: number) =>
    `past-${n},${new Date(Date.now() - n * 240_000).toISOString()},Saltmarsh,cone-thirds,18,190`;
  const import1 = async (server: ServerProcess, n: number) => {
    const body = `brew,ended,coffee,recipe,dose_g,brew_s\n${Array.from({ length: 3000 }, (_, k) => row(n * 3000 + k + 1)).join('\n')}\n`;
    const sent = await fetch(`${server.url}/api/imports?kind=log&name=past`, {
      method: 'POST',
      headers: { 'Content-Type': 'text/csv' },
      body,
    });
    const { id } = (await sent.json()) as { id?: string };
    await pause(between(50, 250));
    if (id) await fetch(`${server.url}/api/imports/${id}/take`, { method: 'POST' });
  };
  return killed('while files come in', BAD_KILLS, {}, (server, n) =>
    import1(server, n).catch(() => undefined),
  );
}

/** The archive of a bar that a script has worked for a while, into new bars. */
async function archivesComeIn(): Promise<string[]> {
  const server = await openServer({ rate: RATE });
  const bar = scriptedBar(server.url, PLAIN_BAR, random);
  let over = false;
  const working = bar.work(() => over);
  await pause(6000);
  over = true;
  await working;
  const faults = await archiveComesIn(server.url, BAD_KILLS, between);
  await server.close();
  return faults;
}

/** The same server with a planner's worker that never answers. */
function plannerHangs(): Promise<string[]> {
  const here = dirname(fileURLToPath(import.meta.url));
  const folder = join(here, 'hangs');
  mkdirSync(folder, { recursive: true });
  for (const name of ['main.js', 'import.worker.js', 'quote.worker.js'])
    copyFileSync(join(here, name), join(folder, name));
  writeFileSync(
    join(folder, 'plan.worker.js'),
    `import { parentPort } from 'node:worker_threads';\nparentPort.on('message', () => { for (;;); });\n`,
  );
  return killed('with a planner that hangs', BAD_KILLS, { main: join(folder, 'main.js') });
}

async function cut(): Promise<string[]> {
  console.log(`▸ the client’s network cut ${CUTS} times`);
  const server = await openServer({ rate: RATE });
  const proxy = await openProxy(server.url);
  const bar = scriptedBar(proxy.url, PLAIN_BAR, random);
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

const PARTS: Record<string, () => Promise<string[]>> = {
  kills: () => killed('killed', KILLS),
  disk: fullDisk,
  clock: clockJumps,
  files: filesComeIn,
  guests: () => guestsForgotten(BAD_KILLS, between),
  archives: archivesComeIn,
  planner: plannerHangs,
  cuts: cut,
};
/** Only these, where `ONLY` names some. */
const asked = (process.env['ONLY'] ?? Object.keys(PARTS).join(' ')).split(' ');

console.log(`Soak, seed ${SEED}`);
const faults: string[] = [];
for (const part of asked) faults.push(...(await PARTS[part]!()));
for (const fault of faults) console.error(`✗ ${fault}`);
console.log(faults.length === 0 ? '✓ nothing lost, doubled or impossible' : `${faults.length} faults`);
process.exit(faults.length === 0 ? 0 : 1);
