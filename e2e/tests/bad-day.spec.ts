import { expect, test } from '../support/bar';
import { doWhatItSays, takeOrder, type State } from '../support/barista';

test.use({ rate: 10 });

test('the server is killed in mid-brew: taps go on, and every one of them is in the state and the log when it is back', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await takeOrder(page, 'corner table', [
    { method: 'Cone', recipe: 'bloom and three', size: '250' },
    { method: 'Press', size: '250' },
  ]);
  for (let taps = 0; taps < 3; taps += 1) await doWhatItSays(page);
  await expect.poll(async () => (await bar.get<State>('/api/state')).seq).toBe(5);
  await bar.kill();
  const away = [];
  for (let taps = 0; taps < 4; taps += 1) away.push((await doWhatItSays(page))!);
  await expect(page.getByText(/server away, \d kept here/)).toBeVisible();

  await bar.start();
  // Three taps before (two of them also started a brew) and the order; each tap away is one event more.
  await expect.poll(async () => (await bar.get<State>('/api/state')).seq, { timeout: 15_000 }).toBe(9);
  await expect(page.getByText(/server away/)).toBeHidden();
  const { state } = await bar.get<State>('/api/state');
  const marks = Object.values(state.brews).flatMap((brew) => Object.values(brew.marks));
  expect(
    marks.flatMap(({ begunMs, doneMs }) => [begunMs, doneMs]).filter((ms) => ms !== undefined),
  ).toHaveLength(3 + away.length);
  // And the brew goes on where it was.
  const next = await page.getByTestId('verb').textContent();
  await page.reload();
  await expect(page.getByTestId('verb')).toHaveText(next!);
});

test('taps that could not be posted survive a reload and are stored then', async ({ page, bar }) => {
  await page.goto(bar.url);
  await takeOrder(page, 'window', [{ method: 'Cone', size: '250' }]);
  await page.route('**/api/events', (route) => route.abort());
  await doWhatItSays(page);
  await expect(page.getByText(/server away, 2 kept here/)).toBeVisible();
  expect((await bar.get<State>('/api/state')).seq).toBe(1);
  await page.unroute('**/api/events');
  await page.reload();
  await expect.poll(async () => (await bar.get<State>('/api/state')).seq).toBe(3);
  await expect(page.getByTestId('verb')).toHaveText('Weigh beans');
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
  await takeOrder(page, 'window', [{ method: 'Cone', size: '250' }]);
  await page.route('**/api/events', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await doWhatItSays(page);
  await expect(page.getByTestId('verb')).toHaveText('Weigh beans', { timeout: 500 });
  await expect.poll(async () => (await bar.get<State>('/api/state')).seq).toBe(3);
});
