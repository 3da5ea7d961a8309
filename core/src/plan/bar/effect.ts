/**
 * What a change of an order would do to the times of all of them, before it is done. Answered by planning with it.
 */
import { apply, isOpen, type BarEvent } from '../../brew';
import { NO_TIME, problemOf, shiftsBetween, solveWhole, type OrderDelay, type Standing } from './quote';
import { ImpossibleProblem, NoValidPlan, type Plan } from '../solver';

/** An order's time with the change and without it, seconds of bar time; null where it is not out any more, or not yet there. */
export type OrderTimes = { orderId: string; beforeS: number | null; afterS: number | null };

export type Effect =
  | { ok: true; changed: OrderTimes[]; shifts: OrderDelay[] }
  /** Why it cannot be done, or cannot be planned. */
  | { ok: false; reason: string };

/** Moves for the answer: within a tenth of a second for a dozen brews. */
const EFFECT_MOVES = 80;

/**
 * @param base the plan without the change, as `standingPlan` gives it
 * @param events what would be said, all of it at once
 */
export function effectOf(standing: Standing, base: Plan | null, events: readonly BarEvent[]): Effect {
  let { state } = standing;
  for (const event of events) {
    const applied = apply(state, event, standing.book);
    if (!applied.ok) return { ok: false, reason: applied.refusal.reason };
    state = applied.state;
  }
  const asked = problemOf({ ...standing, state });
  // A cup that could not be brewed before is no fault of this change.
  const before = new Set(problemOf(standing).unplannable.map(({ cupId }) => cupId));
  const cannot = asked.unplannable.find(({ cupId }) => !before.has(cupId));
  if (cannot) return { ok: false, reason: cannot.reason };
  let plan: Plan | null = null;
  try {
    plan = asked.problem.brews.length > 0 ? solveWhole(asked, base, EFFECT_MOVES) : null;
  } catch (error) {
    if (error instanceof NoValidPlan || error instanceof ImpossibleProblem)
      return { ok: false, reason: NO_TIME };
    throw error;
  }
  const touched = new Set(
    events.flatMap((event) => {
      // Of a brew that is stopped it is the order that it is for.
      const brewed = 'brewId' in event ? standing.state.brews[event.brewId]?.orderId : undefined;
      return [
        ...('orderId' in event ? [event.orderId] : []),
        ...('toOrderId' in event ? [event.toOrderId] : []),
        ...(brewed === undefined ? [] : [brewed]),
      ];
    }),
  );
  const timeOf = (of: typeof state, by: Plan | null, orderId: string) =>
    of.orders[orderId] && isOpen(of.orders[orderId]) ? (by?.finish[orderId] ?? null) : null;
  return {
    ok: true,
    changed: [...touched].map((orderId) => ({
      orderId,
      beforeS: timeOf(standing.state, base, orderId),
      afterS: timeOf(state, plan, orderId),
    })),
    shifts: plan ? shiftsBetween(base, plan).filter(({ orderId }) => !touched.has(orderId)) : [],
  };
}
