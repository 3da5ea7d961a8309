/**
 * `npm run shift`: a shift of 60 cups at the hands card, worked off by a page that does what it says while practised hands
 * pour on simulated scales; with the console's complaints and the memory of page and server as they go.
 * `CUPS` and `RATE` change how many and how fast.
 */
import { installPackages } from './install.mjs';
import { build } from './build.mjs';
import { openBrowser } from './browser.mjs';
import { withServer } from './with-server.mjs';

const CUPS = Number(process.env.CUPS || 60);
const RATE = Number(process.env.RATE || 40);
const OPEN_CUPS = 7;
/** By recipe, brewer's size in mind. */
const MENU = [
  ['cone-thirds', 250],
  ['press-long', 250],
  ['cone-steady', 250],
  ['sock-fours', 250],
  ['cone-evenpulses', 240],
  ['press-short', 240],
];

await installPackages();
await build();
const browser = await openBrowser();
const complaints = [];
let failed = false;
await withServer({ rate: RATE }, async (url) => {
  const send = async (method, path, body) => {
    const answer = await fetch(`${url}${path}`, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
  };
  const get = async (path) => (await fetch(`${url}${path}`)).json();
  const station = (id, name, brewerId) => ({ id, name, brewerId, scale: 'simulated' });
  await send('PATCH', '/api/bar', {
    stations: [
      station('cone-1', 'Cone 1', 'cone-m'),
      station('cone-2', 'Cone 2', 'cone-m'),
      station('cone-3', 'Cone 3', 'cone-m'),
      station('sock-1', 'Sock', 'sock'),
      station('press-1', 'Press 1', 'press-350'),
      station('press-2', 'Press 2', 'press-350'),
    ],
  });
  for (const { stationId } of (await get('/api/devices')).scales)
    await send('POST', `/api/devices/scales/${stationId}`, { do: 'practised', on: true });

  const page = await browser.newPage({ viewport: { width: 390, height: 844 }, locale: 'en-GB' });
  page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()));
  page.on('pageerror', (error) => complaints.push(error.message));
  await page.goto(url);
  await page.waitForSelector('text=Nothing to do');
  // The hands: look at the card, take the time that a step takes, tap.
  await page.evaluate(() => {
    setInterval(() => {
      const card = document.querySelector('[data-testid="hands-card"]');
      const button = card?.querySelector('[data-testid="main-button"]');
      if (!card || !button || card.querySelector('[data-testid="countdown"],[data-testid="reading"]')) return;
      const label = button.getAttribute('aria-label');
      const progress = Number(card.querySelector('[role="progressbar"]')?.getAttribute('aria-valuenow'));
      if (label === 'First water' || label === 'Coffee meets water' || progress >= 100) button.click();
    }, 40);
  });

  const devtools = await page.context().newCDPSession(page);
  const heapMb = async () => {
    await devtools.send('HeapProfiler.collectGarbage');
    return (await devtools.send('Runtime.getHeapUsage')).usedSize / 1e6;
  };
  let taken = 0;
  let reported = 0;
  const heaps = [];
  const fromMs = (await get('/api/clock')).barMs;
  const endReal = performance.now() + 25 * 60_000;
  for (;;) {
    const { state, barMs } = await get('/api/state');
    const cups = Object.values(state.orders).flatMap((order) => order.cups);
    const open = cups.filter(({ status }) => status === 'waiting' || status === 'brewing').length;
    const out = taken - open;
    if (out >= reported + 10 || (out === CUPS && reported < CUPS)) {
      reported = out;
      const heap = await heapMb();
      heaps.push(heap);
      console.log(
        `  ${String(out).padStart(3)} cups out after ${((barMs - fromMs) / 60_000).toFixed(0)} min of bar time; page heap ${heap.toFixed(1)} MB, ${complaints.length} complaints`,
      );
    }
    if (out >= CUPS) {
      const brews = Object.values(state.brews);
      const pours = brews.flatMap((brew) =>
        brew.card.steps
          .filter(({ targetG }) => targetG !== undefined)
          .map(({ id }) => brew.marks[id])
          .filter((mark) => mark?.readingG !== undefined)
          .map(({ readingG, targetG }) => Math.abs(readingG - targetG)),
      );
      console.log(
        `  pours known: ${pours.length}, the furthest ${Math.max(...pours).toFixed(1)} g off; ${((CUPS / (barMs - fromMs)) * 3.6e6).toFixed(1)} cups an hour on one pair of hands`,
      );
      break;
    }
    if (performance.now() > endReal) throw new Error(`Only ${out} cups out in 25 minutes.`);
    if (taken < CUPS && open < OPEN_CUPS) {
      const [recipeId, cupMl] = MENU[taken % MENU.length];
      const id = `01890000-0000-7000-8000-${String(taken).padStart(12, '0')}`;
      const cup = {
        cupId: `cup-${taken}`,
        recipeId,
        recipeVersion: 1,
        coffee: 'House coffee',
        roast: 'medium',
        cupMl,
      };
      taken += 1;
      await send('POST', '/api/events', {
        events: [{ id, type: 'order-taken', atMs: barMs, orderId: `order-${taken}`, cups: [cup] }],
      });
    } else await new Promise((resolve) => setTimeout(resolve, 400));
  }
  const settled = heaps.slice(Math.min(2, heaps.length - 1));
  const grown = settled.at(-1) - settled[0];
  console.log(`  heap from the third reading to the last: ${grown >= 0 ? '+' : ''}${grown.toFixed(1)} MB`);
  for (const complaint of new Set(complaints)) console.log(`  ✗ ${complaint}`);
  failed = complaints.length > 0;
});
await browser.close();
process.exit(failed ? 1 : 0);
