/**
 * Keeps the bar planned: one problem at a time is solved, and what happens meanwhile asks for one more round, not many.
 */
import { agenda, buildProblem, isBehind, type Bench, type Plan } from '@even-kettle/core/plan';
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
};

export type Planning = {
  current: () => PublishedPlan | null;
  /** False after a round that failed, until one succeeds. */
  healthy: () => boolean;
  /** Says that something has changed. Resolves when the bar is planned as it then stands. */
  replan: () => Promise<void>;
  /** Plans again where the bar has fallen behind: a late step moves what comes after it, though nobody taps. */
  followTime: () => void;
};

export function startPlanning(
  sources: Sources,
  solver: Solver,
  publish: (planned: PublishedPlan) => void,
  warn: (error: unknown) => void,
): Planning {
  let current: PublishedPlan | null = null;
  let healthy = true;
  let running: Promise<void> | null = null;
  let again = false;

  const round = async () => {
    const seq = sources.seq();
    const before = current?.plan ?? undefined;
    const { problem, unplannable } = buildProblem(
      sources.state(),
      sources.bench(),
      sources.book,
      Math.ceil(sources.nowMs() / 1000),
      before,
    );
    const plan: Plan | null = problem.brews.length > 0 ? await solver.solve(problem) : null;
    current = { version: (current?.version ?? 0) + 1, seq, plan, unplannable };
    publish(current);
  };
  const rounds = async () => {
    do {
      again = false;
      try {
        await round();
        healthy = true;
      } catch (error) {
        // The plan that stood goes on standing; the bar can be worked without a newer one.
        healthy = false;
        warn(error);
      }
    } while (again);
    running = null;
  };

  const replan = () => {
    if (running) again = true;
    else running = rounds();
    return running;
  };

  return {
    current: () => current,
    healthy: () => healthy,
    replan,
    followTime: () => {
      const plan = current?.plan;
      if (running || !plan) return;
      const nowMs = sources.nowMs();
      const items = agenda(sources.state(), sources.bench(), sources.book, plan, nowMs);
      if (isBehind(items, plan, nowMs)) void replan();
    },
  };
}
