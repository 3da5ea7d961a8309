/** The first day: from an empty database to a served cup, and a bar that runs to look at. */
import { expect, test } from '../support/bar';
import { allCleaned, stateOnce, type State } from '../support/barista';

test.use({ demo: 'new' });
test.setTimeout(240_000);

type Settings = { name: string; altitudeM: number; stations: object[]; kettles: object[]; coffees: object[] };

test('from nothing to a served cup: each step is saved or left out, and nothing stands there that was not put there', async ({
  page,
  bar,
}) => {
  const empty = await bar.get<Settings>('/api/bar');
  expect([empty.stations, empty.kettles, empty.coffees]).toEqual([[], [], []]);
  await page.goto(bar.url);
  await expect(page.getByText('Your first day')).toBeVisible();

  // A bar without a name is told so, at its field.
  await page.getByRole('button', { name: 'Save: Name and place' }).click();
  await expect(page.getByText('Give the bar a name.')).toBeVisible();
  await page.getByLabel('Name of the bar').fill('Ferry kiosk');
  await page.getByRole('radio', { name: /^High up/ }).click();
  await expect(page.getByText('Water boils at 95.0 °C there.')).toBeVisible();
  await page.getByRole('button', { name: 'Save: Name and place' }).click();

  const cone = page.getByRole('button', { name: 'One more: Cone M', exact: true });
  await cone.click();
  await cone.click();
  await expect(page.getByText('2 stations')).toBeVisible();
  await page.getByRole('button', { name: 'Save: Brewers' }).click();

  await page.getByRole('button', { name: 'One more: Usual, 1 litre' }).click();
  await page.getByRole('radio', { name: /boiler tap/ }).click();
  await page.getByRole('button', { name: 'Save: Kettles' }).click();

  await page.getByLabel('Name of the grinder').fill('Old mill');
  await page.getByRole('radio', { name: 'I know two settings' }).click();
  await page.getByLabel('Its setting for a cone').fill('18');
  await page.getByLabel('Its setting for a press').fill('18');
  await page.getByRole('button', { name: 'Save: Grinders' }).click();
  await expect(page.getByText('Give both settings as numbers, and not the same one twice.')).toBeVisible();
  await page.getByLabel('Its setting for a press').fill('30');
  await page.getByRole('button', { name: 'Save: Grinders' }).click();

  await page.getByLabel('Name of the coffee').fill('Grey Gull');
  await page.getByRole('button', { name: 'Add: Coffees' }).click();
  await expect(page.getByText('Grey Gull')).toBeVisible();
  await page.getByRole('button', { name: 'Next step after: Coffees' }).click();
  await page.getByRole('button', { name: 'Skip: People' }).click();

  // A reload in the middle loses nothing of it. The practice brew is brewed by the card, and is no brew of the bar's.
  await page.reload();
  await page.getByTestId('begin-practice').click();
  await expect(page.getByTestId('hands-card')).toBeVisible();
  await page.getByTestId('main-button').click();
  const next = page.getByRole('button', { name: 'Next step', exact: true });
  for (let steps = 0; await next.isVisible(); steps += 1) {
    expect(steps).toBeLessThan(40);
    await next.click();
  }
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  expect((await bar.get<State>('/api/state')).state.orders).toEqual({});

  await expect(page.getByText('Your bar can take its first order.')).toBeVisible();
  await page.getByTestId('open-the-bar').click();
  await expect(page.getByText('Nothing to do')).toBeVisible();
  await page.getByRole('button', { name: 'New order' }).click();
  await page.getByLabel('For whom').fill('first guest');
  await page.getByTestId('take-order').click();
  await expect(page.getByTestId('hands-card')).toBeVisible();
  await bar.work();
  const { brews } = await stateOnce(bar, allCleaned);
  expect(Object.values(brews)).toMatchObject([{ ask: { coffee: 'Grey Gull' } }]);
  const { name, altitudeM } = await bar.get<Settings>('/api/bar');
  expect([name, altitudeM]).toEqual(['Ferry kiosk', 1500]);
});

test('a bar that runs can be looked at: it is marked as made up, brews by its own card, and is left in one tap with nothing stored', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await page.getByRole('button', { name: 'Look at a bar that runs' }).click();
  // Its morning is lived through first.
  await expect(page.getByText('This bar is made up. Nothing here is stored.')).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByTestId('hands-card')).toBeVisible();
  const asks = page.getByTestId('hands-card').getByRole('status').first();
  const before = (await asks.getAttribute('aria-label')) ?? '';
  await page.getByTestId('main-button').click();
  await expect(asks).not.toHaveAttribute('aria-label', before);
  await page.getByRole('link', { name: 'Orders', exact: true }).click();
  await expect(page.getByText('This bar is made up. Nothing here is stored.')).toBeVisible();
  await page.getByTestId('leave-made-up').click();
  await expect(page.getByText('Your first day')).toBeVisible();
  expect((await bar.get<State>('/api/state')).seq).toBe(0);
  expect((await bar.get<Settings>('/api/bar')).stations).toEqual([]);
});
