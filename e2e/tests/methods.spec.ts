/** Methods that are not poured three times: a siphon on its flame, a sock that ends by eye, a cup over ice. */
import { expect, test } from '../support/bar';
import { allCleaned, stateOnce, takeOrder, workItOff } from '../support/barista';

test('a siphon, a dense sock over ice, an air press and two pots are brewed by the hands card alone, cue by cue', async ({
  page,
  bar,
}) => {
  await bar.set({
    burners: 2,
    stations: [
      { id: 'air-1', name: 'Air', brewerId: 'air-press' },
      { id: 'pot-1', name: 'Pot', brewerId: 'pressure-pot' },
      { id: 'foam-1', name: 'Foam', brewerId: 'foam-pot' },
      { id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' },
      { id: 'sock-1', name: 'Sock', brewerId: 'sock' },
    ],
  });
  await page.goto(bar.url);
  await takeOrder(page, 'pilot', [
    { method: 'Siphon', size: '350' },
    { method: 'Air press', size: '220' },
    { method: 'Pressure pot', size: '150' },
    { method: 'Long-handled pot', size: '75' },
    { method: 'Cloth sock', recipe: 'Dense and slow, then bypass', size: '300', added: 'ice' },
  ]);
  await page.getByRole('link', { name: 'Orders', exact: true }).click();
  await expect(page.getByText('House coffee · 300 ml · with ice')).toBeVisible();
  await page.getByRole('link', { name: 'Bar', exact: true }).click();

  await workItOff(page, 90);
  // What was tapped, and in which order, is the log's to say: the card may change between being read and being tapped.
  const state = await stateOnce(bar, allCleaned);
  expect(Object.values(state.orders)[0]!.cups.map(({ status }) => status)).toEqual(Array(5).fill('served'));
  const done = (station: string) =>
    Object.entries(Object.values(state.brews).find(({ stationName }) => stationName === station)!.marks)
      .sort(([, one], [, other]) => one.doneMs! - other.doneMs!)
      .map(([stepId]) => stepId);
  expect(done('Siphon')).toEqual([
    'set-filter',
    'fill',
    'flame',
    'heat',
    'seal',
    'weigh',
    'rise',
    'lower',
    'coffee-in',
    'flame-off',
    'down',
    'serve',
    'clean',
  ]);
  expect(done('Sock')).toEqual([
    'fill',
    'set-filter',
    'weigh',
    'load',
    'pour',
    'bypass',
    'off',
    'serve',
    'clean',
  ]);
});

test('what the thermometer says in a siphon’s top is kept, stands in the log against what was asked, and is put right first', async ({
  page,
  bar,
}) => {
  await bar.set({ burners: 1, stations: [{ id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' }] });
  await page.goto(bar.url);
  await takeOrder(page, 'pilot', [{ method: 'Siphon', size: '350' }]);
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await bar.work('lower');
  await expect(page.getByTestId('verb')).toHaveText('Lower the flame, check the top');
  const more = page.getByRole('button', { name: 'The thermometer says one degree more' });
  for (let degrees = 0; degrees < 4; degrees += 1) await more.click();
  await expect(page.getByText('reads 97 °C')).toBeVisible();
  await page.getByTestId('main-button').click();
  await bar.work();
  await stateOnce(bar, allCleaned);
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await page.getByTestId('brewed').first().click();
  await expect(page.getByText(/^97 °C \(9\d–9\d\)$/)).toBeVisible();
  await expect(page.getByText(/Read 97 °C, asked 9\d to 9\d: lower the flame first\./)).toBeVisible();
});
