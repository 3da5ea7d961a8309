/** What has begun stands at its real time. */
import type { PlanProblem, PlanStep } from './problem';

/** When a step that has started is, or was, over: its real end, its expected one, or now where that is past. */
export function endOfStarted(problem: PlanProblem, key: string, step: Pick<PlanStep, 'duration'>): number {
  return problem.ended?.[key] ?? Math.max(problem.started[key]! + step.duration, problem.now);
}
