import { expect, test } from '../support/bar';
import { doWhatItSays, handSpans, orderComes, takeOrder, type Deed, type State } from '../support/barista';

test('a barista takes a cone and a press, follows the hands card to “handed over”, and reloads in mid-brew', async ({
  page,
  bar,
}) => {
  const complaints: string[] = [];
  page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()));
  page.on('pageerror', (error) => complaints.push(error.message));
  await page.goto(bar.url);
  await expect(page.getByText('Nothing to do')).toBeVisible();
  await takeOrder(page, 'corner table', [
    { method: 'Cone', recipe: 'Bloom and three pours', size: '250' },
    { method: 'Press', size: '250' },
  ]);

  const deeds: Deed[] = [];
  for (;;) {
    // A tap that is not stored yet when the page goes is asked for again, as it should be.
    const isStored = deeds.length === 8 ? page.waitForResponse('**/api/events') : null;
    const deed = await doWhatItSays(page);
    if (!deed) break;
    deeds.push(deed);
    expect(deeds.length).toBeLessThan(40);
    if (isStored) {
      await isStored;
      const clock = await page.getByTestId('figure').textContent();
      await page.reload();
      await expect(page.getByTestId('hands-card')).toBeVisible();
      expect(clock).not.toBeNull();
    }
  }

  // The last tap may still be on its way.
  await expect
    .poll(async () =>
      Object.values((await bar.get<State>('/api/state')).state.brews).map(({ status }) => status),
    )
    .toEqual(['cleaned', 'cleaned']);
  const { state } = await bar.get<State>('/api/state');
  expect(Object.values(state.orders)[0]!.cups.map(({ status }) => status)).toEqual(['served', 'served']);
  expect(deeds.filter(({ what }) => what === 'Handed over')).toHaveLength(2);
  expect(deeds.filter(({ what }) => what === 'Poured').length).toBe(5);

  // Both brews were on at once, and no two attended steps were: a tap's own delay is all that may overlap.
  const spans = await handSpans(bar);
  const ofBrew = (station: string) => spans.filter(({ who }) => who.startsWith(station));
  const [cone, press] = [ofBrew('Cone'), ofBrew('Press')];
  expect(Math.max(cone[0]!.fromMs, press[0]!.fromMs)).toBeLessThan(
    Math.min(cone.at(-1)!.toMs, press.at(-1)!.toMs),
  );
  const slackMs = 1000;
  spans
    .slice(1)
    .forEach((span, index) =>
      expect(spans[index]!.toMs - span.fromMs, `${spans[index]!.who} and ${span.who}`).toBeLessThanOrEqual(
        slackMs,
      ),
    );

  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await expect(page.getByTestId('real-time')).toHaveCount(2);
  expect(complaints).toEqual([]);
});

test('an undone tap is as if it had not been, and a given-up brew goes round again', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', [{ method: 'Cone', size: '250' }]);
  await doWhatItSays(page);
  await doWhatItSays(page);
  await page.getByTestId('undo').click();
  await expect(page.getByTestId('verb')).toHaveText('Fold, set and rinse the filter');
  await expect
    .poll(async () => Object.values((await bar.get<State>('/api/state')).state.brews)[0]?.marks['set-filter'])
    .toBeUndefined();
  await page.getByRole('link', { name: 'Orders', exact: true }).click();
  await page.getByRole('button', { name: /^Stop the brew/ }).click();
  await page.getByRole('button', { name: 'Stop and brew again' }).click();
  await expect(page.getByText(/^waiting · /)).toBeVisible();
  await page.getByRole('button', { name: /^Start / }).click();
  await expect(page.getByText(/^at Cone.1 · /)).toBeVisible();
  await expect
    .poll(async () => Object.keys((await bar.get<State>('/api/state')).state.brews))
    .toHaveLength(2);
});

test('a cup that no brewer here can make is told at the field, in the bar’s own unit, and nothing is taken', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/bench`);
  await page.getByRole('radio', { name: 'fl oz' }).click();
  await page.getByRole('link', { name: 'Orders', exact: true }).click();
  await page.getByTestId('new-order').click();
  const size = page.getByLabel('Size of cup 1');
  await expect(size).toHaveValue('8.5');
  for (const [typed, told] of [
    ['0', 'Size: from 2 to 33.8 fl oz.'],
    ['170', 'Size: from 2 to 33.8 fl oz.'],
    ['large', '“large” is not a number'],
    ['30', '62.5 g is too much for the Cone M'],
  ] as const) {
    await size.fill(typed);
    await page.getByTestId('take-order').click();
    await expect(page.getByRole('alert')).toContainText(told);
  }
  expect((await bar.get<State>('/api/state')).seq).toBe(0);
});

test('the converter follows whichever field leads', async ({ page, bar }) => {
  await page.goto(bar.url);
  await page.getByRole('link', { name: 'Recipes', exact: true }).click();
  await page.getByRole('link', { name: /Bloom and three pours/ }).click();
  await expect(page.getByTestId('convert-dose')).toHaveValue('17.6');
  await page.getByTestId('convert-water').fill('399');
  await expect(page.getByTestId('convert-cup')).toHaveValue('350');
  await expect(page.getByText('399 g', { exact: true })).toBeVisible();
  await page.getByTestId('convert-dose').fill('900');
  await expect(page.getByRole('alert')).toContainText('from 3 to 120 g');
});

test('an order is taken with the keyboard alone: arrows choose, Enter takes it', async ({ page, bar }) => {
  await page.goto(`${bar.url}/orders/new`);
  const methods = page.getByRole('radiogroup', { name: 'Method of cup 1' });
  await methods.getByRole('radio', { checked: true }).focus();
  const first = await methods.getByRole('radio', { checked: true }).getAttribute('aria-label');
  await page.keyboard.press('ArrowRight');
  const second = methods.getByRole('radio', { checked: true });
  expect(await second.getAttribute('aria-label')).not.toBe(first);
  await expect(second).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(methods.getByRole('radio', { checked: true })).toBeFocused();
  // Tab leaves the group: its other choices are not stops of their own.
  await page.keyboard.press('Tab');
  expect(await page.evaluate(() => document.activeElement?.getAttribute('role'))).not.toBe('radio');
  await page.getByLabel('For whom').fill('by keys');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('hands-card')).toBeVisible({ timeout: 15_000 });
  const { state } = (await bar.get('/api/state')) as State;
  const [order] = Object.values(state.orders);
  expect(order).toMatchObject({ name: 'by keys' });
  expect(order!.promisedMs).toBeGreaterThan(0);
});
