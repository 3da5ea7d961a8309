/** What went otherwise, put right from the station: readings, times, doses, cups, stations, and giving up with a reason. */
import { expect, test } from '../support/bar';
import { choose, doWhatItSays, everySkipped, orderComes, type State } from '../support/barista';

const brewOf = async (bar: { get: <Answer>(path: string) => Promise<Answer> }, station = 'Cone 1') =>
  Object.values((await bar.get<State>('/api/state')).state.brews).find(
    (brew) => brew.stationName === station,
  )!;
const targets = (brew: Awaited<ReturnType<typeof brewOf>>) =>
  brew.card.steps.flatMap(({ targetG }) => (targetG === undefined ? [] : [targetG]));

test('an overshoot told late, a wrong dose, a forgotten pulse and a stall: the card follows each, and undo takes it back', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', [{ method: 'Cone', recipe: 'Bloom and three pours', size: '250' }]);
  await bar.work('pour-2');
  expect(targets(await brewOf(bar))).toEqual([42, 128, 214, 285]);

  await page.getByTestId('more').click();
  await page.getByRole('button', { name: 'Correct Bloom' }).click();
  await page.getByTestId('corrected-reading').fill('plenty');
  await expect(page.getByRole('alert')).toContainText('a number, like 128');
  await page.getByTestId('corrected-reading').fill('140');
  await page.getByRole('button', { name: 'Save the correction of Bloom' }).click();
  await expect.poll(async () => targets(await brewOf(bar))).toEqual([42, 219, 285]);
  await expect(page.getByText('Left out: First of three pours.')).toBeVisible();

  await page.getByTestId('real-dose').fill('16');
  await page.getByRole('button', { name: 'Save the real dose' }).click();
  // The card of this device has it at once: there is nothing left to set.
  await expect(page.getByRole('button', { name: 'Save the real dose' })).toBeDisabled();
  await expect.poll(async () => (await brewOf(bar)).card.brewWaterG).toBe(259);
  await page.getByTestId('real-dose').fill('40');
  await page.getByRole('button', { name: 'Save the real dose' }).click();
  await expect(page.getByRole('alert')).toContainText('can still be brewed with this card');
  await page.getByRole('button', { name: 'Close this note' }).click();

  await page.getByRole('button', { name: 'Leave out Second of three pours' }).click();
  await expect.poll(async () => targets(await brewOf(bar))).toEqual([42, 259]);
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await page.getByTestId('undo').click();
  await expect.poll(async () => targets(await brewOf(bar))).toHaveLength(3);

  // Up to where the bed drains.
  while (await doWhatItSays(page, 'drops only'));
  const stalled = page.getByRole('button', { name: 'Stalled' });
  await expect.poll(everySkipped(bar, 1, () => stalled.isVisible())).toBe(true);
  await stalled.click();
  await expect(page.getByTestId('rescue')).toContainText('Lift the filter');
  await expect.poll(async () => (await brewOf(bar)).notes?.map(({ note }) => note)).toEqual(['stalled']);
});

test('a brew stands at another station than was said, changes cups with another, and is given up with a reason', async ({
  page,
  bar,
}) => {
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', [{ method: 'Cone', size: '250' }]);
  await orderComes(page, bar, 'corner', [{ method: 'Cone', size: '250' }]);
  await page.getByRole('link', { name: 'Orders', exact: true }).click();
  for (const station of ['Cone.1', 'Cone.2']) {
    await page
      .getByRole('button', { name: /^Start / })
      .first()
      .click();
    await expect(page.getByText(new RegExp(`^at ${station}`))).toBeVisible();
  }
  await page.goto(`${bar.url}/station/cone-1`);
  await choose(page, 'It stands at', 'Cone 3');
  await page.getByRole('button', { name: 'Say that it stands there' }).click();
  await expect(page.getByText('Free', { exact: true })).toBeVisible();
  await page.goto(`${bar.url}/station/cone-3`);
  await choose(page, 'It goes to', 1);
  await page.getByRole('button', { name: 'Swap the two brews' }).click();
  const cupsOf = async () =>
    Object.values((await bar.get<State>('/api/state')).state.orders).map(({ name, cups }) => [
      name,
      cups[0]!.brewIds.map((id) => id.split('.')[0] === cups[0]!.cupId),
    ]);
  await expect.poll(cupsOf).toEqual([
    ['window', [false]],
    ['corner', [false]],
  ]);
  await page.getByRole('button', { name: 'Stop this brew…' }).click();
  await page.getByRole('button', { name: 'Stop this brew: wrong coffee' }).click();
  await expect(page.getByTestId('hands-card')).toBeVisible();
  const statuses = async () =>
    Object.values((await bar.get<State>('/api/state')).state.orders)
      .map(({ cups }) => cups[0]!.status)
      .sort();
  await expect.poll(statuses).toEqual(['brewing', 'waiting']);
});

test('two pairs of hands on two devices: each sees its own step, and one takes a step over from the other', async ({
  page,
  context,
  bar,
}) => {
  await bar.set({ hands: 2 });
  await page.goto(bar.url);
  await orderComes(page, bar, 'window', [
    { method: 'Cone', size: '250' },
    { method: 'Cone', size: '250' },
  ]);
  const other = await context.newPage();
  await other.goto(bar.url);
  await page.getByRole('radio', { name: 'Hands 1' }).click();
  // One browser, one device: what the second page chooses is the device's. So the second speaks for the other pair first.
  await expect(page.getByTestId('hands-card')).toBeVisible();
  await doWhatItSays(page);
  const cone = async () => Object.values((await bar.get<State>('/api/state')).state.brews);
  await expect.poll(async () => (await cone()).length).toBeGreaterThan(0);
  await other.reload();
  await other.getByRole('radio', { name: 'Hands 2' }).click();
  const taken = async () =>
    (await cone()).map((brew) => (brew as unknown as { takenBy?: Record<string, number> }).takenBy ?? {});
  // The pair that has the step is the plan's to say; the other takes it over at the station.
  await other.getByRole('button', { name: /^Cone 1,/ }).click();
  await other.getByRole('radio', { name: 'Hands 1' }).click();
  await other.getByRole('button', { name: /^Cone 1,/ }).click();
  await expect.poll(async () => Object.keys(Object.assign({}, ...(await taken()))).length).toBeGreaterThan(0);
  await expect(other.getByTestId('hands-card')).toContainText('Cone 1');
});
