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
];
const SIZES = { phone: { width: 390, height: 844 }, wide: { width: 1280, height: 800 } };

await installPackages();
await build();
const out = process.env.OUT || join(root, 'docs/screenshots');
mkdirSync(out, { recursive: true });
const browser = await openBrowser();
await withServer({ demo: true }, async (url) => {
  for (const [name, path, look, size] of SHOTS) {
    const page = await browser.newPage({ viewport: SIZES[size], locale: 'en-GB', deviceScaleFactor: 1 });
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
    await page.screenshot({ path: join(out, `${name}-${look}-${size}.png`) });
    await page.close();
  }
});
await browser.close();
console.log(`${SHOTS.length} pictures in ${out}`);
