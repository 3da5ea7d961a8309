/** An order that waits for a tap that nobody made has no time to tell, and says what it waits for. */
import { reduce } from '../../brew';
import { BENCH, T0, begun, book, cup, done, order, started } from '../../testing/bench';
import { overdueBrews, overdueFor } from './overdue';

const bench = { ...BENCH, stations: BENCH.stations.filter(({ id }) => id === 'press-1' || id === 'cone-1') };
const { state } = reduce(
  [
    order('A', 0, cup('a1', 'press-long', 240)),
    order('B', 5, cup('b1', 'press-long', 240)),
    order('C', 6, cup('c1')),
    started('a1', 'A', 'press-1', 10),
    ...['fill', 'set-filter', 'weigh', 'grind', 'load'].map((step, n) => done('a1.1', step, 40 + 20 * n)),
    begun('a1.1', 'pour', 140),
    done('a1.1', 'pour', 160),
    done('a1.1', 'wet', 166),
  ],
  book,
);
const shownAt = (seconds: number) => {
  const nowMs = T0 + seconds * 1000;
  const overdue = overdueBrews(state, nowMs);
  return Object.values(state.orders).map((each) => overdueFor(each, { state, bench, book }, overdue));
};

test('a press that nobody plunged is overdue, for its own order and for the one that waits for it, and for no other', () => {
  expect(shownAt(500)).toEqual([null, null, null]);
  const [own, behind, other] = shownAt(3600);
  expect(own).toMatchObject({ brewId: 'a1.1', stationName: 'Press 1' });
  // It should have been dipped 6:40 after its last water, and may be a minute late.
  expect(own!.byMs / 60_000).toBeGreaterThan(48);
  expect(own!.byMs / 60_000).toBeLessThan(52);
  expect(behind).toEqual(own);
  expect(other).toBeNull();
});
