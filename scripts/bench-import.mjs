/**
 * A large log read in from CSV while the bar is worked: how long it takes, how much memory the server needs for it, how
 * long a tap waits meanwhile; then the Log's pages over HTTP with all of it there. `npm run bench -- import`; MB changes
 * the file's size.
 */
import { createReadStream, createWriteStream, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { withServer } from './with-server.mjs';

const MB = Number(process.env.MB ?? 200);
const ROUNDS = 40;
const COFFEES = ['Saltmarsh', 'Low Beacon', 'Slack Tide decaf', 'Fog Signal', 'Ebb'];
const RECIPES = ['cone-thirds', 'cone-steady', 'flat-few', 'hourglass-pulses', 'press-short', 'air-stirred'];
const PEOPLE = ['imre', 'noor', 'tavi'];
const COLUMNS =
  'brew,ended,ordered,started,guest,coffee,roast,recipe,station,by,cup_ml,dose_g,poured_g,beverage_g,grinder,grinder_setting,brew_s,drawdown_s,balance,strength,seen,tasted';

const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** @returns how many rows it has */
async function write(file) {
  const out = createWriteStream(file);
  out.write(`${COLUMNS}\r\n`);
  const nowMs = Date.now() - 86_400_000;
  let n = 0;
  for (; out.bytesWritten + out.writableLength < MB * 1e6; n += 1) {
    const endedMs = nowMs - n * 240_000;
    const iso = (ms) => new Date(ms).toISOString();
    const of = (list, k) => list[(n * k) % list.length];
    const row = [
      `past-${n}`,
      iso(endedMs),
      iso(endedMs - 480_000),
      iso(endedMs - 300_000),
      `guest ${n}`,
      of(COFFEES, 7),
      'medium',
      of(RECIPES, 5),
      `Cone ${1 + (n % 3)}`,
      of(PEOPLE, 11),
      240,
      (15 + (n % 40) / 10).toFixed(1),
      260 + (n % 9),
      '',
      'grinder-1',
      20 + (n % 3),
      180 + (n % 30),
      55 + (n % 20),
      (n % 3) - 1,
      '',
      n % 11 === 0 ? '"bed even, it stalled"' : '',
      n % 17 === 0 ? '"walnut, a little dry, ""long"""' : '',
    ];
    if (!out.write(`${row.join(',')}\r\n`)) await once(out, 'drain');
  }
  out.end();
  await once(out, 'close');
  return n;
}

export async function benchImport() {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-import-'));
  const file = join(folder, 'log.csv');
  const rows = await write(file);
  console.log(`  a file of ${(statSync(file).size / 1e6).toFixed(0)} MB with ${rows} brews`);
  await withServer({ demo: true }, async (url, pid) => {
    const megabytes = () =>
      Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1e3;
    const current = async () => (await (await fetch(`${url}/api/imports`)).json()).current;
    const before = megabytes();
    const taps = [];
    const memory = [];
    let working = true;
    const work = (async () => {
      for (; working; await pause(100)) {
        memory.push(megabytes());
        const from = performance.now();
        const { barMs } = await (await fetch(`${url}/api/clock`)).json();
        // A boiling noted is a tap like any other: checked, stored, durable, told to all.
        await fetch(`${url}/api/events`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({
            events: [
              { id: crypto.randomUUID(), type: 'cloth-boiled', atMs: Math.floor(barMs), clothId: 'cloth-1' },
            ],
          }),
        }).then((answer) => answer.text());
        taps.push(performance.now() - from);
      }
    })();
    const phase = async (name, from) => {
      let job = await current();
      for (; ['looking', 'taking', 'taking-out'].includes(job?.phase); job = await current())
        await pause(200);
      console.log(
        `  ${name.padEnd(10)} ${((performance.now() - from) / 1000).toFixed(1).padStart(6)} s; server's memory ${before.toFixed(0)} MB before, then ${[0.1, 0.25, 0.5, 0.75, 0.99].map((share) => memory[Math.floor(share * memory.length)].toFixed(0)).join(', ')}, at most ${Math.max(...memory).toFixed(0)} MB; a tap is stored after p50 ${quantile(taps, 0.5).toFixed(0)} ms, p99 ${quantile(taps, 0.99).toFixed(0)} ms, longest ${Math.max(...taps).toFixed(0)} ms (${taps.length})`,
      );
      memory.length = 0;
      taps.length = 0;
      return job;
    };
    let from = performance.now();
    await fetch(`${url}/api/imports?kind=log&name=log.csv`, {
      method: 'POST',
      headers: { 'Content-Type': 'text/csv' },
      body: createReadStream(file),
      duplex: 'half',
    });
    const { id } = await phase('sent, seen', from);
    from = performance.now();
    await fetch(`${url}/api/imports/${id}/take`, { method: 'POST' });
    const { taken } = await phase('taken', from);
    working = false;
    await work;
    console.log(`  ${taken} brews came in. The Log over HTTP with them:`);
    const nowMs = Date.now();
    for (const [what, path] of [
      ['the list', '/api/log?limit=30'],
      ['of one coffee and taste', '/api/log?limit=30&coffee=Ebb&taste=bitter'],
      ['of one person', '/api/log?limit=30&person=imre'],
      ['a search that finds', `/api/log?limit=30&search=guest%20${Math.floor(rows / 7)}`],
      ['a search that finds nothing', '/api/log?limit=30&search=nobody%20said'],
      ['a run', '/api/learnt?recipeId=cone-thirds&coffee=Saltmarsh'],
      ['a day', `/api/day?fromMs=${nowMs - 40 * 86_400_000}&toMs=${nowMs - 39 * 86_400_000}`],
      ['stock and care', '/api/house'],
    ]) {
      const times = [];
      for (let round = 0; round < ROUNDS; round += 1) {
        const began = performance.now();
        await (await fetch(`${url}${path}`)).text();
        times.push(performance.now() - began);
      }
      console.log(
        `    ${what.padEnd(28)} p50 ${quantile(times, 0.5).toFixed(1)} ms, p95 ${quantile(times, 0.95).toFixed(1)} ms`,
      );
    }
    from = performance.now();
    await fetch(`${url}/api/imports/${id}`, { method: 'DELETE' });
    await pause(100);
    for (let job = await current(); job; job = await current()) await pause(200);
    console.log(`  taken out again in ${((performance.now() - from) / 1000).toFixed(1)} s`);
  });
  rmSync(folder, { recursive: true, force: true });
}
