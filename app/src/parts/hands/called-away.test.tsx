/** Called away from one pair of hands, on a bar with its own clock: what is told on going, meanwhile and on coming back. */
import { act, fireEvent, render, screen } from '@testing-library/react-native';
import type { BarEvent } from '@even-kettle/core/brew';
import { BarContext, useAtTurns, useBar, type BarHere } from '../../client/bar-context';
import { openPrivateBar } from '../../client/private-bar';
import { TEST_BAR, press, viewOf } from '../../testing/bar';
import { at, book, done, firstWater, prep, started, taken } from '../../testing/cone';
import { ThemeProvider } from '../../ui/use-theme';
import { AwayCard, CalledAway, WelcomeBack, awayNow } from './called-away';

jest.mock('expo-router', () => ({ router: {} }));
jest.mock('../../device/shortcuts', () => ({ useShortcuts: () => undefined }));

/** As the Bar arranges them. */
function Place() {
  const view = useBar();
  const away = useAtTurns((nowMs) => awayNow(view, nowMs));
  return (
    <>
      {away ? <AwayCard away={away} /> : <WelcomeBack hands="all" />}
      <CalledAway />
    </>
  );
}

function open(hands = 1) {
  const view = viewOf({ book });
  // What a private bar takes from the page's own: its recipes, and what it leaves as it is.
  const around = { store: { view: () => view } } as Partial<BarHere> as BarHere;
  const bar = openPrivateBar(
    around,
    {
      bar: { ...TEST_BAR, hands, stations: TEST_BAR.stations.slice(0, 1) },
      events: [taken('A'), started('A'), ...prep, firstWater, done('bloom', 107)] satisfies BarEvent[],
      startMs: at(112),
    },
    () => 0,
  );
  render(
    // A dialog is drawn at the theme's own root, which stands within the bar.
    <BarContext.Provider value={bar}>
      <ThemeProvider>
        <Place />
      </ThemeProvider>
    </BarContext.Provider>,
  );
  return { bar, to: (seconds: number) => act(() => bar.skipTo(at(seconds))) };
}

test('what runs is told with how long it forgives; back again, what is late and what to save first', () => {
  const { bar, to } = open();
  press('Called away');
  // The first pour is due at 0:40 and may begin 8 s late: 36 s from 0:12.
  expect(screen.getByText(/^Forgives 0:36 from now\. After that: The bed may have run dry/)).toBeTruthy();
  press('2 min');
  expect(bar.store.view().state.away).toMatchObject([{ fromMs: at(112), toMs: at(232) }]);
  expect(screen.getByTestId('away-card')).toHaveTextContent(/0:00/);
  to(200);
  expect(screen.getByText(/^The bed may have run dry: pour gently first/)).toBeTruthy();
  act(() => fireEvent.press(screen.getByTestId('main-button')));
  expect(bar.store.view().state.away).toBeUndefined();
  expect(screen.getByTestId('welcome-back')).toHaveTextContent('You were away for 1:28.');
  expect(screen.getByText(/^First: Cone 1: First of three pours, to 128 g, 0:4\d late\./)).toBeTruthy();
  press('Close');
  expect(screen.queryByTestId('welcome-back')).toBeNull();
});

test('whoever stays away longer than was said is told the same, for a minute', () => {
  const { to } = open();
  press('Called away');
  press('1 min');
  to(180);
  expect(screen.queryByTestId('away-card')).toBeNull();
  expect(screen.getByTestId('welcome-back')).toHaveTextContent('You were away for 1:00.');
  to(240);
  expect(screen.queryByTestId('welcome-back')).toBeNull();
});

test('with two pairs only the device that left shows the card of whoever is away', () => {
  const { bar } = open(2);
  act(() => {
    bar.store.act([{ id: 'other', type: 'hands-away', atMs: at(112), fromMs: at(112), toMs: at(300) }]);
  });
  expect(screen.queryByTestId('away-card')).toBeNull();
  press('Called away');
  press('1 min');
  expect(screen.getByTestId('away-card')).toBeTruthy();
});
