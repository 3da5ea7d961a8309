/**
 * A planning problem as flat arrays, for a search that looks at it a million times: brews, steps and orders by number,
 * times in seconds from the problem's `now`.
 *
 * Letters of everything that works on them: `t` is the tables; `i` and `j` a step; `b` a brew; `o` an order; `h` a hold;
 * `k` and `n` a place in a list; `d` a duration, `s` a second.
 */
import { endOfStarted } from './started';
import { ImpossibleProblem, stepKey, type PlanProblem } from './problem';

/** No limit, or nothing planned: further off than any plan goes, seconds. */
export const NEVER = 1 << 28;

export type Order = {
  brews: number[];
  placedAt: number;
  dueAt: number;
  /** NEVER where nothing was told. */
  promisedAt: number;
  weight: number;
  serveWithin: number;
};

/** A tool from the start of one step to the end of another, by their numbers. */
export type Hold = { tool: number; from: number; to: number };

export type Tables = {
  problem: PlanProblem;
  brews: number;
  steps: number;
  /** The steps of brew b are those from `first[b]` up to `first[b + 1]`, that one left out. */
  first: Int32Array;
  /** The first step of each brew that has not begun; `first[b + 1]` where all have. */
  next: Int32Array;
  /** Which brew a step is of. */
  brewOf: Int32Array;
  duration: Int32Array;
  /** Of begun steps that are done together the first alone takes hands. */
  attended: Uint8Array;
  lagMin: Int32Array;
  lagIdeal: Int32Array;
  lagMax: Int32Array;
  penalty: Float64Array;
  /** Planned starts to keep, or NEVER. */
  frozen: Int32Array;
  /** Real starts and ends of begun steps. */
  pinnedStart: Int32Array;
  pinnedEnd: Int32Array;
  /** The soonest that a brew that waits may start; of one that runs the soonest of its next step. */
  soonest: Int32Array;
  /** How long after that step's end it counts as out. */
  coolS: Int32Array;
  /** The step whose end is the brew's finish. */
  serve: Int32Array;
  holds: Hold[][];
  orders: Order[];
  ordersOf: number[][];
  /** Pairs of hands, and units of each tool. */
  hands: number;
  toolNames: string[];
  units: Int32Array;
  away: { from: number; to: number; hands: number }[];
  /** Long enough for everything one after another, with room to spare. */
  horizon: number;
  keys: string[];
};

/**
 * @throws ImpossibleProblem where a brew that waits needs a tool that is not there, nobody is on the bar, or an order or
 * step is named that the problem does not have
 */
// eslint-disable-next-line max-lines-per-function -- it fills one table column by column
export function tablesOf(problem: PlanProblem): Tables {
  refuse(problem);
  const { now } = problem;
  const brews = problem.brews.length;
  const steps = problem.brews.reduce((sum, brew) => sum + brew.steps.length, 0);
  const toolNames = [...new Set(problem.brews.flatMap(({ holds }) => holds.map(({ tool }) => tool)))];
  const orderNumber = new Map(problem.orders.map(({ id }, index) => [id, index]));
  const brewNumber = new Map(problem.brews.map(({ id }, index) => [id, index]));
  const t: Tables = {
    problem,
    brews,
    steps,
    first: new Int32Array(brews + 1),
    next: new Int32Array(brews),
    brewOf: new Int32Array(steps),
    duration: new Int32Array(steps),
    attended: new Uint8Array(steps),
    lagMin: new Int32Array(steps),
    lagIdeal: new Int32Array(steps),
    lagMax: new Int32Array(steps),
    penalty: new Float64Array(steps),
    frozen: new Int32Array(steps).fill(NEVER),
    pinnedStart: new Int32Array(steps),
    pinnedEnd: new Int32Array(steps),
    soonest: new Int32Array(brews),
    serve: new Int32Array(brews),
    coolS: Int32Array.from(problem.brews, ({ coolS = 0 }) => coolS),
    holds: [],
    orders: problem.orders.map((order) => ({
      brews: order.brews.map((id) => brewNumber.get(id)!),
      placedAt: order.placedAt - now,
      dueAt: order.dueAt - now,
      promisedAt: order.promisedAt === undefined ? NEVER : order.promisedAt - now,
      weight: order.weight ?? 1,
      serveWithin: order.serveWithin,
    })),
    ordersOf: [],
    hands: problem.hands,
    toolNames,
    units: Int32Array.from(toolNames, (tool) => problem.tools[tool] ?? 0),
    away: (problem.away ?? []).map((gap) => ({ from: gap.from - now, to: gap.to - now, hands: gap.hands })),
    horizon: 0,
    keys: [],
  };
  let latest = Math.max(0, ...t.away.map(({ to }) => to));
  let all = 0;
  let number = 0;
  problem.brews.forEach((brew, b) => {
    t.first[b] = number;
    const numberOf = new Map(brew.steps.map(({ id }, index) => [id, number + index]));
    const ordersOf = brew.orders.map((id) => orderNumber.get(id)!);
    t.ordersOf.push(ordersOf);
    t.holds.push(
      brew.holds.map(({ tool, from, to }) => ({
        tool: toolNames.indexOf(tool),
        from: numberOf.get(from)!,
        to: numberOf.get(to)!,
      })),
    );
    t.next[b] = number;
    for (const step of brew.steps) {
      const key = stepKey(brew.id, step.id);
      t.keys.push(key);
      t.brewOf[number] = b;
      t.duration[number] = step.duration;
      t.attended[number] = Number(step.attended);
      t.lagMin[number] = step.lag.min;
      t.lagIdeal[number] = step.lag.ideal;
      t.lagMax[number] = step.lag.max ?? NEVER;
      t.penalty[number] = step.lag.penalty;
      if (step.serve) t.serve[b] = number;
      const started = problem.started?.[key];
      const frozen = problem.frozen?.[key];
      if (started !== undefined) {
        t.next[b] = number + 1;
        t.pinnedStart[number] = started - now;
        t.pinnedEnd[number] = endOfStarted(problem, key, step.duration) - now;
        latest = Math.max(latest, t.pinnedEnd[number]!);
      } else if (frozen !== undefined && frozen >= now) t.frozen[number] = frozen - now;
      all += step.duration + Math.max(step.lag.min, step.lag.ideal);
      number += 1;
    }
    const next = t.next[b]!;
    const since =
      next === t.first[b]
        ? Math.max(0, ...ordersOf.map((order) => t.orders[order]!.placedAt))
        : t.pinnedEnd[next - 1]!;
    t.soonest[b] = Math.max(0, since + (next < number ? t.lagMin[next]! : 0));
    latest = Math.max(latest, t.soonest[b]!);
  });
  t.first[brews] = number;
  t.horizon = Math.ceil(latest + all + 3600);
  return t;
}

function refuse(problem: PlanProblem): void {
  if (!(problem.hands >= 1))
    throw new ImpossibleProblem('Nobody is on the bar: a plan needs one pair of hands at least.');
  const orders = new Set(problem.orders.map(({ id }) => id));
  const brews = new Set(problem.brews.map(({ id }) => id));
  if (brews.size < problem.brews.length || orders.size < problem.orders.length)
    throw new ImpossibleProblem('Two brews, or two orders, have the same id.');
  for (const order of problem.orders) {
    const missing = order.brews.find((id) => !brews.has(id));
    if (missing !== undefined || order.brews.length === 0)
      throw new ImpossibleProblem(
        `Order ${order.id} names ${missing === undefined ? 'no brew' : `brew ${missing}, which is not there`}.`,
      );
  }
  for (const brew of problem.brews) {
    const missing = brew.orders.find((id) => !orders.has(id));
    if (missing !== undefined || brew.orders.length === 0)
      throw new ImpossibleProblem(
        `Brew ${brew.id} names ${missing === undefined ? 'no order' : `order ${missing}, which is not there`}.`,
      );
    if (brew.steps.filter(({ serve }) => serve).length !== 1)
      throw new ImpossibleProblem(`Brew ${brew.id} must have exactly one step that serves.`);
    const ids = brew.steps.map(({ id }) => id);
    if (new Set(ids).size < ids.length)
      throw new ImpossibleProblem(`Brew ${brew.id} has two steps of the same id.`);
    const begun = ids.map((id) => stepKey(brew.id, id) in (problem.started ?? {}));
    const gap = begun.findIndex((each, n) => each && n > 0 && !begun[n - 1]);
    if (gap > 0)
      throw new ImpossibleProblem(`${brew.id}/${ids[gap]} has begun, and ${ids[gap - 1]} before it has not.`);
    for (const hold of brew.holds) {
      if (!ids.includes(hold.from) || ids.indexOf(hold.to) < ids.indexOf(hold.from))
        throw new ImpossibleProblem(
          `Brew ${brew.id} holds its ${hold.tool} from ${hold.from} to ${hold.to}, which are not steps of it in that order.`,
        );
      const twice = brew.holds.find(
        (other) =>
          other !== hold &&
          other.tool === hold.tool &&
          ids.indexOf(other.from) <= ids.indexOf(hold.to) &&
          ids.indexOf(hold.from) <= ids.indexOf(other.to),
      );
      if (twice)
        throw new ImpossibleProblem(
          `Brew ${brew.id} holds a ${hold.tool} twice at once, from ${hold.from} and from ${twice.from}; name one hold from the first step to the last.`,
        );
      if ((problem.tools[hold.tool] ?? 0) < 1 && !(stepKey(brew.id, hold.from) in (problem.started ?? {})))
        throw new ImpossibleProblem(`Brew ${brew.id} needs a ${hold.tool}, and the bar has none.`);
    }
  }
}
