/**
 * Two people on one bar: which pair of hands a step falls to.
 */
import { isPair, type Pair } from '../brew';
import type { AgendaItem } from './agenda';
import type { Plan } from './problem';

/** What a device shows: one pair's steps, or all. */
export type Hands = 'all' | Pair;

/** The pair that a step falls to: the one that took it over, else the plan's; the first where neither says. */
export function pairOf(
  { key, brew, step }: Pick<AgendaItem, 'key' | 'brew' | 'step'>,
  plan: Pick<Plan, 'hands'> | null,
): Pair {
  const planned = plan?.hands[key];
  return brew?.takenBy?.[step.id] ?? (isPair(planned) ? planned : 0);
}

/** What one pair of hands has ahead, in order. */
export const forHands = (items: AgendaItem[], plan: Plan | null, hands: Hands): AgendaItem[] =>
  hands === 'all' ? items : items.filter((item) => pairOf(item, plan) === hands);
