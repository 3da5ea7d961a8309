/** How the bar is kept planned: at once when something happens, better in quiet moments, and never for nothing. */
import { EMPTY_BAR, reduce, type BarEvent, type BarState } from '@even-kettle/core/brew';
import type { PublishedPlan } from '@even-kettle/core/contract';
import { solve, type Plan, type PlanProblem } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { PLAIN_BAR } from '../bench';
import { startPlanning, type Planning } from './planning';
import type { Solved, Solver } from './solver';

const book = bookOf(SCHOOLS);
const T0 = Date.UTC(2026, 0, 5, 8);
const order = (n: number): BarEvent => ({
  id: `e${n}`,
  type: 'order-taken',
  atMs: T0,
  orderId: `o${n}`,
  cups: [
    {
      cupId: `c${n}`,
      recipeId: 'cone-thirds',
      recipeVersion: 1,
      coffee: 'House',
      roast: 'medium',
      cupMl: 250,
    },
  ],
});

let planning: Planning;
afterEach(() => planning.close());

/** A bar whose state, time and solver the test holds. */
function stand(
  answer: (problem: PlanProblem, before: Plan | null, budgetMs: number) => Solved | null | Error,
) {
  const bar = { state: EMPTY_BAR as BarState, nowMs: T0, seq: 0 };
  const asked: { budgetMs: number; before: Plan | null }[] = [];
  const published: PublishedPlan[] = [];
  const warned: unknown[] = [];
  const solver: Solver = {
    solve: async (problem, before, budgetMs) => {
      asked.push({ budgetMs, before });
      await Promise.resolve();
      const solved = answer(problem, before, budgetMs);
      if (solved instanceof Error) throw solved;
      return solved;
    },
    close: () => Promise.resolve(),
  };
  planning = startPlanning(
    {
      state: () => bar.state,
      seq: () => bar.seq,
      bench: () => PLAIN_BAR,
      book,
      nowMs: () => bar.nowMs,
      // Quiet looks come after some milliseconds, not after a third of a second.
      rate: 30,
    },
    solver,
    (planned) => published.push(planned),
    (error) => warned.push(error),
  );
  const take = (...events: BarEvent[]) => {
    bar.seq += events.length;
    bar.state = reduce(events, book, bar.state).state;
  };
  return { bar, asked, published, warned, take };
}

const solved = (
  problem: PlanProblem,
  cost: number,
  standsCost = cost,
  before: Plan | null = null,
): Solved => ({
  plan: solve(problem, { before: before ?? undefined }),
  cost,
  standsCost,
});
const quiet = (ms = 150) => new Promise((resolve) => setTimeout(resolve, ms));

test('an order is planned at once and published with a version and why; an empty bar has no plan', async () => {
  const { published, take } = stand((problem) => solved(problem, 100));
  await planning.replan('bench');
  expect(published.at(-1)).toMatchObject({ version: 1, plan: null, because: 'bench' });
  expect(planning.problem()).toBeNull();
  take(order(1));
  await planning.replan('order');
  expect(published.at(-1)).toMatchObject({ version: 2, because: 'order', moves: [] });
  expect(Object.keys(published.at(-1)!.plan!.finish)).toEqual(['o1']);
  expect(planning.problem()!.brews).toHaveLength(1);
});

test('what happens while a plan is being made is planned in one more round, however much it was', async () => {
  const { asked, published, take } = stand((problem) => solved(problem, 100));
  take(order(1));
  const first = planning.replan('order');
  take(order(2));
  void planning.replan('order');
  take(order(3));
  void planning.replan('event');
  await first;
  expect(asked.filter(({ budgetMs }) => budgetMs < 10)).toHaveLength(2);
  expect(Object.keys(published.at(-1)!.plan!.finish).sort()).toEqual(['o1', 'o2', 'o3']);
});

test('in a quiet moment a better plan is looked for longer, from the one that stands, and taken only if it is worth it', async () => {
  let better = 95;
  const { asked, published, take } = stand((problem, before, budgetMs) =>
    budgetMs < 10 ? solved(problem, 100) : solved(problem, better, 100, before),
  );
  take(order(1), order(2));
  await planning.replan('order');
  await quiet();
  // Five seconds of waiting less are not worth a change of mind.
  expect(published.map(({ because }) => because)).toEqual(['order']);
  const looks = () => asked.filter(({ budgetMs }) => budgetMs > 10);
  // The same search would find as little again: nothing happens, and nothing is searched.
  expect(looks()).toHaveLength(1);
  expect(looks()[0]!.before).toBe(published[0]!.plan);

  better = 40;
  await planning.replan('event');
  await quiet();
  expect(published.map(({ because }) => because)).toContain('better');
  // What brings something is gone on with, and not without end.
  for (let waits = 0; waits < 50 && looks().length < 1 + 4; waits += 1) await quiet(40);
  await quiet();
  expect(looks()).toHaveLength(1 + 4);
});

test('whoever asked for another turn gets it by a little, and afterwards nobody is moved for so little', async () => {
  const { published, take } = stand((problem, before, budgetMs) =>
    budgetMs < 10 ? solved(problem, 5000) : solved(problem, 4980, 5000, before),
  );
  const reasons = () => published.map(({ because }) => because).join(' ');
  take(order(1), order(2));
  await planning.replan('event', true);
  // A tap comes before the planner has looked: what was asked for is still owed.
  await planning.replan('event');
  for (let waits = 0; waits < 50 && published.length < 6; waits += 1) await quiet(40);
  await quiet();
  expect(reasons()).toBe('event event better better better better');
  await planning.replan('event');
  await quiet();
  expect(reasons()).toMatch(/better event$/);
});

test('a planner that fails leaves the plan that stands, says so, and is well again with the next plan', async () => {
  let broken = false;
  const { published, warned, take } = stand((problem) =>
    broken ? new Error('no memory') : solved(problem, 100),
  );
  take(order(1));
  await planning.replan('order');
  const stood = planning.current();
  broken = true;
  take(order(2));
  await planning.replan('order');
  expect([planning.healthy(), planning.current(), published.length]).toEqual([false, stood, 1]);
  expect(String(warned[0])).toContain('no memory');
  broken = false;
  await planning.replan('event');
  expect(planning.healthy()).toBe(true);
  expect(Object.keys(planning.current()!.plan!.finish)).toHaveLength(2);
});

test('what a planner failed at is tried again by itself, more and more seldom, until there is a plan', async () => {
  let fails = 3;
  const { published, warned, take } = stand((problem) => {
    fails -= 1;
    return fails >= 0 ? new Error('The planner had not answered.') : solved(problem, 100);
  });
  take(order(1));
  await planning.replan('order');
  expect([planning.healthy(), planning.current(), warned.length]).toEqual([false, null, 1]);
  for (let waits = 0; waits < 50 && !planning.healthy(); waits += 1) await quiet(40);
  expect(warned).toHaveLength(3);
  expect(published.map(({ because }) => because)).toEqual(['order']);
  expect(planning.healthy()).toBe(true);
});

test('a plan that was overtaken is not published; changes of the next steps are counted', async () => {
  const { published, take, bar } = stand((problem) =>
    problem.brews.length > 2 ? null : solved(problem, 100),
  );
  take(order(1), order(2), order(3));
  await planning.replan('order');
  expect(published).toEqual([]);
  expect(planning.calm()).toEqual({ plans: 0, changes: 0 });
  bar.state = EMPTY_BAR;
  take(order(4));
  await planning.replan('order');
  expect(planning.calm()).toEqual({ plans: 1, changes: 0 });
});

test('the bar is planned anew by itself where a step is long overdue, and not while it is on time', async () => {
  const { bar, published, take } = stand((problem) => solved(problem, 100));
  take(order(1));
  await planning.replan('order');
  await planning.followTime();
  expect(published).toHaveLength(1);
  bar.nowMs = T0 + 300_000;
  await planning.followTime();
  expect(published.at(-1)!.because).toBe('late');
  // Nobody came: the same bar, some seconds later, is not planned for ever.
  const plans = published.length;
  for (let looks = 0; looks < 5; looks += 1) {
    bar.nowMs += 4000;
    await planning.followTime();
  }
  expect(published).toHaveLength(plans);
});
