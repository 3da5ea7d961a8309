/** Two people, each with a device that shows one pair of hands: between them they do everything, and nothing twice. */
import type { Page } from '@playwright/test';
import { expect, test } from '../support/bar';
import { allCleaned, stateOnce, orderComes, workItOffTogether } from '../support/barista';

const asked = (page: Page): Promise<string | null> =>
  page.evaluate(
    () =>
      document.querySelector('[data-testid="hands-card"] [role="status"]')?.getAttribute('aria-label') ??
      null,
  );

test('two devices work off three orders: the union of what they are asked is everything, and no step is asked of both', async ({
  browser,
  page,
  bar,
}) => {
  await bar.set({ hands: 2 });
  await page.goto(bar.url);
  for (const [name, method] of [
    ['window', 'Cone'],
    ['corner', 'Press'],
    ['counter', 'Cone'],
  ] as const)
    await orderComes(page, bar, name, [{ method, size: '250' }]);
  const second = await browser.newContext({ viewport: { width: 390, height: 844 }, locale: 'en-GB' });
  const other = await second.newPage();
  await other.goto(bar.url);
  await page.getByRole('radio', { name: 'Hands 1' }).click();
  await other.getByRole('radio', { name: 'Hands 2' }).click();

  // What both are asked at two looks in a row is asked of both, and not just handed over between them.
  const twice: string[] = [];
  let over = false;
  const watching = (async () => {
    let before: string | null = null;
    while (!over) {
      const [first, their] = await Promise.all([asked(page), asked(other)]);
      const both = first !== null && first === their ? first : null;
      if (both !== null && both === before) twice.push(both);
      before = both;
      await page.waitForTimeout(150);
    }
  })();
  const deeds = await workItOffTogether([page, other], 80);
  over = true;
  await watching;

  expect(twice).toEqual([]);
  expect(Math.min(...deeds)).toBeGreaterThan(3);
  const state = await stateOnce(bar, allCleaned);
  expect(Object.values(state.orders).flatMap(({ cups }) => cups.map(({ status }) => status))).toEqual(
    Array(3).fill('served'),
  );
  await second.close();
});
