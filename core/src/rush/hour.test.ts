/**
 * What people do who know only their card: nothing is taken out of their hands without a word, no pour comes too late, and orders
 * come by the time that was told. `npm run rush` prints the same for twenty hours of each kind.
 */
import { lanternPier } from '../demo';
import { T0, book } from '../testing/bench';
import { NOISY_PEOPLE, guestsOfHour, liveHour, type Asked } from './index';

const MENU: readonly Asked[] = [
  ['cone-thirds', 250],
  ['cone-steady', 250],
  ['press-long', 250],
  ['sock-fours', 250],
];

test.each([
  { hands: 1, cups: 14, orders: 6, seed: 3 },
  { hands: 2, cups: 24, orders: 6, seed: 1 },
])('$hands pairs of hands, $cups cups an hour', async ({ hands, cups, orders, seed }) => {
  const figures = await liveHour({
    bench: { ...lanternPier(T0), hands },
    book,
    orders: guestsOfHour(cups, MENU, T0, seed).slice(0, orders),
    seed,
    manners: NOISY_PEOPLE,
    // Planned less than by a server, which takes a quarter of the time.
    moves: 16,
    quietMoves: 60,
  });
  const unstated = figures.changes.filter(({ isStated }) => !isStated);
  expect(unstated.map(({ from, to }) => [from.key, to?.key])).toEqual([]);
  expect(figures.taps).toBeGreaterThan(70);
  // Hands that are slow by chance may be late once, and then by little.
  expect(figures.latePours.length).toBeLessThanOrEqual(1);
  for (const { byS } of figures.latePours) expect(byS).toBeLessThan(5);
  expect(figures.orders.filter(({ lateS }) => lateS > 20)).toEqual([]);
});
