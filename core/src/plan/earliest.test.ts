import { ImpossibleProblem, checkPlan, planEarliest, type PlanBrew, type PlanProblem } from './index';

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
  const plan = planEarliest(problem([press('a', 'A'), press('b', 'B')]));
  // b's plunge would fall on a's (110 to 130) until it starts 20 s behind; 10 of them a's lag window gives back.
  expect(plan.starts).toEqual({ 'a/pour': 0, 'a/plunge': 110, 'b/pour': 10, 'b/plunge': 130 });
  expect(plan.starts['b/plunge']! - (plan.starts['b/pour']! + 10)).toBeLessThanOrEqual(110);
  expect(plan.finish).toEqual({ A: 130, B: 150 });
});

test('a brew waits for a tool that is taken, and says which step frees it', () => {
  const plan = planEarliest(problem([press('a', 'A'), press('b', 'B')], { tools: { press: 1 } }));
  expect([plan.starts['b/pour'], plan.why['b']]).toEqual([
    130,
    { for: 'tool', tool: 'press', until: 130, step: 'a/plunge' },
  ]);
});

test('two pairs of hands do two things at once, each pair one', () => {
  const plan = planEarliest(problem([press('a', 'A'), press('b', 'B')], { hands: 2 }));
  expect([plan.starts['a/pour'], plan.starts['b/pour'], new Set(Object.values(plan.hands)).size]).toEqual([
    0, 0, 2,
  ]);
});

test('what is past its window after a started step comes as soon as it can, and is told as relaxed', () => {
  const late = problem([press('a', 'A')], { now: 200, started: { 'a/pour': 0 }, ended: { 'a/pour': 10 } });
  const plan = planEarliest(late);
  expect([plan.starts['a/plunge'], plan.relaxed, checkPlan(late, plan)]).toEqual([
    200,
    [{ step: 'a/plunge', rule: 'max-lag', by: 80 }],
    [],
  ]);
});

test('a frozen start stays although an earlier one is free', () => {
  expect(planEarliest(problem([press('a', 'A')], { frozen: { 'a/pour': 30 } })).starts['a/pour']).toBe(30);
});

test('a tool that is not there is refused with its name', () => {
  expect(() => planEarliest(problem([press('a', 'A')], { tools: {} }))).toThrow(ImpossibleProblem);
  expect(() => planEarliest(problem([press('a', 'A')], { tools: {} }))).toThrow('needs a press');
});

test('the checker sees what it should: overlapping hands, a broken window, a wrong cost', () => {
  const two = problem([press('a', 'A'), press('b', 'B')]);
  const plan = planEarliest(two);
  const broken = checkPlan(two, {
    ...plan,
    starts: { ...plan.starts, 'b/pour': 5, 'b/plunge': 130 },
    cost: plan.cost + 9,
  });
  expect(broken.join('\n')).toMatch(/hands/);
  expect(broken.join('\n')).toMatch(/at most 110/);
  expect(broken.join('\n')).toMatch(/cost is/);
});
