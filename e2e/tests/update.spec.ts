/** A new version of the app: announced, never in mid-brew, and taken on a tap. */
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, openBar, test } from '../support/bar';
import { doWhatItSays, takeOrder, workItOff } from '../support/barista';

test.use({ serviceWorkers: 'allow' });

test('a new version is announced while nothing is brewed, waits while something is, and comes with a tap', async ({
  page,
}) => {
  const appDir = mkdtempSync(join(tmpdir(), 'even-kettle-app-'));
  cpSync(fileURLToPath(new URL('../../app/dist', import.meta.url)), appDir, { recursive: true });
  const bar = await openBar({ rate: 30, appDir });
  try {
    await page.goto(bar.url);
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    const note = page.getByText('There is a new version of the app.');
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
    await doWhatItSays(page);
    await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())!.update());
    await page.waitForFunction(
      async () => (await navigator.serviceWorker.getRegistration())!.waiting !== null,
    );
    await expect(note).toBeHidden();
    await workItOff(page, 40);

    await expect(note).toBeVisible();
    await expect(page.locator('meta[name="version"]')).toHaveCount(0);
    // A second page of this device is told when the first has taken the new version, and is not loaded anew by itself.
    const second = await page.context().newPage();
    await second.goto(`${bar.url}/recipes`);
    await expect(second.getByText('There is a new version of the app.')).toBeVisible();
    await page.getByRole('button', { name: 'Load the new version' }).click();
    await expect(page.locator('meta[name="version"]')).toHaveCount(1);
    await expect(page.getByText('Nothing to do')).toBeVisible();
    await expect(note).toBeHidden();
    await expect(second.locator('meta[name="version"]')).toHaveCount(0);
    await second.getByRole('button', { name: 'Load the new version' }).click();
    await expect(second.locator('meta[name="version"]')).toHaveCount(1);
  } finally {
    await bar.close();
    rmSync(appDir, { recursive: true, force: true });
  }
});
