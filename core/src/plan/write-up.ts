/** From starts to a plan in the open format: who does what, what could not be kept, and what each brew waits for. */
import { planCost } from './cost';
import { endOfStarted, leadsOf, lengthsOf } from './started';
import {
  PLAN_FORMAT,
  stepKey,
  type Plan,
  type PlanBrew,
  type PlanProblem,
  type Relaxed,
  type WaitsFor,
} from './problem';

type PlannedStep = {
  key: string;
  brew: PlanBrew;
  index: number;
  start: number;
  end: number;
  begun: boolean;
  /** The first step of its batch: itself where it is done alone. One pair of hands does a batch. */
  lead: string;
};

/**
 * @param starts of every step, by `brew/step`, on the problem's own clock
 * @param batches steps that are done together, by their keys
 * @param before whose step each was until now: what a pair has begun, or is about to, stays with it
 */
export function writeUp(
  problem: PlanProblem,
  starts: Record<string, number>,
  bound: number,
  before: Plan['hands'] = {},
  batches: string[][] = [],
): Plan {
  const spans = spansOf(problem, { starts, batches });
  const { cost, finish } = planCost(problem, { starts, batches });
  return {
    format: PLAN_FORMAT,
    starts,
    hands: pairsOf(problem, spans, before),
    finish,
    cost,
    bound,
    optimal: cost <= bound + 0.005,
    relaxed: relaxedOf(problem, spans),
    why: whyOf(problem, spans, finish),
    ...(batches.length > 0 ? { batches } : {}),
  };
}

function spansOf(
  problem: PlanProblem,
  { starts, batches }: Required<Pick<Plan, 'starts' | 'batches'>>,
): Map<string, PlannedStep> {
  const lengthOf = lengthsOf(problem, { batches });
  const leadOf = leadsOf(problem, batches);
  const spans = new Map<string, PlannedStep>();
  for (const brew of problem.brews)
    brew.steps.forEach((step, index) => {
      const key = stepKey(brew.id, step.id);
      const begun = key in (problem.started ?? {});
      const start = starts[key]!;
      const lasts = lengthOf(key, step);
      const end = begun ? endOfStarted(problem, key, lasts) : start + lasts;
      spans.set(key, { key, brew, index, start, end, begun, lead: leadOf(key) });
    });
  return spans;
}

/**
 * Which pair does each attended step: any that is free will do, so the one that did the step before in the same brew,
 * and not one that will be away. It is the last pairs that go away. What has begun, and what
 * comes next, stays with its pair if that is free: on two devices a step must not go from one card to the other.
 */
function pairsOf(
  problem: PlanProblem,
  spans: Map<string, PlannedStep>,
  before: Plan['hands'],
): Record<string, number> {
  const isAttended = ({ brew, index }: PlannedStep) => brew.steps[index]!.attended;
  const attended = [...spans.values()].filter((span) => isAttended(span) && span.lead === span.key);
  attended.sort((a, b) => Number(b.begun) - Number(a.begun) || a.start - b.start);
  const freeFrom = Array<number>(problem.hands).fill(-Infinity);
  const hands: Record<string, number> = {};
  const pairOfBrew = new Map<string, number>();
  /** Pairs in the middle of a step. */
  const inHand = new Set<number>();
  const give = (key: string, brewId: string, pair: number) => {
    hands[key] = pair;
    pairOfBrew.set(brewId, pair);
  };
  for (const { key, brew, start, end, begun } of attended) {
    const given = begun || key in (problem.frozen ?? {}) ? before[key] : undefined;
    // What is over takes nobody's time any more, whenever it was said to be; what is being done stays where it is.
    const isOver = key in (problem.ended ?? {});
    if (begun && given !== undefined && given < problem.hands && (isOver || !inHand.has(given))) {
      give(key, brew.id, given);
      if (isOver) continue;
      inHand.add(given);
      freeFrom[given] = Math.max(freeFrom[given]!, end);
      continue;
    }
    const awayThen = Math.max(
      0,
      ...(problem.away ?? []).filter((gap) => gap.from < end && start < gap.to).map((gap) => gap.hands),
    );
    const worth = (pair: number) =>
      (freeFrom[pair]! <= start ? 8 : 0) +
      (pair < problem.hands - awayThen ? 2 : 0) +
      (pairOfBrew.get(brew.id) === pair ? 0.5 : 0) +
      (given === pair ? 3 : 0);
    let best = 0;
    for (let pair = 1; pair < problem.hands; pair += 1) if (worth(pair) > worth(best)) best = pair;
    give(key, brew.id, best);
    if (begun && !isOver) inHand.add(best);
    freeFrom[best] = Math.max(freeFrom[best]!, end);
  }
  for (const span of spans.values()) if (isAttended(span)) hands[span.key] = hands[span.lead]!;
  return hands;
}

function relaxedOf(problem: PlanProblem, spans: Map<string, PlannedStep>): Relaxed[] {
  const relaxed: Relaxed[] = [];
  for (const { key, brew, index, start, begun } of spans.values()) {
    if (begun) continue;
    const before = index > 0 ? spans.get(stepKey(brew.id, brew.steps[index - 1]!.id))! : null;
    const { max } = brew.steps[index]!.lag;
    if (before?.begun && max !== null && start - before.end > max)
      relaxed.push({ step: key, rule: 'max-lag', by: start - before.end - max });
    const frozen = problem.frozen?.[key];
    if (frozen !== undefined && frozen >= problem.now && frozen !== start)
      relaxed.push({ step: key, rule: 'frozen', by: start - frozen });
  }
  return relaxed;
}

/** For every brew that does not start at once: the first thing in its course that has it wait, and what frees it. */
function whyOf(
  problem: PlanProblem,
  spans: Map<string, PlannedStep>,
  finish: Record<string, number>,
): Record<string, WaitsFor> {
  const why: Record<string, WaitsFor> = {};
  const all = [...spans.values()];
  const attended = all.filter(({ key, lead, brew, index }) => lead === key && brew.steps[index]!.attended);
  const held = problem.brews.flatMap((brew) =>
    brew.holds.map((hold) => ({
      tool: hold.tool,
      brewId: brew.id,
      start: spans.get(stepKey(brew.id, hold.from))!.start,
      last: spans.get(stepKey(brew.id, hold.to))!,
    })),
  );
  const away = problem.away ?? [];
  /** What a step had to wait for until the moment that it starts; null where it could have been sooner. */
  const waitOf = ({ brew, index, start }: PlannedStep): WaitsFor | null => {
    const second = start - 1;
    for (const hold of brew.holds) {
      if (hold.from !== brew.steps[index]!.id) continue;
      const taken = held.filter(
        (other) =>
          other.tool === hold.tool &&
          other.brewId !== brew.id &&
          other.start <= second &&
          second < other.last.end,
      );
      const frees = taken.find(({ last }) => last.end === start);
      if (taken.length >= (problem.tools[hold.tool] ?? 0) && frees)
        return { for: 'tool', tool: hold.tool, until: start, step: frees.last.key };
    }
    if (!brew.steps[index]!.attended) return null;
    const busy = attended.filter((other) => other.start <= second && second < other.end);
    const gone = away.reduce((sum, gap) => sum + (gap.from <= second && second < gap.to ? gap.hands : 0), 0);
    if (busy.length + gone < problem.hands) return null;
    const frees = busy.find(({ brew: other, end }) => end === start && other !== brew);
    return frees || gone > 0 ? { for: 'hands', until: start, step: frees?.key ?? null } : null;
  };
  for (const brew of problem.brews) {
    const own = brew.steps.map((step) => spans.get(stepKey(brew.id, step.id))!);
    if (own[0]!.begun) continue;
    const release = Math.max(
      problem.now,
      ...problem.orders.filter(({ id }) => brew.orders.includes(id)).map(({ placedAt }) => placedAt),
    );
    if (own[0]!.start <= release + brew.steps[0]!.lag.min) continue;
    const reason = own.map(waitOf).find((each) => each !== null);
    why[brew.id] = reason ?? partnerOf(problem, brew, spans, finish, own[0]!.start);
  }
  return why;
}

/** Nothing holds it up: it keeps step with the last cup of its order. */
function partnerOf(
  problem: PlanProblem,
  brew: PlanBrew,
  spans: Map<string, PlannedStep>,
  finish: Record<string, number>,
  until: number,
): WaitsFor {
  for (const order of problem.orders.filter(({ id }) => brew.orders.includes(id)))
    for (const id of order.brews) {
      const partner = problem.brews.find((each) => each.id === id)!;
      const serve = spans.get(stepKey(id, partner.steps.find((step) => step.serve)!.id))!;
      if (partner !== brew && serve.end === finish[order.id])
        return { for: 'partner', until, step: serve.key };
    }
  return { for: 'hands', until, step: null };
}
