/** The Log's list: what it is narrowed to, and what a row says. */
import { screen } from '@testing-library/react-native';
import { useState } from 'react';
import { EMPTY_BAR, type BarState } from '@even-kettle/core/brew';
import type { LogAsked } from '../../client/api';
import { choose, press, type } from '../../testing/bar';
import { RECORD, showLogPage } from '../../testing/log';
import { Brewed, verdict } from './brewed';
import { Filters } from './filters';
import { HandsPage } from './hands-page';
import { LogPlace } from './log-place';
import { cooledBrews } from './to-taste';

jest.mock('expo-router', () => ({
  router: {
    push: () => undefined,
    navigate: () => undefined,
    setParams: () => undefined,
  },
  useLocalSearchParams: () => ({}),
}));

test('while the server is away the Log says so, on its list and on its pages', async () => {
  const log = () => Promise.resolve({ records: [RECORD], next: null });
  await showLogPage(<LogPlace />, { log }, EMPTY_BAR, 'away');
  expect(screen.getByTestId('log-away')).toHaveTextContent(
    /^The server is away\. What is shown was read before/,
  );
  await showLogPage(<HandsPage />, { hands: () => Promise.reject(new Error('away')) }, EMPTY_BAR, 'away');
  expect(screen.getByTestId('log-away')).toBeTruthy();
  expect(screen.getByText('How long hands take could not load')).toBeTruthy();
  await showLogPage(<LogPlace />, { log });
  expect(screen.queryByTestId('log-away')).toBeNull();
});

test('the log is narrowed to days: the last is in it, each can be left open, and a range the wrong way round is said', async () => {
  const asks: LogAsked[] = [];
  function Narrowed() {
    const [asked, setAsked] = useState<LogAsked>({ search: 'fog' });
    asks.push(asked);
    return <Filters asked={asked} typed="" onType={() => undefined} onAsk={setAsked} />;
  }
  await showLogPage(<Narrowed />);
  press('Filter');
  type('From the day', '2026-11-20');
  type('To the day', '2026-11-20');
  const { fromMs, toMs } = asks.at(-1)!;
  expect([fromMs, toMs].map(Number)).toEqual([
    new Date(2026, 10, 20).getTime(),
    new Date(2026, 10, 21).getTime(),
  ]);
  type('To the day', 'tomorrow');
  expect(screen.getByRole('alert')).toHaveTextContent(/^Type a day like /);
  expect(asks.at(-1)!.toMs).toBe(toMs);
  type('To the day', '2026-11-20');
  expect(screen.queryByRole('alert')).toBeNull();
  type('From the day', '2026-11-22');
  expect(screen.getByRole('alert')).toHaveTextContent(/^The first day is after the last/);
  type('To the day', '');
  expect(screen.queryByRole('alert')).toBeNull();
  choose('Taste', 'bitter');
  expect(screen.getByLabelText('Filter · 2')).toBeTruthy();
  press('Clear the filter');
  expect(asks.at(-1)).toEqual({ search: 'fog' });
});

test('a row says how long it took against its plan, and how it was', async () => {
  await showLogPage(<Brewed record={{ ...RECORD, taste: { balance: -1, strength: 0, atMs: 0 } }} />);
  expect(screen.getByTestId('real-time').props.children).toBe('3:42');
  expect(
    screen.getByText(/0:35 longer than planned, over its window\..*Tasted sour, right strength/),
  ).toBeTruthy();
  expect(verdict({ ...RECORD, realBrewS: null })).toBe('Served before its end mark was told.');
  expect(verdict({ ...RECORD, outcome: 'abandoned', reason: 'torn filter' })).toBe('Stopped: torn filter.');
  expect(verdict({ ...RECORD, realBrewS: 187 })).toBe('As planned, inside its window.');
});

test('a cup is asked after when it has cooled, until somebody has said a word or it is long gone', () => {
  const brew = (id: string, servedMs: number, more: object = {}) => [id, { id, servedMs, ...more }] as const;
  const state = {
    ...EMPTY_BAR,
    brews: Object.fromEntries([
      brew('hot', 9 * 60_000),
      brew('cool', 60_000),
      brew('told', 60_000, { taste: { atMs: 0 } }),
      brew('gone', -60 * 60_000),
    ]),
  } as unknown as BarState;
  expect(cooledBrews(state, 7, 10 * 60_000).map(({ id }) => id)).toEqual(['cool']);
});
