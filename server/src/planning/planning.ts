/**
 * Keeps the bar planned. Every event starts a plan at once. When nothing has happened for a while, a better plan is
 * searched for, and taken only if the gain is worth a change for the people at the bar.
 */
import {
  agenda,
  buildProblem,
  behindOf,
  movesBetween,
  roughFinish,
  worthTaking,
  type Bench,
  type Plan,
  type PlanProblem,
} from '@even-kettle/core/plan';
import type { BarState } from '@even-kettle/core/brew';
import type { PublishedPlan } from '@even-kettle/core/contract';
import type { RecipeBook } from '@even-kettle/core/recipe';
import type { Solver } from './solver';

type Sources = {
  state: () => BarState;
  seq: () => number;
  bench: () => Bench;
  book: RecipeBook;
  nowMs: () => number;
  /** How fast bar time runs: a plan must be ready before its first step is due. */
  rate: number;
};

export type Because = PublishedPlan['because'];

export type Planning = {
  current: () => PublishedPlan | null;
  /** The problem that the current plan answers; null if there is nothing to plan. */
  problem: () => PlanProblem | null;
  /** False after a planning round failed, until one succeeds. */
  healthy: () => boolean;
  /** For the health page: how many plans were published, and how many of them moved a step of the next 90 s. */
  calm: () => { plans: number; changes: number };
  /**
   * Tells it that something has changed. Resolves when the bar is planned with the change.
   * @param urged whether somebody asked for another turn of the orders: they get the best that can be found
   */
  replan: (because: Because, urged?: boolean) => Promise<void>;
  /** Plans again if the bar has fallen behind its plan. */
  followTime: () => Promise<void>;
  close: () => void;
};

/** How long to search for a plan after an event, and when nothing happens, real milliseconds. */
const AT_ONCE_MS = 60;
const QUIET_MS = 1500;
/** How long nothing must happen before a better plan is searched for, real milliseconds; and how often after each change, where each look brings something. */
const STILL_MS = 300;
const QUIET_LOOKS = 4;
/** How soon a round that failed is tried again, and how seldom at last, real milliseconds. */
const AGAIN_MS = 1000;
const SELDOM_MS = 60_000;

// eslint-disable-next-line max-lines-per-function -- the plan that stands is shared by its short functions
export function startPlanning(
  sources: Sources,
  solver: Solver,
  publish: (planned: PublishedPlan) => void,
  warn: (error: unknown) => void,
): Planning {
  let current: PublishedPlan | null = null;
  let problem: PlanProblem | null = null;
  let healthy = true;
  let running: Promise<void> | null = null;
  let again: Because | null = null;
  let quietLooks = 0;
  /** Somebody has asked for another turn, and the search that answers it has not come to its end. */
  let unanswered = false;
  let still: NodeJS.Timeout | undefined;
  let retry: NodeJS.Timeout | undefined;
  let failures = 0;
  let closed = false;
  let followed = '';
  const calm = { plans: 0, changes: 0 };
  // A machine needs no longer for its plan where time runs slower.
  const rate = Math.max(1, sources.rate);

  const build = () =>
    buildProblem(
      sources.state(),
      sources.bench(),
      sources.book,
      Math.ceil(sources.nowMs() / 1000),
      current?.plan ?? undefined,
    );

  const take = (
    asked: PlanProblem,
    plan: Plan | null,
    because: Because,
    rest: Omit<PublishedPlan, 'version' | 'plan' | 'moves' | 'because'>,
  ) => {
    const moves = plan && current?.plan ? movesBetween(current.plan, plan, asked) : [];
    problem = plan ? asked : null;
    current = { version: (current?.version ?? 0) + 1, plan, moves, because, ...rest };
    calm.plans += 1;
    if (moves.length > 0) calm.changes += 1;
    publish(current);
  };

  const round = async (because: Because) => {
    const seq = sources.seq();
    const built = build();
    const { problem: asked, unplannable } = built;
    if (asked.brews.length === 0) return take(asked, null, because, { seq, unplannable, rough: {} });
    const solved = await solver.solve(asked, current?.plan ?? null, AT_ONCE_MS / rate);
    if (solved)
      take(asked, solved.plan, because, { seq, unplannable, rough: roughFinish(built, solved.plan) });
  };
  const rounds = async (because: Because) => {
    let reason: Because | null = because;
    while (reason !== null) {
      again = null;
      try {
        await round(reason);
        healthy = true;
        failures = 0;
      } catch (error) {
        // The last plan stays in use: people can work without a newer one.
        healthy = false;
        failures += 1;
        warn(error);
      }
      reason = again;
    }
    running = null;
    if (healthy) lookLater();
    else tryAgain(because);
  };
  /** What happened is planned, also where nothing happens after it. */
  const tryAgain = (because: Because) => {
    if (closed) return;
    const waitMs = Math.min(SELDOM_MS, AGAIN_MS * 2 ** (failures - 1));
    retry = setTimeout(() => void replan(because), waitMs / rate);
    retry.unref();
  };
  const lookLater = () => {
    clearTimeout(still);
    if (closed || quietLooks >= QUIET_LOOKS) return;
    still = setTimeout(() => void look().catch(warn).finally(lookLater), STILL_MS / rate);
    still.unref();
  };

  /** The steps with which the bar is behind its plan, and the number of the last event then; null if it is not behind. */
  const behindNow = (): string | null => {
    const plan = current?.plan;
    if (!plan) return null;
    const nowMs = sources.nowMs();
    const items = agenda(sources.state(), sources.bench(), sources.book, plan, nowMs);
    const behind = behindOf(items, plan, nowMs);
    return behind.length === 0 ? null : `${sources.seq()} ${behind.join(' ')}`;
  };

  const replan = (because: Because, urged = false) => {
    clearTimeout(retry);
    quietLooks = 0;
    unanswered ||= urged;
    if (running) again ??= because;
    else running = rounds(because);
    return running;
  };

  /** Searches for a better plan of the present state; used only if nothing happens meanwhile. */
  const look = async () => {
    quietLooks += 1;
    const stood = current;
    const built = build();
    const { problem: asked, unplannable } = built;
    if (running || !stood?.plan || asked.brews.length === 0) return;
    const solved = await solver.solve(asked, stood.plan, QUIET_MS / rate);
    if (!solved || running || current !== stood) return;
    if (!worthTaking(solved.standsCost, solved.cost, unanswered)) {
      // The same search of the same plan would find as little; the machine rests until something happens.
      quietLooks = QUIET_LOOKS;
    } else
      take(asked, solved.plan, 'better', {
        seq: stood.seq,
        unplannable,
        rough: roughFinish(built, solved.plan),
      });
    if (quietLooks >= QUIET_LOOKS) unanswered = false;
  };

  return {
    current: () => current,
    problem: () => problem,
    healthy: () => healthy,
    calm: () => ({ ...calm }),
    replan,
    followTime: async () => {
      const behind = behindNow();
      // The bar is behind and was planned already: planning again some seconds later would give the same plan.
      if (running || behind === null || behind === followed) return;
      await replan('late');
      followed = behindNow() ?? '';
    },
    close: () => {
      closed = true;
      clearTimeout(still);
      clearTimeout(retry);
    },
  };
}
