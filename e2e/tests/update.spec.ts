/** A new version of the app: announced, never in mid-brew, and taken on a tap; and a page that is older than its server. */
import { cpSync, mkdtempSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { expect, openBar, test } from '../support/bar';
import { takeOrder } from '../support/barista';

test.use({ serviceWorkers: 'allow' });

const DIST = fileURLToPath(new URL('../../app/dist', import.meta.url));
const appIn = () => mkdtempSync(join(tmpdir(), 'even-kettle-app-'));
const askForUpdate = (page: Page) =>
  page.evaluate(async () => {
    const before = navigator.serviceWorker.controller;
    await (await navigator.serviceWorker.getRegistration())!.update();
    while (navigator.serviceWorker.controller === before)
      await new Promise((resolve) => setTimeout(resolve, 50));
  });

test('a new version is announced while nothing is brewed, waits while something is, and comes with a tap or a plain reload', async ({
  page,
}) => {
  const appDir = appIn();
  cpSync(DIST, appDir, { recursive: true });
  const bar = await openBar({ appDir });
  try {
    await page.goto(bar.url);
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    const note = page.getByText('There is a new version of the app.');
    const isNew = page.locator('meta[name="version"]');
    await expect(note).toBeHidden();

    // What an update of the machine would do: another page, and a service worker that knows it.
    const rewrite = (file: string, change: (text: string) => string) => {
      const text = readFileSync(join(appDir, file), 'utf8');
      expect(change(text)).not.toBe(text);
      writeFileSync(join(appDir, file), change(text));
    };
    rewrite('index.html', (text) => text.replace('<head>', '<head><meta name="version" content="next">'));
    rewrite('sw.js', (text) => text.replace(/(url:\s*"index\.html",\s*revision:\s*")[^"]+/, '$1next'));

    await takeOrder(page, 'between two versions', [{ method: 'Press', size: '250' }]);
    await page.getByTestId('main-button').click();
    const second = await page.context().newPage();
    await second.goto(`${bar.url}/recipes`);
    await askForUpdate(page);
    // In mid-brew no page is loaded anew, nor asked to be; one that somebody reloads has the new version.
    await expect(note).toBeHidden();
    await expect(isNew).toHaveCount(0);
    await second.reload();
    await expect(second.locator('meta[name="version"]')).toHaveCount(1);
    await bar.work();

    await expect(note).toBeVisible();
    await expect(isNew).toHaveCount(0);
    await page.getByRole('button', { name: 'Load the new version' }).click();
    await expect(isNew).toHaveCount(1);
    await expect(page.getByText('Nothing to do')).toBeVisible();
    await expect(note).toBeHidden();
  } finally {
    await bar.close();
    rmSync(appDir, { recursive: true, force: true });
  }
});

/** The app as it was before it knew allergies: its scripts know neither the word nor today's number of the contract. */
function asBefore(appDir: string): void {
  cpSync(DIST, appDir, { recursive: true, filter: (file) => !file.endsWith('.br') });
  const scripts = join(appDir, '_expo/static/js');
  renameSync(join(scripts, 'web'), join(scripts, 'before'));
  let changed = 0;
  const files = [
    ...readdirSync(join(scripts, 'before')).map((name) => `_expo/static/js/before/${name}`),
    'index.html',
    'sw.js',
  ];
  for (const file of files) {
    const text = readFileSync(join(appDir, file), 'utf8');
    const before = text
      .replaceAll('static/js/web', 'static/js/before')
      .replace(/("CONTRACT_VERSION",\{enumerable:!0,get:function\(\)\{return )\w+/, (_all, get: string) => {
        changed += 1;
        return `${get}1`;
      })
      .replaceAll('.allergy', '.allergies')
      .replace(/\ballergy:!0/, 'allergies:!0')
      .replace(/(url:\s*"index\.html",\s*revision:\s*")[^"]+/, '$1before');
    writeFileSync(join(appDir, file), before);
  }
  expect(changed).toBeGreaterThan(0);
}

test('a page from before allergies says that it is older, shows what it does not know as text, takes taps, and loads the new app at a pause', async ({
  page,
}) => {
  const appDir = appIn();
  asBefore(appDir);
  const bar = await openBar({ appDir });
  try {
    await page.goto(bar.url);
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    const older = page.getByTestId('older-app');
    await expect(older).toContainText('may not show everything that an order asks');

    const { barMs } = await bar.get<{ barMs: number }>('/api/clock');
    const cup = {
      cupId: 'c1',
      recipeId: 'press-long',
      recipeVersion: 2,
      coffee: 'House coffee',
      roast: 'medium',
      cupMl: 250,
      allergy: 'walnuts',
    };
    const taken = {
      id: '01890000-0000-7000-8000-000000000001',
      type: 'order-taken',
      atMs: Math.round(barMs),
      orderId: 'o1',
      name: 'pilot',
      cups: [cup],
    };
    expect((await bar.post([taken])).status).toBe(200);
    await page.getByRole('link', { name: 'Orders' }).click();
    const orders = page.getByTestId('open-order');
    await expect(orders.getByTestId('unknown-wishes')).toHaveText(
      'allergy: walnuts · and more: update this device',
    );
    await expect(page.getByTestId('allergy')).toHaveCount(0);
    await page.getByRole('link', { name: 'Bar' }).click();
    await bar.work('load');
    await expect(page.getByTestId('main-button')).toHaveText('Tared');

    // The machine is updated while a step is due: the page stays until nothing is.
    rmSync(appDir, { recursive: true });
    cpSync(DIST, appDir, { recursive: true });
    await askForUpdate(page);
    await expect(older).toBeVisible();
    await bar.work();
    await expect(older).toBeHidden({ timeout: 30_000 });
    await page.getByRole('link', { name: 'Orders' }).click();
    await expect(page.getByTestId('allergy').first()).toHaveText('Allergy: walnuts');
  } finally {
    await bar.close();
    rmSync(appDir, { recursive: true, force: true });
  }
});
