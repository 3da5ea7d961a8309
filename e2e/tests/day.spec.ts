/** One day of a bar: opened by its list, got ready for the rush, brewed, handed over, and closed. */
import { expect, test } from '../support/bar';
import { allCleaned, stateOnce, orderComes } from '../support/barista';

test.use({ demo: 'bench' });
test.setTimeout(240_000);

/** Boats of the feed land so far apart, milliseconds of bar time. */
const BOATS_MS = 1_200_000;

type Events = { state: { houseEvents?: { type: string; by?: string; count?: number; list?: string }[] } };

test('opening to closing: lists are ticked off by name, a cup out of a ready tin needs no weighing, and the handover makes itself', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  // Whose device it is: what is ticked off bears that name.
  await page.evaluate(() => localStorage.setItem('even-kettle.device@2', JSON.stringify({ person: 'noor' })));
  await page.reload();
  await page.getByRole('button', { name: /^Today: opening/ }).click();
  const opening = page.getByRole('group', { name: 'Opening', exact: true });
  const lines = opening.getByRole('checkbox');
  await expect(lines.first()).toBeVisible();
  const many = await lines.count();
  expect(many).toBeGreaterThan(5);
  for (let line = 0; line < many; line += 1) await lines.nth(line).click();
  await expect(opening.getByText(/^Noor, \d\d:\d\d/)).toHaveCount(many);
  await expect(page.getByText('All done.').first()).toBeVisible();
  // A line that was ticked off by mistake is open again with a tap.
  await lines.first().click();
  await expect(lines.first()).not.toBeChecked();
  await lines.first().click();

  // A log without these hours expects nothing; boats of the feed do.
  await expect(page.getByText(/The log has no brews of these hours yet/)).toBeVisible();
  await bar.set({
    menu: [{ id: 'm1', coffeeId: 'saltmarsh', recipeId: 'cone-thirds', sizesMl: [250] }],
  });
  // Just after a boat has landed, so that no guest of the next one comes while this is looked at.
  const { barMs } = await bar.get<{ barMs: number }>('/api/clock');
  await bar.skip((BOATS_MS - (barMs % BOATS_MS)) / 1000);
  await bar.runFeed(true);
  await page.reload();
  await page.getByRole('button', { name: /^All \d+ ready: Saltmarsh, tins of 17\.6 g/ }).click();
  await expect(page.getByText(/^[1-9]\d* of \d+ ready/).first()).toBeVisible();
  await bar.runFeed(false);
  await bar.set({ menu: [] });

  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await orderComes(page, bar, 'pilot', [{ method: 'Cone', recipe: 'Bloom and three pours', size: '250' }]);
  await bar.work('weigh');
  await expect(page.getByTestId('verb').first()).toContainText('Take the tin');

  // The second pair of hands comes on: how the bar stands is on one page, and is signed.
  await page.goto(`${bar.url}/log/today`);
  await expect(page.getByRole('group', { name: 'Runs now' })).toContainText(/at Cone \d: Saltmarsh/);
  await expect(page.getByRole('group', { name: 'Settings changed' })).toContainText('menu');
  await page.getByTestId('sign-handover').click();
  await expect(page.getByText(/^Taken over by Noor, \d\d:\d\d\./)).toBeVisible();

  await bar.work();
  await stateOnce(bar, allCleaned);

  // The closing list can be the bar's own.
  await page.goto(`${bar.url}/bench`);
  await page.getByRole('button', { name: 'Open Milk is cold and apart, with its allergens marked' }).click();
  await page.getByLabel('Name', { exact: true }).fill('The gate is locked');
  await page.getByRole('button', { name: 'Save closing list' }).click();
  await page.goto(`${bar.url}/log/today`);
  const closing = page.getByRole('group', { name: 'Closing', exact: true });
  await closing.getByRole('checkbox', { name: 'The gate is locked' }).click();
  await expect(closing.getByRole('checkbox', { name: 'The gate is locked' })).toBeChecked();
  // What was tapped last may still be on its way.
  const done = async () =>
    ((await bar.get<Events>('/api/state')).state.houseEvents ?? []).filter(
      ({ type }) => type === 'task-done',
    );
  await expect.poll(async () => (await done()).filter(({ list }) => list === 'closing').length).toBe(1);
  expect((await done()).every(({ by }) => by === 'noor')).toBe(true);
});
