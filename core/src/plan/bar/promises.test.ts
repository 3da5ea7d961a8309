/** What was told to a guest binds: a new order takes the room that is left, and only a person's word moves a promise. */
import { lanternPier } from '../../demo';
import { apply, EMPTY_BAR, type BarState, type OrderTaken } from '../../brew';
import { guestsOfHour } from '../../rush';
import { T0, book, cup, order } from '../../testing/bench';
import { buildProblem } from './build';
import { type Plan, solve } from '../solver';
import { CAREFUL_MOVES, quoteOrder, urgeOrder, standingPlan } from './quote';
import { timesOf } from './queues';

const bar = { ...lanternPier(T0), hands: 1 };
const MENU = [
  ['cone-thirds', 250],
  ['press-long', 250],
  ['siphon-late', 350],
  ['sock-fours', 250],
] as const;

/** Takes the order as it is quoted, and plans with it. */
function take(state: BarState, plan: Plan | null, event: OrderTaken, moves = 600) {
  const nowS = Math.ceil(event.atMs / 1000);
  const standing = { state, bench: bar, book, nowS, plan };
  const quote = quoteOrder(standing, standingPlan(standing), event.cups, CAREFUL_MOVES);
  if (!quote.ok) throw new Error(quote.reason);
  const taken = apply(state, { ...event, ...timesOf(quote.readyS, nowS, {}) }, book);
  if (!taken.ok) throw new Error(taken.refusal.reason);
  const { problem } = buildProblem(taken.state, bar, book, nowS, plan ?? undefined);
  return { state: taken.state, plan: solve(problem, { moves, before: plan ?? undefined }) };
}

test.each([2])('orders come in two minutes, each promised as it is quoted (seed %s)', (seed) => {
  let state = EMPTY_BAR;
  let plan: Plan | null = null;
  let worstS = 0;
  const guests = guestsOfHour(10, MENU, T0, seed).map((order, n) => ({ ...order, atMs: T0 + n * 12_000 }));
  for (const order of guests) {
    const before: Plan | null = plan;
    ({ state, plan } = take(state, plan, order));
    for (const [orderId, atS] of Object.entries(before?.finish ?? {})) {
      const promisedS = state.orders[orderId]!.promisedMs! / 1000;
      // What was past it already is not made worse.
      worstS = Math.max(worstS, plan.finish[orderId]! - Math.max(atS, promisedS));
    }
  }
  // So little is within what hands are off by.
  console.info(`moved past what was told: ${worstS} s`);
  expect(worstS).toBeLessThanOrEqual(20);
  // A person's word does: the last order goes first, and who waits for it is told.
  const last = guests.at(-1)!.orderId;
  const standing = { state, bench: bar, book, nowS: Math.ceil(guests.at(-1)!.atMs / 1000), plan };
  const urging = urgeOrder(standing, plan!, last);
  expect(urging.kept).toBe(true);
  expect(urging.shifts.some(({ byS }) => byS > 0)).toBe(true);
});

test('an order pushes none past its promise in the first plan with it either, in which nothing is looked for yet', () => {
  let state = EMPTY_BAR;
  let plan: Plan | null = null;
  const orders = [
    [cup('a', 'press-long', 250)],
    [cup('b', 'press-long', 250)],
    [cup('c', 'cone-thirds', 250)],
    [cup('d1', 'siphon-late', 350), cup('d2', 'cone-thirds', 300)],
    [cup('e1', 'cone-steady', 250), cup('e2', 'cone-thirds', 250)],
  ];
  for (const [n, cups] of orders.entries()) ({ state, plan } = take(state, plan, order(`o${n}`, 0, ...cups)));
  const stood: Plan = plan!;
  const { plan: next } = take(state, stood, order('last', 0, cup('f', 'cone-steady', 250)), 0);
  for (const [orderId, atS] of Object.entries(stood.finish))
    expect([
      orderId,
      next.finish[orderId]! <= Math.max(atS, state.orders[orderId]!.promisedMs! / 1000),
    ]).toEqual([orderId, true]);
});
