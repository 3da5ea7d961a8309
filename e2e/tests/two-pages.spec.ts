import { expect, test } from '../support/bar';
import { orderComes } from '../support/barista';
import type { Page } from '@playwright/test';

// Seconds are compared as they pass.
test.use({ rate: 1 });

/** Notes for each text of the countdown when it came up, on one clock for both pages. */
const watchCountdown = (page: Page) =>
  page.evaluate(() => {
    const seen: Record<string, number> = {};
    (window as unknown as { seen: typeof seen }).seen = seen;
    const note = () => {
      const text = document.querySelector('[data-testid="clock-cone-1"]')?.textContent;
      if (text) seen[text] ??= performance.timeOrigin + performance.now();
    };
    new MutationObserver(note).observe(document.body, {
      subtree: true,
      childList: true,
      characterData: true,
    });
  });
const seenBy = (page: Page) =>
  page.evaluate(() => (window as unknown as { seen: Record<string, number> }).seen);

test('two pages on one bar show the same step and the same clock, and a tap on one appears on the other', async ({
  page,
  context,
  bar,
}) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'two phones', [
    { method: 'Cone', recipe: 'Bloom and three pours', size: '250' },
  ]);
  const other = await context.newPage();
  await other.goto(bar.url);
  await expect(other.getByTestId('verb')).toHaveText(/^Fill Kettle 1 to$/);

  // Tap on one, see it on the other: to the first water.
  const delays: number[] = [];
  const verbs = ['Fold, set and rinse the filter', 'Weigh beans', 'Throw the rinse, load, tare', 'Pour to'];
  for (const [index, verb] of verbs.entries()) {
    const [tapping, watching] = index % 2 === 0 ? [page, other] : [other, page];
    const appeared = watching.evaluate(
      (wanted) =>
        new Promise<number>((resolve) => {
          const look = () =>
            document.querySelector('[data-testid="verb"]')?.textContent === wanted &&
            resolve(performance.timeOrigin + performance.now());
          new MutationObserver(look).observe(document.body, {
            subtree: true,
            childList: true,
            characterData: true,
          });
          look();
        }),
      verb,
    );
    const tapped = await tapping.evaluate(() => {
      (document.querySelector('[data-testid="main-button"]') as HTMLElement).click();
      return performance.timeOrigin + performance.now();
    });
    delays.push((await appeared) - tapped);
    await expect(tapping.getByTestId('verb')).toHaveText(verb);
  }
  console.log(`tap on one page to the other: ${delays.map((ms) => `${ms.toFixed(0)} ms`).join(', ')}`);
  expect(Math.max(...delays)).toBeLessThan(500);

  await watchCountdown(page);
  await watchCountdown(other);
  await page.getByTestId('main-button').click();
  await page.waitForTimeout(6500);
  const [here, there] = [await seenBy(page), await seenBy(other)];
  const apart = Object.keys(here)
    .filter((text) => /^0:0[2-5]$/.test(text))
    .map((text) => Math.abs(here[text]! - there[text]!));
  console.log(`the same second on both pages: ${apart.map((ms) => `${ms.toFixed(0)} ms`).join(', ')} apart`);
  expect(apart.length).toBeGreaterThanOrEqual(3);
  expect(Math.max(...apart)).toBeLessThan(200);
  expect(await page.getByTestId('verb').textContent()).toBe(await other.getByTestId('verb').textContent());
});
