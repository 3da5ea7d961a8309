/**
 * The planner: a valid plan at once, and better ones for as long as it is let. It has no clock; who calls says how many
 * moves to try, and may stop between any two of them.
 */
import { boundOf } from './bound';
import { inTurn } from './alike';
import { checkPlan } from './check';
import { stepKey, type Plan, type PlanProblem } from './problem';
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
  /** @throws NoValidPlan where even the plain one breaks a rule */
  plan: () => Plan;
};

/** No plan was found that keeps every rule; whoever asked goes on by the one that stands. */
export class NoValidPlan extends Error {
  constructor(readonly broken: readonly string[]) {
    super(`No plan keeps every rule: ${broken.slice(0, 3).join('; ')}.`);
  }
}

/**
 * Begins with a plan that is valid already.
 * @throws ImpossibleProblem where a brew that has not started needs a tool that is not there, or nobody is on the bar
 */
export function startSolving(problem: PlanProblem, { seed = 1, before }: SolveOptions = {}): Solving {
  const t = tablesOf(problem);
  const last = before ? startsOf(t, before.starts) : null;
  let search = startSearch(t, seed, last);
  if (bendsWhatRuns(t, search.best().start)) {
    const running = runningAlone(problem, { seed, before });
    if (running) search = startSearch(t, seed, last, startsOf(t, running));
  }
  let bound: number | null = null;
  const boundNow = () => (bound ??= boundOf(problem));
  const written = (start: Int32Array) =>
    writeUp(
      problem,
      Object.fromEntries(t.keys.map((key, i) => [key, start[i]! + problem.now])),
      boundNow(),
      before?.hands,
    );
  const best = () => inTurn(t, search.best());
  return {
    improve: search.run,
    cost: () => best().cost,
    // Asked after every few moves, so of the search's own best.
    proven: () => search.best().cost <= boundNow() + 0.005,
    plan: () => {
      // A bar can work by a plain plan, and never by a broken one: nothing leaves here unchecked.
      let broken: string[] = [];
      for (const start of [best().start, search.first]) {
        const plan = written(start);
        broken = checkPlan(problem, plan);
        if (broken.length === 0) return plan;
      }
      throw new NoValidPlan(broken);
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

function bendsWhatRuns(t: Tables, start: Int32Array): boolean {
  for (let b = 0; b < t.brews; b += 1) {
    const i = t.next[b]!;
    if (i === t.first[b] || i === t.first[b + 1]) continue;
    if (start[i]! - t.pinnedEnd[i - 1]! > t.lagMax[i]!) return true;
  }
  return false;
}

/** Moves for the brews that run, by themselves. */
const ALONE = 200;

/**
 * Starts that bend the brews that run as little as can be; null where fewer than two do, or nothing else is planned.
 * They cannot wait as the rest can, so the rest is laid around them. Looked for only where a plain plan bends one.
 */
function runningAlone(problem: PlanProblem, { seed = 1, before }: SolveOptions): Plan['starts'] | null {
  const isBegun = ({ id, steps }: PlanProblem['brews'][number]) =>
    stepKey(id, steps[0]!.id) in (problem.started ?? {});
  const brews = problem.brews.filter(isBegun);
  if (brews.length < 2 || brews.length === problem.brews.length) return null;
  const ids = new Set(brews.map(({ id }) => id));
  const running: PlanProblem = {
    ...problem,
    brews,
    orders: problem.orders
      .map((order) => ({ ...order, brews: order.brews.filter((id) => ids.has(id)) }))
      .filter((order) => order.brews.length > 0),
  };
  const t = tablesOf(running);
  const search = startSearch(t, seed, before ? startsOf(t, before.starts) : null);
  search.run(ALONE);
  const { start } = search.best();
  return Object.fromEntries(t.keys.map((key, i) => [key, start[i]! + problem.now]));
}

/** A plan's starts in these tables; NEVER of what it does not have. */
function startsOf(t: Tables, starts: Plan['starts']): Int32Array {
  const { now } = t.problem;
  return Int32Array.from(t.keys, (key) => {
    const at = starts[key];
    return at === undefined ? NEVER : at - now;
  });
}
