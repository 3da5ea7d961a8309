import { ImpossibleProblem, checkPlan, solve, startSolving, type PlanBrew, type PlanProblem } from './index';

const step = (
  id: string,
  attended: boolean,
  duration: number,
  ideal = 0,
  max: number | null = 0,
  serve = false,
): PlanBrew['steps'][number] => ({
  id,
  attended,
  duration,
  lag: { min: ideal, ideal, max, penalty: 1 },
  ...(serve ? { serve: true as const } : {}),
});
/** A press in little: pour 10 s, steep 100 s, plunge 20 s. */
const press = (id: string, order: string): PlanBrew => ({
  id,
  orders: [order],
  steps: [step('pour', true, 10, 0, null), step('plunge', true, 20, 100, 110, true)],
  holds: [{ tool: 'press', from: 'pour', to: 'plunge' }],
});
const problem = (brews: PlanBrew[], change: Partial<PlanProblem> = {}): PlanProblem => ({
  format: 'even-kettle/plan-problem@1',
  now: 0,
  hands: 1,
  tools: { press: 2 },
  orders: brews.map(({ id, orders }) => ({
    id: orders[0]!,
    placedAt: 0,
    dueAt: 600,
    weight: 1,
    serveWithin: 60,
    brews: [id],
  })),
  brews,
  started: {},
  ended: {},
  frozen: {},
  ...change,
});

test('two presses overlap in their steep and never in their hands', () => {
  const both = problem([press('a', 'A'), press('b', 'B')]);
  const plan = solve(both);
  expect(checkPlan(both, plan)).toEqual([]);
  // The plunges must be 20 s apart, the pours need be only 10: either the second waits, or its steep is longer.
  expect(Object.values(plan.finish).sort()).toEqual([130, 150]);
  expect(plan.cost).toBe(130 + 150);
});

test('the cups of one order come out together where their steps let them', () => {
  const one = problem([press('a', 'A'), { ...press('b', 'A'), id: 'b' }], { hands: 2 });
  one.orders = [{ ...one.orders[0]!, serveWithin: 0, brews: ['a', 'b'] }];
  const plan = solve(one);
  expect([plan.finish, plan.cost, plan.optimal]).toEqual([{ A: 130 }, 130, true]);
});

test('a brew waits for a tool that is taken, and says which step frees it', () => {
  const plan = solve(problem([press('a', 'A'), press('b', 'B')], { tools: { press: 1 } }));
  const [second, first] = plan.starts['a/pour'] === 0 ? ['b', 'a'] : ['a', 'b'];
  expect([plan.starts[`${second}/pour`], plan.why[second!], plan.why[first!]]).toEqual([
    130,
    { for: 'tool', tool: 'press', until: 130, step: `${first}/plunge` },
    undefined,
  ]);
});

test('two pairs of hands do two things at once, each pair one', () => {
  const plan = solve(problem([press('a', 'A'), press('b', 'B')], { hands: 2 }));
  expect([plan.starts['a/pour'], plan.starts['b/pour'], new Set(Object.values(plan.hands)).size]).toEqual([
    0, 0, 2,
  ]);
});

test('what is past its window after a started step comes as soon as it can, and is told as relaxed', () => {
  const late = problem([press('a', 'A')], { now: 200, started: { 'a/pour': 0 }, ended: { 'a/pour': 10 } });
  const plan = solve(late);
  expect([plan.starts['a/plunge'], plan.relaxed, checkPlan(late, plan)]).toEqual([
    200,
    [{ step: 'a/plunge', rule: 'max-lag', by: 80 }],
    [],
  ]);
});

test('a frozen start stays although an earlier one is free', () => {
  expect(solve(problem([press('a', 'A')], { frozen: { 'a/pour': 30 } })).starts['a/pour']).toBe(30);
});

test('a tool that is not there is refused with its name', () => {
  expect(() => solve(problem([press('a', 'A')], { tools: {} }))).toThrow(ImpossibleProblem);
  expect(() => solve(problem([press('a', 'A')], { tools: {} }))).toThrow('needs a press');
});

test('the checker sees what it should: overlapping hands, a broken window, a wrong cost', () => {
  const two = problem([press('a', 'A'), press('b', 'B')]);
  const plan = solve(two);
  const broken = checkPlan(two, {
    ...plan,
    starts: { ...plan.starts, 'b/pour': 5, 'b/plunge': 130 },
    cost: plan.cost + 9,
  });
  expect(broken.join('\n')).toMatch(/hands/);
  expect(broken.join('\n')).toMatch(/at most 110/);
  expect(broken.join('\n')).toMatch(/cost is/);
});

test('what makes no sense is refused with what is wrong', () => {
  const two = problem([press('a', 'A'), press('a', 'B')]);
  expect(() => solve(two)).toThrow('the same id');
  expect(() => solve(problem([press('a', 'A')], { started: { 'a/plunge': 0 } }))).toThrow(
    'a/plunge has begun, and pour before it has not',
  );
  expect(() => solve(problem([press('a', 'A')], { hands: 0 }))).toThrow('Nobody is on the bar');
  expect(() => solve({ ...problem([press('a', 'A')]), orders: [] })).toThrow('order A, which is not there');
});

test('a plan is better the longer it is let, never worse, and the same for the same seed and moves', () => {
  const many = problem(
    Array.from({ length: 8 }, (_, n) => press(`p${n}`, `O${n}`)),
    { tools: { press: 3 } },
  );
  const solving = startSolving(many, { seed: 4 });
  const costs = [solving.cost()];
  for (let round = 0; round < 5; round += 1) {
    solving.improve(40);
    costs.push(solving.cost());
  }
  expect(costs).toEqual([...costs].sort((a, b) => b - a));
  expect(costs.at(-1)!).toBeLessThan(costs[0]!);
  expect(solve(many, { seed: 4, moves: 200 })).toEqual(solving.plan());
  expect(solving.plan().bound).toBeLessThanOrEqual(costs.at(-1)!);
});

test('it sets out from the plan that stood, and is no worse than that', () => {
  const many = problem(
    Array.from({ length: 8 }, (_, n) => press(`p${n}`, `O${n}`)),
    { tools: { press: 3 } },
  );
  const before = solve(many, { moves: 600 });
  expect(solve(many, { moves: 0, before }).cost).toBeLessThanOrEqual(before.cost);
  expect(solve(many, { moves: 0 }).cost).toBeGreaterThan(before.cost);
});

test('while a pair is away the other does everything, and nothing is under way when it leaves', () => {
  const away = problem([press('a', 'A'), press('b', 'B')], {
    hands: 2,
    away: [{ from: 5, to: 115, hands: 1 }],
  });
  const plan = solve(away);
  expect(checkPlan(away, plan)).toEqual([]);
  const pairs = Object.entries(plan.hands).filter(([key]) => plan.starts[key]! < 115);
  expect(new Set(pairs.map(([, pair]) => pair))).toEqual(new Set([0]));
});
