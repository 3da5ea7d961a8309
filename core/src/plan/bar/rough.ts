/**
 * When orders come out that wait behind those that are planned: reckoned from how quickly the plan gets through its own.
 */
import type { BarProblem } from './build';
import type { Plan } from '../solver';

/** A brew takes the bar so long where the plan has none to go by, seconds. */
const BREW_S = 150;

/**
 * Seconds at which each order that waits behind the plan is about out: after the last that is planned, at the plan's own
 * pace. No more than a reckoning; it comes true as the orders come into the plan.
 */
export function roughFinish({ problem, later }: BarProblem, plan: Plan | null): Record<string, number> {
  const open = problem.brews.filter(({ steps }) => steps.some(({ serve }) => serve)).length;
  const lastS = Math.max(problem.now, ...Object.values(plan?.finish ?? {}));
  const perBrewS = open > 0 && lastS > problem.now ? (lastS - problem.now) / open : BREW_S;
  let brews = 0;
  return Object.fromEntries(
    later.map((order) => [order.orderId, Math.ceil(lastS + perBrewS * (brews += order.brews))]),
  );
}
