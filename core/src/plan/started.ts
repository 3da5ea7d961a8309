/** What has begun stands at its real time; and how long things last that are done together. */
import { stepKey, type Plan, type PlanProblem, type PlanStep } from './problem';

/** When a step that has started is, or was, over: its real end, its expected one, or now where that is past. */
export function endOfStarted(problem: PlanProblem, key: string, lasts: number): number {
  return problem.ended?.[key] ?? Math.max(problem.started[key]! + lasts, problem.now);
}

/** How long a batch of these steps lasts, seconds. */
export const batchS = (steps: readonly PlanStep[]): number =>
  (steps[0]?.batch?.setup ?? 0) + steps.reduce((sum, { batch }) => sum + (batch?.each ?? 0), 0);

/** How long each step lasts in a plan, by `brew/step`: its own duration, or its batch's. */
export function lengthsOf(
  problem: PlanProblem,
  { batches = [] }: Pick<Plan, 'batches'>,
): (key: string, step: Pick<PlanStep, 'duration'>) => number {
  const all = [...(problem.startedBatches ?? []), ...batches];
  if (all.length === 0) return (_, { duration }) => duration;
  const steps = new Map(
    problem.brews.flatMap((brew) => brew.steps.map((step) => [stepKey(brew.id, step.id), step] as const)),
  );
  const lengths = new Map<string, number>();
  for (const keys of all) {
    const lasts = batchS(keys.flatMap((key) => steps.get(key) ?? []));
    for (const key of keys) lengths.set(key, lasts);
  }
  return (key, { duration }) => lengths.get(key) ?? duration;
}

/** The first step of each step's batch; the step itself where it is done alone. */
export function leadsOf(
  { startedBatches = [] }: PlanProblem,
  batches: readonly string[][] = [],
): (key: string) => string {
  const leads = new Map(
    [...startedBatches, ...batches].flatMap((keys) => keys.map((key) => [key, keys[0]!])),
  );
  return (key) => leads.get(key) ?? key;
}
