/**
 * What a plan costs: waiting, lateness, cups of one order that come apart, and lags away from their ideal. The
 * formula is the open format's own.
 */
import { endOfStarted } from './started';
import { APART_PER_S, LATE_PER_S, RELAXED_PER_S } from './price';
import { stepKey, type Plan, type PlanProblem } from './problem';

/**
 * Sum over orders of weight x ((finish - placedAt) + 4 x lateness + 3 x seconds apart beyond serveWithin), plus
 * penalty x |lag - ideal| over all steps but first and started ones, plus 20 a second by which a step after a
 * started one exceeds its max lag.
 */
export function planCost(
  problem: PlanProblem,
  plan: Pick<Plan, 'starts'>,
): { cost: number; finish: Record<string, number> } {
  const finishOfBrew = new Map<string, number>();
  let cost = 0;
  for (const brew of problem.brews) {
    let previous: { end: number; begun: boolean } | null = null;
    for (const step of brew.steps) {
      const key = stepKey(brew.id, step.id);
      const begun = key in problem.started;
      const start = plan.starts[key]!;
      const end = begun ? endOfStarted(problem, key, step.duration) : start + step.duration;
      if (previous && !begun) {
        const lag = start - previous.end;
        cost += step.lag.penalty * Math.abs(lag - step.lag.ideal);
        if (previous.begun && step.lag.max !== null) cost += RELAXED_PER_S * Math.max(0, lag - step.lag.max);
      }
      if (step.serve) finishOfBrew.set(brew.id, end + (brew.coolS ?? 0));
      previous = { end, begun };
    }
  }
  const finish: Record<string, number> = {};
  for (const order of problem.orders) {
    const ends = order.brews.map((id) => finishOfBrew.get(id)!);
    const last = Math.max(...ends);
    finish[order.id] = last;
    const late = Math.max(0, last - order.dueAt);
    const apart = Math.max(0, last - Math.min(...ends) - order.serveWithin);
    cost += order.weight * (last - order.placedAt + LATE_PER_S * late + APART_PER_S * apart);
  }
  return { cost: Math.round(cost * 100) / 100, finish };
}
