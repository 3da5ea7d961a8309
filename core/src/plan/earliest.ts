/**
 * The first planner: one brew after another, each at the earliest start at which its attended steps find free hands
 * and its tools are there. Valid always, good enough for a handful of brews; a planner that looks further takes the
 * same problem and gives the same plan (`Planner`).
 */
import { planCost } from './cost';
import { openLedger, type Ledger } from './ledger';
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

/** How far past an unlimited lag's ideal a step is looked for inside one placement, seconds. */
const LOOK_AHEAD_S = 1800;

type Placed = { start: number; end: number };
/** What stood in the way of a placement. */
type Blocked = { tool: string | null; from: number; to: number };
type Placement = { ok: true; steps: Placed[] } | { ok: false; blocked: Blocked };

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

/** A plan in the making. */
type Draft = { ledger: Ledger; starts: Record<string, number>; relaxed: Relaxed[] };

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
    const draft: Draft = { ledger: openLedger(problem, horizonS(problem)), starts: {}, relaxed: [] };
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
  const { ledger, relaxed } = draft;
  const next = brew.steps[past.length];
  const previousEnd = past.at(-1)!.end;
  const held = (hold: { from: string }) => stepKey(brew.id, hold.from) in problem.started;
  let steps: Placed[] = [];
  if (next) {
    const key = stepKey(brew.id, next.id);
    for (const start of candidates(problem, next, previousEnd, problem.frozen[key])) {
      const placement = place(ledger, brew, past, start, held);
      if (!placement.ok) continue;
      steps = placement.steps;
      const excess = next.lag.max === null ? 0 : start - previousEnd - next.lag.max;
      if (excess > 0) relaxed.push({ step: key, rule: 'max-lag', by: excess });
      break;
    }
  }
  book(problem, draft, brew, [...past, ...steps], past.length);
}

function placeWaiting(
  problem: PlanProblem,
  draft: Draft,
  brew: PlanBrew,
  why: Record<string, WaitsFor>,
): void {
  const { ledger } = draft;
  const first = brew.steps[0]!;
  const release = releaseOf(problem, brew) + first.lag.min;
  const frozen = problem.frozen[stepKey(brew.id, first.id)];
  if (frozen !== undefined && frozen >= release) {
    const kept = place(ledger, brew, [], frozen, () => false);
    if (kept.ok) return book(problem, draft, brew, kept.steps, 0);
  }
  let blocked: Blocked | null = null;
  for (let start = release; ; start += 1) {
    const placement = place(ledger, brew, [], start, () => false);
    if (placement.ok) {
      if (blocked) why[brew.id] = waitsFor(ledger, blocked);
      return book(problem, draft, brew, placement.steps, 0);
    }
    blocked = placement.blocked;
  }
}

/** Starts to try for the step that follows a started one: as frozen, then nearest to the ideal, then later than allowed. */
function* candidates(
  problem: PlanProblem,
  step: PlanStep,
  previousEnd: number,
  frozen: number | undefined,
): Generator<number> {
  const soonest = Math.max(problem.now, previousEnd + step.lag.min);
  const latest = Math.max(soonest, previousEnd + (step.lag.max ?? step.lag.ideal + LOOK_AHEAD_S));
  if (frozen !== undefined && frozen >= soonest && frozen <= latest) yield frozen;
  yield* nearestFirst(previousEnd + step.lag.ideal, soonest, latest);
  for (let start = latest + 1; ; start += 1) yield start;
}

/** Whole seconds of a window, nearest to the ideal first; of two as near, the later. */
function* nearestFirst(ideal: number, soonest: number, latest: number): Generator<number> {
  const middle = Math.min(Math.max(ideal, soonest), latest);
  yield middle;
  for (let away = 1; middle + away <= latest || middle - away >= soonest; away += 1) {
    if (middle + away <= latest) yield middle + away;
    if (middle - away >= soonest) yield middle - away;
  }
}

/** Places the steps from `past.length` on, the first of them at `start`, each other as near to its ideal lag as hands allow. */
function place(
  ledger: Ledger,
  brew: PlanBrew,
  past: Placed[],
  start: number,
  held: (hold: { from: string }) => boolean,
): Placement {
  const steps: Placed[] = [];
  for (let index = past.length; index < brew.steps.length; index += 1) {
    const step = brew.steps[index]!;
    const previousEnd = steps.at(-1)?.end;
    const chosen =
      previousEnd === undefined ? freeAt(ledger, step, start) : nearestFree(ledger, step, previousEnd);
    if (chosen === null) {
      const from = previousEnd === undefined ? start : previousEnd + step.lag.ideal;
      return { ok: false, blocked: { tool: null, from, to: from + step.duration } };
    }
    steps.push({ start: chosen, end: chosen + step.duration });
  }
  const all = [...past, ...steps];
  for (const hold of brew.holds) {
    if (held(hold)) continue;
    const from = all[brew.steps.findIndex((step) => step.id === hold.from)]!.start;
    const to = all[brew.steps.findIndex((step) => step.id === hold.to)]!.end;
    if (!ledger.toolFree(hold.tool, from, to)) return { ok: false, blocked: { tool: hold.tool, from, to } };
  }
  return { ok: true, steps };
}

const freeAt = (ledger: Ledger, step: PlanStep, start: number): number | null =>
  !step.attended || ledger.handsFree(start, start + step.duration) ? start : null;

function nearestFree(ledger: Ledger, step: PlanStep, previousEnd: number): number | null {
  const { min, ideal, max } = step.lag;
  for (const start of nearestFirst(
    previousEnd + ideal,
    previousEnd + min,
    previousEnd + (max ?? ideal + LOOK_AHEAD_S),
  )) {
    if (freeAt(ledger, step, start) !== null) return start;
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

/** Long enough to brew everything one after another, after the last pair is back. */
function horizonS(problem: PlanProblem): number {
  const backAt = Math.max(
    problem.now,
    ...(problem.away ?? []).map((gap) => gap.to),
    ...problem.orders.map((order) => order.placedAt),
  );
  const allS = problem.brews.reduce(
    (sum, brew) =>
      sum + brew.steps.reduce((inBrew, step) => inBrew + step.duration + (step.lag.max ?? step.lag.ideal), 0),
    0,
  );
  return Math.ceil(backAt - problem.now + allS + LOOK_AHEAD_S);
}
