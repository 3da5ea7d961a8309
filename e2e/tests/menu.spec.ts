/** The menu and the queues: the usual cup in two taps, six cups in a few more, what runs out, and who is served when. */
import type { Page } from '@playwright/test';
import { expect, test } from '../support/bar';
import { everySkipped } from '../support/barista';

test.use({ demo: 'bench', viewport: { width: 390, height: 844 } });

const MENU = [
  { id: 'm1', coffeeId: 'saltmarsh', recipeId: 'cone-thirds', sizesMl: [250, 300] },
  { id: 'm2', coffeeId: 'low-beacon', recipeId: 'press-long', sizesMl: [250] },
  { id: 'm3', coffeeId: 'slack-tide', recipeId: 'cone-thirds', sizesMl: [220] },
];
type Order = {
  name?: string;
  inQueue: { queueId: string; pickUpMs: number };
  cups: { coffee: string; cupMl: number }[];
};
type State = { state: { orders: Record<string, Order> } };

/** Counts every tap from here on. */
function countTaps(page: Page) {
  let taps = 0;
  return {
    tap: async (name: string | RegExp) => {
      taps += 1;
      await page.getByRole('button', { name }).filter({ visible: true }).first().click();
    },
    count: () => taps,
  };
}

test('the usual cup is two taps, six cups are under fifteen, and a guest gets the same again', async ({
  page,
  bar,
}) => {
  await bar.set({ menu: MENU });
  await page.goto(`${bar.url}/orders/new`);
  const one = countTaps(page);
  await one.tap(/^Saltmarsh, Cone/);
  await expect(page.getByTestId('quoted')).toBeVisible();
  await one.tap('Take the order');
  await expect(page).toHaveURL(`${bar.url}/`);
  expect(one.count()).toBe(2);

  await page.goto(`${bar.url}/orders/new`);
  const six = countTaps(page);
  for (const line of [/^Saltmarsh, Cone/, /^Low Beacon, Press/, /^Slack Tide decaf, Cone/]) {
    await six.tap(line);
    await six.tap(line);
  }
  await page.getByLabel('For whom').fill('school');
  await six.tap('300 ml for cup 1');
  await six.tap('Take 6 cups');
  await expect(page).toHaveURL(`${bar.url}/`);
  expect(six.count()).toBeLessThan(15);
  console.info(`six cups: ${six.count()} taps`);
  const cupsOfSchool = async () => {
    const { state } = await bar.get<State>('/api/state');
    const school = Object.values(state.orders).find(({ name }) => name === 'school');
    return school?.cups.map(({ coffee, cupMl }) => `${coffee} ${cupMl}`);
  };
  await expect
    .poll(cupsOfSchool)
    .toEqual([
      'Saltmarsh 300',
      'Saltmarsh 250',
      'Low Beacon 250',
      'Low Beacon 250',
      'Slack Tide decaf 220',
      'Slack Tide decaf 220',
    ]);

  await page.goto(`${bar.url}/orders/new`);
  await page.getByRole('button', { name: /^The same again for school/ }).click();
  await expect(page.getByTestId('cup-line')).toHaveCount(6);
  await expect(page.getByLabel('For whom')).toHaveValue('school');
});

test('a coffee runs out in mid-rush: the menu warns, then it is off, and one more can be had if somebody says so', async ({
  page,
  bar,
}) => {
  await bar.set({ menu: MENU });
  const base = { atMs: (await bar.get<{ barMs: number }>('/api/clock')).barMs, type: 'coffee-weighed' };
  await bar.post([{ ...base, id: crypto.randomUUID(), coffee: 'Slack Tide decaf', stockG: 33 }]);
  await page.goto(`${bar.url}/orders/new`);
  const decaf = page.getByTestId('menu-m3');
  await expect(decaf).toContainText('only 2 doses left');
  await decaf.click();
  await decaf.click();
  await page.getByRole('button', { name: 'Take 2 cups' }).click();
  await expect(page).toHaveURL(`${bar.url}/`);
  await page.goto(`${bar.url}/orders/new`);
  await expect(decaf).toContainText('no coffee left');
  await decaf.click();
  await expect(page.getByTestId('cup-line')).toHaveCount(0);
  await decaf.click();
  await expect(page.getByTestId('cup-line')).toHaveCount(1);
});

test('queues: an order for a boat is brewed for its time, and moving it to the counter says what that does', async ({
  page,
  bar,
}) => {
  await bar.set({
    menu: MENU,
    queues: [
      { id: 'counter', name: 'Counter', promise: 'soon' },
      { id: 'boat', name: 'For the boat', promise: 'pick-up', stroke: 'double' },
    ],
  });
  await page.goto(`${bar.url}/orders/new`);
  await page.getByTestId('menu-m1').click();
  await page.getByRole('radio', { name: /^For the boat/ }).click();
  await page.getByTestId('take-order').click();
  await expect(page.getByText('Say the time like 14:20.')).toBeVisible();
  const { barMs } = await bar.get<{ barMs: number }>('/api/clock');
  const at = await page.evaluate((ms) => {
    const time = new Date(ms + 1_800_000);
    return `${String(time.getHours()).padStart(2, '0')}:${String(time.getMinutes()).padStart(2, '0')}`;
  }, barMs);
  await page.getByLabel('Wanted at').fill(at);
  await page.getByTestId('take-order').click();
  await expect(page).toHaveURL(`${bar.url}/`);
  // It comes out within two minutes of its time, and not after it.
  type Planned = { plan: { finish: Record<string, number> } | null };
  const finish = async () => Object.values((await bar.get<Planned>('/api/plan')).plan?.finish ?? {})[0] ?? 0;
  await expect.poll(finish).toBeGreaterThan(0);
  const finishS = await finish();
  const { state } = await bar.get<State>('/api/state');
  const [order] = Object.values(state.orders);
  expect(order!.inQueue.queueId).toBe('boat');
  const beforeS = order!.inQueue.pickUpMs / 1000 - finishS;
  expect(beforeS).toBeLessThanOrEqual(125);
  expect(beforeS).toBeGreaterThanOrEqual(0);

  await page.goto(`${bar.url}/orders`);
  await expect(page.getByText(`For the boat, wanted at ${at}`)).toBeVisible();
  await page.getByRole('button', { name: /^Change order/ }).click();
  await page.getByRole('button', { name: 'Another queue' }).click();
  await page.getByRole('radio', { name: /^Counter/ }).click();
  await expect(page.getByTestId('effect')).toContainText(/out at .*, was /);
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByTestId('effect')).toHaveCount(0);
  await expect.poll(async () => finishS - (await finish())).toBeGreaterThan(300);
});

test('the feed’s boat lands while a form is open: what is typed stays, and its guests stand in the queue', async ({
  page,
  bar,
}) => {
  await bar.set({ menu: MENU });
  await page.goto(`${bar.url}/bench`);
  await page.getByRole('button', { name: 'Start the feed' }).click();
  await expect(page.getByText(/^It runs\. The next boat lands at/)).toBeVisible();
  await page.goto(`${bar.url}/orders/new`);
  await page.getByTestId('menu-m1').click();
  await page.getByLabel('For whom').fill('deckhand');
  // The next boat lands within twenty minutes, and its guests come one after the other.
  const orders = async () => Object.keys((await bar.get<State>('/api/state')).state.orders).length;
  await expect.poll(everySkipped(bar, 60, orders), { timeout: 60_000 }).toBeGreaterThan(1);
  await expect(page.getByLabel('For whom')).toHaveValue('deckhand');
  await expect(page.getByTestId('cup-line')).toHaveCount(1);
  const before = await orders();
  await page.getByTestId('take-order').click();
  await expect(page).toHaveURL(`${bar.url}/`);
  await expect.poll(orders).toBeGreaterThan(before);
});
