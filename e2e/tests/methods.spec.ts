/** Methods that are not poured three times: a siphon on its flame, a sock that ends by eye, a cup over ice. */
import { expect, test } from '../support/bar';
import { doWhatItSays, takeOrder, type Deed, type State } from '../support/barista';

test.use({ rate: 25 });

test('a siphon and a dense sock over ice are brewed by the hands card alone, cue by cue', async ({
  page,
  bar,
}) => {
  await bar.set({
    stations: [
      { id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' },
      { id: 'sock-1', name: 'Sock', brewerId: 'sock' },
    ],
  });
  await page.goto(bar.url);
  await takeOrder(page, 'pilot', [
    { method: 'Siphon', size: '350' },
    { method: 'Cloth sock', recipe: 'Dense and slow, then bypass', size: '300', added: 'ice' },
  ]);
  await page.getByRole('link', { name: 'Orders', exact: true }).click();
  await expect(page.getByText('House coffee · 300 ml · with ice')).toBeVisible();
  await page.getByRole('link', { name: 'Bar', exact: true }).click();

  const deeds: Deed[] = [];
  for (let deed = await doWhatItSays(page); deed; deed = await doWhatItSays(page)) {
    deeds.push(deed);
    expect(deeds.length).toBeLessThan(60);
  }
  const said = (station: string) =>
    deeds.filter((deed) => deed.station.startsWith(station)).map(({ what }) => what);
  expect(said('Siphon')).toEqual([
    'Weighed',
    'Rinsed',
    'Weighed in',
    'Flame on',
    'Near boiling',
    'Sealed',
    'Risen',
    'Steady',
    'Coffee meets water',
    'All wetted',
    'Flame off',
    'Final bubbling',
    'Handed over',
    'Clean',
  ]);
  expect(said('Sock')).toEqual(
    expect.arrayContaining([
      'Filled',
      'Weighed',
      'Rinsed',
      'Tared',
      'Stream runs pale',
      'Added',
      'Handed over',
      'Clean',
    ]),
  );
  const { state } = await bar.get<State>('/api/state');
  expect(Object.values(state.orders)[0]!.cups.map(({ status }) => status)).toEqual(['served', 'served']);
});
