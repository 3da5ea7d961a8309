/**
 * A simulated shift: orders come at their times, and one barista, or two, do what the agenda says, with hands that are
 * seldom exact. The same rules, planner and agenda as the bar's own; only the person is made up.
 */
import { EMPTY_BAR, apply, type BarEvent, type BarState, type OrderTaken, type Pair } from '../brew';
import {
  agenda,
  buildProblem,
  forHands,
  solve,
  tapEvents,
  type AgendaItem,
  type Bench,
  type NewId,
  type Plan,
  type PlanProblem,
} from '../plan';
import type { RecipeBook } from '../recipe';
import { livePairs } from './pairs';

export type ShiftPlan = {
  bench: Bench;
  book: RecipeBook;
  /** In order of time. */
  orders: OrderTaken[];
  fromMs: number;
  untilMs: number;
  newId: NewId;
  /** From 0 up to 1, for the hand's noise: a seeded source. */
  random: () => number;
  /** How the shift is planned; with few moves where nothing is said. */
  planner?: (problem: PlanProblem, before: Plan | undefined) => Plan;
  /** It is planned with each order only: enough where no two brews meet. */
  plannedOnce?: true;
  /** Whose hands; where a second name is given, a second pair works beside the first. */
  by?: string;
  bySecond?: string;
  /** How much later than the card expects a cue comes, seconds: what the bed, the flame and the coffee do. */
  cueOffS?: (item: AgendaItem) => number;
};

export type SimulatedShift = { events: BarEvent[]; state: BarState; plan: Plan | null };

const planQuickly = (problem: PlanProblem, before: Plan | undefined): Plan =>
  solve(problem, { moves: 8, before });

/** Lives through a shift and gives what would be in its log. @throws Error where the bar's own rules refuse an event of the shift. */
export function liveShift(setUp: ShiftPlan): SimulatedShift {
  const { bench, book, untilMs, newId, random, by, planner = planQuickly, cueOffS = () => 0 } = setUp;
  const events: BarEvent[] = [];
  const coming = [...setUp.orders];
  let state = EMPTY_BAR;
  let plan: Plan | null = null;
  let nowMs = setUp.fromMs;

  const happen = (event: BarEvent) => {
    const applied = apply(state, event, book);
    if (!applied.ok) throw new Error(`${event.type} refused: ${applied.refusal.reason}`);
    state = applied.state;
    events.push(event);
  };
  const replan = () => {
    const before = plan ?? undefined;
    const { problem } = buildProblem(state, bench, book, Math.ceil(nowMs / 1000), before);
    plan = problem.brews.length > 0 ? planner(problem, before) : null;
  };

  const sayOf = (item: AgendaItem, name: string | undefined, pair?: Pair) => {
    const targetG = item.asks === 'finish' ? item.step.targetG : undefined;
    return {
      ...(targetG === undefined ? {} : { readingG: targetG + Math.round((random() - 0.4) * 3) }),
      ...(name === undefined ? {} : { by: name }),
      ...(pair === undefined ? {} : { pair }),
    };
  };
  const beginsMs = (item: AgendaItem) =>
    Math.ceil(Math.max(nowMs, item.dueMs + (item.asks === 'cue' ? 1000 * cueOffS(item) : 0)));
  const takes = (item: AgendaItem, startMs: number) =>
    item.asks === 'start' || item.asks === 'cue' ? 0 : lengthMs(item, startMs, random);

  if (setUp.bySecond !== undefined) {
    livePairs({
      items: () => agenda(state, bench, book, plan, nowMs),
      own: (items, pair) => forHands(items, plan, pair),
      nowMs: () => nowMs,
      wait: (atMs) => void (nowMs = Math.max(nowMs, atMs)),
      untilMs,
      nextOrderMs: () => coming[0]?.atMs ?? Infinity,
      takeOrder: () => {
        happen(coming.shift()!);
        replan();
      },
      beginsMs,
      takes,
      done: (item, pair) => {
        const name = pair === 0 ? by : setUp.bySecond;
        for (const event of tapEvents(item, bench, nowMs, newId, sayOf(item, name, pair))) happen(event);
        replan();
      },
    });
    return { events, state, plan };
  }

  while (nowMs < untilMs) {
    const item = agenda(state, bench, book, plan, nowMs)[0];
    // The bar's clock knows whole milliseconds.
    const startMs = item ? beginsMs(item) : Infinity;
    const nextOrder = coming[0];
    if (nextOrder && nextOrder.atMs <= startMs) {
      coming.shift();
      nowMs = Math.max(nowMs, nextOrder.atMs);
      happen(nextOrder);
      replan();
      continue;
    }
    if (!item) break;
    nowMs = startMs + takes(item, startMs);
    if (nowMs >= untilMs) break;
    for (const event of tapEvents(item, bench, nowMs, newId, sayOf(item, by))) happen(event);
    if (!setUp.plannedOnce) replan();
  }
  return { events, state, plan };
}

/** A step that runs by the clock takes what is left of it; a hand takes its usual time, give or take a tenth. */
function lengthMs(item: AgendaItem, startMs: number, random: () => number): number {
  const usualMs = item.step.durationS * 1000;
  if (item.asks === 'runs') return Math.max(0, item.dueMs + usualMs - startMs) + 1;
  const leftMs = item.begunMs === null ? usualMs : Math.max(0, item.begunMs + usualMs - startMs);
  return Math.round(leftMs * (0.95 + random() * 0.15));
}
