/** What can be put right about a brew from its station, and what each tap says happened. */
import { screen } from '@testing-library/react-native';
import { EMPTY_BAR, reduce, type BarEvent } from '@even-kettle/core/brew';
import { TEST_BAR, choose, offered, press, showPage, type, viewOf } from '../../testing/bar';
import { at, book, done, firstWater, prep, started, taken } from '../../testing/cone';
import { readClock } from './brew-steps';
import { StationPage } from './station-page';

let mockId = 'cone-1';
const mockWent: string[] = [];
jest.mock('expo-router', () => ({
  useLocalSearchParams: () => ({ id: mockId }),
  router: { navigate: (to: string) => mockWent.push(to), push: () => undefined },
}));
beforeEach(() => {
  mockId = 'cone-1';
  mockWent.length = 0;
});

const BAR = {
  ...TEST_BAR,
  stations: [...TEST_BAR.stations, { id: 'cone-2', name: 'Cone 2', brewerId: 'cone-m' }],
};
const waits = [taken('A', 'window'), taken('B', 'pilot'), started('A')];
const bloomed = [...waits, ...prep, firstWater, done('bloom', 107)];
const poured = [...bloomed, done('pour-2', 158), done('pour-3', 188), done('pour-4', 215)];

function show(events: BarEvent[], seconds: number) {
  const { state, refused } = reduce(events, book, EMPTY_BAR);
  expect(refused).toEqual([]);
  return showPage(<StationPage />, { view: viewOf({ state, bar: BAR }), nowMs: at(seconds) });
}
const notes = () =>
  ['Stalled', 'Ran too fast', 'Water ran out', 'Spilt'].map(
    (name) => screen.getByLabelText(name).props.accessibilityState?.disabled ?? false,
  );

test('every note keeps its place from prep to drawdown, and can be tapped while it can be true', () => {
  show(waits, 5);
  expect(notes()).toEqual([true, true, true, true]);
  screen.unmount();
  show(bloomed, 145);
  expect(notes()).toEqual([false, false, false, false]);
  screen.unmount();
  const { acted } = show(poured, 240);
  expect(notes()).toEqual([false, false, true, true]);
  press('Stalled');
  expect(acted).toMatchObject([{ type: 'brew-noted', brewId: 'a1.1', note: 'stalled', atMs: at(240) }]);
});

test('a step’s time and reading are corrected, only what was changed is told, and what is no number is said so', () => {
  const { acted } = show(bloomed, 120);
  press('Correct Bloom');
  type('Scale read, g', 'plenty');
  expect(screen.getByRole('alert')).toHaveTextContent('Reads: a number, like 128.');
  press('Save the correction of Bloom');
  expect(acted).toEqual([]);
  type('Scale read, g', '51');
  press('Save the correction of Bloom');
  press('Correct Bloom');
  type('Ended, on the timer', '0:12');
  press('Save the correction of Bloom');
  expect(acted).toMatchObject([
    { type: 'step-corrected', stepId: 'bloom', readingG: 51 },
    { type: 'step-corrected', stepId: 'bloom', doneMs: at(112) },
  ]);
  expect(acted[0]).not.toHaveProperty('doneMs');
  expect(acted[1]).not.toHaveProperty('readingG');
});

test('the real dose, another station, another cup and giving up are each one tap with what it means', () => {
  const { acted } = show(bloomed, 120);
  expect(screen.getByLabelText('Save the real dose').props.accessibilityState.disabled).toBe(true);
  type('Really in the brewer, g', '16.04');
  press('Save the real dose');
  // Only a free station of the same method can be meant.
  expect(offered('It stands at')).not.toContain('sock-1');
  expect(screen.getByLabelText('Say that it stands there').props.accessibilityState.disabled).toBe(true);
  choose('It stands at', 'cone-2');
  press('Say that it stands there');
  choose('It goes to', 'b1');
  press('Give it to that cup');
  press('Stop this brew…');
  press('Stop this brew: spilt');
  expect(acted).toMatchObject([
    { type: 'dose-corrected', doseG: 16 },
    { type: 'brew-moved', stationId: 'cone-2', stationName: 'Cone 2', brewerId: 'cone-m' },
    { type: 'brew-given', fromOrderId: 'A', fromCupId: 'a1', orderId: 'B', cupId: 'b1' },
    { type: 'brew-abandoned', reason: 'spilt' },
  ]);
  expect(acted[2]).not.toHaveProperty('otherBrewId');
  expect(mockWent).toEqual(['/']);
});

test('two brews that went to each other’s cups are swapped', () => {
  const { acted } = show([...bloomed, started('B', 'cone-2', 'Cone 2')], 120);
  choose('It goes to', 'b1');
  press('Swap the two brews');
  expect(acted).toMatchObject([{ type: 'brew-given', cupId: 'b1', otherBrewId: 'b1.1' }]);
});

test('a station without a brew, and one that is gone, say so', () => {
  mockId = 'siphon-1';
  show(bloomed, 120);
  expect(screen.getByText('Free')).toBeTruthy();
  screen.unmount();
  mockId = 'cone-9';
  show(bloomed, 120);
  expect(screen.getByText('No such station')).toBeTruthy();
});

test('clock times are read as they are shown', () => {
  expect([' 2:05 ', '-0:30', '−1:00', '95', '0:00'].map(readClock)).toEqual([125, -30, -60, 95, 0]);
  for (const wrong of ['', 'soon', '1:75', '1:2:3', '2.5']) expect(readClock(wrong)).toBeNull();
});

test('where the guest has left, the brew ends and its cup is not brewed again', () => {
  const { acted } = show(bloomed, 120);
  press('Stop this brew…');
  press('Stop this brew: guest has left');
  expect(acted.map(({ type }) => type)).toEqual(['brew-abandoned', 'cup-cancelled']);
});

test('what was said last is reopened from its station, long after the card has let it go', () => {
  const { acted } = show(bloomed, 118);
  press('Reopen Bloom');
  expect(acted).toMatchObject([{ type: 'event-undone', eventId: bloomed.at(-1)!.id }]);
});
