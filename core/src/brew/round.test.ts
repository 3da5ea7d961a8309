import { BENCH, T0, book, cup } from '../testing/bench';
import { CARD_VERSION } from '../recipe';
import { reduce } from './reduce';
import { isOut, roundsOf, sampleBefore } from './round';
import type { BarEvent } from './events';

const begun: BarEvent = {
  id: 'e1',
  type: 'round-begun',
  atMs: 1000,
  roundId: 'r1',
  recipeId: 'cone-thirds',
  cups: [
    { letter: 'A', coffee: 'Low Beacon' },
    { letter: 'B', coffee: 'Saltmarsh' },
  ],
};
const scored = (id: string, letter: string, taster: string, score: number): BarEvent => ({
  id,
  type: 'round-scored',
  atMs: 2000,
  roundId: 'r1',
  letter,
  taster,
  score,
});
const revealed: BarEvent = { id: 'e9', type: 'round-revealed', atMs: 3000, roundId: 'r1' };

test('a round is scored behind its letters, each taster heard once a letter, and opens best first', () => {
  const closed = reduce(
    [
      begun,
      scored('e2', 'A', 'noor', 4),
      scored('e3', 'A', 'noor', 6),
      scored('e4', 'B', 'noor', 8),
      scored('e5', 'B', 'imre', 7),
    ],
    book,
  );
  expect(closed.refused).toEqual([]);
  expect(roundsOf(closed.state)[0]).toMatchObject({
    revealed: false,
    letters: [
      { letter: 'A', mean: 6, scores: [{ taster: 'noor', score: 6 }] },
      { letter: 'B', mean: 7.5 },
    ],
  });
  const open = reduce([revealed], book, closed.state).state;
  expect(roundsOf(open)[0]!.letters.map(({ coffee }) => coffee)).toEqual(['Saltmarsh', 'Low Beacon']);
});

test('nothing is scored in a round that is not there, behind a letter that is not, or after it was opened; undo closes it again', () => {
  const wrong = reduce(
    [
      scored('e2', 'A', 'noor', 4),
      begun,
      begun,
      scored('e3', 'Z', 'noor', 4),
      revealed,
      scored('e4', 'A', 'noor', 4),
    ],
    book,
  );
  expect(wrong.refused.map(({ event, refusal }) => [event.id, refusal.code])).toEqual([
    ['e2', 'unknown'],
    ['e1', 'already-exists'],
    ['e3', 'unknown'],
    ['e4', 'already-done'],
  ]);
  const undone = reduce([{ id: 'e10', type: 'event-undone', atMs: 4000, eventId: 'e9' }], book, wrong.state);
  expect(roundsOf(undone.state)[0]!.revealed).toBe(false);
});

test('samples are begun in the order of their letters, and scored once they are out', () => {
  const sampled = (letter: string) => ({
    ...cup(`c${letter}`, 'cone-thirds', 200),
    sample: { roundId: 'r1', letter, ...(letter === 'B' ? { grindBy: -1 } : {}) },
  });
  const taken: BarEvent = {
    id: 't',
    type: 'order-taken',
    atMs: T0,
    orderId: 'o',
    cups: [sampled('B'), sampled('A')],
  };
  const round: BarEvent = { ...begun, atMs: T0, sampleOrderId: 'o' };
  const start = (letter: string, station: number): BarEvent => ({
    id: `s${letter}`,
    type: 'brew-started',
    atMs: T0 + 1000,
    brewId: `c${letter}.1`,
    orderId: 'o',
    cupId: `c${letter}`,
    stationId: BENCH.stations[station]!.id,
    stationName: BENCH.stations[station]!.name,
    brewerId: 'cone-m',
    altitudeM: 0,
    kettlePowerW: 1200,
    kettleFilledAtC: 90,
    prepVersion: CARD_VERSION,
  });
  const begunOnes = reduce(
    [round, taken, start('B', 0), start('A', 1), start('B', 0), scored('e2', 'A', 'noor', 7)],
    book,
  );
  expect(begunOnes.refused.map(({ refusal }) => refusal.reason)).toEqual([
    'Samples are brewed in the order of their letters. Begin A first.',
    'A is not out yet; it is scored once it is there.',
  ]);
  const { state } = begunOnes;
  expect(sampleBefore(state.orders['o']!, state.orders['o']!.cups[0]!)).toBeUndefined();
  expect(isOut(state, roundsOf(state)[0]!, 'A')).toBe(false);
  // Two samples are never poured out of one brew.
  const other: BarEvent = {
    id: 'u',
    type: 'order-taken',
    atMs: T0 + 500,
    orderId: 'p',
    cups: [
      {
        ...sampled('A'),
        cupId: 'x',
        sample: { roundId: 'r2', letter: 'A' },
        with: { orderId: 'o', cupId: 'cA' },
      },
    ],
  };
  expect(reduce([round, taken, other], book).refused.map(({ refusal }) => refusal.field)).toEqual([
    'cups.0.with',
  ]);
  // An order that is long gone keeps nobody from scoring.
  expect(isOut({ orders: {} }, roundsOf(state)[0]!, 'A')).toBe(true);
});
