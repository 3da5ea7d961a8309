/** For whoever learns: why and how on the card, and the whole method as a silent run before the first real brew. */
import { expect, test } from '../support/bar';
import { takeOrder, type State } from '../support/barista';

test('a learner is told why and how, and is shown a siphon from the flame to the clean globe without brewing it', async ({
  page,
  bar,
}) => {
  await page.goto(`${bar.url}/bench`);
  await page.getByRole('switch', { name: /I am learning/ }).click();
  await takeOrder(page, 'window', [{ method: 'Cone', recipe: 'Bloom and three pours', size: '250' }]);
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await expect(page.getByTestId('learner')).toContainText('Why:');
  await expect(page.getByTestId('learner')).toContainText('How:');

  await page.goto(`${bar.url}/recipes/siphon-late`);
  await page.getByRole('button', { name: /Show me the whole method/ }).click();
  const next = page.getByRole('button', { name: 'Next step' });
  const verb = page.getByTestId('verb').filter({ visible: true });
  const seen: string[] = [];
  await expect(next).toBeVisible();
  // A siphon has some fifteen steps of the hands; each is on the card before it is gone on from.
  for (let step = 0; step < 40 && (await next.isVisible()); step += 1) {
    const now = await verb.textContent();
    if (seen.at(-1) !== now) seen.push(now!);
    if (now?.startsWith('Hook'))
      await expect(page.getByRole('img', { name: /filter’s chain/ })).toBeVisible();
    await next.click();
  }
  await expect(page.getByText('That was all')).toBeVisible();
  expect(seen[0]).toBe('Hook, centre and rinse the cloth');
  expect(seen).toEqual(
    expect.arrayContaining(['Light the flame', 'Seal the top gently', 'Coffee in, press under, stir 6']),
  );
  expect(seen.at(-1)).toBe('Rinse globe and cloth, reset');

  // Nothing of it reached the bar: the one order is the one that was taken.
  const { state } = (await (await fetch(`${bar.url}/api/state`)).json()) as State;
  expect(Object.values(state.orders).map(({ name }) => name)).toEqual(['window']);
  expect(Object.keys(state.brews)).toEqual([]);
});
