/**
 * How good the planner is, and how soon: every instance at hand, for one second and for five, against the best cost known,
 * one brew at a time and greedy insertion. Run by `npm run bench -- plan`; BUDGETS and SEEDS change what is tried.
 */
import { readFileSync, readdirSync } from 'node:fs';
import { EMPTY_BAR, reduce, type BarEvent } from '@even-kettle/core/brew';
import { readPlanProblem } from '@even-kettle/core/formats';
import {
  buildProblem,
  checkPlan,
  effectOf,
  planGreedily,
  planOneAtATime,
  standingPlan,
  startSolving,
  type Plan,
  type PlanProblem,
} from '@even-kettle/core/plan';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { LANTERN_PIER } from '../src/demo/benches';

type Reference = { brews: number; best: number };
const instances = new URL('../bench/plan-instances/', import.meta.url);
const references = JSON.parse(readFileSync(new URL('references.json', instances), 'utf8')) as Record<
  string,
  Reference
>;
const BUDGETS = (process.env['BUDGETS'] ?? '1000,5000').split(',').map(Number);
const SEEDS = Number(process.env['SEEDS'] ?? 5);
/** Between two looks at the clock. */
const SLICE = 5;

const median = (values: number[]): number => values.toSorted((a, b) => a - b)[values.length >> 1]!;

function valid(problem: PlanProblem, plan: Plan): Plan {
  const broken = checkPlan(problem, plan);
  if (broken.length > 0) throw new Error(broken.join('\n'));
  return plan;
}

function solveFor(problem: PlanProblem, seed: number, budgetMs: number) {
  const from = performance.now();
  const solving = startSolving(problem, { seed });
  const firstMs = performance.now() - from;
  let moves = 0;
  while (performance.now() - from < budgetMs && !solving.proven()) {
    solving.improve(SLICE);
    moves += SLICE;
  }
  return { firstMs, moves, plan: valid(problem, solving.plan()) };
}

const perHour = (problem: PlanProblem, plan: Plan): number =>
  (problem.brews.length / (Math.max(...Object.values(plan.finish)) - problem.now)) * 3600;

for (const budgetMs of BUDGETS) {
  console.log(
    `\n  ${budgetMs / 1000} s, one thread, median of ${SEEDS} seeds\n  ${'instance'.padEnd(14)} brews      cost  of best  of greedy  of 1-at-a-time  over bound  first plan  moves  cups/h (greedy, 1-at-a-time)`,
  );
  for (const file of readdirSync(instances).filter((name) => name !== 'references.json')) {
    const name = file.replace('.json', '');
    const read = readPlanProblem(readFileSync(new URL(file, instances), 'utf8'));
    if (!read.ok) throw new Error(`${file}: ${read.faults[0]!.field} ${read.faults[0]!.reason}`);
    const problem = read.value;
    const greedy = valid(problem, planGreedily(problem));
    const single = valid(problem, planOneAtATime(problem));
    const runs = Array.from({ length: SEEDS }, (_, seed) => solveFor(problem, seed + 1, budgetMs)).sort(
      (a, b) => a.plan.cost - b.plan.cost,
    );
    const { plan, moves } = runs[SEEDS >> 1]!;
    const share = (cost: number) => (plan.cost / cost).toFixed(3);
    const rates = [plan, greedy, single].map((each) => perHour(problem, each).toFixed(1));
    console.log(
      `  ${name.padEnd(14)} ${String(problem.brews.length).padStart(5)} ${plan.cost.toFixed(0).padStart(9)} ${share(references[name]!.best).padStart(8)} ${share(greedy.cost).padStart(10)} ${share(single.cost).padStart(15)} ${`${(100 * (plan.cost / plan.bound - 1)).toFixed(0)} %`.padStart(11)} ${`${median(runs.map(({ firstMs }) => firstMs)).toFixed(0)} ms`.padStart(11)} ${String(moves).padStart(6)}  ${rates[0]} (${rates[1]}, ${rates[2]})`,
    );
  }
}

console.log(
  '\n  The bar’s own recipes on Lantern Pier’s bench, one pair of hands: the first plan, and what a change of an order would do',
);
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
  for (let round = 0; round < ROUNDS; round += 1) {
    const { problem } = buildProblem(state, { ...LANTERN_PIER, hands: 1 }, book, 60);
    const from = performance.now();
    const solving = startSolving(problem);
    times.push(performance.now() - from);
    valid(problem, solving.plan());
  }
  const standing = { state, bench: { ...LANTERN_PIER, hands: 1 }, book, nowS: 60, plan: null };
  const changed = { ...state.orders['o1']!.cups[0]!, cupMl: 300 };
  const { status: _status, brewIds: _ids, attempts: _tried, ...cup } = changed;
  const changeMs = Array.from({ length: ROUNDS }, () => {
    const from = performance.now();
    const effect = effectOf(standing, standingPlan(standing), [
      { id: 'change', type: 'cup-changed', atMs: 60_000, orderId: 'o1', cup },
    ]);
    if (!effect.ok) throw new Error(effect.reason);
    return performance.now() - from;
  });
  console.log(
    `  ${String(brews).padStart(2)} brews: a change answered in a median of ${median(changeMs).toFixed(1)} ms; median ${median(times).toFixed(1)} ms, cold ${times[0]!.toFixed(1)} ms`,
  );
}
