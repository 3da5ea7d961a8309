/**
 * How smooth the hands card is: twelve running brews on a CPU throttled four times, by the browser's own tracing; and the
 * page's heap over ten minutes of bar time. Part of `npm run bench`; by itself `node scripts/bench-hands.mjs`.
 */
import { pathToFileURL } from 'node:url';
import { build } from './build.mjs';
import { openBrowser } from './browser.mjs';
import { say } from './lib.mjs';
import { withServer } from './with-server.mjs';

const BREWS = 12;
const TRACED_MS = 30_000;
const HEAP_RATE = 10;

const uuid = (n) => `01890000-0000-7000-8002-${String(n).padStart(12, '0')}`;

/** Twelve cones, all in the middle of their pours or drawing down. */
async function fill(url) {
  const send = async (method, path, body) => {
    const answer = await fetch(`${url}${path}`, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(await answer.text());
  };
  await send('PATCH', '/api/bar', {
    stations: Array.from({ length: BREWS }, (_, index) => ({
      id: `cone-${index + 1}`,
      name: `Cone ${index + 1}`,
      brewerId: 'cone-m',
      scale: 'simulated',
    })),
  });
  const { barMs } = await (await fetch(`${url}/api/clock`)).json();
  let n = 0;
  for (let index = 0; index < BREWS; index += 1) {
    const brewId = `c${index}.1`;
    const station = `cone-${index + 1}`;
    const at = (s) => Math.round(barMs - 160_000 + index * 4000 + s * 1000);
    const done = (stepId, s) => ({ id: uuid((n += 1)), type: 'step-done', atMs: at(s), brewId, stepId });
    await send('POST', '/api/events', {
      events: [
        {
          id: uuid((n += 1)),
          type: 'order-taken',
          atMs: at(0),
          orderId: `o${index}`,
          cups: [
            {
              cupId: `c${index}`,
              recipeId: 'cone-thirds',
              recipeVersion: 2,
              coffee: 'House coffee',
              roast: 'medium',
              cupMl: 250,
            },
          ],
        },
        {
          id: uuid((n += 1)),
          type: 'brew-started',
          atMs: at(0),
          brewId,
          orderId: `o${index}`,
          cupId: `c${index}`,
          stationId: station,
          stationName: `Cone ${index + 1}`,
          brewerId: 'cone-m',
          altitudeM: 0,
          kettlePowerW: 1200,
          kettleFilledAtC: 90,
          prepVersion: 2,
        },
        done('fill', 12),
        done('set-filter', 40),
        done('weigh', 64),
        done('load', 94),
        { id: uuid((n += 1)), type: 'step-begun', atMs: at(100), brewId, stepId: 'bloom' },
        done('bloom', 107),
      ],
    });
  }
}

const quantile = (values, share) =>
  values.length === 0
    ? 0
    : [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];

/** Lengths of the calls into our code on the page's thread while `work` goes on, milliseconds. */
async function traced(devtools, work) {
  const events = [];
  const collect = ({ value }) => events.push(...value);
  devtools.on('Tracing.dataCollected', collect);
  await devtools.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: ['devtools.timeline', 'toplevel'] },
  });
  await work();
  const complete = new Promise((resolve) => devtools.once('Tracing.tracingComplete', resolve));
  await devtools.send('Tracing.end');
  await complete;
  devtools.off('Tracing.dataCollected', collect);
  // Workers have threads of their own; the page's is the one that is called so.
  const names = events.filter(({ name, args }) => name === 'thread_name' && args.name === 'CrRendererMain');
  const mains = new Set(names.map(({ pid, tid }) => `${pid} ${tid}`));
  const here = ({ pid, tid }) => mains.size === 0 || mains.has(`${pid} ${tid}`);
  const OURS = new Set(['FunctionCall', 'TimerFire', 'EvaluateScript']);
  const collected = events.filter(
    ({ name, dur, pid, tid }) => dur && here({ pid, tid }) && (name === 'MinorGC' || name === 'MajorGC'),
  );
  return {
    /** Each call's length, and how much of it was the browser's own garbage collection, milliseconds. */
    ours: events
      .filter((event) => event.dur && here(event) && OURS.has(event.name))
      .map(({ ts, dur }) => ({
        ms: dur / 1000,
        collectorMs: collected
          .filter((each) => each.ts >= ts && each.ts < ts + dur)
          .reduce((sum, each) => sum + each.dur / 1000, 0),
      })),
  };
}

/** Calls over 50 ms: how many, and how many of them would be without the collector. */
const over = (ours) =>
  `over 50 ms: ${ours.filter(({ ms }) => ms > 50).length}, without the collector's part ${ours.filter(({ ms, collectorMs }) => ms - collectorMs > 50).length}`;

export async function benchHands(browser) {
  say(
    `The hands card with ${BREWS} running brews on a CPU throttled four times (${TRACED_MS / 1000} s traced)`,
  );
  await withServer({}, async (url) => {
    await fill(url);
    for (const [name, viewport] of [
      ['phone', { width: 390, height: 844 }],
      ['wide', { width: 1280, height: 800 }],
    ]) {
      const page = await browser.newPage({ viewport, locale: 'en-GB' });
      await page.goto(url);
      await page.waitForSelector('[data-testid="figure"]');
      // Past the first page's own loading, which `npm run bench` times by itself.
      await page.waitForTimeout(10_000);
      const devtools = await page.context().newCDPSession(page);
      await devtools.send('Emulation.setCPUThrottlingRate', { rate: 4 });
      await page.waitForTimeout(1500);
      const { ours } = await traced(devtools, () => page.waitForTimeout(TRACED_MS));
      await devtools.send('Emulation.setCPUThrottlingRate', { rate: 1 });
      const lengths = ours.map(({ ms }) => ms);
      console.log(
        `  ${name.padEnd(6)} our code: ${ours.length} calls, p50 ${quantile(lengths, 0.5).toFixed(1)} ms, p99 ${quantile(lengths, 0.99).toFixed(1)} ms, longest ${Math.max(0, ...lengths).toFixed(1)} ms; ${over(ours)}`,
      );
      await page.close();
    }
  });
  say('Planning and the page’s thread: an order quoted as its size is typed, behind the demo’s queue');
  await withServer({ demo: true }, async (url) => {
    const page = await browser.newPage({ viewport: { width: 390, height: 844 }, locale: 'en-GB' });
    await page.goto(`${url}/orders/new`);
    // The demo's form begins with its menu.
    await page.getByRole('button', { name: /Cone/ }).first().click();
    await page
      .getByRole('button', { name: /^Change/ })
      .first()
      .click();
    await page.getByTestId('quoted').waitFor();
    await page.waitForTimeout(10_000);
    const devtools = await page.context().newCDPSession(page);
    for (const slower of [1, 4]) {
      await devtools.send('Emulation.setCPUThrottlingRate', { rate: slower });
      const quotes = [];
      const { ours } = await traced(devtools, async () => {
        for (const size of ['200', '260', '320', '380', '240', '300']) {
          const before = await page.getByTestId('quoted').textContent();
          const from = performance.now();
          await page.getByLabel('Size of cup 1').fill(size);
          await page
            .waitForFunction(
              (was) => document.querySelector('[data-testid="quoted"]')?.textContent !== was,
              before,
              { timeout: 2000, polling: 10 },
            )
            .then(() => quotes.push(performance.now() - from))
            .catch(() => undefined);
        }
      });
      console.log(
        `  CPU ${slower === 1 ? 'as it is' : 'four times slower'}: longest call on the page’s thread ${Math.max(0, ...ours.map(({ ms }) => ms)).toFixed(1)} ms of ${ours.length}, ${over(ours)}; a new quote after p50 ${quantile(quotes, 0.5).toFixed(0)} ms, longest ${Math.max(0, ...quotes).toFixed(0)} ms (${quotes.length} seen)`,
      );
    }
    await page.close();
  });
  say('The page’s heap over ten minutes of bar time, with those brews running');
  await withServer({ rate: HEAP_RATE }, async (url) => {
    await fill(url);
    const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
    await page.goto(url);
    await page.waitForSelector('[data-testid="figure"]');
    await page.waitForTimeout(10_000);
    const devtools = await page.context().newCDPSession(page);
    const readings = [];
    for (let minute = 0; minute <= 10; minute += 2) {
      await devtools.send('HeapProfiler.collectGarbage');
      readings.push((await devtools.send('Runtime.getHeapUsage')).usedSize / 1e6);
      if (minute < 10) await page.waitForTimeout(120_000 / HEAP_RATE);
    }
    console.log(`  every two minutes: ${readings.map((mb) => mb.toFixed(1)).join(', ')} MB`);
    await page.close();
  });
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  await build();
  const browser = await openBrowser();
  await benchHands(browser);
  await browser.close();
}
