/**
 * Damaged databases (`DAMAGED` of them): bytes at random places are written over. The server then either says what is wrong and which copy is
 * the way back, or has lost nothing; and the copy brings back all of it.
 */
import { spawn } from 'node:child_process';
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  closeSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { seededRandom } from '@even-kettle/core/rush';
import { PLAIN_BAR } from '../src/bench';
import { copiesFolder, copyDatabase, copyName } from '../src/copies/copy-files';
import { proveCopy } from '../src/copies/prove';
import { restoreCopy } from '../src/copies/restore';
import { scriptedBar } from './scripted-bar';
import { openServer } from './server-process';

const DAMAGED = Number(process.env['DAMAGED'] ?? 20);
const SEED = Number(process.env['SOAK_SEED'] ?? Date.now() % 1_000_000);
const LIVED_MS = 4000;
const NOT_AGAIN = 78;
const random = seededRandom(SEED);
const whole = (below: number) => Math.floor(random() * below);
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** The file of a bar that has lived for a while, closed. */
async function livedBar(folder: string): Promise<string> {
  const server = await openServer({ rate: 600, folder });
  const bar = scriptedBar(server.url, PLAIN_BAR, random);
  let over = false;
  const working = bar.work(() => over);
  await pause(LIVED_MS);
  over = true;
  await working;
  await bar.settle();
  await server.stop();
  return server.file;
}

function harm(file: string): void {
  const { size } = statSync(file);
  const handle = openSync(file, 'r+');
  for (let times = 1 + whole(6); times > 0; times -= 1) {
    const bytes = Buffer.from(Array.from({ length: 1 + whole(3000) }, () => whole(256)));
    writeSync(handle, bytes, 0, bytes.length, whole(Math.max(1, size - bytes.length)));
  }
  closeSync(handle);
}

type Outcome = { is: 'refused'; said: string } | { is: 'up'; health: { status: string; faults: string[] } };

/** Starts the built server on a file, once, and looks at what it makes of it. */
async function lookAt(file: string, port: number): Promise<Outcome> {
  const main = fileURLToPath(new URL('./main.js', import.meta.url));
  const child = spawn(process.execPath, [main], {
    stdio: ['ignore', 'ignore', 'pipe'],
    env: {
      ...process.env,
      PORT: String(port),
      EVEN_KETTLE_DB: file,
      BAR_CLOCK_RATE: '600',
      LOG_LEVEL: 'silent',
    },
  });
  let said = '';
  child.stderr.on('data', (data: Buffer) => (said += data.toString()));
  const exit = new Promise<number | null>((resolve) => child.once('exit', resolve));
  for (let tries = 0; tries < 800; tries += 1) {
    if (child.exitCode !== null) break;
    const health = await fetch(`http://127.0.0.1:${port}/api/health`).then(
      (answer) => answer.json() as Promise<{ status: string; faults: string[] }>,
      () => null,
    );
    if (health) {
      child.kill('SIGTERM');
      await exit;
      return { is: 'up', health };
    }
    await pause(25);
  }
  const code = await exit;
  if (code !== NOT_AGAIN) throw new Error(`the server ended with ${code}: ${said.slice(0, 400)}`);
  return { is: 'refused', said };
}

const folder = mkdtempSync(join(tmpdir(), 'even-kettle-damaged-'));
const lived = await livedBar(folder);
const copy = join(folder, copyName('by-hand', Date.now()));
await copyDatabase(lived, copy);
/** What its log makes. */
const base = await proveCopy(copy);
if (!base.ok) throw new Error(base.reason);
const isAsBefore = async (file: string) => {
  const proof = await proveCopy(file);
  return proof.ok && proof.digest === base.digest;
};
console.log(`Damaged databases, seed ${SEED}: ${DAMAGED}, of ${base.seq} events`);
const faults: string[] = [];
const counts = { refused: 0, told: 0, unharmed: 0, back: 0 };
for (let n = 0; n < DAMAGED; n += 1) {
  const at = join(folder, `bar-${n}`, 'bar.sqlite');
  mkdirSync(copiesFolder(at), { recursive: true });
  copyFileSync(copy, at);
  const good = join(copiesFolder(at), copyName('by-hand', Date.now()));
  copyFileSync(copy, good);
  harm(at);
  const port = 20_000 + whole(20_000);
  try {
    const outcome = await lookAt(at, port);
    const words = outcome.is === 'refused' ? outcome.said : outcome.health.faults.join(' ');
    if (outcome.is === 'refused' || words !== '') {
      counts[outcome.is === 'refused' ? 'refused' : 'told'] += 1;
      if (/damaged|left out/.test(words) && !words.includes('npm run restore'))
        faults.push(`${n}: it names no way back: ${words.slice(0, 300)}`);
    } else if (await isAsBefore(at)) counts.unharmed += 1;
    else faults.push(`${n}: it says nothing of its damage, and shows another bar`);
    await restoreCopy(at, good);
    const back = await lookAt(at, port);
    if (back.is !== 'up' || back.health.status !== 'ok' || !(await isAsBefore(at)))
      faults.push(`${n}: the copy did not bring the bar back`);
    else counts.back += 1;
  } catch (error) {
    faults.push(`${n}: ${String(error)}`);
  }
  rmSync(dirname(at), { recursive: true, force: true });
}
rmSync(folder, { recursive: true, force: true });
console.log(
  `  ${counts.refused} not started, ${counts.told} told, ${counts.unharmed} unharmed; ${counts.back} came back by their copy`,
);
for (const fault of faults.slice(0, 20)) console.error(`✗ ${fault}`);
console.log(faults.length === 0 ? '✓ no damage passed over in silence' : `${faults.length} faults`);
process.exit(faults.length === 0 ? 0 : 1);
