/** What the planner is measured against: one brew after another, and each at its ideal rhythm wherever that fits first. */
import { boardOf } from './board';
import type { Plan, PlanProblem } from './problem';
import { range } from './sequence';
import { tablesOf, type Tables } from './tables';
import { writeUp } from './write-up';

const NEVER_OVERBOOK = { hands: 1e9, tool: 1e9 };

/** One brew at a time for each pair of hands, in the order in which they were ordered. */
export const planOneAtATime = (problem: PlanProblem): Plan =>
  inTurn(problem, tablesOf(problem), (freeAt) => Math.min(...freeAt));

/** Each brew in turn as soon as all its steps fit among the others at their ideal lags. */
export function planGreedily(problem: PlanProblem): Plan {
  const t = tablesOf(problem);
  for (let i = 0; i < t.steps; i += 1) {
    const b = t.brewOf[i]!;
    if (i <= t.next[b]!) continue;
    const ideal = Math.min(Math.max(t.lagIdeal[i]!, t.lagMin[i]!), t.lagMax[i]!);
    t.lagMin[i] = ideal;
    t.lagMax[i] = ideal;
  }
  return inTurn(problem, t, () => 0);
}

function inTurn(problem: PlanProblem, t: Tables, from: (freeAt: number[]) => number): Plan {
  const board = boardOf(t);
  const placedAt = (b: number) => Math.max(...t.ordersOf[b]!.map((o) => t.orders[o]!.placedAt));
  const isBegun = (b: number) => Number(t.next[b]! > t.first[b]!);
  const brews = range(t.brews)
    .filter((b) => t.next[b]! < t.first[b + 1]!)
    .sort((a, b) => isBegun(b) - isBegun(a) || placedAt(a) - placedAt(b));
  const freeAt = Array<number>(t.hands).fill(0);
  for (const b of brews) {
    board.place(b, NEVER_OVERBOOK, isBegun(b) ? 0 : from(freeAt), t.horizon);
    board.put(b);
    const last = t.first[b + 1]! - 1;
    freeAt[freeAt.indexOf(Math.min(...freeAt))] = board.start[last]! + t.duration[last]!;
  }
  return writeUp(
    problem,
    Object.fromEntries(t.keys.map((key, i) => [key, board.start[i]! + problem.now])),
    0,
  );
}
