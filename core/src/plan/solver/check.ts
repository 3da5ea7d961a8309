/**
 * Checks every rule of a plan from the problem alone, so that nobody has to trust a planner.
 */
import { planCost } from './cost';
import { endOfStarted } from './started';
import { stepKey, type Plan, type PlanProblem } from './problem';

type CheckedStep = { from: number; to: number; begun: boolean; who: string };

/** Every rule that a plan breaks, in words; empty if it breaks none. */
export function checkPlan(problem: PlanProblem, plan: Plan): string[] {
  const broken: string[] = [];
  const handSpans = new Map<number, CheckedStep[]>();
  const toolSpans = new Map<string, CheckedStep[]>();
  for (const brew of problem.brews) {
    const spans = new Map<string, CheckedStep>();
    let previous: CheckedStep | null = null;
    for (const step of brew.steps) {
      const key = stepKey(brew.id, step.id);
      const begun = key in problem.started;
      const from = plan.starts[key];
      if (from === undefined || !Number.isInteger(from)) {
        broken.push(`${key}: no start in whole seconds`);
        continue;
      }
      const span: CheckedStep = {
        from,
        to: begun ? endOfStarted(problem, key, step.duration) : from + step.duration,
        begun,
        who: key,
      };
      if (begun && problem.started[key] !== from)
        broken.push(`${key}: began at ${problem.started[key]}, planned at ${from}`);
      if (!begun) {
        const placedAt = Math.max(
          problem.now,
          ...problem.orders.filter(({ id }) => brew.orders.includes(id)).map((order) => order.placedAt),
        );
        const lag = from - (previous?.to ?? placedAt);
        if (from < problem.now) broken.push(`${key}: planned before now`);
        if (lag < step.lag.min) broken.push(`${key}: waits ${lag}, at least ${step.lag.min}`);
        if (previous && !previous.begun && step.lag.max !== null && lag > step.lag.max)
          broken.push(`${key}: waits ${lag}, at most ${step.lag.max}`);
      }
      spans.set(step.id, span);
      if (step.attended) {
        const pair = plan.hands[key] ?? -1;
        if (pair < 0 || pair >= problem.hands) broken.push(`${key}: no pair of hands ${pair}`);
        handSpans.set(pair, [...(handSpans.get(pair) ?? []), span]);
      }
      previous = span;
    }
    for (const hold of brew.holds) {
      const from = spans.get(hold.from);
      const to = spans.get(hold.to);
      if (from && to) toolSpans.set(hold.tool, [...(toolSpans.get(hold.tool) ?? []), { ...from, to: to.to }]);
    }
  }
  const now = problem.now;
  const handsAt = (at: number) =>
    problem.hands -
    (problem.away ?? []).reduce((sum, gap) => sum + (gap.from <= at && at < gap.to ? gap.hands : 0), 0);
  for (const [pair, spans] of handSpans) broken.push(...overbooked(spans, () => 1, now, `hands ${pair}`));
  // A pair may leave in the middle of a step as well as before one begins.
  const leaves = (problem.away ?? []).map(({ from }) => from);
  broken.push(...overbooked([...handSpans.values()].flat(), handsAt, now, 'hands', leaves));
  for (const [tool, spans] of toolSpans)
    broken.push(...overbooked(spans, () => problem.tools[tool] ?? 0, now, tool));
  const { cost, finish } = planCost(problem, plan);
  if (Math.abs(cost - plan.cost) > 0.01) broken.push(`cost is ${cost}, stated ${plan.cost}`);
  for (const [id, at] of Object.entries(finish))
    if (plan.finish[id] !== at) broken.push(`${id}: finishes at ${at}, stated ${plan.finish[id]}`);
  return broken;
}

/** Started steps stay even if they overlap; only what is placed on top of them counts. */
function overbooked(
  spans: CheckedStep[],
  limitAt: (at: number) => number,
  now: number,
  what: string,
  turns: number[] = [],
): string[] {
  for (const at of new Set(
    [...spans.map((span) => span.from), ...turns].map((each) => Math.max(each, now)),
  )) {
    const busy = spans.filter((span) => span.from <= at && at < span.to);
    if (busy.length > limitAt(at) && busy.some((span) => !span.begun)) {
      return [
        `${what}: ${busy.length} of ${limitAt(at)} at ${at} (${busy.map((span) => span.who).join(', ')})`,
      ];
    }
  }
  return [];
}
