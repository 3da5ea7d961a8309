/** The network, the clock and the machine as they really are: away, asleep, wrong. */
import type { Page } from '@playwright/test';
import { expect, test, type RunningBar } from '../support/bar';
import { doWhatItSays, orderComes, takeOrder, type State } from '../support/barista';

/**
 * How far the page's clock is from the server's, real milliseconds: the best of five turns of a second, since a busy
 * machine draws some of them late.
 */
async function clockErrorMs(page: Page, url: string): Promise<number> {
  let best = Infinity;
  for (let turn = 0; turn < 5 && Math.abs(best) >= 200; turn += 1) {
    const error = await errorAtOneTurnMs(page, url);
    if (Math.abs(error) < Math.abs(best)) best = error;
  }
  return best;
}

async function errorAtOneTurnMs(page: Page, url: string): Promise<number> {
  return page.evaluate(async (at) => {
    const clock = document.querySelector('[data-testid="wall-clock"]')!;
    const from = clock.textContent;
    const turnedMs = await new Promise<number>((resolve) => {
      const look = () => (clock.textContent === from ? setTimeout(look, 2) : resolve(performance.now()));
      look();
    });
    let best = { halfMs: Infinity, barMs: 0, atMs: 0 };
    for (let trip = 0; trip < 7; trip += 1) {
      const sent = performance.now();
      const { barMs } = (await (await fetch(`${at}/api/clock`)).json()) as { barMs: number };
      const got = performance.now();
      if ((got - sent) / 2 < best.halfMs) best = { halfMs: (got - sent) / 2, barMs, atMs: (got + sent) / 2 };
    }
    const shown = Number(clock.textContent?.slice(-2));
    const atTurnMs = best.barMs - (best.atMs - turnedMs);
    // Where the second really turned, and which second it was.
    const wrongS = (((shown - Math.round(atTurnMs / 1000)) % 60) + 90) % 60;
    return (((atTurnMs % 1000) + 1500) % 1000) - 500 + (wrongS - 30) * 1000 * (wrongS === 30 ? 0 : 1);
  }, url);
}

const barMs = async (bar: RunningBar) => (await bar.get<{ barMs: number }>('/api/clock')).barMs;

/** Up to which event the device keeps the bar; -1 where it keeps none. */
const keptSeq = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const open = indexedDB.open('even-kettle');
        open.onerror = () => reject(new Error('no database'));
        open.onsuccess = () => {
          const read = open.result.transaction('kept').objectStore('kept').getAll();
          read.onsuccess = () => {
            open.result.close();
            resolve((read.result as { seq: number }[])[0]?.seq ?? -1);
          };
        };
      }),
  );

test.describe('time', () => {
  test.use({ rate: 1 });

  test('a page that was frozen for a minute, a device clock that moved by an hour, a machine that slept: the clock is right within 0.2 s', async ({
    page,
    bar,
  }) => {
    await page.addInitScript(() => {
      const state = window as unknown as { wallShiftMs: number; sleptMs: number };
      state.wallShiftMs = 0;
      state.sleptMs = 0;
      const wall = Date.now.bind(Date);
      Date.now = () => wall() + state.wallShiftMs;
      const monotonic = performance.now.bind(performance);
      performance.now = () => monotonic() - state.sleptMs;
    });
    await page.goto(bar.url);
    await orderComes(page, bar, 'window', [{ method: 'Cone', size: '250' }]);
    await page.getByTestId('main-button').click();
    expect(Math.abs(await clockErrorMs(page, bar.url))).toBeLessThan(200);

    const devtools = await page.context().newCDPSession(page);
    await devtools.send('Page.setWebLifecycleState', { state: 'frozen' });
    await new Promise((resolve) => setTimeout(resolve, 60_000));
    await devtools.send('Page.setWebLifecycleState', { state: 'active' });
    const afterFreeze = await clockErrorMs(page, bar.url);

    await page.evaluate(() => ((window as unknown as { wallShiftMs: number }).wallShiftMs = 3_600_000));
    const afterShift = await clockErrorMs(page, bar.url);

    // Asleep, the machine's monotonic clock stood still; on waking the page is only told that it is visible, or hears the
    // server's next beat.
    await page.evaluate(() => {
      (window as unknown as { sleptMs: number }).sleptMs = 45_000;
      document.dispatchEvent(new Event('visibilitychange'));
    });
    await page.waitForTimeout(600);
    const afterSleep = await clockErrorMs(page, bar.url);
    await page.evaluate(() => ((window as unknown as { sleptMs: number }).sleptMs = 90_000));
    await page.waitForTimeout(5000);
    const afterBeat = await clockErrorMs(page, bar.url);
    console.log(
      `clock error after a minute frozen ${afterFreeze.toFixed(0)} ms, an hour's shift ${afterShift.toFixed(0)} ms, sleep ${afterSleep.toFixed(0)} ms, sleep unnoticed ${afterBeat.toFixed(0)} ms`,
    );
    for (const error of [afterFreeze, afterShift, afterSleep, afterBeat])
      expect(Math.abs(error)).toBeLessThan(200);
  });
});

test.describe('away', () => {
  test.use({ rate: 30, serviceWorkers: 'allow' });

  test('the app opens and brews with the server away, and every tap is in the log when it is back', async ({
    page,
    bar,
  }) => {
    await page.goto(bar.url);
    await orderComes(page, bar, 'window', [{ method: 'Press', size: '250' }]);
    await doWhatItSays(page);
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    const before = (await bar.get<State>('/api/state')).seq;
    // The bar as it stands is kept a moment after each change.
    await expect.poll(() => keptSeq(page)).toBe(before);
    await bar.kill();
    await page.reload();
    await expect(page.getByTestId('hands-card')).toBeVisible();
    await expect(page.getByText(/server away/)).toBeVisible();
    for (let taps = 0; taps < 3; taps += 1) expect(await doWhatItSays(page)).not.toBeNull();
    await page.reload();
    await expect(page.getByText(/server away, 3 kept here/)).toBeVisible();
    await bar.start();
    await expect
      .poll(async () => (await bar.get<State>('/api/state')).seq, { timeout: 20_000 })
      .toBe(before + 3);
    await expect(page.getByText(/server away/)).toBeHidden();
  });
});

test.describe('two devices', () => {
  test.use({ rate: 60 });

  test('half an hour away: what both tapped is decided and said, and the device has caught up exactly', async ({
    browser,
    page,
    bar,
  }) => {
    await page.goto(bar.url);
    await orderComes(page, bar, 'window', [{ method: 'Press', size: '250' }]);
    const far = await browser.newContext({ viewport: { width: 390, height: 844 }, locale: 'en-GB' });
    const there = await far.newPage();
    await there.goto(bar.url);
    await expect(there.getByTestId('verb')).toHaveText(/^Fill Kettle 1 to$/);
    const leftMs = await barMs(bar);
    await far.setOffline(true);
    await doWhatItSays(there);
    await expect(there.getByText(/server away/)).toBeVisible({ timeout: 20_000 });
    // Meanwhile the bar goes on: the same brew to its end, and another order after it.
    for (let deed = await doWhatItSays(page); deed; deed = await doWhatItSays(page))
      expect(deed).not.toBeNull();
    await takeOrder(page, 'corner', [{ method: 'Cone', size: '250' }]);
    await expect.poll(() => barMs(bar), { timeout: 40_000 }).toBeGreaterThan(leftMs + 30 * 60_000);
    await far.setOffline(false);
    await expect(there.getByText(/server away/)).toBeHidden({ timeout: 20_000 });
    await expect(there.getByRole('alert').first()).toContainText(/already|other device|counts|started/);
    await expect(there.getByTestId('verb')).toHaveText((await page.getByTestId('verb').textContent())!);
    // What the device keeps of its own is what the server has.
    await expect.poll(() => keptSeq(there)).toBe((await bar.get<State>('/api/state')).seq);
    await far.close();
  });
});
