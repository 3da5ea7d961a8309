/**
 * `npm run screenshots`: a current picture of each place, from the demo's data, into docs/screenshots (or where
 * OUT says). Fresh data, so that the clocks are early in the scene.
 */
import { copyFileSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { installPackages } from './install.mjs';
import { build } from './build.mjs';
import { root } from './lib.mjs';
import { openBrowser } from './browser.mjs';
import { withServer } from './with-server.mjs';

const SHOTS = [
  ['bar', '/', 'day', 'phone'],
  ['bar', '/', 'evening', 'phone'],
  ['bar', '/', 'day', 'wide'],
  ['orders', '/orders', 'day', 'phone'],
  ['new-order', '/orders/new', 'day', 'phone'],
  ['recipes', '/recipes', 'day', 'phone'],
  ['recipe', '/recipes/sock-fours', 'evening', 'phone'],
  ['print', '/recipes/cone-thirds/print', 'day', 'wide'],
  ['log', '/log', 'day', 'phone'],
  ['log-brew', '/log/past-14-14-1.1', 'evening', 'phone'],
  ['log-run', '/log/run?recipeId=cone-thirds&coffee=Saltmarsh', 'day', 'phone'],
  ['board', '/board', 'day', 'wide'],
  ['today', '/log/today', 'evening', 'wide'],
  ['bench', '/bench', 'evening', 'phone'],
  ['station', '/station/cone-1', 'evening', 'phone'],
];
const SIZES = { phone: { width: 390, height: 844 }, wide: { width: 1280, height: 800 } };

await installPackages({ all: true });
await build();
const out = process.env.OUT || join(root, 'docs/screenshots');
mkdirSync(out, { recursive: true });
const browser = await openBrowser();
const openPage = (look, size) =>
  browser
    .newPage({ viewport: SIZES[size], locale: 'en-GB', deviceScaleFactor: 1, serviceWorkers: 'block' })
    .then(async (page) => {
      await page.addInitScript((chosen) => localStorage.setItem('even-kettle.look', chosen), look);
      return page;
    });

/** A cone of Lantern Pier, prepared and just bloomed, with a practised hand at its scale. */
async function bloomed(url) {
  const send = async (method, path, body) => {
    const answer = await fetch(`${url}${path}`, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(await answer.text());
  };
  const station = (id, name, brewerId) => ({ id, name, brewerId, scale: 'simulated' });
  await send('PATCH', '/api/bar', {
    name: 'Lantern Pier',
    stations: [
      station('cone-1', 'Cone 1', 'cone-m'),
      station('cone-2', 'Cone 2', 'cone-m'),
      station('sock-1', 'Sock', 'sock'),
      { id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' },
    ],
  });
  const { barMs } = await (await fetch(`${url}/api/clock`)).json();
  let n = 0;
  const event = (type, beforeS, rest) => ({
    id: `01890000-0000-7000-8003-${String((n += 1)).padStart(12, '0')}`,
    type,
    atMs: Math.round(barMs - beforeS * 1000),
    ...rest,
  });
  const cup = (cupId, cupMl) => ({
    cupId,
    recipeId: 'cone-thirds',
    recipeVersion: 2,
    coffee: 'Saltmarsh',
    roast: 'light',
    cupMl,
  });
  const done = (stepId, beforeS) => event('step-done', beforeS, { brewId: 'a.1', stepId });
  await send('POST', '/api/events', {
    events: [
      event('order-taken', 140, { orderId: 'A', name: 'yellow coat', cups: [cup('a', 250), cup('b', 300)] }),
      event('brew-started', 132, {
        brewId: 'a.1',
        orderId: 'A',
        cupId: 'a',
        stationId: 'cone-1',
        stationName: 'Cone 1',
        brewerId: 'cone-m',
        altitudeM: 12,
        kettlePowerW: 1200,
        kettleFilledAtC: 90,
        prepVersion: 2,
      }),
      done('fill', 120),
      done('set-filter', 90),
      done('weigh', 60),
      done('load', 34),
      event('step-begun', 32, { brewId: 'a.1', stepId: 'bloom' }),
      event('step-done', 25, { brewId: 'a.1', stepId: 'bloom', readingG: 42 }),
    ],
  });
  await send('POST', '/api/devices/scales/cone-1', { do: 'practised', on: true });
}

await withServer({ demo: true }, async (url) => {
  for (const [name, path, look, size] of SHOTS) {
    const page = await openPage(look, size);
    await page.goto(`${url}${path}`);
    // Twice: a place that comes as a script of its own begins to load only when the page has.
    for (let round = 0; round < 2; round += 1) {
      await page.waitForTimeout(900);
      await page.waitForFunction(
        () => !document.querySelector('[aria-label^="Loading"]') && document.fonts.status === 'loaded',
      );
    }
    await page.waitForTimeout(600);
    await page.screenshot({ path: join(out, `${name}-${look}-${size}.png`) });
    await page.close();
  }
});
/** Practice: in the middle of a bloom, and two variants of an hour compared. */
await withServer({ demo: true }, async (url) => {
  const page = await openPage('day', 'phone');
  await page.goto(`${url}/practice/pour`);
  await page.getByTestId('start-pouring').click();
  const bed = await page.getByTestId('bed').boundingBox();
  const [x, y] = [bed.x + bed.width / 2, bed.y + bed.height / 2];
  await page.mouse.move(x, y - 60);
  await page.mouse.down();
  await page.mouse.wheel(0, 900);
  for (let n = 0; n < 45; n += 1) {
    await page.mouse.move(x + 60 * Math.sin(n / 5), y - 60 * Math.cos(n / 5));
    await page.waitForTimeout(90);
  }
  await page.screenshot({ path: join(out, 'practice-pour-day-phone.png') });
  await page.mouse.up();
  await page.close();
  const lab = await openPage('day', 'wide');
  await lab.goto(`${url}/practice/lab`);
  await lab.getByTestId('cups-an-hour').fill('12');
  await lab.getByTestId('add-variant').click();
  await lab
    .getByRole('radiogroup', { name: 'Hands of variant B' })
    .getByRole('radio', { name: '1', exact: true })
    .click();
  await lab.getByRole('radio', { name: '6 shifts' }).click();
  await lab.getByTestId('run-lab').click();
  await lab.getByRole('button', { name: 'JSON' }).waitFor({ timeout: 120_000 });
  await lab.evaluate(() => document.activeElement?.blur());
  await lab.mouse.move(1000, 500);
  await lab.mouse.wheel(0, -3000);
  await lab.waitForTimeout(500);
  await lab.screenshot({ path: join(out, 'practice-lab-day-wide.png') });
});
await withServer({ fresh: true }, async (url) => {
  const page = await openPage('day', 'phone');
  await page.goto(url);
  await page.getByText('Your first day').waitFor();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: join(out, 'first-day-day-phone.png') });
});
await withServer({}, async (url) => {
  const page = await openPage('day', 'phone');
  await page.goto(url);
  await page.waitForTimeout(3000);
  await bloomed(url);
  await page.getByTestId('pace').waitFor({ timeout: 60_000 });
  await page.waitForFunction(
    () => Number(document.querySelector('[data-testid="reading"]')?.textContent) > 85,
  );
  await page.screenshot({ path: join(out, 'pour-day-phone.png') });
});
await browser.close();
// What a browser shows before the app is installed.
if (!process.env.OUT)
  for (const [shot, name] of [
    ['bar-day-phone', 'install-bar'],
    ['bar-day-wide', 'install-wide'],
  ])
    copyFileSync(join(out, `${shot}.png`), join(root, `app/public/${name}.png`));
console.log(`${SHOTS.length + 4} pictures in ${out}`);
