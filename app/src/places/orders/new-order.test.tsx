/** Taking an order: what the form lets through, and what it says of the rest. */
import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { PaperProvider } from 'react-native-paper';
import { EMPTY_BAR, type BarEvent } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { SCHOOLS, bookOf, latestOf } from '@even-kettle/core/recipe';
import { METRIC, type Units } from '@even-kettle/core/units';
import { BarContext, type BarHere } from '../../bar/bar-context';
import { NewOrder } from './new-order';

const mockReplace = jest.fn();
jest.mock('expo-router', () => ({ router: { replace: (path: string) => mockReplace(path) } }));

const BAR = {
  name: 'Test bar',
  units: METRIC,
  hands: 1,
  grinders: [
    {
      id: 'g',
      name: 'Grinder',
      points: [
        { band: 20, setting: 30 },
        { band: 80, setting: 6 },
      ],
    },
  ],
  kettles: [{ id: 'k', name: 'Kettle', powerW: 1200, sizeMl: 1200 }],
  tapC: 90,
  burners: 1,
  roomC: 21,
  water: { name: 'Tap' },
  altitudeM: 0,
  stations: [
    { id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' },
    { id: 'press-1', name: 'Press 1', brewerId: 'press-350' },
  ],
  coffees: [
    { id: 'saltmarsh', name: 'Saltmarsh', roast: 'light', notes: '', decaf: false },
    { id: 'slack', name: 'Slack Tide decaf', roast: 'medium', notes: '', decaf: true },
  ],
} satisfies Bar as Bar;

function show(units: Units = METRIC) {
  const taken: BarEvent[] = [];
  const view = {
    status: 'ready',
    link: 'live',
    state: EMPTY_BAR,
    bar: { ...BAR, units },
    recipes: latestOf(SCHOOLS),
    book: bookOf(SCHOOLS),
    plan: null,
    waiting: 0,
    refusals: [],
    undoable: null,
  };
  const store = {
    view: () => view,
    subscribe: () => () => undefined,
    act: (events: BarEvent[]) => (taken.push(...events), true),
  };
  const here = { store, clock: { nowMs: () => 5000, rate: () => 1 } } as unknown as BarHere;
  render(
    <PaperProvider>
      <BarContext.Provider value={here}>
        <NewOrder />
      </BarContext.Provider>
    </PaperProvider>,
  );
  return taken;
}
const press = (label: string) => act(() => fireEvent.press(screen.getByLabelText(label)));
const type = (label: string, text: string) =>
  act(() => fireEvent.changeText(screen.getByLabelText(label), text));
const take = () => act(() => fireEvent.press(screen.getByTestId('take-order')));

test('two cups by two methods become one order, each with its own size', () => {
  const taken = show();
  expect(screen.getByText('17.6 g to 285 g water, 3:07 on the timer')).toBeTruthy();
  act(() => fireEvent.press(screen.getByTestId('add-cup')));
  act(() => fireEvent.press(screen.getAllByLabelText('Press, heavy')[1]!));
  act(() => fireEvent.press(screen.getAllByLabelText('Slack Tide decaf, decaf, medium')[1]!));
  type('Size of cup 2 in ml', '240');
  type('For whom', '  window ');
  take();
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

test('another recipe of the method and ice are asked for by name, and the brew is stronger for the ice', () => {
  const taken = show();
  const choose = (label: string, value: string) =>
    act(() => screen.getByLabelText(label).props.onChange({ target: { value } }));
  expect(screen.queryByLabelText(/^Siphon/)).toBeNull();
  choose('Recipe of cup 1', 'cone-evenpulses');
  choose('Added to cup 1', 'ice');
  // 250 / (16.5 - 2) = 17.2 g, in 0.8 x 16.5 of water.
  expect(screen.getByText(/^17.2 g to 227 g water/)).toBeTruthy();
  take();
  expect(taken).toMatchObject([{ cups: [{ recipeId: 'cone-evenpulses', addition: 'ice' }] }]);
});

test('a size in the bar’s unit is stored in millilitres', () => {
  const taken = show({ ...METRIC, volume: 'fl oz' });
  type('Size of cup 1 in fl oz', '10');
  take();
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

test('six cups are the most, and a cup can be taken out again', () => {
  const taken = show();
  for (let cups = 1; cups < 6; cups += 1) act(() => fireEvent.press(screen.getByTestId('add-cup')));
  expect(screen.getByText('Six cups are the most for one order.')).toBeTruthy();
  press('Remove cup 3');
  take();
  expect((taken[0] as { cups: unknown[] }).cups).toHaveLength(5);
});
