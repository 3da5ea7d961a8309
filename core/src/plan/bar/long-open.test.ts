/** Orders that are open for days, and more of them than a bar can plan to the second. */
import { EMPTY_BAR, apply, reduce, type BarState } from '../../brew';
import { BENCH, T0, book, cup, order, started, done } from '../../testing/bench';
import {
  buildProblem,
  checkPlan,
  quoteOrder,
  roughFinish,
  solve,
  standingPlan,
  startSolving,
} from '../index';

const DAY_S = 86_400;
const after = (state: BarState, daysS: number) => buildProblem(state, BENCH, book, T0 / 1000 + daysS);

test.each([2.6, 36, 400])(
  'an order that stays open for %d days is planned as any other, and at once',
  (days) => {
    const { state } = reduce(
      [
        order('a', 0, cup('a1'), cup('a2', 'press-short', 240)),
        started('a1', 'a', 'cone-1', 30),
        done('a1.1', 'fill', 45),
        {
          id: 'rush',
          type: 'order-urged',
          atMs: T0 + 60_000,
          orderId: 'a',
          weight: 16,
          wantedMs: T0 + 60_000,
        },
        { ...order('b', 5, cup('b1')), promisedMs: 0 },
      ],
      book,
    );
    const { problem } = after(state, days * DAY_S);
    const solving = startSolving(problem);
    solving.improve(60);
    expect(checkPlan(problem, solving.plan())).toEqual([]);
    expect(solving.plan().bound).toBeGreaterThan(0);
    // What it costs is small enough to be known to a hundredth.
    expect(solving.cost()).toBeLessThan(1e8);
  },
);

test('a log with times of a clock that was years ahead is planned as if they were now', () => {
  const taken = order('a', 0, cup('a1'));
  const { state } = reduce([{ ...taken, atMs: T0 + 8e12, promisedMs: T0 + 8e12 }], book);
  const { problem } = after(state, 0);
  const plan = solve(problem);
  expect(checkPlan(problem, plan)).toEqual([]);
  expect(plan.finish['a']! - problem.now).toBeLessThan(900);
});

describe('of two hundred open orders', () => {
  let state: BarState = EMPTY_BAR;
  for (let n = 0; n < 200; n += 1) {
    const applied = apply(state, order(`o${n}`, n, cup(`c${n}`)), book);
    if (applied.ok) state = applied.state;
  }
  const standing = { state, bench: BENCH, book, nowS: T0 / 1000 + 300, plan: null };
  const built = buildProblem(state, BENCH, book, standing.nowS);

  test('the next forty cups are planned, and the rest follow in their turn', () => {
    expect(built.problem.brews).toHaveLength(40);
    expect(built.later.map(({ orderId }) => orderId)).toEqual(
      Array.from({ length: 160 }, (_, n) => `o${n + 40}`),
    );
    const plan = solve(built.problem);
    const rough = Object.values(roughFinish(built, plan));
    expect(rough).toHaveLength(160);
    expect([...rough].sort((a, b) => a - b)).toEqual(rough);
    expect(rough[0]!).toBeGreaterThan(Math.max(...Object.values(plan.finish)));
  });

  test('an order that is pulled forward comes into the plan', () => {
    const urged = apply(
      state,
      { id: 'u', type: 'order-urged', atMs: T0 + 250_000, orderId: 'o150', weight: 16 },
      book,
    );
    if (!urged.ok) throw new Error(urged.refusal.reason);
    const { problem } = buildProblem(urged.state, BENCH, book, standing.nowS);
    expect(problem.orders.map(({ id }) => id)).toContain('o150');
  });

  test('a new one is quoted behind all of them', () => {
    const base = standingPlan(standing, 0)!;
    const quote = quoteOrder(standing, base, [cup('new')], 0);
    if (!quote.ok) throw new Error(quote.reason);
    expect(quote.readyS).toBeGreaterThan(base.finish['o199']!);
  });
});
