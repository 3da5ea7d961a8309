/** `npm run icons`: draws the app's icons anew from `app/public/icon.svg`. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openBrowser } from './browser.mjs';
import { root } from './lib.mjs';

const folder = join(root, 'app/public');
const drawing = readFileSync(join(folder, 'icon.svg'), 'utf8');
const browser = await openBrowser();
for (const size of [192, 512]) {
  const page = await browser.newPage({ viewport: { width: size, height: size } });
  await page.setContent(
    `<style>body{margin:0}svg{display:block;width:${size}px;height:${size}px}</style>${drawing}`,
  );
  writeFileSync(join(folder, `icon-${size}.png`), await page.screenshot());
}
await browser.close();
