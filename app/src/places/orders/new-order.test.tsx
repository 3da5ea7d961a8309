/** Taking an order: what the form lets through, and what it says of the rest. */
import { act, fireEvent, screen, waitFor } from '@testing-library/react-native';
import { METRIC, type Units } from '@even-kettle/core/units';
import { TEST_BAR, choose, press, showPage, type, viewOf } from '../../testing/bar';
import { setDevice } from '../../device/settings';
import { NewOrder } from './new-order';

const mockReplace = jest.fn();
jest.mock('expo-router', () => ({ router: { replace: (path: unknown) => mockReplace(path) } }));

function show(units: Units = METRIC) {
  return showPage(<NewOrder />, { view: viewOf({ bar: { ...TEST_BAR, units } }) }).acted;
}
const take = () => act(() => fireEvent.press(screen.getByTestId('take-order')));
/** Takes the order, and waits until it is taken: its time is worked out first. */
const takeNow = async (taken: unknown[]) => {
  take();
  // It waits for a careful quote, which takes its time where the machine has something else to do.
  await waitFor(() => expect(taken).toHaveLength(1), { timeout: 20_000 });
};

test('two cups by two methods become one order, each with its own size', async () => {
  const taken = show();
  expect(screen.getByText('17.6 g to 285 g water, 3:07 on the timer')).toBeTruthy();
  act(() => fireEvent.press(screen.getByTestId('add-cup')));
  act(() => fireEvent.press(screen.getAllByLabelText('Press, heavy')[1]!));
  act(() => fireEvent.press(screen.getAllByLabelText('Slack Tide decaf, DECAF · medium')[1]!));
  type('Size of cup 2 in ml', '240');
  type('For whom', '  window ');
  await takeNow(taken);
  expect(taken).toMatchObject([
    {
      type: 'order-taken',
      atMs: 5000,
      name: 'window',
      cups: [
        { recipeId: 'cone-thirds', coffee: 'Saltmarsh', roast: 'light', cupMl: 250 },
        { recipeId: 'press-long', coffee: 'Slack Tide decaf', roast: 'medium', cupMl: 240 },
      ],
    },
  ]);
  expect(mockReplace).toHaveBeenCalledWith('/');
});

test('a name is shown on the board where the guest wants it, and the guest’s code comes next where this device shows it', async () => {
  setDevice({ guestCode: true });
  const taken = show();
  expect(screen.queryByLabelText('Show this name on the board')).toBeNull();
  type('For whom', 'Iona');
  press('Show this name on the board');
  await takeNow(taken);
  setDevice({ guestCode: false });
  const [order] = taken;
  expect(order).toMatchObject({ type: 'order-taken', name: 'Iona', nameShown: true });
  const orderId = order?.type === 'order-taken' ? order.orderId : '';
  expect(mockReplace).toHaveBeenLastCalledWith({
    pathname: '/orders/[id]',
    params: { id: orderId, guest: 'code' },
  });
});

test('another recipe of the method and ice are asked for by name, and the brew is stronger for the ice', async () => {
  const taken = show();
  expect(screen.queryByLabelText(/^Flat-bottom/)).toBeNull();
  choose('Recipe of cup 1', 'cone-evenpulses');
  act(() => fireEvent.press(screen.getByLabelText('With ice, cup 1')));
  // 250 / (16.5 - 2) = 17.2 g, in 14.5 / 1.769 + 2 = 10.2 times of water.
  expect(screen.getByText(/^17.2 g to 175 g water/)).toBeTruthy();
  // Milk besides changes no figure of an iced brew; which milk, the allergy and the wish go with the cup.
  act(() => fireEvent.press(screen.getByLabelText('With milk, cup 1')));
  choose('Milk of cup 1', 'oat');
  act(() => fireEvent.press(screen.getByLabelText('Cup 1 to go')));
  act(() => fireEvent.press(screen.getByLabelText('Allergy or wish of cup 1')));
  type('Allergy of cup 1', 'nuts');
  type('Wish of cup 1', ' lid on the side ');
  expect(screen.getByText(/^17.2 g to 175 g water/)).toBeTruthy();
  await takeNow(taken);
  const service = { besides: ['milk'], milk: 'oat', toGo: true, allergy: 'nuts', note: 'lid on the side' };
  expect(taken).toMatchObject([{ cups: [{ recipeId: 'cone-evenpulses', addition: 'ice', ...service }] }]);
});

test('a coffee of under four days is ordered as one that holds much gas, an older one is not', async () => {
  // The clock of these tests stands at the beginning of 1970.
  const roasted = (day: string) => {
    const [first, ...others] = TEST_BAR.coffees;
    const bar = { ...TEST_BAR, coffees: [{ ...first!, roastedOn: day }, ...others] };
    return showPage(<NewOrder />, { view: viewOf({ bar }) }).acted;
  };
  const fresh = roasted('1969-12-30');
  await takeNow(fresh);
  expect(fresh).toMatchObject([{ cups: [{ coffee: 'Saltmarsh', gassy: true }] }]);
  screen.unmount();
  const rested = roasted('1969-12-20');
  await takeNow(rested);
  expect(JSON.stringify(rested)).not.toContain('gassy');
});

test('a size in the bar’s unit is stored in millilitres', async () => {
  const taken = show({ ...METRIC, volume: 'fl oz' });
  type('Size of cup 1 in fl oz', '10');
  await takeNow(taken);
  expect(taken).toMatchObject([{ cups: [{ cupMl: 296 }] }]);
});

test.each([
  ['', 'Size: type a number.'],
  ['9000', 'Size: from 60 to 1000 ml.'],
  [
    '900',
    '63.4 g is too much for the Cone M, which takes up to 32 g. 2 equal brews of 450 ml in the Cone M.',
  ],
])('a size of “%s” is told at the cup, and nothing is taken', (text, reason) => {
  const taken = show();
  type('Size of cup 1 in ml', text);
  take();
  expect(screen.getByText(reason)).toBeTruthy();
  expect(taken).toEqual([]);
});

test('six cups are the most, and a cup can be taken out again', async () => {
  const taken = show();
  for (let cups = 1; cups < 6; cups += 1) act(() => fireEvent.press(screen.getByTestId('add-cup')));
  expect(screen.getByText('Six cups are the most for one order.')).toBeTruthy();
  press('Remove cup 3');
  await takeNow(taken);
  expect((taken[0] as { cups: unknown[] }).cups).toHaveLength(5);
});

test('only sizes that a brewer here makes by the recipe are offered, and one that is tapped is taken', async () => {
  const taken = show();
  choose('Recipe of cup 1', 'cone-evenpulses');
  const offered = screen.getAllByLabelText(/ml for cup 1$/);
  expect(offered.map(({ props }) => props.accessibilityLabel)).toEqual([
    '250 ml for cup 1',
    '300 ml for cup 1',
    '350 ml for cup 1',
  ]);
  for (const [index] of offered.entries()) {
    act(() => fireEvent.press(screen.getAllByLabelText(/ml for cup 1$/)[index]!));
    expect(screen.getByText(/on the timer$/)).toBeTruthy();
  }
  await takeNow(taken);
  expect(taken).toMatchObject([{ cups: [{ recipeId: 'cone-evenpulses', cupMl: 350 }] }]);
});

test('an order that was changed is promised by its own cups, never by what was worked out before the change', async () => {
  const taken = show();
  const quoted = () => screen.getByTestId('quoted').props.children as string;
  await waitFor(() => quoted());
  const oneCup = quoted();
  act(() => fireEvent.press(screen.getByTestId('add-cup')));
  act(() => fireEvent.press(screen.getAllByLabelText(/^Press, heavy/)[1]!));
  // What was worked out for the one cup is not shown for the two, nor promised.
  expect(screen.queryByTestId('quoted')).toBeNull();
  await takeNow(taken);
  const { promisedMs, expectedMs } = taken[0] as { promisedMs: number; expectedMs: number };
  // A long press takes nearly twelve minutes; the cone alone is out in half of that.
  const [minutes, seconds] = oneCup.split(':').map(Number);
  expect(expectedMs / 1000).toBeGreaterThan(minutes! * 60 + seconds! + 240);
  expect(promisedMs).toBeGreaterThan(expectedMs);
});

test('an order whose cups come out far apart says so before it is taken, and what brings them together', async () => {
  show();
  for (let cups = 1; cups < 4; cups += 1) act(() => fireEvent.press(screen.getByTestId('add-cup')));
  await waitFor(() =>
    expect(screen.getByTestId('apart')).toHaveTextContent(/^Its cups come out \d+:\d\d apart\./),
  );
  await waitFor(() =>
    expect(screen.getByTestId('apart')).toHaveTextContent(
      /apart\. (Cup 1 by|Alike cups as one brew).*: \d+:\d\d apart\.$/,
    ),
  );
});

test('a method that cannot make the size gets the nearest that it makes, and says its own sizes', async () => {
  const stations = [...TEST_BAR.stations, { id: 'pot', name: 'Pot', brewerId: 'pressure-pot' }];
  const { acted } = showPage(<NewOrder />, { view: viewOf({ bar: { ...TEST_BAR, stations } }) });
  press(/^Pressure pot/);
  expect(screen.getByLabelText('Size of cup 1 in ml').props.value).toBe('150');
  type('Size of cup 1 in ml', '140');
  expect(screen.getByText(/always filled whole, with 18.8 g.*makes 150 ml\.$/)).toBeTruthy();
  press('150 ml for cup 1');
  await takeNow(acted);
  expect(acted).toMatchObject([{ cups: [{ recipeId: 'pot-pressure', recipeVersion: 2, cupMl: 150 }] }]);
});
