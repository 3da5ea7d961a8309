/** A brew's page: how it tasted, what is laid over it, and what it advises. */
import { act, screen } from '@testing-library/react-native';
import type { BrewPage as Page } from '@even-kettle/core/contract';
import type { Api } from '../../client/api';
import { Refused } from '../../client/request';
import { TEST_BAR, choose, offered, press, type } from '../../testing/bar';
import { LEARNT, RECORD, answered, showLogPage } from '../../testing/log';
import { AdviceCard } from './advice-card';
import { DayPage } from './day-page';
import { TasteForm } from './taste-form';
import { Weights } from './weights';

jest.mock('expo-router', () => ({
  router: {
    push: () => undefined,
    navigate: () => undefined,
    setParams: () => undefined,
  },
  useLocalSearchParams: () => ({}),
}));

test('a taste is told in two taps and a chip; a TDS that cannot be is said at once and keeps nothing', async () => {
  const { acted } = await showLogPage(<TasteForm record={RECORD} />);
  await act(async () => press('Save'));
  await act(async () => press('bitter'));
  await act(async () => press('right'));
  await act(async () => press('dry clumps'));
  await act(async () => type('TDS, %', '140'));
  expect(screen.getByText(/TDS must be at most 25 %/)).toBeTruthy();
  await act(async () => press('Save'));
  expect(acted).toEqual([]);
  await act(async () => type('TDS, %', '1.42'));
  await act(async () => type('In your words', '  walnut '));
  await act(async () => press('Save'));
  expect(acted).toEqual([
    expect.objectContaining({
      type: 'cup-tasted',
      brewId: 'a1.1',
      taste: { balance: 1, strength: 0, seen: ['clumps'], words: 'walnut', tdsPct: 1.42 },
    }),
  ]);
});

test('up to three brews are laid over one, numbered as they were chosen; each can be taken away, and none twice', async () => {
  const others = [185, 190, 195, 200].map((realBrewS, n) => ({
    ...RECORD,
    brewId: `other-${n + 1}`,
    realBrewS,
    endedMs: 1000 * n,
  }));
  const told = { ...others[0]!, brewId: 'no-zero', zeroMs: null };
  const asked: string[] = [];
  await showLogPage(
    <Weights
      record={RECORD}
      trace={[
        { atMs: 1000, massG: 0 },
        { atMs: 8000, massG: 42 },
      ]}
    />,
    {
      log: () => Promise.resolve({ records: [RECORD, told, ...others], next: null }),
      brew: (id) => {
        asked.push(id);
        const record = others.find(({ brewId }) => brewId === id)!;
        return Promise.resolve({
          record,
          trace: [
            { atMs: 1000, massG: 0 },
            { atMs: 9000, massG: 50 },
          ],
          advice: null,
        });
      },
    },
  );
  const chart = () => String(screen.getByLabelText(/^Water over time:/).props['aria-label']);
  expect(chart()).toMatch(/weighed 42 g, ended at 3:42$/);
  for (const n of [2, 4, 1]) {
    choose('Compare with another brew', `other-${n}`);
    await answered();
  }
  expect(asked).toEqual(['other-2', 'other-4', 'other-1']);
  expect(chart()).toMatch(/, 1 ended at 3:10, 2 ended at 3:20, 3 ended at 3:05$/);
  expect(screen.queryByLabelText(/^Compare with another brew/)).toBeNull();
  press(/^Take away 2: /);
  expect(chart()).toMatch(/, 1 ended at 3:10, 2 ended at 3:05$/);
  // What lies over it already, itself, and what has no timer are not offered.
  expect(offered('Compare with another brew')).toEqual(['', 'other-3', 'other-4']);
});

const COARSER: Extract<NonNullable<Page['advice']>, { kind: 'change' }> = {
  kind: 'change',
  words: '1.5 steps coarser: about 3:05 ± 0:12, from 9 brews',
  change: { what: 'grind', stepsCoarser: 1.5, expect: { brewS: 185, plusMinusS: 12 } },
  because: ['3:42 is 17 s over its window.'],
};

test('advice is taken up in one command, with the words that were read and whose hands it was', async () => {
  const asked: unknown[] = [];
  const takeAdvice: Api['takeAdvice'] = (brewId, what) => (
    asked.push([brewId, what]),
    Promise.resolve(TEST_BAR)
  );
  const { acted } = await showLogPage(<AdviceCard record={RECORD} advice={COARSER} />, { takeAdvice });
  expect(screen.getByText(COARSER.words)).toBeTruthy();
  expect(screen.getByText('3:42 is 17 s over its window.')).toBeTruthy();
  press('Set Grinder so');
  await answered();
  expect(asked).toEqual([['a1.1', { id: expect.any(String), atMs: 5000, words: COARSER.words }]]);
  const ratio: NonNullable<Page['advice']> = {
    kind: 'change',
    words: 'ratio half a part less',
    change: { what: 'ratio', by: -0.5 },
    because: [],
  };
  await showLogPage(<AdviceCard record={RECORD} advice={ratio} />, { takeAdvice });
  press('Keep it for Saltmarsh');
  await answered();
  const elsewhere = { ...RECORD, coffee: 'Nobody’s' };
  await showLogPage(<AdviceCard record={elsewhere} advice={ratio} />, { takeAdvice });
  expect(screen.getByText(/^Set it by hand: this coffee or its grinder is not on the bench/)).toBeTruthy();
  expect(asked).toHaveLength(2);
  expect(acted).toEqual([]);
});

test('advice that could not be taken up says why; a contradiction says what to look at, and offers no change', async () => {
  const refuse = () => Promise.reject(new Error('The record advises something else by now.'));
  await showLogPage(<AdviceCard record={RECORD} advice={COARSER} />, { takeAdvice: refuse });
  press('Set Grinder so');
  await answered();
  expect(screen.getByText(/Not set: The record advises something else by now/)).toBeTruthy();
  await showLogPage(
    <AdviceCard
      record={RECORD}
      advice={{
        kind: 'contradiction',
        words: 'It ran fast and is bitter all the same.',
        checkFirst: ['The dose'],
        because: [],
      }}
    />,
  );
  expect(screen.getByText('· The dose')).toBeTruthy();
  expect(screen.queryByTestId('take-up')).toBeNull();
});

test('what came of a change stands under it', async () => {
  const tried = { atMs: 0, words: '1 step coarser: about 3:05', expectS: 185, plusMinusS: 12 };
  await showLogPage(<AdviceCard record={RECORD} advice={{ kind: 'leave', because: [] }} />, {
    learnt: () =>
      Promise.resolve({
        ...LEARNT,
        tried: [
          { ...tried, result: { brewId: 'b', brewS: 190 } },
          { ...tried, atMs: 1, result: { brewId: 'c', brewS: 220 } },
        ],
      }),
  });
  const lines = screen.getAllByTestId('tried').map((line) => [line.props.children].flat(9).join(''));
  expect(lines[0]).toContain('1 step coarser. Expected 3:05 ± 0:12 (80 %), it took 3:10, as expected.');
  expect(lines[1]).toContain('it took 3:40, not as expected.');
});

test('a page of the log that the server does not know is said to be unknown, not broken', async () => {
  const refuse = () =>
    Promise.reject(new Refused(404, { type: '', title: '', status: 404, detail: 'There is no such day.' }));
  await showLogPage(<DayPage />, { day: refuse });
  expect(screen.getByText('There is no such day.')).toBeTruthy();
});
