/** A rush of siphons, presses and a sock in the hand on one pair: while a flame burns nobody is long away from it. */
import { BENCH, T0, book, counter, cup, order } from '../../testing/bench';
import { seededRandom, liveShift } from '../../rush';
import { checkPlan, isFlameKeeper, solve, stepKey, type Plan, type PlanProblem } from '../index';

const bench = {
  ...BENCH,
  stations: [
    { id: 'siphon-1', name: 'Siphon 1', brewerId: 'siphon-m' },
    { id: 'siphon-2', name: 'Siphon 2', brewerId: 'siphon-m' },
    { id: 'press-1', name: 'Press 1', brewerId: 'press-350' },
    { id: 'press-2', name: 'Press 2', brewerId: 'press-350' },
    { id: 'sock-1', name: 'Sock', brewerId: 'sock', scale: 'none' as const, handHeld: true },
  ],
};
const orders = [
  order('A', 0, cup('a1', 'siphon-late', 350), cup('a2', 'press-short', 240)),
  order('B', 20, cup('b1', 'sock-fours', 250), cup('b2', 'press-short', 240)),
  order('C', 200, cup('c1', 'siphon-late', 350), cup('c2', 'press-short', 240)),
];

/** Steps over half a minute that are planned while a flame burns elsewhere, worked out from nothing but the plan. */
function leftAlone(problem: PlanProblem, plan: Plan): string[] {
  const endOf = (brewId: string, stepId: string) => {
    const step = problem.brews.find(({ id }) => id === brewId)!.steps.find(({ id }) => id === stepId)!;
    const key = stepKey(brewId, stepId);
    return problem.ended?.[key] ?? plan.starts[key]! + step.duration;
  };
  const flames = problem.brews.flatMap(({ id, holds }) =>
    holds
      .filter(({ tool }) => tool === 'burner')
      .map(({ from, to }) => ({ id, from: plan.starts[stepKey(id, from)]!, to: endOf(id, to) })),
  );
  return problem.brews.flatMap(({ id, steps }) =>
    steps
      .filter((step) => step.attended && step.duration > 30 && !/^(pour|bloom)/.test(step.id))
      .filter((step) => !(stepKey(id, step.id) in problem.started))
      .flatMap((step) => {
        const [from, to] = [plan.starts[stepKey(id, step.id)]!, endOf(id, step.id)];
        return flames
          .filter((flame) => flame.from < to && from < flame.to)
          .map(() => `${id}/${step.id} at ${from}`);
      }),
  );
}

/** The rush lived with a planner, on a bar of its own. */
const lived = (
  changed: Partial<typeof bench>,
  planner: NonNullable<Parameters<typeof liveShift>[0]['planner']>,
) =>
  liveShift({
    bench: { ...bench, ...changed },
    book,
    orders,
    fromMs: T0,
    untilMs: T0 + 3600 * 1000,
    newId: counter(),
    random: seededRandom(7),
    planner,
  });

test.each([1, 2])(
  'with %d burners no cleaning and no sock in the hand keeps the only barista from a flame',
  (burners) => {
    let plans = 0;
    const { state } = lived({ burners }, (problem, before) => {
      const plan = solve(problem, { moves: 8, before });
      expect(checkPlan(problem, plan)).toEqual([]);
      expect(leftAlone(problem, plan)).toEqual([]);
      plans += 1;
      return plan;
    });
    expect(Object.values(state.orders).flatMap(({ cups }) => cups.map(({ status }) => status))).toEqual(
      Array.from({ length: 6 }, () => 'served'),
    );
    expect(plans).toBeGreaterThan(20);
  },
);

test('without the rule a long cleaning would stand beside the flame; a second pair may clean meanwhile', () => {
  const shifts = (hands: number) => {
    const alone: string[] = [];
    lived({ hands }, (problem, before) => {
      const free = Object.fromEntries(
        Object.keys(problem.tools).map((tool) => [
          tool,
          isFlameKeeper(tool) && hands === 1 ? 9 : problem.tools[tool]!,
        ]),
      );
      const plan = solve({ ...problem, tools: free }, { moves: 8, before });
      alone.push(...leftAlone(problem, plan));
      return plan;
    });
    return alone.length;
  };
  expect(shifts(1)).toBeGreaterThan(0);
  expect(shifts(2)).toBeGreaterThan(0);
});
