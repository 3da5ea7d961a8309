/**
 * Two people on one bar: which pair of hands a step falls to.
 */
import { isPair, type Pair } from '../../brew';
import type { AgendaItem } from './agenda';
import type { PlanMove } from './moves';
import type { Plan } from '../solver';

/** What a device shows: one pair's steps, or all. */
export type Hands = 'all' | Pair;

type Step = Pick<AgendaItem, 'key' | 'brew' | 'step'>;

/** The pair that a step falls to: the one that took it over, or stands at it; else the plan's; the first where neither says. */
export function pairOf(item: Step, plan: Pick<Plan, 'hands'> | null): Pair {
  const { key, brew, step } = item;
  const planned = plan?.hands[key];
  return brew?.takenBy?.[step.id] ?? standingAt(item) ?? (isPair(planned) ? planned : 0);
}

/** A swirl begins by itself as its pour ends: it is done by the hands that poured, and takes no other pair out of its work. */
function standingAt({ brew, step }: Step): Pair | undefined {
  if (!brew || step.end !== 'clock' || step.lag.idealS > 0) return undefined;
  const { steps } = brew.card;
  const before = steps[steps.findIndex(({ id }) => id === step.id) - 1];
  return before?.attended ? brew.takenBy?.[before.id] : undefined;
}

/** For the tap on a card: whose hands it was. None where there is one pair. */
export const byHands = (item: Step, plan: Plan | null, hands: Hands, pairs: number): { pair?: Pair } =>
  pairs < 2 ? {} : { pair: hands === 'all' ? pairOf(item, plan) : hands };

/** What one pair of hands has ahead, in order. */
export const forHands = (items: AgendaItem[], plan: Plan | null, hands: Hands): AgendaItem[] =>
  hands === 'all' ? items : items.filter((item) => pairOf(item, plan) === hands);

/** Why a card asks for a step that nobody looked for there a moment ago. */
export type CardReason =
  /** It spoils sooner than what the card asked for. */
  | { why: 'spoils'; instead: string }
  /** The other pair is not free in time for it. */
  | { why: 'from'; pair: number; step: string }
  /** What this card counted down is done by the other pair. */
  | { why: 'to'; pair: number; step: string };

/**
 * @param moves of the latest change of plan, while that is fresh
 * @param hands whose card it is
 */
export function reasonOf(item: AgendaItem, moves: readonly PlanMove[], hands: Hands): CardReason | null {
  if (item.goesBefore !== undefined) return { why: 'spoils', instead: item.goesBefore };
  const passed = moves.flatMap(({ step, pairs }) => (pairs ? [{ step, ...pairs }] : []));
  const came = passed.find(({ step, to }) => step === item.key && to === hands);
  if (came) return { why: 'from', pair: came.from, step: came.step };
  const gone = passed.find(({ step, from }) => step !== item.key && from === hands);
  return gone ? { why: 'to', pair: gone.to, step: gone.step } : null;
}
