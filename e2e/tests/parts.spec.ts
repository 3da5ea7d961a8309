/** The parts of the interface by keyboard alone, and as they are read by ear. */
import type { Page } from '@playwright/test';
import { unreadable, unreadableInAnyTheme } from '../support/axe';
import { expect, test } from '../support/bar';

test.use({ demo: 'bench' });

const focused = (page: Page) =>
  page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.tagName);

test('a list opens with the arrow key on what is chosen, is gone through, jumped in, left as it was, and chosen from', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/orders/new`);
  const list = page.getByRole('button', { name: /^Recipe of cup 1: / });
  await list.focus();
  await page.keyboard.press('ArrowDown');
  const items = page.getByRole('menuitem');
  await expect(items.first()).toBeVisible();
  await expect.poll(() => focused(page)).toBe('Bloom and three pours, chosen');
  expect(await unreadableInAnyTheme(page)).toEqual([]);
  await page.keyboard.press('ArrowDown');
  expect(await focused(page)).toBe('Bloom, stirred, then one even pour');
  await page.keyboard.press('s');
  expect(await focused(page)).toBe('Six equal pulses');
  await page.keyboard.press('End');
  await page.keyboard.press('ArrowDown');
  expect(await focused(page)).toBe('Bloom and three pours, chosen');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Escape');
  await expect(items).toHaveCount(0);
  // The page's own key for Escape is not reached, nothing was chosen, and the keyboard is where it was.
  await expect(page).toHaveURL(/\/orders\/new$/);
  expect(await focused(page)).toBe('Recipe of cup 1: Bloom and three pours');
  await page.keyboard.press('Enter');
  await expect.poll(() => focused(page)).toBe('Bloom and three pours, chosen');
  await page.keyboard.press('s');
  // Once it has come up whole, the keyboard still is where it was put meanwhile.
  await page.waitForTimeout(800);
  expect(await focused(page)).toBe('Six equal pulses');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Recipe of cup 1: Six equal pulses' })).toBeFocused();
});

test('a dialog takes the keyboard, keeps it, closes on Escape, and gives it back', async ({ page, bar }) => {
  await page.goto(`${bar.url}/recipes`);
  const first = page.getByRole('link', { name: 'Recipes', exact: true });
  await first.focus();
  await page.keyboard.press('?');
  const dialog = page.getByRole('dialog', { name: 'Keys' });
  await expect(dialog).toBeVisible();
  await expect.poll(() => focused(page)).toBe('Close');
  expect(await unreadableInAnyTheme(page)).toEqual([]);
  for (const key of ['Tab', 'Tab', 'Shift+Tab']) {
    await page.keyboard.press(key);
    expect(await dialog.evaluate((box) => box.contains(document.activeElement))).toBe(true);
  }
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await expect(first).toBeFocused();
});

test('a switch is one thing, switched by the space bar, and says how it stands', async ({ page, bar }) => {
  await page.goto(`${bar.url}/bench`);
  const voice = page.getByRole('switch', { name: 'Tone for “now”' });
  await voice.focus();
  const before = await voice.getAttribute('aria-checked');
  await page.keyboard.press('Space');
  await expect(voice).not.toHaveAttribute('aria-checked', before!);
  await page.reload();
  await expect(page.getByRole('switch', { name: 'Tone for “now”' })).not.toHaveAttribute(
    'aria-checked',
    before!,
  );
});

test('a place is as it was left: what was chosen and how far it was scrolled; back and forward go where they came from', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/recipes`);
  const places = page.getByRole('navigation').first();
  const press = page.getByRole('radio', { name: /^Press,/ });
  await press.click();
  await expect(press).toBeChecked();
  await places.getByText('Bench').click();
  await page.getByText('Altitude, m').scrollIntoViewIfNeeded();
  const scrolled = () =>
    page
      .locator('[role="main"] *')
      .evaluateAll((all) =>
        Math.max(...all.filter((one) => one.clientHeight > 300).map(({ scrollTop }) => scrollTop)),
      );
  await page.mouse.move(195, 400);
  await page.mouse.wheel(0, 900);
  await expect.poll(scrolled).toBeGreaterThan(500);
  const at = await scrolled();
  await places.getByText('Recipes').click();
  await expect(press).toBeChecked();
  await page.getByText('Settle before plunging').first().click();
  await expect(page).toHaveURL(/recipes\/press-/);
  await page.goBack();
  await expect(press).toBeChecked();
  await page.goBack();
  await expect(page).toHaveURL(/bench/);
  await expect.poll(scrolled).toBe(at);
  await page.goForward();
  await expect(page).toHaveURL(/recipes$/);
});

test('the tab says the place, and what must be done as soon as it is due; the frame is there before the script', async ({
  page,
  bar,
}) => {
  const html = await (await page.request.get(bar.url)).text();
  expect(html).toContain('Loading the bar…');
  expect(html).toMatch(/<html lang="en">[\s\S]*<link rel="manifest"/);
  const manifest = await (await page.request.get(`${bar.url}/manifest.webmanifest`)).json();
  for (const { src } of [...manifest.icons, ...manifest.screenshots])
    expect([src, (await page.request.get(`${bar.url}${src}`)).status()]).toEqual([src, 200]);
  await page.goto(`${bar.url}/recipes`);
  await expect(page).toHaveTitle('Recipes · Even Kettle');
  await bar.post([
    {
      id: '00000000-0000-7000-8000-000000000001',
      type: 'order-taken',
      atMs: Math.round((await bar.get<{ barMs: number }>('/api/clock')).barMs),
      orderId: 'o',
      cups: [
        {
          cupId: 'c',
          recipeId: 'cone-thirds',
          recipeVersion: 1,
          coffee: 'Saltmarsh',
          roast: 'light',
          cupMl: 250,
        },
      ],
    },
  ]);
  await expect(page).toHaveTitle('Fill the kettle · Even Kettle');
});

test.describe('on a wide screen', () => {
  test.use({ demo: 'weeks', viewport: { width: 1280, height: 800 } });

  test('a brew stands beside the list of the Log, and the Bench shows a section at a time; both are in the address', async ({
    page,
    bar,
  }) => {
    await page.goto(`${bar.url}/log`);
    const brews = page.getByTestId('brewed');
    await expect(brews.first()).toHaveAttribute('aria-current', 'true');
    await expect(page.getByText('Water over time')).toBeVisible();
    await brews.nth(2).click();
    await expect(brews.nth(2)).toHaveAttribute('aria-current', 'true');
    await expect(page).toHaveURL(/\/log\?brew=/);
    await page.reload();
    await expect(page.getByTestId('brewed').nth(2)).toHaveAttribute('aria-current', 'true');
    expect(await unreadable(page)).toEqual([]);

    await page.goto(`${bar.url}/bench`);
    const sections = page.getByRole('navigation', { name: 'Sections of the Bench' });
    await sections.getByRole('button', { name: 'Coffees' }).click();
    await expect(page.getByText('Saltmarsh')).toBeVisible();
    await expect(page.getByText('Altitude, m')).toHaveCount(0);
    await page.reload();
    await expect(page.getByText('Saltmarsh')).toBeVisible();
    expect(await unreadable(page)).toEqual([]);
  });
});
