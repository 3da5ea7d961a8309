/**
 * `npm run screenshots`: a current picture of each place, from the demo's data, into docs/screenshots (or where
 * OUT says). Fresh data, so that the clocks are early in the scene.
 */
import { mkdirSync } from 'node:fs';
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
  ['bar', '/', 'evening', 'wide'],
  ['orders', '/orders', 'day', 'phone'],
  ['new-order', '/orders/new', 'day', 'phone'],
  ['recipes', '/recipes', 'day', 'phone'],
  ['recipe', '/recipes/sock-fours', 'evening', 'phone'],
  ['edit', '/recipes/cone-thirds/edit', 'day', 'phone'],
  ['share', '/recipes/siphon-late/share', 'day', 'phone'],
  ['print', '/recipes/cone-thirds/print', 'day', 'wide'],
  ['recipes', '/recipes', 'day', 'wide'],
  ['log', '/log', 'day', 'phone'],
  ['bench', '/bench', 'evening', 'phone'],
  ['station', '/station/cone-1', 'evening', 'phone'],
  ['pour', '/', 'day', 'phone'],
];
const SIZES = { phone: { width: 390, height: 844 }, wide: { width: 1280, height: 800 } };

await installPackages();
await build();
const out = process.env.OUT || join(root, 'docs/screenshots');
mkdirSync(out, { recursive: true });
const browser = await openBrowser();
/** A pour in the middle: practised hands pour on the scales, and the picture is taken when one does. */
async function untilItPours(page, url) {
  const { scales } = await (await fetch(`${url}/api/devices`)).json();
  for (const { stationId } of scales)
    await fetch(`${url}/api/devices/scales/${stationId}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ do: 'practised', on: true }),
    });
  for (let looks = 0; looks < 900; looks += 1) {
    const card = page.getByTestId('hands-card');
    if (await card.getByTestId('pace').isVisible()) {
      const done = Number(await card.getByRole('progressbar').getAttribute('aria-valuenow'));
      if (done > 35) return;
    } else if (await card.getByTestId('main-button').isVisible()) {
      const due = !(await card.getByTestId('countdown').isVisible());
      const pours = await card.getByTestId('reading').isVisible();
      const late = Number(
        await card
          .getByRole('progressbar')
          .getAttribute('aria-valuenow')
          .catch(() => 0),
      );
      if (due && !pours && late >= 100) await card.getByTestId('main-button').click();
    }
    await page.waitForTimeout(200);
  }
}

await withServer({ demo: true }, async (url) => {
  for (const [name, path, look, size] of SHOTS) {
    const page = await browser.newPage({
      viewport: SIZES[size],
      locale: 'en-GB',
      deviceScaleFactor: 1,
      serviceWorkers: 'block',
    });
    await page.addInitScript((chosen) => localStorage.setItem('even-kettle.look', chosen), look);
    await page.goto(`${url}${path}`);
    // Twice: a place that comes as a script of its own begins to load only when the page has.
    for (let round = 0; round < 2; round += 1) {
      await page.waitForTimeout(900);
      await page.waitForFunction(
        () => !document.querySelector('[aria-label^="Loading"]') && document.fonts.status === 'loaded',
      );
    }
    await page.waitForTimeout(600);
    if (name === 'pour') await untilItPours(page, url);
    await page.screenshot({ path: join(out, `${name}-${look}-${size}.png`) });
    await page.close();
  }
});
await browser.close();
console.log(`${SHOTS.length} pictures in ${out}`);
