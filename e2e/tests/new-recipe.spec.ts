/** A recipe from a bag of coffee: typed in from blank or pasted, scaled to another cup, and brewed. */
import type { Locator } from '@playwright/test';
import { expect, test } from '../support/bar';
import { allCleaned, stateOnce, takeOrder } from '../support/barista';

test('a printed recipe is typed in from blank with few taps, scales to another cup, and is brewed', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/recipes`);
  let deeds = 0;
  const tap = async (where: Locator) => {
    deeds += 1;
    await where.click();
  };
  /** Types a text; its figures and the name cost nothing, every other key does. */
  const type = async (field: string, text: string, free = /[\d.:]/g) => {
    await tap(page.getByTestId(field));
    await page.keyboard.type(text);
    deeds += text.replaceAll(free, '').length;
  };
  await tap(page.getByRole('button', { name: 'New recipe' }));
  await type('new-name', 'Harbour wall', /./g);
  await type('new-dose', '17.4');
  await type('new-water', '272');
  await type('new-temperature', '92');
  await type('new-pours', '0:00 41,0:36 +94,1:12 rest');
  await expect(page.getByText('0:36 First of two pours, to 135 g: to 49.6 %.')).toBeVisible();
  await expect(page.getByText(/^For 300 ml: 22\.0 g of coffee, to 52 g, 171 g, 344 g\./)).toBeVisible();
  await tap(page.getByTestId('save-new-recipe'));
  await expect(page).toHaveURL(/\/recipes\/cone-harbour-wall$/);
  expect(deeds).toBeLessThanOrEqual(25);

  await takeOrder(page, 'window', [{ method: 'Cone', recipe: 'Harbour wall', size: '300' }]);
  await bar.work();
  const { brews } = await stateOnce(bar, allCleaned);
  const [brew] = Object.values(brews);
  expect(Object.keys(brew!.marks).length).toBeGreaterThan(8);
  expect([brew!.card.doseG, brew!.card.brewWaterG]).toEqual([22, 344]);
  const poured = brew!.card.steps.filter(({ id, targetG }) => targetG && brew!.marks[id]?.doneMs);
  expect(poured.map(({ targetG }) => targetG)).toEqual([52, 171, 344]);
});

test('a pasted text fills the same form, and what it could not read is marked', async ({ page, bar }) => {
  await page.goto(`${bar.url}/recipes/new`);
  await page
    .getByTestId('pasted-recipe')
    .fill('Quay\n18 g coffee, 290 g water, 94 °C\n0:00 bloom 40 g\n0:40 to 130 g, 1:10 rest\n24 clicks');
  await page.getByRole('button', { name: 'Read the pasted text' }).click();
  await expect(page.getByTestId('unread')).toContainText('“24 clicks”');
  await expect(page.getByTestId('new-name')).toHaveValue('Quay');
  await expect(page.getByTestId('new-pours')).toHaveValue('0:00 to 40, 0:40 to 130, 1:10 rest');
  // A page that is left in between has kept it.
  await page.reload();
  await expect(page.getByTestId('new-dose')).toHaveValue('18');
  // Its steps are changed before it is saved, and that too is kept over a reload.
  await page.getByRole('button', { name: 'Change single steps before it is saved' }).click();
  await page.getByLabel('Ice, × dose').fill('4');
  await page.reload();
  await expect(page.getByLabel('Ice, × dose')).toHaveValue('4');
  await page.getByTestId('save-recipe').click();
  await expect(page).toHaveURL(/\/recipes\/cone-quay$/);
  await expect(page.getByText(/Brewed over 72 g of ice/)).toBeVisible();
});
