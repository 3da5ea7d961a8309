/**
 * How calm a plan is: what of the next steps a new plan has at another time than the one before. It is shown, never
 * done silently.
 */
import type { Plan, PlanProblem } from '../solver';

/** A step that was to be done soon and is planned elsewhere; `fromS` null where it was not planned yet. */
export type PlanMove = {
  step: string;
  fromS: number | null;
  toS: number;
  relaxed: boolean;
  /** Where a card counted it down already: the pair whose card that was, and the pair that it goes to. */
  pairs?: { from: number; to: number } | undefined;
};

/** Steps that were, or are, to start within this are what a person is getting ready for, seconds. */
const SOON_S = 90;
/** Less than this nobody sees, seconds. */
const SEEN_S = 5;

/** The attended steps within the next minute and a half that are planned otherwise than before, or for other hands; soonest first. */
export function movesBetween(before: Plan, after: Plan, problem: PlanProblem): PlanMove[] {
  const soon = (at: number) => at >= problem.now && at <= problem.now + SOON_S;
  const relaxed = new Set(after.relaxed.map(({ step }) => step));
  return Object.keys(after.hands)
    .filter((step) => !(step in problem.started))
    .flatMap((step) => {
      const fromS = before.starts[step];
      const toS = after.starts[step]!;
      const [from, to] = [problem.countedHands?.[step], after.hands[step]!];
      if (fromS !== undefined && from !== undefined && from !== to)
        return [{ step, fromS, toS, relaxed: relaxed.has(step), pairs: { from, to } }];
      // A brew that is new in the plan moves nothing; what it moves is seen in the others.
      if (fromS === undefined || Math.abs(toS - fromS) < SEEN_S) return [];
      // What was overdue comes later because it has not come: that is lateness, not a change of mind.
      if (fromS < problem.now || (!soon(fromS) && !soon(toS))) return [];
      return [{ step, fromS, toS, relaxed: relaxed.has(step) }];
    })
    .sort((a, b) => a.toS - b.toS);
}

/** A plan found in a quiet moment is worth a change of mind from this much better on: seconds of waiting, and its share. */
const WORTH_COST = 30;
const WORTH_SHARE = 0.02;

/**
 * Whether a better plan is enough better to be taken, though nothing on the bar asks for it.
 * @param urged whether somebody has asked for another turn since the plan was made: what was said to them is to come, also
 *   where the rest of the bar waits so long that its share of the cost is large
 */
export const worthTaking = (standsCost: number, betterCost: number, urged = false): boolean =>
  standsCost - betterCost >= (urged ? 1 : Math.max(WORTH_COST, WORTH_SHARE * standsCost));
