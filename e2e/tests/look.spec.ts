import type { Page } from '@playwright/test';
import { chooseTheme, unreadable } from '../support/axe';
import { expect, test } from '../support/bar';

test.use({ demo: true, rate: 1 });
test.setTimeout(240_000);

const PLACES = [
  '/',
  '/orders',
  '/orders/new',
  '/orders/pier-15',
  '/recipes',
  '/recipes/cone-thirds',
  '/recipes/siphon-late',
  '/recipes/cone-thirds/edit',
  '/recipes/cone-thirds/versions',
  '/recipes/cone-thirds/share',
  '/recipes/import',
  '/log',
  '/log/past-14-14-1.1',
  '/log/run',
  '/log/day',
  '/log/today',
  '/log/hands',
  '/log/house',
  '/log/round',
  '/log/files',
  '/bench',
  '/first-day',
  '/board',
  '/pair',
  '/practice',
  '/practice/pour',
  '/practice/rush',
  '/practice/lab',
  '/practice/trainer',
  '/station/cone-1',
];
const DIFFERENT_WHEN_WIDE = ['/', '/recipes'];
/** Only colours differ by theme; these places hold every part that has one. `EVERY_THEME=1` looks at all of them. */
const IN_EVERY_THEME = process.env['EVERY_THEME']
  ? PLACES
  : ['/', '/orders/new', '/recipes/cone-thirds', '/log/past-14-14-1.1', '/log/run', '/bench'];
const settle = async (page: Page) => {
  await page.waitForFunction(
    () => !document.querySelector('[aria-label^="Loading"]') && document.fonts.status === 'loaded',
  );
  await page.waitForTimeout(300);
};

/** What is cut off, scrolls sideways or is too small to touch. */
const cramped = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    if (document.documentElement.scrollWidth > window.innerWidth) found.push('scrolls sideways');
    const shown = [...document.querySelectorAll<HTMLElement>('body *')].filter(
      // The rail's drawing slides under its window's edge.
      (element) => element.offsetParent !== null && !element.closest('[data-testid="slides"]'),
    );
    for (const element of shown) {
      const box = element.getBoundingClientRect();
      if (box.width > 0 && (box.right > window.innerWidth + 1 || box.left < -1))
        found.push(`cut off: ${element.outerHTML.slice(0, 100)}`);
      const touchable =
        // What only shows how a row stands is not touched itself.
        !element.closest('[inert]') &&
        (['button', 'link', 'radio'].includes(element.getAttribute('role') ?? '') ||
          element.tagName === 'INPUT');
      if (touchable && box.width > 0 && (box.height < 47.5 || box.width < 47.5))
        found.push(`${box.width}x${box.height}: ${element.getAttribute('aria-label')}`);
    }
    return found;
  });

/** What is written or read aloud with a figure that nobody rounded, a hole, or what a program says of nothing. */
const oddWords = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const labels = [...document.querySelectorAll('[aria-label]')].map((each) =>
      each.getAttribute('aria-label')!,
    );
    return [...document.body.innerText.split('\n'), ...labels].filter((said) =>
      /\d\.\d{4}|undefined|NaN|\[object|\S {2}\S| \.(?!\d)|\bto\./.test(said),
    );
  });

/** Buttons that are called the same: who hears them cannot tell them apart. */
const namesakes = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const names = [...document.querySelectorAll<HTMLElement>('[role="button"], button')]
      .filter((element) => element.offsetParent !== null && !element.closest('[aria-hidden="true"]'))
      .map((element) => element.getAttribute('aria-label') ?? element.textContent ?? '');
    return names.filter((name, n) => names.indexOf(name) !== n);
  });

for (const [half, places] of [
  ['the first half', PLACES.filter((_, n) => n % 2 === 0)],
  ['the second half', PLACES.filter((_, n) => n % 2 === 1)],
] as const)
  test(`${half} of the places: readable by ear and by bad eyes in the three themes, no two buttons called alike, narrow and wide; at 360 px nothing is cut off, and what is touched is at least 48 px`, async ({
    page,
    bar,
  }) => {
    for (const place of places) {
      await page.evaluate(() => localStorage.clear()).catch(() => undefined);
      await page.setViewportSize({ width: 390, height: 844 });
      await page.goto(`${bar.url}${place}`);
      await settle(page);
      expect([place, 'by day', await unreadable(page)]).toEqual([place, 'by day', []]);
      expect([place, 'called alike', await namesakes(page)]).toEqual([place, 'called alike', []]);
      expect([place, 'odd', await oddWords(page)]).toEqual([place, 'odd', []]);
      for (const theme of IN_EVERY_THEME.includes(place) ? (['evening', 'sun'] as const) : []) {
        const before = await background(page);
        await chooseTheme(page, theme);
        await expect.poll(() => background(page)).not.toBe(before);
        expect([place, theme, await unreadable(page, 'colours')]).toEqual([place, theme, []]);
      }
      if (DIFFERENT_WHEN_WIDE.includes(place)) {
        await page.setViewportSize({ width: 1280, height: 800 });
        await settle(page);
        expect([place, 'wide', await unreadable(page)]).toEqual([place, 'wide', []]);
      }
      await page.setViewportSize({ width: 360, height: 740 });
      // A card that is just handing over to the next is on its way across for a moment.
      await expect.poll(async () => [place, await cramped(page)]).toEqual([place, []]);
    }
  });

const background = (page: Page) =>
  page
    .locator('[role="main"]')
    .locator('..')
    .locator('..')
    .evaluate((element) => getComputedStyle(element).backgroundColor);

test('on a phone the page asks no other host for anything and its scripts weigh what they may; the hands card’s number and button are large enough and in sight, also on its side and at 200 %', async ({
  page,
  bar,
}) => {
  const hosts = new Set<string>();
  const scripts: Promise<number>[] = [];
  page.on('request', (request) => hosts.add(new URL(request.url()).host));
  page.on('response', (response) => {
    if (response.url().endsWith('.js'))
      scripts.push(
        response
          .request()
          .sizes()
          .then(({ responseBodySize }) => responseBodySize),
      );
  });
  await page.goto(bar.url);
  await settle(page);
  expect([...hosts]).toEqual([new URL(bar.url).host]);
  const gzipKb = (await Promise.all(scripts)).reduce((sum, size) => sum + size, 0) / 1000;
  console.log(`first page: ${gzipKb.toFixed(0)} KB of script over the wire`);
  expect(gzipKb).toBeLessThanOrEqual(620);

  const figure = page.getByTestId('figure');
  // The card may hand over to the next step just now, and a figure that has left the page has no size.
  await expect
    .poll(async () => parseFloat(await figure.evaluate((element) => getComputedStyle(element).fontSize)))
    .toBeGreaterThanOrEqual(72);
  const button = (await page.getByTestId('main-button').boundingBox())!;
  expect(button.height).toBeGreaterThanOrEqual(72);
  expect(button.y + button.height).toBeLessThan(844 - 60);

  // 1280 x 800 at 200 % is a window of 640 x 400.
  for (const [width, height] of [
    [844, 390],
    [640, 400],
  ] as const) {
    await page.setViewportSize({ width, height });
    await page.goto(bar.url);
    await settle(page);
    const nav = (await page.getByRole('navigation').boundingBox())!;
    const bottom = nav.y > 0 ? nav.y : height;
    await expect
      .poll(async () => {
        const box = await page.getByTestId('main-button').boundingBox();
        return box ? box.y + box.height : Infinity;
      })
      .toBeLessThanOrEqual(bottom);
  }
});
