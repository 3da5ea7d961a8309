/** Recipes on a phone: found, converted, asked why, changed, handed on. */
import type { Page } from '@playwright/test';
import { expect, test } from '../support/bar';

test.use({ demo: 'bench', viewport: { width: 390, height: 844 } });

const fact = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name} `) });
const field = (page: Page, which: string) => page.getByTestId(`convert-${which}`);
type Recipes = { recipes: { id: string; version: number; ratio: number; steps: { id: string }[] }[] };

test('350 ml of this coffee in the sock, here at 2,150 m, is found in four taps and is right', async ({
  page,
  bar,
}) => {
  await bar.set({ altitudeM: 2150 });
  await page.goto(`${bar.url}/recipes`);
  let taps = 0;
  const tap = async (role: 'radio' | 'link' | 'button', name: RegExp | string) => {
    taps += 1;
    await page.getByRole(role, { name }).click();
  };
  await tap('radio', /^Cloth sock/);
  await tap('link', 'Cloth sock: Four pours by the clock');
  await tap('radio', /^Saltmarsh/);
  await tap('button', 'A cup of 350 ml');
  expect(taps).toBeLessThanOrEqual(4);

  // 350 / (15.5 - 1.7) = 25.4 g, x 15.5 = 394 g; a light roast wishes 92 + 1.5 °C, and water boils at 92.8 here.
  await expect(field(page, 'dose')).toHaveValue('25.4');
  await expect(field(page, 'water')).toHaveValue('394');
  await expect(fact(page, 'Water at')).toContainText('92.8 °C');
  await expect(page.getByText('The recipe wishes 93.5 °C; at 2150 m water boils at 92.8 °C')).toBeVisible();
  // 2.2 x 25.4 = 56 g, then three equal pours of what is left.
  await expect(page.getByRole('img', { name: /^Pour line/ })).toHaveAccessibleName(
    'Pour line: 0:00 to 56 g, 0:40 to 169 g, 1:20 to 282 g, 2:00 to 394 g; ends at 3:13',
  );
});

test('any field leads, any number says why, and a wrong one says what would be right', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/recipes/cone-thirds`);
  await field(page, 'dose').fill('20');
  await expect(field(page, 'water')).toHaveValue('324');
  await expect(field(page, 'cup')).toHaveValue('284');
  await field(page, 'water').fill('400');
  await expect(field(page, 'dose')).toHaveValue('24.7');

  await page.getByRole('button', { name: 'Dose, why?' }).click();
  const why = page.getByRole('region', { name: 'Why Dose' });
  await expect(why).toContainText('= round(water ÷ R, 1)');
  await expect(why).toContainText('Brew water · asked for');
  await expect(why).toContainText('Ratio · recipe');
  await page.getByRole('button', { name: 'Close why' }).click();
  await page.getByRole('button', { name: '180 g, why?' }).click();
  await expect(page.getByRole('region', { name: /^Why Reading/ })).toContainText('= round(share × water, 0)');

  for (const [typed, words] of [
    ['a lot', 'Dose: “a lot” is not a number. Type one like 12.7.'],
    ['-3', 'Dose must be from 3 to 120 g, not -3.'],
    ['', 'Dose: type a number.'],
    ['<b>', 'Dose: “<b>” is not a number. Type one like 12.7.'],
  ] as const) {
    await field(page, 'dose').fill(typed);
    await expect(page.getByRole('alert')).toHaveText(words);
  }
  // Too much for one cone: what would do is offered, and taken with a tap.
  await field(page, 'dose').fill('40');
  await expect(page.getByRole('alert')).toHaveText(
    '40 g is too much for the Cone M, which takes up to 32 g.',
  );
  await page.getByRole('button', { name: '2 equal brews of 284 ml in the Cone M.' }).click();
  await expect(field(page, 'dose')).toHaveValue('20.0');
  await expect(page.getByRole('alert')).toHaveCount(0);

  await page.getByRole('button', { name: /^Change altitude/ }).click();
  await field(page, 'cups').fill('0');
  await expect(page.getByRole('alert')).toHaveText('Cups: a whole number from 1 to 12.');
  await field(page, 'cups').fill('2');
  await field(page, 'altitude').fill('2150');
  await expect(fact(page, 'Water at')).toContainText('92.8 °C');
});

test('a recipe is changed, checked as one types, saved as a version, compared and brought back', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/recipes/cone-thirds`);
  await page.getByRole('button', { name: 'Change it' }).click();
  const save = page.getByTestId('save-recipe');
  await page.getByLabel('Ratio, 1 to').fill('15');
  await page.getByRole('button', { name: 'Open Last of three pours' }).click();
  await page.getByTestId('step-amount').fill('140');
  await expect(page.getByRole('alert').first()).toContainText('come to 140 % of the brew water');
  await expect(save).toBeDisabled();
  await page.getByTestId('step-amount').fill('100');
  await expect(save).toBeEnabled();
  // A draft outlives a reload.
  await page.reload();
  await expect(page.getByLabel('Ratio, 1 to')).toHaveValue('15');

  // Moved by keyboard: the swirl of the bloom goes below the pour after it, and back.
  const handle = page.getByRole('button', { name: 'Move Swirl the bloom' });
  const order = () =>
    page
      .locator('[data-testid^="step-"]:has([aria-label^="Move"])')
      .evaluateAll((rows) => rows.map((row) => row.getAttribute('data-testid')));
  const before = await order();
  await handle.focus();
  await page.keyboard.press('ArrowDown');
  await expect
    .poll(async () => (await order()).indexOf('step-swirl-bloom'))
    .toBe(before.indexOf('step-swirl-bloom') + 1);
  await page.getByRole('button', { name: 'Open Swirl the bloom' }).click();
  await page.getByRole('button', { name: 'Move Swirl the bloom up' }).click();
  await expect.poll(order).toEqual(before);
  // And by drag: the last swirl above the last pour, then back by arrow.
  const from = (await page.getByRole('button', { name: 'Move Swirl', exact: true }).boundingBox())!;
  const to = (await page.getByRole('button', { name: 'Move Last of three pours' }).boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + 20, to.y + 10, { steps: 8 });
  await page.mouse.up();
  await expect
    .poll(async () => (await order()).indexOf('step-swirl-end'))
    .toBe(before.indexOf('step-pour-4'));
  await page.getByRole('button', { name: 'Move Swirl', exact: true }).focus();
  await page.keyboard.press('ArrowDown');
  await expect.poll(order).toEqual(before);

  await save.click();
  await expect(page.getByText('version 3')).toBeVisible();
  await page.getByRole('button', { name: 'Versions' }).click();
  await expect(page.getByText('16.2 → 15')).toBeVisible();
  await page.getByTestId('restore').click();
  await expect(page.getByText('Version 2 is back, as version 4.')).toBeVisible();
  const { recipes } = await bar.get<Recipes>('/api/recipes/cone-thirds/versions');
  expect(recipes.map(({ version, ratio }) => [version, ratio])).toEqual([
    [1, 16.2],
    [2, 16.2],
    [3, 15],
    [4, 16.2],
  ]);
});

test('two devices that change the same recipe: the second is told, and keeps its draft', async ({
  page,
  bar,
  context,
}) => {
  const other = await context.newPage();
  for (const each of [page, other]) await each.goto(`${bar.url}/recipes/press-long/edit`);
  await page.getByLabel('Ratio, 1 to').fill('15');
  await other.getByLabel('Ratio, 1 to').fill('17');
  // Enter saves, as the button does.
  await page.getByLabel('Ratio, 1 to').press('Enter');
  await expect(page.getByText('version 3')).toBeVisible();
  await other.getByTestId('save-recipe').click();
  await expect(other.getByRole('alert')).toContainText('has come to version 3 since version 2 was opened');
  await expect(other.getByLabel('Ratio, 1 to')).toHaveValue('17');
});

test('a file is shown before it is taken in, and a wrong one says where', async ({ page, bar }) => {
  const { recipes } = await bar.get<Recipes>('/api/recipes');
  const thirds = recipes.find(({ id }) => id === 'cone-thirds')!;
  const file = (name: string, value: unknown) => ({
    name,
    mimeType: 'application/json',
    buffer: Buffer.from(typeof value === 'string' ? value : JSON.stringify(value)),
  });
  await page.goto(`${bar.url}/recipes/import`);
  const bring = async (payload: ReturnType<typeof file>) => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByTestId('import-file').click(),
    ]);
    await chooser.setFiles(payload);
  };
  const format = 'even-kettle/recipes@1';
  for (const [payload, words] of [
    [file('a.json', '{'), 'file is not JSON'],
    [file('b.json', { format: 'even-kettle/recipes@9', recipes: [] }), 'is version 9 of the format'],
    [
      file('c.json', { format, recipes: [{ ...thirds, name: '<img src=x onerror=alert(1)>' }] }),
      'recipes.0.name must be one line of plain text',
    ],
    [file('d.json', ' '.repeat(5_000_000)), 'is 5 MB; a file of recipes is at most 1 MB'],
  ] as const) {
    await bring(payload);
    await expect(page.getByRole('alert')).toContainText(words);
  }
  await bring(
    file('ours.json', {
      format,
      recipes: [
        { ...thirds, ratio: 15 },
        { ...thirds, id: 'cone-ours', name: 'Ours' },
      ],
    }),
  );
  await expect(page.getByText('would be version 3; version 2 stays')).toBeVisible();
  await expect(page.getByText('16.2 → 15')).toBeVisible();
  await page.getByRole('button', { name: 'Bloom and three pours: taken' }).click();
  await page.getByTestId('import-take').click();
  await expect(page.getByText('Ours: kept as version 1.')).toBeVisible();
  const after = await bar.get<Recipes>('/api/recipes');
  expect(after.recipes.find(({ id }) => id === 'cone-thirds')!.version).toBe(2);
  await page.getByRole('button', { name: 'All recipes' }).first().click();
  await expect(page.getByRole('link', { name: 'Cone: Ours' })).toBeVisible();
});

test('a code carries a recipe to another phone with the server away', async ({ page, bar }) => {
  await page.goto(`${bar.url}/recipes/siphon-slow/share`);
  const picture = await page.getByTestId('recipe-code').screenshot();
  await page.goto(`${bar.url}/recipes/import`);
  await expect(page.getByTestId('import-picture')).toBeVisible();
  await bar.kill();
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByTestId('import-picture').click(),
  ]);
  await chooser.setFiles({ name: 'photo.png', mimeType: 'image/png', buffer: picture });
  await expect(page.getByText('Longer and calmer')).toBeVisible();
  await expect(page.getByText('the same as here; nothing to take')).toBeVisible();
  await page.getByLabel('Or the code as text').fill('ek1=notacode');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('alert')).toContainText('damaged or cut off');
  await bar.start();
});

test('a card prints on one page, without the page around it', async ({ page, bar }) => {
  for (const id of ['cone-thirds', 'siphon-late', 'flat-small']) {
    await page.goto(`${bar.url}/recipes/${id}/print`);
    await expect(page.getByRole('img', { name: /^(Pour line|Steps of)/ })).toBeVisible();
    await expect(page.getByRole('navigation')).toHaveCount(0);
    const pdf = await page.pdf({ preferCSSPageSize: true });
    expect(pdf.toString('latin1').match(/\/Type \/Page\b/g)).toHaveLength(1);
  }
});

test('what the guest wants is answered with a method and its reasons', async ({ page, bar }) => {
  await page.goto(`${bar.url}/recipes`);
  await page.getByRole('radio', { name: 'heavy', exact: true }).click();
  const first = page.getByRole('link', { name: /: / }).first();
  await expect(first).toHaveAccessibleName(/^Press/);
  await expect(first).toContainText('body 5 of 5');
});

test('the bench is set: a grinder’s points move the setting in the converter, wrong ones are told', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/bench`);
  await page.getByRole('button', { name: 'Open Big grinder' }).click();
  await page.getByLabel('Setting').nth(1).fill('40');
  await page.getByRole('button', { name: 'Save grinders' }).click();
  await expect(page.getByRole('alert')).toContainText('must all rise, or all fall');
  await page.getByLabel('Setting').nth(1).fill('20');
  await page.getByRole('button', { name: 'Save grinders' }).click();
  await expect(page.getByRole('button', { name: 'Save grinders' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Recipes' }).click();
  await page.getByRole('link', { name: 'Cone: Bloom and three pours' }).click();
  // Band 52, two thirtieths of the way from 50 (20) to 80 (6).
  await expect(fact(page, 'Big grinder')).toContainText('19.1');
});
