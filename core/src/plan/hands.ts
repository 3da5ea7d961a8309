/**
 * Two people on one bar: which pair of hands a step falls to.
 */
import type { AgendaItem } from './agenda';
import type { Plan } from './problem';

/** What a device shows: one pair's steps, or all. */
export type Hands = 'all' | 1 | 2;

/** The pair that a step falls to: the one that took it over, else the plan's. */
export const handsOf = (item: Pick<AgendaItem, 'key' | 'brew' | 'step'>, plan: Plan | null): number =>
  item.brew?.takenBy?.[item.step.id] ?? plan?.hands[item.key] ?? 1;

/** What one pair of hands has ahead, in order. */
export const forHands = (items: AgendaItem[], plan: Plan | null, hands: Hands): AgendaItem[] =>
  hands === 'all' ? items : items.filter((item) => handsOf(item, plan) === hands);
