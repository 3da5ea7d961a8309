/** What has begun stands at its real time. */
import type { PlanProblem } from './problem';

/** When a step that has started is, or was, over: its real end, its expected one, or now where that is past. */
export function endOfStarted(problem: PlanProblem, key: string, lasts: number): number {
  return problem.ended?.[key] ?? Math.max(problem.started[key]! + lasts, problem.now);
}
