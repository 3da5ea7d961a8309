/**
 * Keeps the bar planned. What happens asks for a plan at once; when it has been quiet for a while a better one is
 * looked for, and taken only if it is worth a change of mind.
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
  /** How fast bar time runs: a plan must be there before its first step is due. */
  rate: number;
};

export type Because = PublishedPlan['because'];

export type Planning = {
  current: () => PublishedPlan | null;
  /** The problem that the current plan answers; null where nothing is to be planned. */
  problem: () => PlanProblem | null;
  /** False after a round that failed, until one succeeds. */
  healthy: () => boolean;
  /** How calm it has been: plans published, and of them those that moved a step of the next minute and a half. */
  calm: () => { plans: number; changes: number };
  /** Says that something has changed. Resolves when the bar is planned as it then stands. */
  replan: (because: Because) => Promise<void>;
  /** Plans again where the bar has fallen behind. */
  followTime: () => Promise<void>;
  close: () => void;
};

/** How long is looked for a plan when something has happened, and in a quiet moment, real milliseconds. */
const AT_ONCE_MS = 60;
const QUIET_MS = 1500;
/** It is quiet when nothing has happened for so long, real milliseconds; after a change it is looked so often, and then no more. */
const STILL_MS = 300;
const QUIET_LOOKS = 4;

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
  let still: NodeJS.Timeout | undefined;
  let closed = false;
  let followed = '';
  const calm = { plans: 0, changes: 0 };

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
    const solved = await solver.solve(asked, current?.plan ?? null, AT_ONCE_MS / sources.rate);
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
      } catch (error) {
        // The plan that stood goes on standing; the bar can be worked without a newer one.
        healthy = false;
        warn(error);
      }
      reason = again;
    }
    running = null;
    lookLater();
  };
  const lookLater = () => {
    clearTimeout(still);
    if (closed || quietLooks >= QUIET_LOOKS) return;
    still = setTimeout(() => void look().catch(warn).finally(lookLater), STILL_MS / sources.rate);
    still.unref();
  };

  /** With which steps the bar is behind its plan, and what has happened by then; null where it is not. */
  const behindNow = (): string | null => {
    const plan = current?.plan;
    if (!plan) return null;
    const nowMs = sources.nowMs();
    const items = agenda(sources.state(), sources.bench(), sources.book, plan, nowMs);
    const behind = behindOf(items, plan, nowMs);
    return behind.length === 0 ? null : `${sources.seq()} ${behind.join(' ')}`;
  };

  const replan = (because: Because) => {
    quietLooks = 0;
    if (running) again ??= because;
    else running = rounds(because);
    return running;
  };

  /** A better plan of the bar as it stands, if one is found and nothing happens meanwhile. */
  const look = async () => {
    quietLooks += 1;
    const stood = current;
    const built = build();
    const { problem: asked, unplannable } = built;
    if (running || !stood?.plan || asked.brews.length === 0) return;
    const solved = await solver.solve(asked, stood.plan, QUIET_MS / sources.rate);
    if (!solved || running || current !== stood || !worthTaking(solved.standsCost, solved.cost)) return;
    take(asked, solved.plan, 'better', {
      seq: stood.seq,
      unplannable,
      rough: roughFinish(built, solved.plan),
    });
  };

  return {
    current: () => current,
    problem: () => problem,
    healthy: () => healthy,
    calm: () => ({ ...calm }),
    replan,
    followTime: async () => {
      const behind = behindNow();
      // Fallen behind, it is planned once: the same bar, later by some seconds, gives no other plan.
      if (running || behind === null || behind === followed) return;
      await replan('late');
      followed = behindNow() ?? '';
    },
    close: () => {
      closed = true;
      clearTimeout(still);
    },
  };
}
