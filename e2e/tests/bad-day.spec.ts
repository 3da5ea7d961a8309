import { expect, test } from '../support/bar';
import { doWhatItSays, orderComes, type State } from '../support/barista';

test.describe('a quick clock', () => {
  // With the server away nobody can skip its time.
  test.use({ rate: 10 });

  test('the server is killed in mid-brew: taps go on, and every one of them is in the state and the log when it is back', async ({
    page,
    bar,
  }) => {
    await page.goto(bar.url);
    await orderComes(page, bar, 'corner table', [
      { method: 'Cone', recipe: 'Bloom and three pours', size: '250' },
      { method: 'Press', size: '250' },
    ]);
    for (let taps = 0; taps < 3; taps += 1) await doWhatItSays(page);
    await expect(page.getByText(/server away/)).toBeHidden();
    const marksOf = ({ state }: State) =>
      Object.values(state.brews).flatMap((brew) =>
        Object.values(brew.marks).flatMap(({ begunMs, doneMs }) =>
          [begunMs, doneMs].filter((ms) => ms !== undefined),
        ),
      );
    await expect.poll(async () => marksOf(await bar.get<State>('/api/state')).length).toBe(3);
    const before = (await bar.get<State>('/api/state')).seq;

    await bar.kill();
    for (let taps = 0; taps < 4; taps += 1) expect(await doWhatItSays(page)).not.toBeNull();
    const kept = Number((await page.getByText(/server away, \d kept here/).textContent())!.match(/\d/)![0]);
    expect(kept).toBeGreaterThanOrEqual(4);

    await bar.start();
    await expect
      .poll(async () => (await bar.get<State>('/api/state')).seq, { timeout: 15_000 })
      .toBe(before + kept);
    await expect(page.getByText(/server away/)).toBeHidden();
    expect(marksOf(await bar.get<State>('/api/state'))).toHaveLength(3 + 4);
    // And the brew goes on where it was.
    const next = await page.getByTestId('verb').textContent();
    await page.reload();
    await expect(page.getByTestId('verb')).toHaveText(next!);
  });
});

test('taps that could not be posted survive a reload and are stored then', async ({ page, bar }) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', [{ method: 'Cone', size: '250' }]);
  await page.route('**/api/events', (route) => route.abort());
  await doWhatItSays(page);
  await expect(page.getByText(/server away, 2 kept here/)).toBeVisible();
  expect((await bar.get<State>('/api/state')).seq).toBe(1);
  await page.unroute('**/api/events');
  await page.reload();
  await expect.poll(async () => (await bar.get<State>('/api/state')).seq).toBe(3);
  await expect(page.getByTestId('verb')).toHaveText('Fold, set and rinse the filter');
});

test('a page that finds no server says so, and goes on by itself once there is one', async ({
  page,
  bar,
}) => {
  await page.route('**/api/state', (route) => route.abort());
  await page.goto(bar.url);
  await expect(page.getByText('The bar’s server cannot be reached')).toBeVisible();
  await page.unroute('**/api/state');
  await expect(page.getByText('Nothing to do')).toBeVisible({ timeout: 15_000 });
});

test('a slow network holds no tap back: the card goes on at once', async ({ page, bar }) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', [{ method: 'Cone', size: '250' }]);
  await page.route('**/api/events', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await doWhatItSays(page);
  await expect(page.getByTestId('verb')).toHaveText('Fold, set and rinse the filter', { timeout: 500 });
  await expect.poll(async () => (await bar.get<State>('/api/state')).seq).toBe(3);
});
