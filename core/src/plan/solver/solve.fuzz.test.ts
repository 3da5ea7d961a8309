/** Random bars and random problems: whatever is asked, the plan keeps every rule. */
import { runsOf, seedOr } from '../../testing/random';
import { checkPlan, seededRandom, solve, stepKey, type PlanBrew, type PlanProblem } from './index';

const seed = seedOr(20261124);
const PROBLEMS = runsOf(120);
console.info(`solve.fuzz seed ${seed}`);

/** A problem of some brews; where `inTheMiddle`, some steps have begun or are over, on time or late. */
function anyProblem(random: () => number, inTheMiddle: boolean): PlanProblem {
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const now = whole(0, 1000);
  const problem: PlanProblem = {
    format: 'even-kettle/plan-problem@1',
    now,
    hands: whole(1, 2),
    tools: { grinder: 1, cone: whole(1, 3), press: 2 },
    orders: [],
    brews: [],
    started: {},
    ended: {},
    frozen: {},
  };
  if (random() < 0.3) problem.away = [{ from: now + whole(0, 300), to: now + whole(301, 700), hands: 1 }];
  for (let index = 0; index < whole(1, 7); index += 1) {
    const steps: PlanBrew['steps'] = [
      {
        id: 'weigh',
        attended: true,
        duration: whole(8, 20),
        lag: { min: 0, ideal: 0, max: null, penalty: 0 },
      },
      {
        id: 'grind',
        attended: false,
        duration: whole(10, 40),
        lag: { min: 0, ideal: 0, max: 0, penalty: 0 },
      },
      {
        id: 'rinse',
        attended: true,
        duration: whole(10, 25),
        lag: { min: 0, ideal: 0, max: 300, penalty: 0.02 },
      },
      {
        id: 'bloom',
        attended: true,
        duration: whole(5, 12),
        lag: { min: 0, ideal: 0, max: 120, penalty: 0.05 },
      },
    ];
    for (let pour = 0; pour < whole(1, 4); pour += 1) {
      const ideal = whole(5, 40);
      steps.push({
        id: `pour${pour}`,
        attended: true,
        duration: whole(8, 60),
        lag: { min: Math.max(2, ideal - 3), ideal, max: ideal + 8, penalty: 1 },
      });
    }
    steps.push({
      id: 'drain',
      attended: false,
      duration: whole(30, 120),
      lag: { min: 0, ideal: 0, max: 0, penalty: 0 },
    });
    steps.push({
      id: 'serve',
      attended: true,
      duration: 18,
      lag: { min: 0, ideal: 0, max: 60, penalty: 0.5 },
      serve: true,
    });
    steps.push({
      id: 'clean',
      attended: true,
      duration: 20,
      lag: { min: 0, ideal: 0, max: 600, penalty: 0.05 },
    });
    const id = `b${index}`;
    const brewer = random() < 0.7 ? 'cone' : 'press';
    problem.brews.push({
      id,
      orders: [`o${index >> 1}`],
      steps,
      holds: [
        { tool: 'grinder', from: 'grind', to: 'grind' },
        { tool: brewer, from: 'rinse', to: 'clean' },
      ],
    });
    const order = problem.orders.find((each) => each.id === `o${index >> 1}`);
    if (order) order.brews.push(id);
    else
      problem.orders.push({
        id: `o${index >> 1}`,
        placedAt: now - whole(0, 200),
        dueAt: now + 500,
        weight: 1,
        serveWithin: 60,
        brews: [id],
      });
  }
  if (inTheMiddle) {
    for (const brew of problem.brews.slice(0, problem.tools['cone'])) {
      let at = now - whole(50, 400);
      for (const step of brew.steps) {
        if (at > now) break;
        problem.started[stepKey(brew.id, step.id)] = at;
        const end = at + Math.round(step.duration * (0.8 + random() * 0.6));
        if (end > now) break;
        problem.ended[stepKey(brew.id, step.id)] = end;
        at = end + step.lag.min + whole(0, 30);
      }
    }
  }
  return problem;
}

test('every plan of a random problem keeps every rule, from rest and in the middle of a rush', () => {
  let relaxed = 0;
  for (let index = 0; index < PROBLEMS; index += 1) {
    const inTheMiddle = index % 2 === 1;
    const problem = anyProblem(seededRandom(seed + index), inTheMiddle);
    const plan = solve(problem, { moves: 15, seed: index });
    expect([index, checkPlan(problem, plan)]).toEqual([index, []]);
    if (!inTheMiddle) expect(plan.relaxed).toEqual([]);
    expect([index, plan.bound <= plan.cost]).toEqual([index, true]);
    relaxed += plan.relaxed.length;
    if (index % 10 === 0) expect(solve(problem, { moves: 15, seed: index })).toEqual(plan);
  }
  console.info(`${PROBLEMS} problems, ${relaxed} steps relaxed`);
});

/** A problem so small that every plan of it can be tried: a few seconds a step, two or three brews. */
function tinyProblem(random: () => number): PlanProblem {
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const brews: PlanBrew[] = Array.from({ length: whole(2, 3) }, (_, index) => ({
    id: `b${index}`,
    orders: [`o${random() < 0.5 ? 0 : index}`],
    steps: Array.from({ length: whole(2, 3) }, (_each, n) => {
      const ideal = whole(0, 3);
      const lag =
        n === 0
          ? { min: 0, ideal: 0, max: null, penalty: 0 }
          : { min: Math.max(0, ideal - 1), ideal, max: ideal + whole(0, 2), penalty: whole(0, 3) / 2 };
      return { id: `s${n}`, attended: n === 0 || random() < 0.8, duration: whole(1, 4), lag };
    }),
    holds: [],
  }));
  for (const brew of brews) {
    brew.steps.at(-1)!.serve = true;
    if (random() < 0.6) brew.holds.push({ tool: 'cone', from: 's0', to: brew.steps.at(-1)!.id });
  }
  const ids = [...new Set(brews.map(({ orders }) => orders[0]!))];
  return {
    format: 'even-kettle/plan-problem@1',
    now: 0,
    hands: whole(1, 2),
    tools: { cone: 1 },
    orders: ids.map((id) => ({
      id,
      placedAt: -whole(0, 5),
      dueAt: whole(5, 25),
      weight: whole(1, 2),
      serveWithin: whole(0, 4),
      brews: brews.filter(({ orders }) => orders[0] === id).map((brew) => brew.id),
    })),
    brews,
    started: {},
    ended: {},
    frozen: {},
  };
}

/**
 * The least cost there is, by trying every start of every step up to a horizon, but for those whose orders are out too late
 * already to be cheaper than what was found; it shares nothing with the planner.
 */
function leastCost(problem: PlanProblem): number {
  const horizon = problem.brews.reduce(
    (sum, brew) => sum + brew.steps.reduce((all, step) => all + step.duration + step.lag.ideal + 1, 0),
    0,
  );
  const steps = problem.brews.flatMap((brew) => brew.steps.map((step, n) => ({ brew, step, n })));
  const hands = new Array<number>(horizon + 20).fill(0);
  const ends: number[] = [];
  const starts: number[] = [];
  let best = Infinity;
  const total = () => {
    const finish = new Map<string, number>();
    const cones: [number, number][] = [];
    let first = 0;
    let cost = 0;
    for (const brew of problem.brews) {
      const last = first + brew.steps.length - 1;
      finish.set(brew.id, ends[last]!);
      for (let n = first + 1; n <= last; n += 1) {
        const { lag } = brew.steps[n - first]!;
        cost += lag.penalty * Math.abs(starts[n]! - ends[n - 1]! - lag.ideal);
      }
      if (brew.holds.length > 0) cones.push([starts[first]!, ends[last]!]);
      first = last + 1;
    }
    cones.sort((a, b) => a[0] - b[0]);
    if (cones.some(([from], n) => n > 0 && from < cones[n - 1]![1])) return Infinity;
    for (const order of problem.orders) {
      const out = order.brews.map((id) => finish.get(id)!);
      const last = Math.max(...out);
      cost +=
        order.weight *
        (last -
          order.placedAt +
          4 * Math.max(0, last - order.dueAt) +
          3 * Math.max(0, last - Math.min(...out) - order.serveWithin));
    }
    return cost;
  };
  /** What the orders cost at the least, with the brews that end within the first steps: no order is out before its brews. */
  const atLeast = (placed: number) => {
    const lastOf = new Map<string, number>();
    let first = 0;
    for (const brew of problem.brews) {
      first += brew.steps.length;
      if (first <= placed) lastOf.set(brew.id, ends[first - 1]!);
    }
    return problem.orders.reduce((cost, { brews, weight, placedAt, dueAt }) => {
      const last = Math.max(0, ...brews.map((id) => lastOf.get(id) ?? 0));
      return cost + weight * (last - placedAt + 4 * Math.max(0, last - dueAt));
    }, 0);
  };
  const tryFrom = (index: number) => {
    if (atLeast(index) >= best) return;
    if (index === steps.length) {
      best = Math.min(best, total());
      return;
    }
    const { step, n } = steps[index]!;
    const from = n === 0 ? 0 : ends[index - 1]! + step.lag.min;
    const to = n === 0 ? horizon : ends[index - 1]! + step.lag.max!;
    for (let start = from; start <= to && start + step.duration <= horizon; start += 1) {
      const seconds = step.attended ? Array.from({ length: step.duration }, (_, s) => start + s) : [];
      if (seconds.some((second) => hands[second]! >= problem.hands)) continue;
      for (const second of seconds) hands[second]! += 1;
      starts[index] = start;
      ends[index] = start + step.duration;
      tryFrom(index + 1);
      for (const second of seconds) hands[second]! -= 1;
    }
  };
  tryFrom(0);
  return best;
}

test('on problems small enough to try every plan of, it finds the cheapest, and its bound is under it', () => {
  for (let index = 0; index < 60; index += 1) {
    const problem = tinyProblem(seededRandom(seed + 5000 + index));
    if (problem.brews.flatMap(({ steps }) => steps).length > 7) continue;
    const plan = solve(problem, { moves: 400 });
    const least = leastCost(problem);
    expect([index, plan.cost]).toEqual([index, least]);
    expect([index, plan.bound <= least]).toEqual([index, true]);
  }
});
