/**
 * Checks every rule of a plan from the problem alone, so that nobody has to trust a planner.
 */
import { planCost } from './cost';
import { endOfStarted, leadsOf, lengthsOf } from './started';
import { stepKey, type Plan, type PlanProblem, type PlanStep } from './problem';

type CheckedStep = { from: number; to: number; begun: boolean; who: string };

/** Every rule that a plan breaks, in words; empty if it breaks none. */
export function checkPlan(problem: PlanProblem, plan: Plan): string[] {
  const broken = brokenBatches(problem, plan);
  const lengthOf = lengthsOf(problem, plan);
  const leadOf = leadsOf(problem, plan.batches);
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
        to: begun ? endOfStarted(problem, key, lengthOf(key, step)) : from + lengthOf(key, step),
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
        if (plan.hands[leadOf(key)] !== pair)
          broken.push(`${key}: done together with ${leadOf(key)} by other hands`);
        if (leadOf(key) === key) handSpans.set(pair, [...(handSpans.get(pair) ?? []), span]);
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

/** What is done together is alike, of several brews, no more than may be, begun at once, and not begun before. */
function brokenBatches(problem: PlanProblem, { batches = [], starts }: Plan): string[] {
  const broken: string[] = [];
  const brewOf = new Map<string, string>();
  const steps = new Map<string, PlanStep>();
  for (const brew of problem.brews)
    for (const step of brew.steps) {
      brewOf.set(stepKey(brew.id, step.id), brew.id);
      steps.set(stepKey(brew.id, step.id), step);
    }
  const standing = new Set((problem.startedBatches ?? []).map((keys) => keys.join()));
  const seen = new Set<string>();
  for (const keys of batches) {
    const who = keys.join(' with ');
    const rules = keys.map((key) => steps.get(key)?.batch);
    const least = Math.min(...rules.map((rule) => rule?.max ?? 1));
    if (new Set(rules.map((rule) => rule?.key)).size > 1 || !rules[0]) broken.push(`${who}: not alike`);
    if (keys.length < 2 || keys.length > least)
      broken.push(`${who}: ${keys.length} together, at most ${least}`);
    if (new Set(keys.map((key) => brewOf.get(key))).size < keys.length) broken.push(`${who}: of one brew`);
    if (new Set(keys.map((key) => starts[key])).size > 1) broken.push(`${who}: not begun at once`);
    if (!standing.has(keys.join()) && keys.some((key) => key in problem.started))
      broken.push(`${who}: begun before`);
    for (const key of keys) {
      if (seen.has(key)) broken.push(`${key}: together with two lots`);
      seen.add(key);
    }
  }
  return broken;
}
