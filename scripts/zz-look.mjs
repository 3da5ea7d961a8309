import { withServer } from './with-server.mjs';
import { openBrowser } from './browser.mjs';
await withServer({ demo: true, rate: 1 }, async (url) => {
  const browser = await openBrowser();
  const t = performance.now();
  const log = await (await fetch(`${url}/api/log?limit=200&recipeId=cone-thirds&coffee=Saltmarsh`)).json();
  console.log('log', Math.round(performance.now() - t), log.records.length);
  const bar = await (await fetch(`${url}/api/bar`)).json();
  console.log('pace', bar.pace);
  const tasted =
    log.records.find((r) => r.taste?.tdsPct && r.realBrewS > r.windowToS) ??
    log.records.find((r) => r.taste?.tdsPct);
  const live = (await (await fetch(`${url}/api/log?limit=3`)).json()).records[0];
  for (const [w, h, look] of JSON.parse(process.env.SIZES ?? '[[390,844,"day"],[1280,800,"evening"]]')) {
    const context = await browser.newContext({ viewport: { width: w, height: h } });
    await context.addInitScript((l) => localStorage.setItem('even-kettle.look', l), look);
    const page = await context.newPage();
    page.on('console', (m) => m.type() === 'error' && console.log('console', m.text()));
    page.on('pageerror', (e) => console.log('pageerror', e.message));
    for (const [name, path] of [
      ['log', '/log'],
      ['brew', `/log/${tasted.brewId}`],
      ['live', `/log/${live.brewId}`],
      ['run', '/log/run?recipeId=cone-thirds&coffee=Saltmarsh'],
      ['day', '/log/day'],
      ['house', '/log/house'],
      ['files', '/log/files'],
      ['new', '/orders/new'],
    ].filter(([n]) => !process.env.ONLY || process.env.ONLY.split(',').includes(n))) {
      await page.goto(url + path);
      await page.waitForTimeout(1500);
      await page.screenshot({ path: `/tmp/shot-${name}-${w}.png` });
      if (process.env.FULL) {
        await page.setViewportSize({ width: w, height: 2600 });
        await page.waitForTimeout(400);
        await page.screenshot({ path: `/tmp/shot-${name}-${w}-full.png` });
        await page.setViewportSize({ width: w, height: h });
      }
    }
    await context.close();
  }
  await browser.close();
});
