/**
 * How long the bar's planner takes, for a few brews and for far too many. Run by `npm run bench`.
 */
import { EMPTY_BAR, reduce, type BarEvent } from '@even-kettle/core/brew';
import { buildProblem, checkPlan, planEarliest } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { LANTERN_PIER } from './demo/lantern-pier';

const book = bookOf(SCHOOLS);
const MENU = ['cone-thirds', 'sock-fours', 'press-long', 'siphon-late'];
const ROUNDS = 9;

for (const brews of [4, 12, 40]) {
  const events: BarEvent[] = Array.from({ length: brews }, (_, index) => ({
    id: `order-${index}`,
    type: 'order-taken',
    atMs: index * 1000,
    orderId: `o${index}`,
    cups: [
      {
        cupId: `c${index}`,
        recipeId: MENU[index % MENU.length]!,
        recipeVersion: 1,
        coffee: 'Saltmarsh',
        roast: 'light',
        cupMl: 250,
      },
    ],
  }));
  const { state } = reduce(events, book, EMPTY_BAR);
  const times: number[] = [];
  let cups = 0;
  for (let round = 0; round < ROUNDS; round += 1) {
    const from = performance.now();
    const { problem } = buildProblem(state, LANTERN_PIER, book, 60);
    const plan = planEarliest(problem);
    times.push(performance.now() - from);
    const broken = checkPlan(problem, plan);
    if (broken.length > 0) throw new Error(broken.join('\n'));
    cups = (brews / (Math.max(...Object.values(plan.finish)) - 60)) * 3600;
  }
  times.sort((a, b) => a - b);
  console.log(
    `  ${String(brews).padStart(2)} brews waiting: median ${times[ROUNDS >> 1]!.toFixed(1)} ms, worst ${times.at(-1)!.toFixed(1)} ms; ${cups.toFixed(1)} cups an hour on one pair of hands`,
  );
}
