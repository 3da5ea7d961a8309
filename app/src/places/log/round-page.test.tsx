/** A sample round. */
import { screen } from '@testing-library/react-native';
import { EMPTY_BAR, type BarEvent } from '@even-kettle/core/brew';
import { press } from '../../testing/bar';
import { showLogPage } from '../../testing/log';
import { RoundPage } from './round-page';

jest.mock('expo-router', () => ({
  router: {
    push: () => undefined,
    navigate: () => undefined,
    setParams: () => undefined,
  },
  useLocalSearchParams: () => ({}),
}));

test('a sample round begins with its cups as one order, and shows no coffee while it is tasted', async () => {
  const { acted } = await showLogPage(<RoundPage />);
  press('Saltmarsh');
  press('Slack Tide decaf');
  press('Begin with 2');
  expect(acted.map(({ type: what }) => what)).toEqual(['round-begun', 'order-taken']);
  const [begun, taken] = acted as [
    Extract<BarEvent, { type: 'round-begun' }>,
    Extract<BarEvent, { type: 'order-taken' }>,
  ];
  expect(begun.cups.map(({ letter }) => letter)).toEqual(['A', 'B']);
  expect(taken.cups.map(({ coffee }) => coffee)).toEqual(begun.cups.map(({ coffee }) => coffee));
  await showLogPage(<RoundPage />, {}, { ...EMPTY_BAR, houseEvents: [begun] });
  expect(screen.queryByText(/Saltmarsh/)).toBeNull();
  expect(screen.getByLabelText('Score of B')).toBeTruthy();
});
