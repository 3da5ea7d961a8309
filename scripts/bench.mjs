/**
 * `npm run bench`: figures of the built thing on this machine. Nothing passes or fails here; a person reads it.
 */
import { readFileSync, readdirSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { installPackages } from './install.mjs';
import { benchHands } from './bench-hands.mjs';
import { benchImport } from './bench-import.mjs';
import { build, buildServer } from './build.mjs';
import { root, say } from './lib.mjs';
import { openBrowser } from './browser.mjs';
import { withServer } from './with-server.mjs';

/** The figures of the server and the core, each by its name: what is said first, and the built file that prints them. */
const PARTS = {
  cards: ['Recipes: every card there is', 'bench-cards.js'],
  log: ['The log, with 100,000 brews in it', 'bench-log.js'],
  events: ['An event on a bar with many closed orders', 'bench-events.js'],
  routes: [
    'A server with a long log: starting, every route asked for the most that it takes, and idle',
    'bench-routes.js',
  ],
  plan: ['Planning (core, one thread)', 'bench.js'],
  load: ['A server under more than a bar’s load', 'bench-load.js'],
  lab: ['The rush lab: hours of boats, simulated', 'bench-lab.js'],
};
/** Only when asked for: these take long. */
const LONG = ['load', 'lab'];

function run(name) {
  const [title, file] = PARTS[name];
  say(title);
  return spawnSync(process.execPath, [join(root, 'server/dist', file)], { stdio: 'inherit' }).status ?? 1;
}

await installPackages({ all: true });
const asked = process.argv[2];
if (asked in PARTS) {
  await buildServer();
  process.exit(run(asked));
}
if (asked === 'import') {
  await build();
  say('A large log read in from CSV while the bar is worked');
  await benchImport();
  process.exit(0);
}
await build();
const ms = (value) => `${value.toFixed(1)} ms`;
const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
const spread = (values) =>
  `p50 ${ms(quantile(values, 0.5))}, p99 ${ms(quantile(values, 0.99))}, n ${values.length}`;

say('Built app: scripts');
const scriptDir = join(root, 'app/dist/_expo/static/js/web');
for (const file of readdirSync(scriptDir).filter((name) => name.endsWith('.js'))) {
  const script = readFileSync(join(scriptDir, file));
  console.log(
    `  ${file.padEnd(48)} ${(script.length / 1000).toFixed(0).padStart(6)} KB raw ${(gzipSync(script).length / 1000).toFixed(0).padStart(5)} KB gzip`,
  );
}

const browser = await openBrowser();
await withServer({ demo: true }, async (url) => {
  say('First page, cold cache: navigation to the hands card shown');
  const times = [];
  for (let round = 0; round < 7; round += 1) {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
    const page = await context.newPage();
    const from = performance.now();
    await page.goto(url, { waitUntil: 'commit' });
    await page.waitForSelector('[data-testid="figure"]');
    times.push(performance.now() - from);
    if (round === 0) {
      const wire = await page.evaluate(() =>
        performance
          .getEntriesByType('resource')
          .filter(({ name }) => name.endsWith('.js'))
          .reduce((sum, entry) => sum + entry.encodedBodySize, 0),
      );
      console.log(`  scripts of the first page, over the wire: ${(wire / 1000).toFixed(0)} KB`);
    }
    await context.close();
  }
  console.log(`  ${spread(times)}`);
});

await withServer({}, async (url) => {
  say('An event: from the POST to durable (answered), and to its broadcast on the live stream');
  const posted = new Map();
  const durable = [];
  const broadcast = [];
  const abort = new AbortController();
  const stream = await fetch(`${url}/api/live?after=0`, { signal: abort.signal });
  const listening = (async () => {
    let text = '';
    for await (const chunk of stream.body) {
      text += new TextDecoder().decode(chunk);
      const parts = text.split('\n\n');
      text = parts.pop();
      for (const id of parts.flatMap((part) =>
        [...part.matchAll(/"event":\{[^}]*?"id":"([^"]+)"/g)].map((match) => match[1]),
      )) {
        if (posted.has(id)) broadcast.push(performance.now() - posted.get(id));
      }
    }
  })().catch(() => undefined);
  const { barMs } = await (await fetch(`${url}/api/clock`)).json();
  const cup = (cupId) => ({
    cupId,
    recipeId: 'cone-thirds',
    recipeVersion: 1,
    coffee: 'Saltmarsh',
    roast: 'light',
    cupMl: 250,
  });
  for (let index = 0; index < 400; index += 1) {
    // Half are orders; the other half cancel them again, so that the bar stays as full as a bar is.
    const order = index >> 1;
    const event =
      index % 2 === 0
        ? { type: 'order-taken', orderId: `o${order}`, cups: [cup(`c${order}`)] }
        : { type: 'cup-cancelled', orderId: `o${order}`, cupId: `c${order}` };
    const id = `01890000-0000-7000-8000-${String(index).padStart(12, '0')}`;
    posted.set(id, performance.now());
    const answer = await fetch(`${url}/api/events`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ events: [{ id, atMs: Math.round(barMs), ...event }] }),
    });
    if (!answer.ok) throw new Error(await answer.text());
    durable.push(performance.now() - posted.get(id));
  }
  await new Promise((resolve) => setTimeout(resolve, 300));
  abort.abort();
  await listening;
  console.log(`  durable:   ${spread(durable)}`);
  console.log(`  broadcast: ${spread(broadcast)}`);

  say('Two pages: from a tap on one to its sight on the other');
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const pages = [await context.newPage(), await context.newPage()];
  for (const page of pages) await page.goto(url);
  const delays = [];
  for (let round = 0; round < 12; round += 1) {
    const [tapping, watching] = round % 2 === 0 ? pages : [...pages].reverse();
    if (round % 4 === 0) {
      const { barMs: nowMs } = await (await fetch(`${url}/api/clock`)).json();
      const id = `01890000-0000-7000-8001-${String(round).padStart(12, '0')}`;
      await fetch(`${url}/api/events`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({
          events: [
            {
              id,
              atMs: Math.round(nowMs),
              type: 'order-taken',
              orderId: `t${round}`,
              cups: [cup(`t${round}`)],
            },
          ],
        }),
      });
      await tapping.waitForSelector('[data-testid="main-button"]');
      await watching.waitForSelector('[data-testid="main-button"]');
    }
    const verbNow = () => document.querySelector('[data-testid="hands-card"]')?.textContent;
    const before = await watching.evaluate(verbNow);
    await watching.waitForTimeout(250);
    const appeared = watching.evaluate(
      () =>
        new Promise((resolve) => {
          const label = () =>
            document.querySelector('[data-testid="verb"]')?.textContent +
            (document.querySelector('[data-testid="main-button"]')?.getAttribute('aria-label') ?? '');
          const was = label();
          const look = () => label() !== was && resolve(performance.timeOrigin + performance.now());
          new MutationObserver(look).observe(document.body, {
            subtree: true,
            childList: true,
            characterData: true,
            attributes: true,
          });
          setTimeout(() => resolve(null), 4000);
        }),
    );
    const tapped = await tapping.evaluate(async () => {
      const button = document.querySelector('[data-testid="main-button"]');
      let atMs = performance.timeOrigin + performance.now();
      button?.click();
      // A tap long before its time is asked once more.
      await new Promise((resolve) => setTimeout(resolve, 50));
      if (/early/.test(button?.textContent ?? '')) {
        atMs = performance.timeOrigin + performance.now();
        button.click();
      }
      return atMs;
    });
    const at = await appeared;
    if (at !== null && before) delays.push(at - tapped);
  }
  console.log(`  ${spread(delays)}`);
  await context.close();
});
await benchHands(browser);
await browser.close();

const failed = Object.keys(PARTS).filter((name) => !LONG.includes(name) && run(name) !== 0);
process.exit(failed.length === 0 ? 0 : 1);
