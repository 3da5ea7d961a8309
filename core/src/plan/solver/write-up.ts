/** From starts to a plan in the open format: who does what, what could not be kept, and what each brew waits for. */
import { planCost } from './cost';
import { endOfStarted } from './started';
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
};

/**
 * @param starts of every step, by `brew/step`, on the problem's own clock
 * @param before whose step each was until now: what a pair has begun, or is about to, stays with it
 */
export function writeUp(
  problem: PlanProblem,
  starts: Record<string, number>,
  bound: number,
  before: Plan['hands'] = {},
): Plan {
  const spans = spansOf(problem, starts);
  const { cost, finish } = planCost(problem, { starts });
  return {
    format: PLAN_FORMAT,
    starts,
    hands: pairsOf(problem, spans, before),
    ...(problem.startedHands ? { startedHands: problem.startedHands } : {}),
    ...(problem.goesBefore ? { goesBefore: problem.goesBefore } : {}),
    finish,
    cost,
    bound,
    optimal: cost <= bound + 0.005,
    relaxed: relaxedOf(problem, spans),
    why: whyOf(problem, spans, finish),
  };
}

function spansOf(problem: PlanProblem, starts: Plan['starts']): Map<string, PlannedStep> {
  const spans = new Map<string, PlannedStep>();
  for (const brew of problem.brews)
    brew.steps.forEach((step, index) => {
      const key = stepKey(brew.id, step.id);
      const begun = key in (problem.started ?? {});
      const start = starts[key]!;
      const end = begun ? endOfStarted(problem, key, step.duration) : start + step.duration;
      spans.set(key, { key, brew, index, start, end, begun });
    });
  return spans;
}

/**
 * Which pair does each attended step: one that is free, rather the one that did the step before in the same brew, and not one that
 * will be away; it is the last pairs that go away. On two devices a step must not go from one card to the other: what a pair has
 * begun stays with it, and what its card counts down stays with it where it is free then.
 */
function pairsOf(
  problem: PlanProblem,
  spans: Map<string, PlannedStep>,
  before: Plan['hands'],
): Record<string, number> {
  const counted = problem.countedHands ?? {};
  const kept = Object.keys(counted).filter((key) => spans.has(key));
  // A counted step may stand in the way of all the others: then it gives way, one at a time.
  for (let keep = kept.length; keep > 0; keep -= 1) {
    const hands = colour(problem, spans, before, kept.slice(0, keep));
    if (hands) return hands;
  }
  return colour(problem, spans, before, [])!;
}

/** The pairs of `pairsOf`; null where with these steps kept at their pairs another finds none free. */
function colour(
  problem: PlanProblem,
  spans: Map<string, PlannedStep>,
  before: Plan['hands'],
  kept: readonly string[],
): Record<string, number> | null {
  const isAttended = ({ brew, index }: PlannedStep) => brew.steps[index]!.attended;
  const attended = [...spans.values()].filter(isAttended);
  const rank = ({ key, begun }: PlannedStep) => (begun ? 0 : kept.includes(key) ? 1 : 2);
  attended.sort((a, b) => rank(a) - rank(b) || a.start - b.start);
  // What is fixed to a pair comes first; the rest, in order of its starts, has only the last of its own kind before it.
  const fixed: PlannedStep[][] = Array.from({ length: problem.hands }, () => []);
  const freeFrom = Array<number>(problem.hands).fill(-Infinity);
  const isFree = (pair: number, { start, end }: PlannedStep) =>
    freeFrom[pair]! <= start && fixed[pair]!.every((other) => other.end <= start || end <= other.start);
  const hands: Record<string, number> = {};
  const pairOfBrew = new Map<string, number>();
  /** Pairs in the middle of a step. */
  const inHand = new Set<number>();
  for (const span of attended) {
    const { key, brew, start, end, begun } = span;
    // What is over takes nobody's time any more, whenever it was said to be.
    const isOver = key in (problem.ended ?? {});
    const given =
      problem.startedHands?.[key] ??
      (kept.includes(key) ? problem.countedHands?.[key] : undefined) ??
      (begun || key in problem.frozen ? before[key] : undefined);
    const mayStay = given !== undefined && given < problem.hands;
    const stays = mayStay && (begun ? isOver || !inHand.has(given) : kept.includes(key));
    if (stays && !begun && !isFree(given, span)) return null;
    let pair = stays ? given : 0;
    if (!stays) {
      const awayThen = Math.max(
        0,
        ...(problem.away ?? []).filter((gap) => gap.from < end && start < gap.to).map((gap) => gap.hands),
      );
      const worth = (each: number) =>
        (isFree(each, span) ? 8 : 0) +
        (each < problem.hands - awayThen ? 2 : 0) +
        (pairOfBrew.get(brew.id) === each ? 0.5 : 0) +
        // Who goes away passes on what they had.
        (given === each && each < problem.hands - awayThen ? 3 : 0);
      for (let each = 1; each < problem.hands; each += 1) if (worth(each) > worth(pair)) pair = each;
      if (kept.length > 0 && !begun && !isFree(pair, span)) return null;
    }
    hands[key] = pair;
    pairOfBrew.set(brew.id, pair);
    if (isOver) continue;
    if (begun) inHand.add(pair);
    if (begun || stays) fixed[pair]!.push(span);
    else freeFrom[pair] = Math.max(freeFrom[pair]!, end);
  }
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
  const attended = all.filter(({ brew, index }) => brew.steps[index]!.attended);
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
