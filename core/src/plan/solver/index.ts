/**
 * The planner's core: a problem in, a plan out. It knows no bar, no brew and no recipe, only steps, hands and tools.
 */
export { planGreedily, planOneAtATime } from './baselines';
export { checkPlan } from './check';
export { planCost } from './cost';
export { ImpossibleProblem, PLAN_FORMAT, PROBLEM_FORMAT, stepKey } from './problem';
export type { Plan, PlanBrew, PlanOrder, PlanProblem, PlanStep } from './problem';
export { seededRandom } from './random';
export { NoValidPlan, solve, startSolving } from './solve';
export type { SolveOptions, Solving } from './solve';
