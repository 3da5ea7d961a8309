/**
 * The first planner: one brew after another, each at the earliest start at which its attended steps find free hands
 * and its tools are there. Valid always, good enough for a handful of brews; a planner that looks further takes the
 * same problem and gives the same plan (`Planner`).
 */
import { planCost } from './cost';
import { openLedger, type Ledger } from './ledger';
import { firstOpening, follow, nearestOpening, openingsOf, type Placed } from './placement';
import {
  ImpossibleProblem,
  PLAN_FORMAT,
  stepKey,
  type Plan,
  type PlanBrew,
  type PlanProblem,
  type PlanStep,
  type Relaxed,
  type WaitsFor,
} from './problem';

/** Anything that answers a problem with a plan. */
export type Planner = (problem: PlanProblem) => Plan;

/** What stood in the way of a placement. */
type Blocked = { tool: string | null; from: number; to: number };

/**
 * Plans every brew of a problem.
 * @throws ImpossibleProblem where a brew that has not started needs a tool that the bar does not have
 */
export const planEarliest: Planner = (problem) => {
  refuseMissingTools(problem);
  const isStarted = (brew: PlanBrew) =>
    brew.steps.some((step) => stepKey(brew.id, step.id) in problem.started);
  const draft = finishRunning(problem, problem.brews.filter(isStarted));
  const why: Record<string, WaitsFor> = {};
  for (const brew of inTurn(
    problem,
    problem.brews.filter((each) => !isStarted(each)),
  )) {
    placeWaiting(problem, draft, brew, why);
  }
  const { starts, relaxed } = draft;
  const hands = assignHands(problem, starts);
  return {
    format: PLAN_FORMAT,
    starts,
    hands,
    ...planCost(problem, { starts }),
    bound: 0,
    optimal: false,
    relaxed,
    why,
  };
};

/**
 * How much longer than its own rest a running brew is looked ahead for, seconds: the others that run are over by then,
 * and nobody else is booked before the running ones are placed.
 */
const RUNNING_AHEAD_S = 2400;

/** A plan in the making. */
type Draft = { ledger: Ledger; seconds: number; starts: Record<string, number>; relaxed: Relaxed[] };

/** Up to this many running brews every order of choosing is tried, where the first bends a recipe. */
const TRY_ALL_ORDERS = 4;

/**
 * Places what is left of the running brews. The one whose next step is due first chooses first; where that makes a
 * pour late, other orders of choosing are tried and the one that bends the recipes least is taken.
 */
function finishRunning(problem: PlanProblem, brews: PlanBrew[]): Draft {
  const due = new Map(brews.map((brew) => [brew.id, nextDue(problem, brew)]));
  const soonestFirst = [...brews].sort((a, b) => due.get(a.id)! - due.get(b.id)!);
  const orders = brews.length <= TRY_ALL_ORDERS ? permutations(soonestFirst) : [soonestFirst];
  let best: { draft: Draft; lateS: number } | null = null;
  for (const order of orders) {
    const seconds = horizonS(problem);
    const draft: Draft = { ledger: openLedger(problem, seconds), seconds, starts: {}, relaxed: [] };
    const pasts = order.map((brew) => pin(problem, draft.ledger, brew));
    order.forEach((brew, index) => finishStarted(problem, draft, brew, pasts[index]!));
    const lateS = draft.relaxed.reduce((sum, { rule, by }) => sum + (rule === 'max-lag' ? by : 0), 0);
    if (best === null || lateS < best.lateS) best = { draft, lateS };
    if (best.lateS === 0) break;
  }
  return best!.draft;
}

/** Every order of a list, the list's own first. */
function* permutations<Item>(items: Item[]): Generator<Item[]> {
  if (items.length <= 1) return yield items;
  for (const [index, first] of items.entries()) {
    for (const rest of permutations(items.toSpliced(index, 1))) yield [first, ...rest];
  }
}

/** When a step that has started is, or was, over: its real end, its expected one, or now where that is past. */
export function endOfStarted(problem: PlanProblem, key: string, step: PlanStep): number {
  return problem.ended[key] ?? Math.max(problem.started[key]! + step.duration, problem.now);
}

/** Books what a started brew is doing now, and gives the steps that it has begun. */
function pin(problem: PlanProblem, ledger: Ledger, brew: PlanBrew): Placed[] {
  const past: Placed[] = [];
  for (const step of brew.steps) {
    const key = stepKey(brew.id, step.id);
    const start = problem.started[key];
    if (start === undefined) break;
    const end = endOfStarted(problem, key, step);
    if (step.attended) ledger.takeHands(start, end, key);
    past.push({ start, end });
  }
  return past;
}

function nextDue(problem: PlanProblem, brew: PlanBrew): number {
  const next = brew.steps.findIndex((step) => !(stepKey(brew.id, step.id) in problem.started));
  const before = brew.steps[next - 1];
  return before
    ? endOfStarted(problem, stepKey(brew.id, before.id), before) + brew.steps[next]!.lag.ideal
    : Infinity;
}

/**
 * Places the rest of a started brew. Its next step may, at a price, come later than it should; nothing after that
 * may. Tools that it holds already stay held, whatever the bar has.
 */
function finishStarted(problem: PlanProblem, draft: Draft, brew: PlanBrew, past: Placed[]): void {
  const next = brew.steps[past.length];
  const previousEnd = past.at(-1)!.end;
  let steps: Placed[] = [];
  if (next) {
    const ahead = problem.away?.length
      ? draft.seconds
      : Math.min(draft.seconds, RUNNING_AHEAD_S + restS(brew, past.length));
    const openings = openingsOf(draft.ledger, brew, past.length, problem.now, ahead);
    const key = stepKey(brew.id, next.id);
    const soonest = Math.max(problem.now, previousEnd + next.lag.min);
    const latest =
      next.lag.max === null ? problem.now + ahead : Math.max(soonest, previousEnd + next.lag.max);
    const wished = problem.frozen[key] ?? previousEnd + next.lag.ideal;
    let start =
      nearestOpening(openings, past.length, wished, soonest, latest) ?? firstOpening(openings, latest + 1);
    for (; start !== null; start = firstOpening(openings, start + 1)) {
      steps = follow(openings, brew, start);
      if (toolInTheWay(problem, draft, brew, [...past, ...steps]) === null) break;
    }
    if (start === null) throw new Error(`${brew.id}: no opening in sight; the horizon is too short.`);
    const excess = next.lag.max === null ? 0 : start - previousEnd - next.lag.max;
    if (excess > 0) draft.relaxed.push({ step: key, rule: 'max-lag', by: excess });
  }
  book(problem, draft, brew, [...past, ...steps], past.length);
}

/** Places a brew that waits at its earliest opening, or where it was frozen if that is still one. */
function placeWaiting(
  problem: PlanProblem,
  draft: Draft,
  brew: PlanBrew,
  why: Record<string, WaitsFor>,
): void {
  const first = brew.steps[0]!;
  const release = releaseOf(problem, brew) + first.lag.min;
  const openings = openingsOf(draft.ledger, brew, 0, problem.now, draft.seconds);
  const frozen = problem.frozen[stepKey(brew.id, first.id)];
  if (frozen !== undefined && frozen >= release && firstOpening(openings, frozen) === frozen) {
    const kept = follow(openings, brew, frozen);
    if (toolInTheWay(problem, draft, brew, kept) === null) return book(problem, draft, brew, kept, 0);
  }
  let blocked: Blocked = { tool: null, from: release, to: release + first.duration };
  for (
    let start = firstOpening(openings, release);
    start !== null;
    start = firstOpening(openings, start + 1)
  ) {
    const steps = follow(openings, brew, start);
    const inTheWay = toolInTheWay(problem, draft, brew, steps);
    if (inTheWay === null) {
      if (start > release) why[brew.id] = waitsFor(draft.ledger, blocked);
      return book(problem, draft, brew, steps, 0);
    }
    blocked = inTheWay;
  }
  throw new Error(`${brew.id}: no opening in sight; the horizon is too short.`);
}

/** The first tool that these steps would need while it is taken. */
function toolInTheWay(
  problem: PlanProblem,
  { ledger }: Draft,
  brew: PlanBrew,
  steps: Placed[],
): Blocked | null {
  for (const hold of brew.holds) {
    if (stepKey(brew.id, hold.from) in problem.started) continue;
    const from = steps[brew.steps.findIndex((step) => step.id === hold.from)]!.start;
    const to = steps[brew.steps.findIndex((step) => step.id === hold.to)]!.end;
    if (!ledger.toolFree(hold.tool, from, to)) return { tool: hold.tool, from, to };
  }
  return null;
}

function book(problem: PlanProblem, draft: Draft, brew: PlanBrew, steps: Placed[], from: number): void {
  const { ledger, starts, relaxed } = draft;
  brew.steps.forEach((step, index) => {
    const key = stepKey(brew.id, step.id);
    const { start, end } = steps[index]!;
    starts[key] = start;
    if (index < from) return;
    if (step.attended) ledger.takeHands(start, end, key);
    const frozen = problem.frozen[key];
    if (frozen !== undefined && frozen !== start)
      relaxed.push({ step: key, rule: 'frozen', by: start - frozen });
  });
  for (const hold of brew.holds) {
    const start = starts[stepKey(brew.id, hold.from)]!;
    const last = brew.steps.findIndex((step) => step.id === hold.to);
    ledger.takeTool(hold.tool, start, steps[last]!.end, stepKey(brew.id, hold.to));
  }
}

/** First come first; within an order the longest brew first, so that its cups come out closer together. */
function inTurn(problem: PlanProblem, brews: PlanBrew[]): PlanBrew[] {
  const lengthS = (brew: PlanBrew) =>
    brew.steps.reduce((sum, step) => sum + step.duration + step.lag.ideal, 0);
  const frozenAt = (brew: PlanBrew) => problem.frozen[stepKey(brew.id, brew.steps[0]!.id)] ?? Infinity;
  const placedAt = (brew: PlanBrew) => releaseOf({ ...problem, now: -Infinity }, brew);
  return [...brews].sort(
    (a, b) =>
      compare(frozenAt(a), frozenAt(b)) || compare(placedAt(a), placedAt(b)) || lengthS(b) - lengthS(a),
  );
}

const compare = (a: number, b: number): number => (a === b ? 0 : a < b ? -1 : 1);

const releaseOf = (problem: PlanProblem, brew: PlanBrew): number =>
  Math.max(
    problem.now,
    ...brew.orders.map((id) => problem.orders.find((order) => order.id === id)?.placedAt ?? problem.now),
  );

function waitsFor(ledger: Ledger, blocked: Blocked): WaitsFor {
  const freer = ledger.whoFrees(blocked.tool, blocked.from, blocked.to);
  const until = freer?.end ?? blocked.to;
  return {
    for: blocked.tool === null ? 'hands' : 'tool',
    ...(blocked.tool === null ? {} : { tool: blocked.tool }),
    until,
    step: freer?.who ?? null,
  };
}

/** Which pair does each attended step: the first that is free, those of started steps first. */
function assignHands(problem: PlanProblem, starts: Record<string, number>): Record<string, number> {
  const spans = problem.brews.flatMap((brew) =>
    brew.steps
      .filter((step) => step.attended)
      .map((step) => {
        const key = stepKey(brew.id, step.id);
        const start = starts[key]!;
        const begun = key in problem.started;
        return { key, start, end: begun ? endOfStarted(problem, key, step) : start + step.duration, begun };
      }),
  );
  spans.sort((a, b) => a.start - b.start || Number(b.begun) - Number(a.begun));
  const freeFrom = Array<number>(problem.hands).fill(-Infinity);
  const hands: Record<string, number> = {};
  for (const span of spans) {
    const free = freeFrom.findIndex((from) => from <= span.start);
    const pair = Math.max(0, free);
    hands[span.key] = pair;
    freeFrom[pair] = Math.max(freeFrom[pair]!, span.end);
  }
  return hands;
}

function refuseMissingTools(problem: PlanProblem): void {
  for (const brew of problem.brews) {
    for (const hold of brew.holds) {
      if ((problem.tools[hold.tool] ?? 0) < 1 && !(stepKey(brew.id, hold.from) in problem.started)) {
        throw new ImpossibleProblem(`Brew ${brew.id} needs a ${hold.tool}, and the bar has none.`);
      }
    }
  }
  if (!(problem.hands >= 1))
    throw new ImpossibleProblem('Nobody is on the bar: a plan needs one pair of hands at least.');
}

const restS = (brew: PlanBrew, from: number): number =>
  brew.steps.slice(from).reduce((sum, step) => sum + step.duration + step.lag.ideal, 0);

/** Long enough to brew everything one after another, after the last pair is back, with an hour to spare. */
function horizonS(problem: PlanProblem): number {
  const backAt = Math.max(
    problem.now,
    ...(problem.away ?? []).map((gap) => gap.to),
    ...problem.orders.map((order) => order.placedAt),
  );
  const allS = problem.brews.reduce(
    (sum, brew) => sum + brew.steps.reduce((inBrew, step) => inBrew + step.duration + step.lag.ideal, 0),
    0,
  );
  return Math.ceil(backAt - problem.now + allS + 3600);
}
