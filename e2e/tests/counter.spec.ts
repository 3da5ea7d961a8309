/** The counter: what is quoted holds. */
import { expect, test } from '../support/bar';
import { allCleaned, doWhatItSays, stateOnce, workItOff } from '../support/barista';

test('three orders of mixed methods: each is quoted by method, promised, and out within 20 s of its promise', async ({
  page,
  bar,
  context,
}) => {
  test.setTimeout(240_000);
  await bar.set({
    stations: [
      { id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' },
      { id: 'cone-2', name: 'Cone 2', brewerId: 'cone-m' },
      { id: 'air-1', name: 'Air', brewerId: 'air-press' },
    ],
  });
  await page.goto(bar.url);
  const counter = await context.newPage();
  await counter.goto(`${bar.url}/orders/new`);
  const takes: [name: string, method: RegExp, size: string][] = [
    ['window', /^Cone,/, '220'],
    ['pilot', /^Air press,/, '220'],
    ['mate', /^Cone,/, '220'],
  ];
  for (const [name, method, size] of takes) {
    await counter.goto(`${bar.url}/orders/new`);
    const methods = counter.getByRole('radiogroup', { name: 'Method of cup 1' });
    await methods.getByRole('radio', { name: method }).click();
    await counter.getByLabel('Size of cup 1').fill(size);
    await counter.getByLabel('For whom').fill(name);
    // Every method says when it would be ready, and the order itself does so large.
    await expect(methods.getByRole('radio', { name: /^Cone,.*\d:\d\d/ })).toBeVisible();
    await expect(methods.getByRole('radio', { name: /^Air press,.*\d:\d\d/ })).toBeVisible();
    await expect(counter.getByTestId('quoted')).toHaveText(/^\d+:\d\d$/);
    await counter.getByTestId('take-order').click();
    await expect(counter.getByTestId('hands-card')).toBeVisible();
    // Meanwhile work goes on.
    for (let deeds = 0; deeds < 3; deeds += 1) await doWhatItSays(page);
  }
  await workItOff(page, 80);
  const state = await stateOnce(bar, allCleaned);
  const orders = Object.values(state.orders);
  expect(orders).toHaveLength(3);
  for (const order of orders) {
    const outMs = Math.max(...order.cups.map((cup) => state.brews[cup.brewIds.at(-1)!]!.servedMs!));
    const afterS = Math.round((outMs - order.promisedMs!) / 1000);
    console.log(`  ${order.name}: out ${afterS} s after its promise`);
    expect(afterS).toBeLessThanOrEqual(20);
  }
});
