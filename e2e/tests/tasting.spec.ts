/** Tasting blind: one coffee in two grinds, of which the better is kept; and a coffee of the house beside one that is not. */
import { expect, test } from '../support/bar';
import { allCleaned, choose, stateOnce } from '../support/barista';

test.use({ demo: 'bench' });

type Begun = { type: string; cups: { letter: string; grindBy?: number; recipeId?: string }[] };
type Settings = {
  coffees: { name: string; recipeChanges?: Record<string, { grindBy?: Record<string, number> }> }[];
};

test('two grinds are brewed in the order of their letters, scored once they are out, and the better is kept for its coffee', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/log/round`);
  await page.getByRole('radio', { name: /^Grinds/ }).click();
  await page.getByRole('radio', { name: /^Two/ }).click();
  await page.getByTestId('begin-round').click();
  // Behind the letters nobody sees what differs, and nothing is scored before it is there.
  await expect(page.getByText('not out yet')).toHaveCount(2);
  await page.getByLabel('Who tastes').fill('Noor');
  await expect(page.getByRole('button', { name: 'A: 7' })).toBeDisabled();

  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await expect(page.getByTestId('sample').first()).toHaveText('Sample A');
  await bar.work();
  await stateOnce(bar, allCleaned);

  const { state } = await bar.get<{ state: { houseEvents: Begun[] } }>('/api/state');
  const { cups } = state.houseEvents.find(({ type }) => type === 'round-begun')!;
  const changed = cups.find(({ grindBy }) => grindBy !== undefined)!;
  const usual = cups.find(({ grindBy }) => grindBy === undefined)!;
  await page.goto(`${bar.url}/log/round`);
  await page.getByLabel('Who tastes').fill('Noor');
  await page.getByLabel(`In words, ${changed.letter}`).fill('sweeter');
  await page.getByRole('button', { name: `${changed.letter}: 8` }).click();
  await page.getByRole('button', { name: `${usual.letter}: 5` }).click();
  await page.getByTestId('reveal').click();
  await expect(page.getByText('Noor 8, “sweeter”')).toBeVisible();
  await page.getByTestId('keep-best').click();
  await expect(page.getByText('Kept for Saltmarsh: 0.5 steps coarser.')).toBeVisible();
  const { coffees } = await bar.get<Settings>('/api/bar');
  const kept = Object.values(coffees.find(({ name }) => name === 'Saltmarsh')!.recipeChanges ?? {});
  expect(kept).toEqual([{ grindBy: { big: 0.5 } }]);

  // They were sold to nobody.
  const day = await bar.get<{ cups: number }>(
    `/api/day?fromMs=${Date.now() - 86_400_000}&toMs=${Date.now() + 86_400_000}`,
  );
  expect(day.cups).toBe(0);
});

test('two recipes of one coffee are brewed to be drunk together, no card says their letters before the cup, and the better goes on the menu', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/log/round`);
  await page.getByRole('radio', { name: /^Recipes/ }).click();
  await choose(page, 'Recipe 1', 'Cone: Bloom and three pours');
  await choose(page, 'Recipe 2', 'Cone: One pour, no bloom');
  await page.getByTestId('begin-round').click();
  await expect(page.getByText('not out yet')).toHaveCount(2);
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await expect(page.getByTestId('sample').first()).toHaveText(
    'Sample: its letter is shown when it is handed over',
  );
  await bar.work('serve');
  await expect(page.getByTestId('hands-card').getByTestId('sample')).toHaveText(/^Sample [AB]$/);
  await bar.work();
  await stateOnce(bar, allCleaned);

  const { state } = await bar.get<{ state: { houseEvents: Begun[] } }>('/api/state');
  const { cups } = state.houseEvents.find(({ type }) => type === 'round-begun')!;
  const [won, lost] = ['cone-onepour', 'cone-thirds'].map((id) =>
    cups.find(({ recipeId }) => recipeId === id)!,
  );
  await page.goto(`${bar.url}/log/round`);
  await page.getByLabel('Who tastes').fill('Noor');
  await page.getByRole('button', { name: `${won!.letter}: 9` }).click();
  await page.getByRole('button', { name: `${lost!.letter}: 6` }).click();
  await page.getByTestId('reveal').click();
  await expect(page.getByTestId('opened-letter').first()).toContainText('One pour, no bloom');
  await page.getByTestId('keep-best').click();
  await expect(page.getByText('On the menu for Saltmarsh: Cone: One pour, no bloom.')).toBeVisible();
  const { menu } = await bar.get<{ menu: { recipeId: string }[] }>('/api/bar');
  expect(menu.map(({ recipeId }) => recipeId)).toContain('cone-onepour');
});

test('a round of coffees is scored behind its letters by two tasters, a coffee from elsewhere among them, and opened best first', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/log`);
  await page.getByRole('button', { name: 'Blind tasting' }).click();
  await expect(page.getByTestId('begin-round')).toBeDisabled();
  await page.getByRole('button', { name: 'Saltmarsh' }).click();
  await page.getByLabel('A coffee that is not on the bench').fill('A visitor’s bag');
  await page.getByRole('button', { name: 'Add the coffee to the round' }).click();
  await page.getByTestId('begin-round').click();
  // No name is seen while it is tasted.
  await expect(page.getByRole('group', { name: 'Score of A' })).toBeVisible();
  await expect(page.getByText('Saltmarsh')).toHaveCount(0);
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await expect(page.getByTestId('sample').first()).toHaveText('Sample A');
  await bar.work();
  await stateOnce(bar, allCleaned);
  await page.goto(`${bar.url}/log/round`);
  for (const [taster, a, b] of [
    ['Noor', 4, 8],
    ['Imre', 5, 9],
  ] as const) {
    await page.getByLabel('Who tastes').fill(taster);
    await page.getByRole('button', { name: `A: ${a}`, exact: true }).click();
    await page.getByRole('button', { name: `B: ${b}`, exact: true }).click();
  }
  await page.getByTestId('reveal').click();
  const opened = page.getByTestId('opened-letter');
  await expect(opened.first()).toContainText(/^B · (Saltmarsh|A visitor’s bag)8\.5/);
  await expect(opened.last()).toContainText('Noor 4; Imre 5');
  // Coffees are compared, and nothing of a recipe is kept.
  await expect(page.getByTestId('keep-best')).toHaveCount(0);
});
