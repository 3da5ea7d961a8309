/**
 * A barista who sees nothing and uses no mouse: everything is read from the accessibility tree and done by keys.
 */
import type { Page } from '@playwright/test';
import { expect, test } from '../support/bar';
import type { State } from '../support/barista';

test.setTimeout(180_000);

/** Goes through the page with the Tab key until what is called so has the keyboard. */
async function tabTo(page: Page, role: string, name: RegExp): Promise<void> {
  for (let steps = 0; steps < 120; steps += 1) {
    await page.keyboard.press('Tab');
    const at = await page.evaluate(() => {
      const { activeElement: element } = document;
      const given = element?.getAttribute('role') ?? (element?.tagName === 'INPUT' ? 'textbox' : '');
      return { role: given, name: element?.getAttribute('aria-label') ?? element?.textContent ?? '' };
    });
    if (at.role === role && name.test(at.name)) return;
  }
  throw new Error(`The Tab key never came to a ${role} called ${name}.`);
}

/** What the tree says of the hands card: its step, and whether its time has come. */
async function heard(page: Page): Promise<{ over: boolean; now: boolean; step: string }> {
  const tree = await page.getByRole('main').ariaSnapshot();
  const step = /status "[^:]+: (.*)"/.exec(tree)?.[1] ?? '';
  const target = /^Pour to (\d+) g/.exec(step)?.[1];
  const shouldRead = /scale should read (\d+) g/.exec(tree)?.[1];
  const begins = tree.includes('starts with the first water');
  return {
    over: tree.includes('Nothing to do'),
    step: begins ? `${step}, begun` : step,
    now:
      step !== '' &&
      !/Next, in|goes on by itself/.test(tree) &&
      (target === undefined || shouldRead === target || begins),
  };
}

test('an order, a brew and its tasting, by keyboard alone and read from the accessibility tree alone', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await expect(page.getByText('Nothing to do')).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'New order' })).toBeVisible();
  await tabTo(page, 'radio', /^Cone,/);
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('radio', { name: /^Press,/ })).toBeChecked();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('radio', { name: /^Cone,/ })).toBeChecked();
  await tabTo(page, 'textbox', /^Size of cup 1/);
  await page.keyboard.press('Control+A');
  await page.keyboard.type('300');
  await tabTo(page, 'textbox', /^For whom/);
  await page.keyboard.type('no mouse');
  await page.keyboard.press('Enter');

  const done: string[] = [];
  for (let looks = 0; looks < 900; looks += 1) {
    const { over, now, step } = await heard(page);
    if (over && done.length > 0) break;
    if (now && done.at(-1) !== step) {
      // Drops are waited for; other steps take a hand its time.
      await bar.skip(/^Watch/.test(step) ? 50 : 3);
      await page.keyboard.press('Space');
      done.push(step);
    } else {
      await bar.skip(2);
      await page.waitForTimeout(100);
    }
  }
  expect(done).toEqual(
    expect.arrayContaining([
      expect.stringMatching(/^Fill/),
      expect.stringMatching(/^Pour to/),
      expect.stringMatching(/^Watch/),
    ]),
  );
  await expect
    .poll(async () =>
      Object.values((await bar.get<State>('/api/state')).state.brews).map(({ status }) => status),
    )
    .toEqual(['cleaned']);

  await page.keyboard.press('l');
  await expect(page.getByRole('heading', { name: 'Log' })).toBeVisible();
  await tabTo(page, 'link', /House coffee/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'How was it?' })).toBeVisible();
  await tabTo(page, 'radio', /^very sour/);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await tabTo(page, 'radio', /^very weak/);
  await page.keyboard.press('ArrowLeft');
  await tabTo(page, 'button', /^dry clumps/);
  await page.keyboard.press('Enter');
  await tabTo(page, 'textbox', /^In your words/);
  await page.keyboard.type('walnut');
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => {
      const { records } = await bar.get<{ records: { taste: object | null; name?: string }[] }>('/api/log');
      return records[0]?.taste;
    })
    .toMatchObject({
      seen: ['clumps'],
      words: 'walnut',
      balance: expect.any(Number),
      strength: expect.any(Number),
    });
});
