/**
 * A lower bound of the cost of any plan. Two facts hold for every plan: each order costs at least what it would cost
 * alone with endless hands and tools; and the k-th order is out no sooner than the work of the k lightest takes the hands.
 */
import { LATE_PER_S, RELAXED_PER_S } from './price';
import { range } from './sequence';
import type { PlanProblem } from './problem';
import { tablesOf } from './tables';
import { timingOf } from './timing';

/** A proven lower bound of the cost of any plan of this problem. */
export function boundOf(problem: PlanProblem): number {
  const shared = problem.brews.some(({ orders }) => orders.length > 1);
  if (shared) return roundDown(aloneCost(problem));
  const alone = problem.orders.map((order) =>
    aloneCost({
      ...problem,
      orders: [order],
      brews: problem.brews.filter(({ orders }) => orders.includes(order.id)),
    }),
  );
  const t = tablesOf(problem);
  // An order that is out already has no place in the sequence of those that wait.
  const waiting = range(t.orders.length).filter((o) =>
    t.orders[o]!.brews.some((b) => t.next[b]! <= t.serve[b]!),
  );
  const work = waiting.map((o) =>
    t.orders[o]!.brews.reduce((all, b) => {
      let sum = all;
      for (let i = t.next[b]!; i <= t.serve[b]!; i += 1) if (t.attended[i]) sum += t.duration[i]!;
      return sum;
    }, 0),
  );
  let sum = 0;
  const outAt = [...work].sort((a, b) => a - b).map((seconds) => (sum += seconds) / t.hands);
  // It is unknown which order is out k-th; the cheapest assignment of places is a bound for all of them.
  const costs = waiting.map((o) => {
    const { placedAt, dueAt, weight } = t.orders[o]!;
    return outAt.map((at) =>
      Math.max(alone[o]!, weight * (at - placedAt + LATE_PER_S * Math.max(0, at - dueAt))),
    );
  });
  const served = alone.reduce((all, cost, o) => all + (waiting.includes(o) ? 0 : cost), 0);
  return roundDown(served + cheapestAssignment(costs));
}

const roundDown = (cost: number): number => Math.floor(cost * 100 + 1e-6) / 100;

/** The cost with enough hands and tools for everything at once. */
function aloneCost(problem: PlanProblem): number {
  const endless: PlanProblem = {
    ...problem,
    away: [],
    frozen: {},
    brews: problem.brews.map((brew) => ({
      ...brew,
      steps: brew.steps.map((step) => ({ ...step, attended: false })),
      holds: [],
    })),
  };
  const t = tablesOf(endless);
  // The bound is of the stated cost, without the extra costs of the search.
  const timing = timingOf(t, RELAXED_PER_S);
  const start = new Int32Array(t.steps);
  for (let b = 0; b < t.brews; b += 1) {
    let at = t.soonest[b]!;
    for (let i = t.first[b]!; i < t.first[b + 1]!; i += 1) {
      if (i < t.next[b]!) start[i] = t.pinnedStart[i]!;
      else {
        if (i > t.next[b]!) at += t.lagMin[i]!;
        start[i] = at;
        at += t.duration[i]!;
      }
    }
  }
  if (!timing.settle(start)) return 0;
  // Costs of millions have rounding errors, so the gain is compared relatively, and the number of rounds is limited.
  let cost = timing.perfect(start);
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const better = timing.perfect(start);
    if (better > cost - 1e-9 * Math.max(1, Math.abs(cost))) return cost;
    cost = better;
  }
  // A sum that is not the minimum would be no bound.
  return 0;
}

/** `perfect` goes 120 moves a round; no problem has been seen to need a tenth round. */
const MOST_ROUNDS = 200;

/** The least sum of one entry a row and column: the Hungarian method with potentials (H. W. Kuhn, 1955), in cubic time. */
export function cheapestAssignment(costs: number[][]): number {
  const n = costs.length;
  const rowPrice = new Float64Array(n + 1);
  const columnPrice = new Float64Array(n + 1);
  const rowOf = new Int32Array(n + 1);
  const way = new Int32Array(n + 1);
  for (let row = 1; row <= n; row += 1) {
    rowOf[0] = row;
    let column = 0;
    const least = new Float64Array(n + 1).fill(Infinity);
    const used = new Uint8Array(n + 1);
    do {
      used[column] = 1;
      const from = rowOf[column]!;
      let delta = Infinity;
      let next = 0;
      for (let c = 1; c <= n; c += 1) {
        if (used[c]) continue;
        const reduced = costs[from - 1]![c - 1]! - rowPrice[from]! - columnPrice[c]!;
        if (reduced < least[c]!) {
          least[c] = reduced;
          way[c] = column;
        }
        if (least[c]! < delta) {
          delta = least[c]!;
          next = c;
        }
      }
      for (let c = 0; c <= n; c += 1) {
        if (used[c]) {
          rowPrice[rowOf[c]!]! += delta;
          columnPrice[c]! -= delta;
        } else least[c]! -= delta;
      }
      column = next;
    } while (rowOf[column] !== 0);
    do {
      const before = way[column]!;
      rowOf[column] = rowOf[before]!;
      column = before;
    } while (column !== 0);
  }
  return range(n).reduce((sum, c) => sum + costs[rowOf[c + 1]! - 1]![c]!, 0);
}
