/** Recipes that are compared are planned to be drinkable together, whatever their brewers' heat. */
import { EMPTY_BAR, reduce } from '../../brew';
import { SCHOOLS, bookOf } from '../../recipe';
import { BENCH, T0, cup, order } from '../../testing/bench';
import { checkPlan, solve } from '../solver';
import { buildProblem } from './build';

const book = bookOf(SCHOOLS);
const version = (id: string) => SCHOOLS.find((each) => each.id === id)!.version;
const sampled = (id: string, letter: string, recipeId: string, isCompared: boolean) => ({
  ...cup(id, recipeId, 200),
  recipeVersion: version(recipeId),
  sample: { roundId: 'r', letter, ...(isCompared ? { recipeId } : {}) },
});

/** How much later than the cone the press is handed over, seconds. */
function pressAfterCone(isCompared: boolean): number {
  const cups = [
    sampled('press', 'A', 'press-short', isCompared),
    sampled('cone', 'B', 'cone-thirds', isCompared),
  ];
  const { state } = reduce([order('o', 0, ...cups)], book, EMPTY_BAR);
  const { problem } = buildProblem(state, BENCH, book, T0 / 1000);
  const plan = solve(problem, { moves: 4000 });
  expect(checkPlan(problem, plan)).toEqual([]);
  const out = (id: string) => {
    const { steps } = problem.brews.find((brew) => brew.id === `${id}.1`)!;
    const serve = steps.find((step) => step.serve)!;
    return plan.starts[`${id}.1/${serve.id}`]! + serve.duration;
  };
  return out('press') - out('cone');
}

test('a press comes from its glass hotter than a cone from its server, and is out so much sooner', () => {
  // 86 °C and 72 °C cool to 60 °C in some 11 and 6 minutes; cups of one order are out within one of each other.
  expect(pressAfterCone(true)).toBeLessThan(-3 * 60);
  expect(pressAfterCone(true)).toBeGreaterThan(-8 * 60);
  expect(Math.abs(pressAfterCone(false))).toBeLessThanOrEqual(90);
});

test('compared recipes wait for no letter, other samples for the one before them', () => {
  for (const [isCompared, refused] of [
    [true, 0],
    [false, 1],
  ] as const) {
    const cups = [sampled('p', 'A', 'press-short', isCompared), sampled('c', 'B', 'cone-thirds', isCompared)];
    const taken = order('o', 0, ...cups);
    const start = {
      id: 's',
      type: 'brew-started' as const,
      atMs: T0 + 1000,
      brewId: 'c.1',
      orderId: 'o',
      cupId: 'c',
      stationId: 'cone-1',
      stationName: 'Cone 1',
      brewerId: 'cone-m',
      altitudeM: 0,
      kettlePowerW: 1200,
      kettleFilledAtC: 90,
    };
    expect(reduce([taken, start], book, EMPTY_BAR).refused).toHaveLength(refused);
  }
});
