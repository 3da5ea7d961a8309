/** A bar that is open to a network: devices come in by a code, see what their role may, and go at once when they are taken off. */
import { request, type Page } from '@playwright/test';
import { expect, test } from '../support/bar';
import { openNetworkBar, type NetworkBar } from '../support/network';
import { takeOrder } from '../support/barista';

let bar: NetworkBar;
test.beforeEach(async ({ browser }) => void (bar = await openNetworkBar(browser)));
test.afterEach(() => bar.close());

async function lead(): Promise<Page> {
  const page = await bar.device({ width: 1280, height: 800 });
  await page.goto(bar.leadLink);
  await page.getByLabel('A name for it (may be left out)').fill('Office');
  await page.getByTestId('pair').click();
  await expect(page.getByText('Lantern Pier').first()).toBeVisible();
  return page;
}

async function codeFor(page: Page, role: string, name: string): Promise<string> {
  await page.goto(`${bar.url}/bench?section=access`);
  await page.getByRole('radio', { name: role, exact: true }).click();
  await page.getByLabel('What the device is called').fill(name);
  await page.getByTestId('show-code').click();
  return (await page.getByTestId('invitation-code').innerText()).replace(' ', '');
}

async function paired(code: string): Promise<Page> {
  const page = await bar.device();
  await page.goto(bar.url);
  await page.getByTestId('pair-code').fill(code);
  await page.getByTestId('pair').click();
  return page;
}

test('a phone is paired by a code, brews, keeps a tap while it is away, and is out when it is taken off', async () => {
  const office = await lead();
  const code = await codeFor(office, 'Barista', 'Window phone');
  const stranger = await bar.device();
  await stranger.goto(`${bar.url}/orders`);
  await expect(stranger.getByText('Pair this device')).toBeVisible();
  await stranger.getByTestId('pair-code').fill(String((Number(code) + 1) % 1e6).padStart(6, '0'));
  await stranger.getByTestId('pair').click();
  await expect(stranger.getByRole('alert')).toContainText('This code or link does not work');

  const phone = await paired(code);
  await takeOrder(phone, 'window', [{ method: 'Cone', size: '250' }]);
  await phone.goto(`${bar.url}/bench`);
  await expect(phone.getByText('The bar’s settings are changed on the lead’s device.')).toBeVisible();
  await expect(phone.getByText('This device', { exact: true })).toBeVisible();
  await expect(phone.getByText('Grinders')).toHaveCount(0);

  // Away from the network a tap is kept; meanwhile the phone is taken off the bar.
  await phone.goto(bar.url);
  await expect(phone.getByTestId('main-button')).toBeVisible();
  await phone.context().setOffline(true);
  await phone.getByTestId('main-button').click();
  await expect(phone.getByText(/server away, \d kept here/)).toBeVisible();
  await office.getByRole('button', { name: 'Done' }).click();
  await office.getByRole('button', { name: 'Change Window phone' }).click();
  await office.getByRole('button', { name: 'Remove Window phone from the bar' }).click();
  await expect(office.getByText('Window phone')).toHaveCount(0);
  await phone.context().setOffline(false);
  await expect(phone.getByText('This device was removed from the bar')).toBeVisible();
  const { state } = (await (await office.request.get(`${bar.url}/api/state`)).json()) as {
    state: { brews: object; orders: object };
  };
  expect([Object.keys(state.brews), Object.keys(state.orders).length]).toEqual([[], 1]);
  // Nothing of the bar is left on it.
  const kept = await phone.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const opened = indexedDB.open('even-kettle');
        opened.onsuccess = () => {
          const { result } = opened;
          const names = [...result.objectStoreNames];
          const asked = names.map((name) => result.transaction(name).objectStore(name).count());
          let sum = 0;
          let left = asked.length;
          for (const each of asked)
            each.onsuccess = () => {
              sum += each.result;
              if ((left -= 1) === 0) resolve(sum);
            };
        };
      }),
  );
  expect(kept).toBe(0);
});

test('a till’s order shows on the board, which shows nothing else, and on the guest’s own page', async () => {
  const office = await lead();
  const board = await paired(await codeFor(office, 'Board', 'Hall screen'));
  await expect(board.getByText('No order is open.')).toBeVisible();
  await expect(board.getByRole('navigation')).toHaveCount(0);
  await board.goto(`${bar.url}/bench`);
  await expect(board.getByText('No order is open.')).toBeVisible();

  await office.getByRole('button', { name: 'Done' }).click();
  await office.getByLabel('What the program is called').fill('Counter till');
  await office.getByRole('button', { name: 'Make a key' }).click();
  const key = await office.getByTestId('made-key').innerText();
  const till = await request.newContext({
    ignoreHTTPSErrors: true,
    extraHTTPHeaders: { Authorization: `Bearer ${key}` },
  });
  const taken = await till.post(`${bar.url}/api/orders`, {
    data: {
      key: 'bill-1',
      name: 'Iona',
      cups: [{ coffeeId: 'saltmarsh', recipeId: 'cone-thirds', cupMl: 250 }],
    },
  });
  const answer = (await taken.json()) as { follow: string; orderId: string };
  expect([taken.status(), Object.keys(answer)]).toEqual([201, expect.arrayContaining(['follow'])]);
  await expect(board.getByTestId('board-order')).toHaveText(/^A.*\d:\d\d/);
  await expect(board.getByText('Iona')).toHaveCount(0);

  // The guest says that the name may be called.
  await office.goto(`${bar.url}/orders/${answer.orderId}`);
  await expect(office.getByText('From Counter till.')).toBeVisible();
  await office.getByRole('switch', { name: 'Show this name on the board' }).click();
  await expect(board.getByText('Iona')).toBeVisible();

  const guest = await bar.device();
  await guest.goto(answer.follow);
  await expect(guest.getByText('Saltmarsh waits')).toBeVisible();
  await expect(guest.getByText('Ready about')).toBeVisible();
  await expect(guest.getByText('Iona')).toHaveCount(0);
  await office.getByRole('button', { name: 'Guest has left' }).click();
  await office.getByRole('button', { name: /left/i }).last().click();
  await expect(board.getByText('No order is open.')).toBeVisible();
  await till.dispose();
});

test('a copy is made and restored from the Bench; the pages go on by themselves', async () => {
  const office = await lead();
  await office.goto(`${bar.url}/bench?section=copies`);
  await office.getByRole('button', { name: 'Make a copy now' }).click();
  await expect(office.getByText(/^by hand,/)).toBeVisible();
  await takeOrder(office, 'after the copy', [{ method: 'Cone', size: '250' }]);
  await office.goto(`${bar.url}/bench?section=copies`);
  await office.getByRole('button', { name: /^Restore the copy of/ }).click();
  await office.getByRole('dialog').getByRole('button', { name: 'Restore' }).click();
  await expect(office.getByText('The copy is restored.', { exact: false })).toBeVisible();
  await expect(office.getByText(/^before a copy was restored,/)).toBeVisible();
  await office.getByRole('link', { name: 'Bar', exact: true }).click();
  await expect(office.getByText('Nothing to do')).toBeVisible();
});
