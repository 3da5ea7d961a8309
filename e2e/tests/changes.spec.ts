/** An order is never finished changing: each change says what it does to the times before it is made, and can be undone. */
import type { Page } from '@playwright/test';
import { expect, test } from '../support/bar';
import { choose, orderComes } from '../support/barista';

test.use({ demo: 'bench' });

const openOrder = async (page: Page, letter: string) => {
  await page.getByRole('link', { name: 'Orders', exact: true }).click();
  await page
    .getByRole('button', { name: `Change order ${letter}` })
    .filter({ visible: true })
    .click();
  await expect(page).toHaveURL(/orders\/./);
};
const close = (page: Page) =>
  page.getByRole('button', { name: 'Close', exact: true }).filter({ visible: true }).click();
const effect = (page: Page) => page.getByTestId('effect').filter({ visible: true });

test('a guest changes her mind three times, and tells of an allergy: what each does to the times is said before', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', [{ method: 'Cone', size: '250' }]);
  await orderComes(page, bar, 'pilot', [{ method: 'Press', size: '250' }]);
  await openOrder(page, 'B');

  // A siphon instead.
  const pressed = performance.now();
  await page.getByRole('button', { name: 'Change cup 1' }).click();
  await page
    .getByRole('radiogroup', { name: 'Method of cup 1' })
    .getByRole('radio', { name: /^Siphon,/ })
    .click();
  await page.getByLabel('Size of cup 1').filter({ visible: true }).fill('300');
  await expect(effect(page)).toContainText(/B: out at .*, (was .*|as before)\./);
  console.info(`a change and its effect: ${Math.round(performance.now() - pressed)} ms with the taps`);
  await page.getByRole('button', { name: 'Save', exact: true }).filter({ visible: true }).click();
  await expect(page.getByTestId('effect')).toHaveCount(0);
  await expect(
    page
      .getByText(/300 ml/)
      .filter({ visible: true })
      .first(),
  ).toBeVisible();

  // One more, and then not the siphon after all.
  await page.getByRole('button', { name: 'Add a cup' }).click();
  await page
    .getByRole('radiogroup', { name: 'Method of cup 2' })
    .getByRole('radio', { name: /^Cone,/ })
    .click();
  await page.getByLabel('Size of cup 2').filter({ visible: true }).fill('250');
  await page.getByRole('button', { name: 'Allergy or wish of cup 2' }).click();
  await page.getByLabel('Allergy of cup 2').fill('nuts');
  await expect(effect(page)).toContainText(/B: out at/);
  await page.getByRole('button', { name: 'Add the cup' }).click();
  await page.getByRole('button', { name: 'Cancel cup 1' }).click();
  await expect(effect(page)).toContainText(/B: out at/);
  await page
    .getByRole('button', { name: 'Cancel this cup', exact: true })
    .filter({ visible: true })
    .last()
    .click();
  // What was tapped last may still be on its way.
  const cupsOfPilot = async () => {
    const { state } = await bar.get<{
      state: { orders: Record<string, { name?: string; cups: { status: string; allergy?: string }[] }> };
    }>('/api/state');
    const order = Object.values(state.orders).find(({ name }) => name === 'pilot');
    return order?.cups.map(({ status, allergy }) => [status, allergy]);
  };
  await expect.poll(cupsOfPilot).toEqual([
    ['cancelled', undefined],
    ['waiting', 'nuts'],
  ]);

  // The allergy stands on the order, and on the card from the first step to the last.
  await close(page);
  await expect(page.getByTestId('allergy').filter({ visible: true })).toHaveText('Allergy: nuts');
  // The other guest leaves, so that this cup is the next.
  await openOrder(page, 'A');
  await page.getByRole('button', { name: 'The guest has left' }).click();
  await page.getByRole('button', { name: 'The guest has left' }).last().click();
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await expect(page.getByTestId('hands-card').getByTestId('allergy')).toHaveText('Allergy: nuts');
});

test('an order is split, joined again and renamed; its guest leaves, and what was being brewed goes to another', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'corner', [
    { method: 'Cone', size: '250' },
    { method: 'Press', size: '250' },
  ]);
  await openOrder(page, 'A');
  await page.getByLabel('For whom').filter({ visible: true }).fill('the pilot');
  await page.getByRole('button', { name: 'Save the name' }).click();
  await page.getByRole('button', { name: 'Split off' }).click();
  await page.getByRole('button', { name: /^Cup 2:/ }).click();
  await expect(effect(page)).toContainText(/New order: out at/);
  await page.getByRole('button', { name: 'Split off' }).last().click();
  await close(page);
  await expect(page.getByTestId('open-order')).toHaveCount(2);
  // Undo is exact.
  await page.getByTestId('undo').filter({ visible: true }).click();
  await expect(page.getByTestId('open-order')).toHaveCount(1);

  // A second order is joined with it.
  await orderComes(page, bar, 'window', [{ method: 'Cone', size: '250' }]);
  await openOrder(page, 'B');
  await page.getByRole('button', { name: 'Join with another order' }).click();
  await choose(page, 'Join with', 'A, the pilot');
  await expect(effect(page)).toContainText(/A: out at/);
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await expect(page.getByText('Cup 3', { exact: true }).filter({ visible: true })).toBeVisible();
  await close(page);
  await page.getByTestId('undo').filter({ visible: true }).click();
  await expect(page.getByTestId('open-order')).toHaveCount(2);

  // Its cone is begun when the guest leaves: the other guest, who waits for the same, gets it.
  await page.getByRole('button', { name: /^Start Saltmarsh, cup 1 of order A/ }).click();
  await openOrder(page, 'A');
  await page.getByRole('button', { name: 'The guest has left' }).click();
  await choose(page, 'Its brew at Cone 1', 'goes to order B, window');
  await expect(effect(page)).toContainText('A: nothing of it waits any more.');
  await page.getByRole('button', { name: 'The guest has left' }).last().click();
  await expect(page.getByTestId('open-order')).toHaveCount(1);
  type Order = { name?: string; cups: { status: string }[] };
  const statuses = async () => {
    const { state } = await bar.get<{ state: { orders: Record<string, Order> } }>('/api/state');
    return Object.values(state.orders).map(({ name, cups }) => [name, cups.map(({ status }) => status)]);
  };
  await expect.poll(statuses).toEqual([
    ['the pilot', ['cancelled', 'cancelled']],
    ['window', ['brewing']],
  ]);
});
