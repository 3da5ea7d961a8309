/**
 * The planner: a valid plan at once, and better ones for as long as it is let. It has no clock; who calls says how many
 * moves to try, and may stop between any two of them.
 */
import { boundOf } from './bound';
import { checkPlan } from './check';
import type { Plan, PlanProblem } from './problem';
import { startSearch } from './search';
import { NEVER, tablesOf, type Tables } from './tables';
import { writeUp } from './write-up';

export type SolveOptions = {
  /** The same problem, seed and number of moves give the same plan. */
  seed?: number;
  /** The plan that stood until now, to set out from. */
  before?: Plan | undefined;
};

export type Solving = {
  /** Tries so many moves more. */
  improve: (moves: number) => void;
  /** The cost of the best plan so far, broken promises of frozen starts counted in. */
  cost: () => number;
  /** Whether the best plan is proven to be the best there is. */
  proven: () => boolean;
  plan: () => Plan;
};

/**
 * Begins with a plan that is valid already.
 * @throws ImpossibleProblem where a brew that has not started needs a tool that is not there, or nobody is on the bar
 */
export function startSolving(problem: PlanProblem, { seed = 1, before }: SolveOptions = {}): Solving {
  const t = tablesOf(problem);
  const search = startSearch(t, seed, before ? startsOf(t, before) : null);
  let bound: number | null = null;
  const boundNow = () => (bound ??= boundOf(problem));
  const written = (start: Int32Array) =>
    writeUp(problem, Object.fromEntries(t.keys.map((key, i) => [key, start[i]! + problem.now])), boundNow());
  return {
    improve: search.run,
    cost: () => search.best().cost,
    proven: () => search.best().cost <= boundNow() + 0.005,
    plan: () => {
      const plan = written(search.best().start);
      // A bar can work by a plain plan, and never by a broken one: nothing leaves here unchecked.
      return checkPlan(problem, plan).length === 0 ? plan : written(search.first);
    },
  };
}

/** So many moves are a few hundredths of a second for a dozen brews. */
const QUICK = 60;

/** A plan after so many moves; the quick one where nothing is said. */
export function solve(problem: PlanProblem, options: SolveOptions & { moves?: number } = {}): Plan {
  const solving = startSolving(problem, options);
  solving.improve(options.moves ?? QUICK);
  return solving.plan();
}

function startsOf(t: Tables, before: Plan): Int32Array {
  const { now } = t.problem;
  return Int32Array.from(t.keys, (key) => {
    const at = before.starts[key];
    return at === undefined ? NEVER : at - now;
  });
}
