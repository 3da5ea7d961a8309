/** The timetable: one brew for two cups, orders pulled forward, a late pour that the plan follows. */
import { expect, test, type RunningBar } from '../support/bar';
import { stateOnce, type Brew } from '../support/barista';

type Planned = {
  version: number;
  because: string;
  plan: { starts: Record<string, number>; finish: Record<string, number> };
};
test('on a bar with one cone two cups alike are offered as one brew, which is sooner, and are one on the bar', async ({
  page,
  bar,
}) => {
  await bar.set({ stations: [{ id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' }] });
  await page.goto(`${bar.url}/orders/new`);
  await expect(page.getByTestId('quoted')).toBeVisible();
  // While the time is worked out anew the button stays under the thumb that is on its way.
  await page.evaluate(() => {
    const below = new Set<number>();
    Object.assign(globalThis, { below });
    const topOf = (found: string) => document.querySelector(found)!.getBoundingClientRect().top;
    const look = () => {
      if (!document.querySelector('[data-testid="quoted"]')) Object.assign(globalThis, { unquoted: true });
      if (document.querySelector('[aria-label^="Size of cup 1"]'))
        below.add(Math.round(topOf('[data-testid="take-order"]') - topOf('[aria-label^="Size of cup 1"]')));
    };
    look();
    new MutationObserver(look).observe(document.body, {
      subtree: true,
      childList: true,
      characterData: true,
    });
  });
  await page.getByLabel('Size of cup 1').fill('220');
  await expect.poll(() => page.evaluate(() => Reflect.has(globalThis, 'unquoted'))).toBe(true);
  await expect(page.getByTestId('quoted')).toBeVisible();
  expect(await page.evaluate(() => [...(Reflect.get(globalThis, 'below') as Set<number>)])).toHaveLength(1);
  await page.getByTestId('add-cup').click();
  await page.getByTestId('as-one').click();
  await expect(page.getByText('One brew for 2 cups')).toBeVisible();
  await page.getByTestId('take-order').click();
  await expect(page.getByTestId('hands-card')).toContainText('2 × 220');
  const state = await stateOnce(bar, ({ orders }) => Object.keys(orders).length > 0);
  expect(Object.values(state.orders)[0]!.cups.map(({ cups }) => cups)).toEqual([2]);
});

test('a cup that is alike with one of another order that waits is offered as one brew with it, and both are out with it', async ({
  page,
  bar,
}) => {
  await bar.set({ stations: [{ id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' }] });
  await page.goto(`${bar.url}/orders/new`);
  await page.getByLabel('Size of cup 1').fill('220');
  await page.getByTestId('take-order').click();
  await expect(page.getByTestId('hands-card')).toBeVisible();
  await page.goto(`${bar.url}/orders/new`);
  await page.getByLabel('Size of cup 1').fill('220');
  await page.getByLabel('For whom').fill('neighbour');
  await page.getByTestId('share-brew').click();
  await expect(page.getByText('One brew with order A.')).toBeVisible();
  await page.getByTestId('take-order').click();
  // One kettle, one dose: the card asks for both cups' water at once.
  await expect(page.getByTestId('hands-card')).toContainText('2 × 220');
  const state = await stateOnce(bar, ({ orders }) => Object.keys(orders).length === 2);
  expect(Object.values(state.orders).map(({ cups }) => cups[0]!.cups ?? 1)).toEqual([2, 1]);
  const { plan } = await bar.get<Planned>('/api/plan');
  expect(new Set(Object.values(plan.finish)).size).toBe(1);
  await page.goto(`${bar.url}/orders`);
  await expect(page.getByText(/one brew with A/)).toBeVisible();
});

/** Orders of one cone each, as they were taken a moment ago. */
async function coneOrders(bar: RunningBar, count: number): Promise<void> {
  const { barMs } = await bar.get<{ barMs: number }>('/api/clock');
  const events = Array.from({ length: count }, (_, n) => ({
    id: `01890000-0000-7000-8003-${String(n).padStart(12, '0')}`,
    type: 'order-taken',
    atMs: Math.round(barMs) - 1000 * (count - n),
    orderId: `o${n}`,
    name: `guest ${n}`,
    cups: [
      {
        cupId: `c${n}`,
        recipeId: 'cone-thirds',
        recipeVersion: 1,
        coffee: 'House coffee',
        roast: 'medium',
        cupMl: 250,
      },
    ],
  }));
  expect((await bar.post(events)).status).toBe(200);
}

/** Waits for a plan that has stood for so long. */
async function standsStill(bar: RunningBar, forMs: number): Promise<void> {
  let seen = { version: -1, atMs: 0 };
  await expect
    .poll(
      async () => {
        const { version } = await bar.get<Planned>('/api/plan');
        if (version !== seen.version) seen = { version, atMs: performance.now() };
        return performance.now() - seen.atMs;
      },
      { timeout: 30_000 },
    )
    .toBeGreaterThan(forMs);
}

test('the last order is dragged up and the plan follows, with its price; an arrow key puts it back; a rush goes first', async ({
  page,
  bar,
}) => {
  // On one cone only one order can have begun when another is rushed.
  await bar.set({ stations: [{ id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' }] });
  await coneOrders(bar, 4);
  await page.goto(`${bar.url}/orders`);
  const cards = page.getByTestId('open-order');
  await expect(cards).toHaveCount(4);
  // Better plans are looked for as long as it is quiet; the order on the page is theirs.
  await standsStill(bar, 3000);
  // A card's own badge is its first; those after it tell whom it holds up.
  const letters = async () =>
    Promise.all(
      (await cards.all()).map((card) =>
        card
          .getByLabel(/^Order [A-Z]/)
          .first()
          .getAttribute('aria-label'),
      ),
    );
  const before = await letters();
  const last = before.at(-1)!.at(-1)!;
  const second = before[2]!.at(-1)!;
  const grip = page.getByLabel(`Move order ${last}`);
  await grip.scrollIntoViewIfNeeded();
  const from = (await grip.boundingBox())!;
  const to = (await page.getByLabel(`Move order ${second}`).boundingBox())!;
  await page.mouse.move(from.x + 24, from.y + 24);
  await page.mouse.down();
  await page.mouse.move(from.x + 24, from.y - 30, { steps: 4 });
  await page.mouse.move(to.x + 24, to.y + 10, { steps: 12 });
  await page.waitForTimeout(200);
  await page.mouse.up();
  await expect(page.getByText(`${last} before ${second}.`)).toBeVisible();
  await expect(page.getByText(/\d:\d\d later/).first()).toBeVisible();
  const place = async (letter: string) => (await letters()).findIndex((each) => each?.endsWith(letter));
  await expect.poll(async () => (await place(last)) < (await place(second)), { timeout: 20_000 }).toBe(true);

  // Back behind its neighbour by the keyboard.
  const now = await letters();
  const behind = now[now.findIndex((each) => each?.endsWith(last)) + 1]!.at(-1)!;
  await page.getByLabel(`Move order ${last}`).focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText(`${last} after ${behind}.`)).toBeVisible();
  await expect.poll(async () => (await place(last)) > (await place(behind)), { timeout: 20_000 }).toBe(true);

  const rushed = (await letters()).at(-1)!.at(-1)!;
  await page.getByRole('button', { name: `Rush order ${rushed}`, exact: true }).click();
  await expect(page.getByText(`Rush for ${rushed}.`)).toBeVisible();
  // What starts within 45 s stays; it goes before all else.
  await expect.poll(() => place(rushed), { timeout: 20_000 }).toBeLessThan(2);
  await page.getByRole('button', { name: `Why order ${rushed} comes out at this time` }).click();
  await expect(page.getByTestId('why')).toContainText(/waits for|Nothing holds it up/);
});

test('a pour that is 40 s late is said on the card, and the plan moves what comes after it', async ({
  page,
  bar,
}) => {
  await coneOrders(bar, 2);
  await page.goto(bar.url);
  await expect(page.getByTestId('hands-card')).toBeVisible();
  await bar.work('pour-3');
  await expect(page.getByTestId('hands-card').getByText('Second of three pours')).toBeVisible();
  // Its own pour, and what the plan has after it.
  const isPouring = ({ marks }: Brew) => marks['pour-2'] !== undefined && marks['pour-3'] === undefined;
  const state = await stateOnce(bar, ({ brews }) => Object.values(brews).some(isPouring));
  const brewId = Object.values(state.brews).find(isPouring)!.id;
  const before = await bar.get<Planned>('/api/plan');
  const third = `${brewId}/pour-4`;
  const stoodS = before.plan.starts[third]!;
  // Nobody pours.
  for (let seconds = 0; seconds < 90; seconds += 10) {
    if (await page.getByText(/^0:(3[5-9]|[45]\d) late$/).isVisible()) break;
    await bar.skip(10);
    await page.waitForTimeout(300);
  }
  await expect(page.getByText(/^0:(3[5-9]|[45]\d) late$/)).toBeVisible({ timeout: 20_000 });
  await expect
    .poll(async () => (await bar.get<Planned>('/api/plan')).plan.starts[third]! - stoodS, {
      timeout: 20_000,
    })
    .toBeGreaterThanOrEqual(20);
  const after = await bar.get<Planned>('/api/plan');
  expect(after.version).toBeGreaterThan(before.version);
  expect(Object.values(after.plan.finish).every(Number.isInteger)).toBe(true);
});
